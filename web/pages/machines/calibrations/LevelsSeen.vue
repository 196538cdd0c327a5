<script setup lang="ts">
/** How much light each mark throws back and the stock beside it, and where a mark begins. */
import { scaleLinear, scalePoint } from 'd3-scale';
import { computed } from 'vue';
import type { MarkLevels } from '../../../../core/calibration/contrast';
import type { RunFound } from '../../../../core/calibration/run';

const props = defineProps<{ levels: readonly MarkLevels[]; found: RunFound | undefined }>();

const [WIDE, LEFT, ROW, HEAD] = [560, 70, 26, 26];
const tall = computed(() => HEAD + ROW * props.levels.length + 8);
const x = scaleLinear([0, 1], [LEFT, WIDE - 26]);
const y = computed(() =>
  scalePoint(
    props.levels.map((_, i) => i),
    [HEAD + ROW / 2, tall.value - ROW / 2],
  ),
);
const threshold = computed(() => props.found?.own[0]);
const percent = (share: number): string => `${Math.round(100 * share)} %`;
const described = ({ bare, contrast }: MarkLevels, i: number): string =>
  `Mark ${i + 1}: ${percent(bare - contrast)}, the stock beside it ${percent(bare)}`;
</script>

<template>
  <figure>
    <svg :viewBox="`0 0 ${WIDE} ${tall}`" role="img" :aria-label="levels.map(described).join('. ')">
      <g v-for="tick in [0, 0.25, 0.5, 0.75, 1]" :key="tick">
        <line class="grid" :x1="x(tick)" :x2="x(tick)" :y1="HEAD - 6" :y2="tall" />
        <text class="tick" :x="x(tick)" y="14" text-anchor="middle">{{ percent(tick) }}</text>
      </g>
      <rect
        v-if="threshold"
        class="sure"
        :x="x(threshold.value - threshold.sure)"
        :width="Math.max(2, x(threshold.value + threshold.sure) - x(threshold.value - threshold.sure))"
        :y="HEAD - 6"
        :height="tall - HEAD + 6"
      />
      <g v-for="(one, i) in levels" :key="i">
        <text class="tick" :x="LEFT - 12" :y="y(i)! + 4" text-anchor="end">Mark {{ i + 1 }}</text>
        <line class="between" :x1="x(one.bare - one.contrast)" :x2="x(one.bare)" :y1="y(i)" :y2="y(i)" />
        <line class="dip" :x1="x(one.bare - one.dip)" :x2="x(one.bare)" :y1="y(i)" :y2="y(i)" />
        <circle class="mark" :cx="x(one.bare - one.contrast)" :cy="y(i)" r="6" />
        <circle class="stock" :cx="x(one.bare)" :cy="y(i)" r="6" />
      </g>
    </svg>
    <figcaption>
      <span><i class="mark" aria-hidden="true"></i>the mark</span>
      <span><i class="stock" aria-hidden="true"></i>the stock</span>
      <span><i class="dip" aria-hidden="true"></i>how dark the stock alone gets</span>
      <span v-if="threshold"><i class="sure" aria-hidden="true"></i>where a mark begins</span>
    </figcaption>
  </figure>
</template>

<style scoped>
figure {
  margin: 0;
  padding: 12px 14px;
  background: var(--card);
  border: var(--line) solid var(--rule);
  border-radius: var(--radius-label);
}
svg {
  display: block;
  width: 100%;
}
.grid {
  stroke: var(--rule);
}
.tick {
  font-size: 12.5px;
  fill: var(--ink-soft);
}
.between {
  stroke: var(--rule);
  stroke-width: 3;
}
svg .dip {
  stroke: var(--quince);
  stroke-width: 5;
}
svg .mark {
  fill: var(--ink);
}
svg .stock {
  fill: var(--card);
  stroke: var(--ink);
  stroke-width: 2;
}
svg .sure {
  fill: var(--damson);
  opacity: 0.55;
}
figcaption {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 18px;
  margin-top: 8px;
  font-size: 13px;
  color: var(--ink-soft);
}
figcaption span {
  display: flex;
  gap: 6px;
  align-items: center;
}
i {
  width: 12px;
  height: 12px;
  border-radius: 50%;
}
i.mark {
  background: var(--ink);
}
i.stock {
  background: var(--card);
  border: 2px solid var(--ink);
}
i.dip {
  height: 5px;
  background: var(--quince);
  border-radius: 0;
}
i.sure {
  width: 4px;
  background: var(--damson);
  border-radius: 0;
}
</style>
