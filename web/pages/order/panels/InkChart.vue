<script setup lang="ts">
/** How much art a straight seam would cut, by its position: under the sign for upright seams, beside it for level ones. */
import { scaleLinear } from 'd3-scale';
import { area } from 'd3-shape';
import { computed } from 'vue';
import type { Bounds } from '../../../../core/geometry/bounds';
import { largest } from '../../../../core/geometry/lists';
import type { Seams } from '../../../../core/panels/seams';
import { useSeams } from '../../../stores/seams';
import { useUnits } from '../../../stores/units';
import type { Viewport } from '../../../stage/viewport';
import type { Axis } from '../../../../core/panels/axis';
import { AXES } from '../../../../core/panels/axis';
import { CHART } from './chartPlace';

const props = defineProps<{ at: Viewport; box: Bounds; seams: Seams }>();
const store = useSeams();
const units = useUnits();
const { tall: TALL, off: OFF, aside: ASIDE } = CHART;

interface Chart {
  readonly axis: Axis;
  readonly d: string;
  readonly transform: string;
  readonly most: number;
}
const charts = computed<Chart[]>(() => {
  const ink = store.offers?.ink;
  if (!ink) return [];
  const { x, y, scale } = props.at;
  return AXES.filter((axis) => axis === 'upright' || props.seams.level.length > 0).map((axis) => {
    const { from, to, at } = ink[axis];
    const most = largest(at, 0);
    const along = scaleLinear([0, at.length - 1], [from * scale, to * scale]);
    const up = scaleLinear([0, most || 1], [0, TALL]);
    const shape = area<number>()
      .x((_, i) => along(i))
      .y0(0)
      .y1((mm) => (axis === 'upright' ? up(mm) : -up(mm)));
    const transform =
      axis === 'upright'
        ? `translate(${x} ${y + props.box.maxY * scale + OFF})`
        : `translate(${x + props.box.maxX * scale + OFF + ASIDE} ${y}) rotate(90)`;
    return { axis, d: shape(at) ?? '', transform, most };
  });
});
</script>

<template>
  <svg class="ink" width="100%" height="100%" aria-hidden="true">
    <path v-for="chart in charts" :key="chart.axis" :d="chart.d" :transform="chart.transform" />
  </svg>
  <span
    v-for="chart in charts.filter((c) => c.axis === 'upright')"
    :key="chart.axis"
    class="says"
    :style="{
      left: `${at.x + box.minX * at.scale}px`,
      top: `${at.y + box.maxY * at.scale + OFF + TALL + 3}px`,
    }"
    >ink a straight seam would cut, at most <b class="number">{{ units.length(chart.most) }}</b></span
  >
</template>

<style scoped>
.ink {
  position: absolute;
  inset: 0;
}
.ink path {
  fill: color-mix(in srgb, var(--damson) 34%, var(--bench));
}
.says {
  position: absolute;
  font-size: 12.5px;
  color: var(--ink-soft);
  white-space: nowrap;
}
</style>
