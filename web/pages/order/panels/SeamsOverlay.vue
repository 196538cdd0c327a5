<script setup lang="ts">
/** Seams over the sign: their lines, what each panel is called, and handles that are dragged or moved by keys. */
import { computed, ref } from 'vue';
import { heightOf, joinBounds, widthOf } from '../../../../core/geometry/bounds';
import { surfaceOnSign } from '../../../../core/panels/surface';
import { arrowStep } from '../../../stage/arrowStep';
import { useOrder } from '../../../stores/order';
import { AXIS_WORDS, useSeams } from '../../../stores/seams';
import { useUnits } from '../../../stores/units';
import type { Viewport } from '../../../stage/viewport';
import type { Axis } from '../../../../core/panels/axis';
import { AXES } from '../../../../core/panels/axis';
import InkChart from './InkChart.vue';
import { CHART } from './chartPlace';
import { snapped } from './snap';
import { stagger } from './stagger';

const props = defineProps<{ at: Viewport; editable: boolean }>();
const store = useOrder();
const seams = useSeams();
const units = useUnits();
const panelling = computed(() => store.plan!.panelling!);
const box = computed(() => panelling.value.box);
/** All that is seen: the ink stands beside it and not on it. */
const around = computed(() => {
  const { width, height } = store.plan!;
  const surface = props.editable ? store.choices?.panels.surface : undefined;
  const sign = joinBounds(box.value, { minX: 0, minY: 0, maxX: width, maxY: height });
  return surface ? joinBounds(sign, surfaceOnSign(surface)) : sign;
});

/** The seam that is being dragged, and where it is now. */
const drag = ref<{ axis: Axis; index: number; from: number; to: number; start: number }>();
interface Line {
  readonly axis: Axis;
  readonly index: number;
  readonly x: number;
  readonly label: string;
}
/** As they are chosen: what is planned comes a moment later. */
const lines = computed<Line[]>(() =>
  AXES.flatMap((axis) =>
    seams.now()[axis].map((x, index) => {
      const { value: held } = drag;
      const now = held?.axis === axis && held.index === index ? held.to : x;
      return { axis, index, x: now, label: `${AXIS_WORDS[axis]} seam ${index + 1}` };
    }),
  ),
);
const px = (x: number): number => props.at.x + x * props.at.scale;
const py = (y: number): number => props.at.y + y * props.at.scale;
/** How far a line stands out over the art, px. */
const OUT = 14;
const pathOf = ({ axis, index, x }: Line): string => {
  const way = panelling.value.seams.ways?.[axis][index];
  if (way && !drag.value) {
    let d = '';
    for (let i = 0; i < way.length; i += 2) d += `${i === 0 ? 'M' : 'L'}${px(way[i])} ${py(way[i + 1])}`;
    return d;
  }
  const { minX, minY, maxX, maxY } = box.value;
  return axis === 'upright'
    ? `M${px(x)} ${py(minY) - OUT}V${py(maxY) + OUT}`
    : `M${px(minX) - OUT} ${py(x)}H${px(maxX) + OUT}`;
};
/** Handles that would lie on one another stand in rows: room for each, px. */
const HANDLE = { upright: 66, level: 27 } as const;
const ROW = { upright: 27, level: 66 } as const;
const rowOf = computed(() => {
  const rows = new Map<string, number>();
  for (const axis of AXES) {
    const own = lines.value.filter((line) => line.axis === axis);
    const at = stagger(
      own.map(({ x }) => x * props.at.scale),
      HANDLE[axis],
    );
    own.forEach(({ label }, i) => rows.set(label, at[i]));
  }
  return rows;
});
function placeOf({ axis, x, label }: Line): Record<string, string> {
  const off = OUT + (rowOf.value.get(label) ?? 0) * ROW[axis];
  return axis === 'upright'
    ? { left: `${px(x)}px`, top: `${py(around.value.minY) - off}px` }
    : { left: `${px(around.value.maxX) + off}px`, top: `${py(x)}px` };
}

/** A seam on the ink chart, to be dragged along it. */
function gripOf({ axis, x }: Line): Record<string, string> {
  const { tall, off, aside } = CHART;
  return axis === 'upright'
    ? { left: `${px(x)}px`, top: `${py(around.value.maxY) + off}px`, height: `${tall}px` }
    : { left: `${px(around.value.maxX) + off + aside}px`, top: `${py(x)}px`, width: `${tall}px` };
}

/** A smaller number cannot be pressed: its panel is in the list all the same, px. */
const SMALLEST = 15;
/** Panels once each, at the middle of what is seen of them. */
const numbers = computed(() => {
  const once = new Map(panelling.value.panels.map((panel) => [panel.number, panel]));
  return [...once.values()].flatMap(({ number, isCut, seen }) => {
    // no larger than its panel is on the screen, so that none lies on another
    const size = Math.min(30, Math.min(widthOf(seen), heightOf(seen)) * props.at.scale - 3);
    if (size < SMALLEST) return [];
    return [{ number, isCut, size, x: (seen.minX + seen.maxX) / 2, y: (seen.minY + seen.maxY) / 2 }];
  });
});

/** Outlines of what is cut whole. */
const pieces = computed(() => {
  const whole = panelling.value.panels.filter(({ isPiece }) => isPiece);
  return [...new Map(whole.map((piece) => [piece.number, piece])).values()];
});

