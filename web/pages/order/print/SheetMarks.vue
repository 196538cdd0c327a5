<script setup lang="ts">
/** A sheet's marks by their numbers, and its corners to take hold of: dragged, or moved with the arrow keys, all follow. */
import { computed, ref } from 'vue';
import type { Bounds } from '../../../../core/geometry/bounds';
import { markFrame } from '../../../../core/print/marks';
import { rounded } from '../../../../core/units/rounded';
import { arrowStep } from '../../../stage/arrowStep';
import type { Viewport } from '../../../stage/viewport';
import { useOrder } from '../../../stores/order';
import type { SheetView } from '../../../workers/packed';

const { at, sheet } = defineProps<{ at: Viewport; sheet: SheetView }>();
const store = useOrder();
const drag = ref<{ index: number; x: number; y: number; dx: number; dy: number }>();
/** px from a mark to its number, away from the sheet's middle */
const BESIDE = 19;

const labels = computed(() =>
  sheet.marks.map(({ at: [x, y], isBetween }, i) => {
    const [dx, dy] = drag.value?.index === i ? [drag.value.dx, drag.value.dy] : [0, 0];
    const out = (way: number): number => (way < 0 ? -BESIDE : BESIDE);
    const isUpright =
      Math.abs(x - sheet.width / 2) / sheet.width > Math.abs(y - sheet.height / 2) / sheet.height;
    const [bx, by] = [
      isBetween && !isUpright ? 0 : out(x - sheet.width / 2),
      isBetween && isUpright ? 0 : isBetween ? out(y - sheet.height / 2) : 0,
    ];
    return {
      isBetween,
      left: `${at.x + (x + dx) * at.scale + bx}px`,
      top: `${at.y + (y + dy) * at.scale + by}px`,
    };
  }),
);

/** The corner that was moved takes its two edges along. */
function move(index: number, dx: number, dy: number): void {
  const { marks } = store.choices!.print;
  const frame = markFrame(sheet.art, marks);
  const [x, y] = sheet.marks[index].at;
  const near = (a: number, b: number): boolean => Math.abs(a - b) < 0.01;
  const tidy = (mm: number): number => rounded(mm, 2);
  const next: Bounds = {
    minX: tidy(near(x, frame.minX) ? x + dx : frame.minX),
    minY: tidy(near(y, frame.minY) ? y + dy : frame.minY),
    maxX: tidy(near(x, frame.maxX) ? x + dx : frame.maxX),
    maxY: tidy(near(y, frame.maxY) ? y + dy : frame.maxY),
  };
  if (next.maxX - next.minX < LEAST || next.maxY - next.minY < LEAST) return;
  store.change({ print: { ...store.choices!.print, marks: { ...marks, at: next } } });
}
/** mm from mark to mark that are left at the least */
const LEAST = 20;

function down(event: PointerEvent, index: number): void {
  if (event.button !== 0) return;
  (event.currentTarget as HTMLElement).setPointerCapture(event.pointerId);
  drag.value = { index, x: event.clientX, y: event.clientY, dx: 0, dy: 0 };
}
function pull(event: PointerEvent): void {
  if (!drag.value) return;
  const step = (px: number): number => (event.altKey ? Math.round(px / at.scale) : px / at.scale);
  drag.value = {
    ...drag.value,
    dx: step(event.clientX - drag.value.x),
    dy: step(event.clientY - drag.value.y),
  };
}
function drop(): void {
  const done = drag.value;
  drag.value = undefined;
  if (done && Math.hypot(done.dx, done.dy) * at.scale >= 2) move(done.index, done.dx, done.dy);
}
function key(event: KeyboardEvent, index: number): void {
  const by = arrowStep(event);
  if (!by) return;
  move(index, ...by);
  event.preventDefault();
  event.stopPropagation();
}
</script>

<template>
  <template v-for="(label, i) in labels" :key="i">
    <span v-if="label.isBetween" class="mark number" :style="{ left: label.left, top: label.top }">{{
      i + 1
    }}</span>
    <button
      v-else
      class="mark number"
      :class="{ held: drag?.index === i }"
      :style="{ left: label.left, top: label.top }"
      :aria-label="`Mark ${i + 1}: drag or arrow keys move it`"
      @pointerdown.stop="down($event, i)"
      @pointermove="pull"
      @pointerup="drop"
      @pointercancel="drag = undefined"
      @keydown="key($event, i)"
    >
      {{ i + 1 }}
    </button>
  </template>
</template>

<style scoped>
.mark {
  z-index: 2;
  position: absolute;
  display: grid;
  place-items: center;
  width: 23px;
  height: 23px;
  padding: 0;
  font-size: 12.5px;
  font-weight: 650;
  color: var(--bilberry);
  background: var(--card);
  border: 1.5px solid var(--bilberry);
  border-radius: 50%;
  translate: -50% -50%;
}
span.mark {
  border-style: dotted;
  pointer-events: none;
}
button.mark {
  cursor: move;
}
button.mark:hover,
.held {
  color: var(--card);
  background: var(--bilberry);
}
</style>
