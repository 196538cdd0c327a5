<script setup lang="ts">
/** A sheet's marks by their numbers, and its corners to take hold of: dragged, or moved with the arrow keys, all follow. */
import { computed } from 'vue';
import type { Bounds } from '../../../../core/geometry/bounds';
import { markFrame } from '../../../../core/print/marks';
import { rounded } from '../../../../core/units/rounded';
import { useHandleDrag } from '../../../stage/handleDrag';
import type { Viewport } from '../../../stage/viewport';
import { useOrder } from '../../../stores/order';
import type { SheetView } from '../../../workers/packedSheets';

const { at, sheet } = defineProps<{ at: Viewport; sheet: SheetView }>();
const store = useOrder();
/** px from a mark to its number, away from the sheet's middle */
const BESIDE = 19;

const labels = computed(() =>
  sheet.marks.map(({ at: [x, y], isBetween }, i) => {
    const [dx, dy] = handle.by(i);
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

/** mm */
const ALT_STEP = 1;
const handle = useHandleDrag(() => at, move, ALT_STEP);
</script>

<template>
  <template v-for="(label, i) in labels" :key="i">
    <span v-if="label.isBetween" class="mark number" :style="{ left: label.left, top: label.top }">{{
      i + 1
    }}</span>
    <button
      v-else
      class="mark number"
      :class="{ held: handle.isHeld(i) }"
      :style="{ left: label.left, top: label.top }"
      :aria-label="`Mark ${i + 1}: drag or arrow keys move it`"
      v-on="handle.on(i)"
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
