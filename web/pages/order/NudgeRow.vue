<script setup lang="ts">
/** A number of a recipe, moved inside what the machine has by steps of five or its own, or left to the machine. */
import Checkbox from 'primevue/checkbox';
import { computed } from 'vue';
import type { Range } from '../../../core/layout/cutter';
import { onOwnStep, ownStep, stepSize } from '../../../core/layout/ownSteps';

const props = defineProps<{
  label: string;
  unit: string;
  value: number | null;
  /** What it begins with when it is not left to the machine any more. */
  usual: number;
  range: Range;
  /** Digits behind the point that it is kept with. */
  digits: number;
}>();
const emit = defineEmits<{ change: [value: number | null] }>();
const STEP = 5;
const by = computed(() => Math.max(stepSize(props.range) ?? STEP, 10 ** -props.digits));
const within = (value: number): number => onOwnStep(props.range, value, props.digits);
const step = computed(() => (props.value === null ? undefined : ownStep(props.range, props.value)));
</script>

<template>
  <div class="row">
    <span>{{ label }}</span>
    <span v-if="value !== null" class="nudge">
      <button :aria-label="`Less ${label.toLowerCase()}`" @click="emit('change', within(value - by))">
        −
      </button>
      <b class="number">{{ value }} {{ unit }}</b>
      <button :aria-label="`More ${label.toLowerCase()}`" @click="emit('change', within(value + by))">
        +
      </button>
    </span>
    <b v-else>as set at the machine</b>
  </div>
  <p v-if="step !== undefined" class="hint step">step {{ step }} of {{ range.steps }} on its panel</p>
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
.step {
  margin: 0;
  text-align: right;
}
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
