<script setup lang="ts">
/** What is asked for on the stage, with its buttons: taps on it are none on the sign. */
defineProps<{ label: string; says: string }>();
</script>

<template>
  <div class="ask" role="group" :aria-label="label" @pointerdown.stop>
    <span role="status">{{ says }}</span>
    <slot />
  </div>
</template>

<style scoped>
.ask :deep(button) {
  flex: none;
}
.ask {
  position: absolute;
  bottom: 12px;
  left: 50%;
  z-index: 4;
  display: flex;
  gap: 9px;
  align-items: center;
  padding: 8px 12px;
  width: max-content;
  max-width: calc(100% - 24px);
  background: var(--card);
  border: var(--line) solid var(--ink);
  border-radius: var(--radius-card);
  transform: translateX(-50%);
}
</style>