function down(event: PointerEvent, { axis, index, x }: Line): void {
  if (event.button !== 0 || !props.editable) return;
  (event.currentTarget as HTMLElement).setPointerCapture(event.pointerId);
  drag.value = { axis, index, from: x, to: x, start: axis === 'upright' ? event.clientX : event.clientY };
}
function pull(event: PointerEvent): void {
  const held = drag.value;
  if (!held) return;
  const moved = (held.axis === 'upright' ? event.clientX : event.clientY) - held.start;
  const to = held.from + moved / props.at.scale;
  const ink = seams.offers?.ink[held.axis];
  drag.value = { ...held, to: event.altKey ? to : snapped(to, ink, props.at.scale) };
}
function drop(): void {
  const held = drag.value;
  drag.value = undefined;
  if (held && Math.abs(held.to - held.from) > 1e-6) seams.move(held.axis, held.index, held.to);
}
function key(event: KeyboardEvent, { axis, index, x }: Line): void {
  const by = arrowStep(event)?.[axis === 'upright' ? 0 : 1];
  if (event.key === 'Delete' || event.key === 'Backspace') seams.remove(axis, index);
  else if (by) seams.move(axis, index, x + by);
  else return;
  event.preventDefault();
  event.stopPropagation();
}
</script>

<template>
  <svg class="seams" width="100%" height="100%" aria-hidden="true">
    <g :transform="`translate(${at.x} ${at.y}) scale(${at.scale})`" class="waste">
      <path v-for="panel in panelling.panels" :key="panel.id" :d="panel.waste" :stroke-width="1 / at.scale" />
      <rect
        v-for="piece in pieces"
        :key="piece.number"
        :x="piece.seen.minX"
        :y="piece.seen.minY"
        :width="piece.seen.maxX - piece.seen.minX"
        :height="piece.seen.maxY - piece.seen.minY"
        :stroke-width="1.2 / at.scale"
      />
    </g>
    <path v-for="line in lines" :key="line.label" :d="pathOf(line)" class="ground" />
    <path v-for="line in lines" :key="`over ${line.label}`" :d="pathOf(line)" class="line" />
  </svg>
  <template v-if="editable">
    <InkChart :at="at" :box="around" :seams="panelling.seams" />
    <div
      v-for="line in lines"
      :key="`on the ink ${line.label}`"
      class="grip"
      :class="line.axis"
      :style="gripOf(line)"
      aria-hidden="true"
      @pointerdown.stop="down($event, line)"
      @pointermove="pull"
      @pointerup="drop"
      @pointercancel="drag = undefined"
    ></div>
    <button
      v-for="line in lines"
      :key="line.label"
      class="seam"
      :class="line.axis"
      :style="placeOf(line)"
      role="slider"
      :aria-label="`${line.label}: drag it, or move it with the arrow keys`"
      :aria-orientation="line.axis === 'upright' ? 'horizontal' : 'vertical'"
      :aria-valuenow="line.x"
      :aria-valuetext="units.length(line.x)"
      @pointerdown.stop="down($event, line)"
      @pointermove="pull"
      @pointerup="drop"
      @pointercancel="drag = undefined"
      @keydown="key($event, line)"
    >
      <span class="number">{{ units.number(line.x) }}</span>
    </button>
  </template>
  <button
    v-for="panel in numbers"
    :key="panel.number"
    class="panel number"
    :class="{ off: !panel.isCut }"
    :disabled="!editable"
    :style="{
      left: `${px(panel.x)}px`,
      top: `${py(panel.y)}px`,
      minWidth: `${panel.size}px`,
      height: `${panel.size}px`,
      fontSize: `${Math.min(15, panel.size * 0.6)}px`,
    }"
    :aria-label="`Panel ${panel.number}, ${panel.isCut ? 'is cut' : 'is not cut'}`"
    :aria-pressed="panel.isCut"
    @pointerdown.stop
    @click="seams.cut(panel.number, !panel.isCut)"
  >
    {{ panel.number }}
  </button>
</template>

<style scoped>
.seams {
  position: absolute;
  inset: 0;
}
.ground {
  stroke: var(--card);
  stroke-width: 2.6px;
  stroke-opacity: 0.55;
}
.ground,
.line {
  fill: none;
}
.waste {
  fill: none;
  stroke: var(--damson);
}
.waste rect {
  stroke-opacity: 0.5;
}
.line {
  stroke: var(--damson);
  stroke-width: 1.6px;
  stroke-dasharray: 11 3 2 3;
}
.seam {
  position: absolute;
  z-index: 2;
  display: grid;
  place-items: center;
  min-width: 58px;
  height: 24px;
  padding: 0 7px;
  font-size: 12.5px;
  color: var(--card);
  background: var(--damson);
  border: 0;
  border-radius: 99px;
}
.seam.upright {
  cursor: ew-resize;
  transform: translate(-50%, -100%);
}
.seam.level {
  cursor: ns-resize;
  transform: translate(0, -50%);
}
.grip {
  position: absolute;
  z-index: 1;
}
.grip.upright {
  width: 12px;
  cursor: ew-resize;
  background: linear-gradient(90deg, transparent 5px, var(--damson) 5px 7px, transparent 7px);
  transform: translateX(-50%);
}
.grip.level {
  height: 12px;
  cursor: ns-resize;
  background: linear-gradient(transparent 5px, var(--damson) 5px 7px, transparent 7px);
  transform: translateY(-50%);
}
.panel {
  position: absolute;
  display: grid;
  place-items: center;
  padding: 0 3px;
  font-weight: 700;
  color: var(--ink);
  background: var(--card);
  border: var(--line) solid var(--ink);
  border-radius: var(--radius-card);
  transform: translate(-50%, -50%);
}
.panel:disabled {
  opacity: 0.9;
}
.panel.off {
  color: var(--ink-soft);
  text-decoration: line-through;
  border-style: dashed;
}
</style>
