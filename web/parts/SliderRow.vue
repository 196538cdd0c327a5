<script setup lang="ts">
/** A number between two ends, on a line of the run card: `move` while it is dragged, `change` when it is let go. */
import Slider from 'primevue/slider';
import { inject } from 'vue';
import { LOCKED } from './locked';

const props = defineProps<{
  label: string;
  fullLabel?: string;
  value: number;
  min: number;
  max: number;
  step: number;
  /** The number as it is read. */
  says?: string;
}>();
const emit = defineEmits<{ move: [value: number]; change: [value: number] }>();

const locked = inject(LOCKED, undefined);
let latest = props.value;
let isMoved = false;
function move(value: number | number[]): void {
  // steps of a tenth come back with dust behind them
  latest = Number((Math.round((value as number) / props.step) * props.step).toFixed(6));
  isMoved = true;
  emit('move', latest);
}
/** Page keys take ten steps at once. */
function onPageKey(event: KeyboardEvent): void {
  const by = event.key === 'PageUp' ? 10 : event.key === 'PageDown' ? -10 : 0;
  if (by === 0) return;
  event.preventDefault();
  event.stopPropagation();
  move(Math.min(props.max, Math.max(props.min, props.value + by * props.step)));
}
function commit(): void {
  if (isMoved) emit('change', latest);
  isMoved = false;
}
</script>

<template>
  <div class="row">
    <span>{{ label }}</span>
    <Slider
      class="slider"
      :aria-label="fullLabel ?? label"
      :model-value="value"
      :min="min"
      :max="max"
      :step="step"
      :disabled="locked"
      @update:model-value="move"
      @slideend="commit"
      @keydown.capture="onPageKey"
      @keyup="commit"
    />
    <output v-if="says" class="number">{{ says }}</output>
  </div>
</template>

<style scoped>
.slider {
  flex: 1;
  min-width: 60px;
  margin-inline: 8px;
}
output {
  min-width: 4em;
  font-size: 13px;
  text-align: right;
}
</style>
