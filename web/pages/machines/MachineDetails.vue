<script setup lang="ts">
/** All that a machine's record says: what it takes, what it reaches, how it is spoken to and how it moves. */
import type { MachineEmits, MachineProps } from './change';
import MovesPanel from './MovesPanel.vue';
import ReachPanel from './ReachPanel.vue';
import SpokenPanel from './SpokenPanel.vue';
import TakesPanel from './TakesPanel.vue';

defineProps<MachineProps>();
defineEmits<MachineEmits>();
const PANELS = { TakesPanel, ReachPanel, SpokenPanel, MovesPanel };
</script>

<template>
  <div class="details">
    <component
      :is="panel"
      v-for="(panel, name) in PANELS"
      :key="name"
      :machine="machine"
      @change="$emit('change', $event)"
    />
  </div>
</template>

<style scoped>
.details {
  columns: 2 340px;
  column-gap: 16px;
}
.details :deep(section) {
  display: grid;
  gap: 7px;
  margin-bottom: 16px;
  padding: 14px 16px;
  break-inside: avoid;
  background: var(--card);
  border: var(--line) solid var(--rule);
  border-radius: var(--radius-label);
}
.details :deep(h3) {
  margin: 0 0 2px;
  font-size: 16px;
}
.details :deep(h3:not(:first-child)) {
  margin-top: 8px;
}
.details :deep(.row) {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 10px;
  align-items: center;
  justify-content: space-between;
}
</style>
