<script setup lang="ts">
/** Along a strip: how much film it takes, and where it is cut off. */
import { computed } from 'vue';
import type { Viewport } from '../../../stage/viewport';
import { useUnits } from '../../../stores/units';
import type { StripView } from '../../../workers/packed';

const { at, strip } = defineProps<{ at: Viewport; strip: StripView }>();
const units = useUnits();
const from = computed(() => at.x);
const to = computed(() => at.x + strip.length * at.scale);
const bottom = computed(() => at.y + strip.roll.width * at.scale);
const y = computed(() => bottom.value + 22);
</script>

<template>
  <svg class="rule" width="100%" height="100%" aria-hidden="true">
    <path :d="`M${from} ${y - 5}v10M${from} ${y}H${to}M${to} ${y - 5}v10`" />
    <text class="number" :x="(from + to) / 2" :y="y + 4.5">{{ units.length(strip.length) }}</text>
    <text class="end" :transform="`translate(${to + 15} ${(at.y + bottom) / 2}) rotate(-90)`">
      cut off at {{ units.run(strip.length) }}
    </text>
  </svg>
</template>

<style scoped>
.rule {
  position: absolute;
  inset: 0;
}
path {
  fill: none;
  stroke: var(--ink-soft);
}
text {
  font-size: 13px;
  fill: var(--ink);
  text-anchor: middle;
  paint-order: stroke;
  stroke: var(--bench);
  stroke-width: 9px;
}
.number {
  font-weight: 650;
}
.end {
  fill: var(--ink-soft);
  stroke-width: 3px;
}
</style>
