<script setup lang="ts">
/** A number of a recipe, moved in steps of five inside what the machine has, or left to the machine. */
import Checkbox from 'primevue/checkbox';
import type { Range } from '../../../core/layout/cutter';

const props = defineProps<{
  label: string;
  unit: string;
  value: number | null;
  /** What it begins with when it is not left to the machine any more. */
  usual: number;
  range: Range;
}>();
const emit = defineEmits<{ change: [value: number | null] }>();
const within = (value: number): number => Math.min(props.range.most, Math.max(props.range.least, value));
const STEP = 5;
</script>

<template>
  <div class="row">
    <span>{{ label }}</span>
    <span v-if="value !== null" class="nudge">
      <button :aria-label="`Less ${label.toLowerCase()}`" @click="emit('change', within(value - STEP))">
        −
      </button>
      <b class="number">{{ value }} {{ unit }}</b>
      <button :aria-label="`More ${label.toLowerCase()}`" @click="emit('change', within(value + STEP))">
        +
      </button>
    </span>
    <b v-else>as set at the machine</b>
  </div>
  <label class="own hint">
    <Checkbox
      binary
      :model-value="value === null"
      :aria-label="`${label} left to the machine`"
      @update:model-value="emit('change', $event ? null : within(usual))"
    />
    left to the machine
  </label>
</template>

<style scoped>
.nudge {
  display: flex;
  align-items: center;
  gap: 9px;
}
.nudge b {
  min-width: 5.2em;
  text-align: center;
}
.nudge button {
  width: 31px;
  height: 31px;
  font-weight: 700;
  border: var(--line) solid var(--ink);
  border-radius: var(--radius-card);
  background: var(--card);
}
.own {
  display: flex;
  gap: 8px;
  align-items: center;
  min-height: 24px;
}
</style>
