<script setup lang="ts">
/** Something was taken out of sight a moment ago, and can be brought back at once. */
defineProps<{ says: string }>();
defineEmits<{ undo: []; close: [] }>();
</script>

<template>
  <p class="undo" role="status">
    {{ says }}
    <button class="button small" @click="$emit('undo')">Undo</button>
    <button class="button small" @click="$emit('close')">Close</button>
  </p>
</template>

<style scoped>
.undo {
  position: sticky;
  bottom: 12px;
  display: flex;
  gap: 10px;
  align-items: center;
  align-self: center;
  justify-self: center;
  margin: 0;
  padding: 8px 16px;
  background: var(--card);
  border: var(--line) solid var(--ink);
  border-radius: var(--radius-label);
}
</style>
