<script setup lang="ts">
/** Two fields that belong together, or one with its unit, on one line. */
defineProps<{ label: string; hint?: string }>();
</script>

<template>
  <div class="row">
    <span :title="hint">{{ label }}</span>
    <span class="pair"><slot /></span>
  </div>
</template>

<style scoped>
.pair {
  display: flex;
  gap: 6px;
  align-items: center;
}
.pair :deep(input) {
  width: 7.2em;
}
</style>
