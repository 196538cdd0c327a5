<script setup lang="ts">
/** A machine from above: the widest film it takes, what holds it at its edges, and what the knife reaches. */
import { computed } from 'vue';
import { cuttableWidth } from '../../../core/layout/cutter';
import { useUnits } from '../../stores/units';
import type { MachineProps } from './change';

const props = defineProps<MachineProps>();
const units = useUnits();
/** mm of a roll that are drawn: as much as is wide, or its whole true length when that is less. */
const along = computed(() => {
  const { kind, trackLength, widest } = props.machine;
  return kind === 'flatbed' ? trackLength : Math.min(trackLength, 1.6 * widest);
});
const reached = computed(() => {
  const { margins, widest } = props.machine;
  return {
    x: margins.lead,
    y: margins.far,
    width: Math.max(0, along.value - margins.lead - margins.tail),
    height: Math.max(0, cuttableWidth(props.machine, widest)),
  };
});
/** Middle of what each of them holds, and how much that is, mm. */
const rollers = computed(() => {
  const { margins, widest } = props.machine;
  return [
    [margins.far / 2, margins.far],
    [widest - margins.near / 2, margins.near],
  ] as const;
});
const box = computed(() => `0 0 ${along.value} ${props.machine.widest}`);
const line = computed(() => along.value / 420);
const says = computed(() => {
  const { kind, widest, trackLength } = props.machine;
  const across = cuttableWidth(props.machine, widest);
  if (kind === 'flatbed') return `cuts ${units.number(reached.value.width)} × ${units.length(across)}`;
  return `cuts ${units.length(across)} wide, true for ${units.run(trackLength)}`;
});
</script>

<template>
  <figure>
    <svg :viewBox="box" role="img" :aria-label="`${machine.name} from above: ${says}`">
      <defs>
        <pattern
          id="held"
          :width="line * 6"
          :height="line * 6"
          patternUnits="userSpaceOnUse"
          patternTransform="rotate(45)"
        >
          <rect :width="line" :height="line * 6" fill="var(--rule)" />
        </pattern>
      </defs>
      <rect class="film" :width="along" :height="machine.widest" />
      <rect :width="along" :height="machine.widest" fill="url(#held)" />
      <rect class="reached" v-bind="reached" :stroke-width="line" />
      <template v-if="machine.kind !== 'flatbed'">
        <rect
          v-for="[middle, held] in rollers"
          :key="middle"
          class="roller"
          :x="reached.x"
          :y="middle - held / 3"
          :width="line * 22"
          :height="(held * 2) / 3"
        />
      </template>
      <g class="feed" :stroke-width="line * 1.4">
        <path
          :d="`M${along * 0.42} ${machine.widest / 2}h${along * 0.16}m${-line * 9} ${-line * 7}l${line * 9} ${line * 7}l${-line * 9} ${line * 7}`"
        />
      </g>
    </svg>
    <figcaption class="number">{{ says }}</figcaption>
  </figure>
</template>

<style scoped>
figure {
  margin: 0;
}
svg {
  display: block;
  width: 100%;
  max-height: 230px;
  background: var(--bench);
  border-radius: var(--radius-field);
}
.film {
  fill: var(--card);
}
.reached {
  fill: var(--card);
  stroke: var(--ink);
  stroke-dasharray: 4 3;
  vector-effect: none;
}
.roller {
  fill: var(--ink);
}
.feed {
  fill: none;
  stroke: var(--ink-soft);
}
figcaption {
  margin-top: 5px;
  font-size: 13px;
  color: var(--ink-soft);
}
</style>
