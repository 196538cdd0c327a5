<script setup lang="ts">
/** The distance between two points, drawn to nodes, middles and edges, in mm and in inches at once. */
import { computed, ref } from 'vue';
import type { Snapped } from '../../../../core/artwork/pick';
import { formatLength } from '../../../../core/units/length';
import { useOrder } from '../../../stores/order';
import type { Viewport } from '../../../stage/viewport';

interface End {
  readonly x: number;
  readonly y: number;
  readonly to?: Snapped['to'];
}

const props = defineProps<{ at: Viewport }>();
const store = useOrder();
const ends = ref<readonly End[]>([]);
const hover = ref<End>();
/** px within which a point is drawn to something exact */
const REACH = 9;

async function exact(at: { x: number; y: number }): Promise<End> {
  const hit = await store.snap(at.x, at.y, REACH / props.at.scale);
  return hit ? { x: hit.at[0], y: hit.at[1], to: hit.to } : at;
}
async function tap(at: { x: number; y: number }): Promise<void> {
  const end = await exact(at);
  ends.value = ends.value.length === 1 ? [ends.value[0], end] : [end];
}
let asked = 0;
async function point(at: { x: number; y: number } | undefined): Promise<void> {
  const mine = ++asked;
  const end = at && (await exact(at));
  if (mine === asked) hover.value = end;
}
defineExpose({ tap, point });

const line = computed(() => {
  const [a] = ends.value;
  const b = ends.value[1] ?? hover.value;
  return a && b ? { a, b } : undefined;
});
const px = (end: End): { x: number; y: number } => ({
  x: props.at.x + end.x * props.at.scale,
  y: props.at.y + end.y * props.at.scale,
});
const both = (mm: number): string => `${formatLength(mm, 'mm')} · ${formatLength(mm, 'in')}`;
const says = computed(() => {
  if (!line.value) return undefined;
  const { a, b } = line.value;
  const [dx, dy] = [b.x - a.x, b.y - a.y];
  return {
    whole: both(Math.hypot(dx, dy)),
    across: both(Math.abs(dx)),
    down: both(Math.abs(dy)),
    turn: `${((Math.atan2(-dy, dx) * 180) / Math.PI).toFixed(1)}°`,
  };
});
</script>

<template>
  <svg class="lines" width="100%" height="100%" aria-hidden="true">
    <g v-if="line" fill="none" stroke="var(--damson)" stroke-width="1.6">
      <path :d="`M${px(line.a).x} ${px(line.a).y}L${px(line.b).x} ${px(line.b).y}`" />
      <circle v-for="(end, i) in [line.a, line.b]" :key="i" :cx="px(end).x" :cy="px(end).y" r="4" />
    </g>
    <rect
      v-if="hover?.to"
      :x="px(hover).x - 5"
      :y="px(hover).y - 5"
      width="10"
      height="10"
      fill="none"
      stroke="var(--bilberry)"
      stroke-width="1.5"
    />
  </svg>
  <div class="says" role="status">
    <template v-if="says">
      <b class="number">{{ says.whole }}</b>
      <span class="number">across {{ says.across }}</span>
      <span class="number">down {{ says.down }}</span>
      <span class="number">{{ says.turn }}</span>
    </template>
    <span v-else>Click two points. Nodes, middles and edges draw the point to them.</span>
  </div>
</template>

<style scoped>
.lines {
  position: absolute;
  inset: 0;
}
.says {
  position: absolute;
  right: 14px;
  bottom: 12px;
  display: grid;
  gap: 2px;
  padding: 7px 11px;
  font-size: 13.5px;
  background: var(--card);
  border: var(--line) solid var(--damson);
  border-radius: var(--radius-card);
}
</style>
