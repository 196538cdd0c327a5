<script setup lang="ts">
/** Film week by week, by what became of it. */
import { useElementSize } from '@vueuse/core';
import { scaleBand, scaleLinear } from 'd3-scale';
import { computed, ref } from 'vue';
import type { Usage } from '../../../contracts/usage';
import { largest } from '../../../core/geometry/lists';
import { dayText, noonOf } from '../../parts/dayText';
import { useUnits } from '../../stores/units';
import ColourLegend from './ColourLegend.vue';
import { NO_FILM, PARTS, partsOf } from './parts';

const props = defineProps<{ weeks: Usage['byWeek']; mondays: readonly string[] }>();
const units = useUnits();
const box = ref<HTMLElement>();
const { width, height } = useElementSize(box);

const [LEFT, HEAD, FOOT] = [72, 22, 24];
const bars = computed(() =>
  props.mondays.map((monday) => {
    const week = props.weeks.find((one) => one.monday === monday) ?? { ...NO_FILM, monday };
    return { monday, used: week.used, parts: partsOf(week) };
  }),
);
/** mm: an empty chart has an axis too */
const LEAST = 1000;
const y = computed(
  () =>
  scaleLinear([0, largest(bars.value.map(({ used }) => used), LEAST)], [height.value - FOOT, HEAD]).nice(4), // prettier-ignore
);
const x = computed(() =>
  scaleBand([...props.mondays], [LEFT, width.value])
    .paddingInner(0.42)
    .paddingOuter(0.3),
);
const piled = computed(() =>
  bars.value.map(({ parts, ...bar }) => {
    let below = 0;
    const pile = PARTS.map(({ key, colour }) => {
      const from = below;
      below += parts[key];
      return { key, colour, from, to: below };
    });
    return { ...bar, pile };
  }),
);
const dayOf = (monday: string): string => dayText(noonOf(monday));
/** So many weeks from one label to the next that none lies on another. */
const every = computed(() => Math.max(1, Math.ceil(58 / Math.max(1, x.value.step()))));
const says = ({ monday, used, parts }: (typeof bars.value)[number]): string =>
  `Week of ${dayOf(monday)}: ${units.run(used)}, ${PARTS.map(({ key, says: what }) => `${units.run(parts[key])} ${what}`).join(', ')}`;
</script>

<template>
  <figure>
    <div ref="box" class="box">
      <svg
        v-if="width > 0"
        :width="width"
        :height="height"
        role="img"
        :aria-label="bars.map(says).join('. ')"
      >
        <g v-for="tick in y.ticks(4)" :key="tick">
          <line class="grid" :x1="LEFT" :x2="width" :y1="y(tick)" :y2="y(tick)" />
          <text class="tick" :x="LEFT - 8" :y="y(tick) + 4" text-anchor="end">{{ units.run(tick) }}</text>
        </g>
        <g v-for="(bar, i) in piled" :key="bar.monday">
          <title>{{ says(bars[i]) }}</title>
          <rect
            v-for="part in bar.pile"
            :key="part.key"
            :fill="part.colour"
            :x="x(bar.monday)"
            :width="x.bandwidth()"
            :y="y(part.to)"
            :height="Math.max(0, y(part.from) - y(part.to))"
          />
          <text
            v-if="bar.used > 0 && x.bandwidth() > 34"
            class="sum"
            :x="x(bar.monday)! + x.bandwidth() / 2"
            :y="y(bar.used) - 6"
          >
            {{ units.run(bar.used) }}
          </text>
          <text
            v-if="i % every === 0"
            class="tick"
            :x="x(bar.monday)! + x.bandwidth() / 2"
            :y="height - 6"
            text-anchor="middle"
          >
            {{ dayOf(bar.monday) }}
          </text>
        </g>
      </svg>
    </div>
    <ColourLegend :of="PARTS" />
  </figure>
</template>

<style scoped>
figure {
  display: grid;
  grid-template-rows: 1fr auto;
  gap: 6px;
  min-height: 0;
  margin: 0;
}
.box {
  min-height: clamp(190px, 34vh, 320px);
  overflow: hidden;
}
svg {
  display: block;
}
.grid {
  stroke: var(--rule-soft);
}
.tick {
  font: 12px var(--numbers);
  fill: var(--ink-soft);
}
.sum {
  font: 700 12.5px var(--numbers);
  fill: var(--ink);
  text-anchor: middle;
}
</style>
