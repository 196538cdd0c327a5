<script setup lang="ts">
/** Layer marks to take hold of on the sign: dragged, or moved with the arrow keys, they stay where they are put. */
import { rounded } from '../../../../core/units/rounded';
import { computed, ref } from 'vue';
import { useOrder } from '../../../stores/order';
import { arrowStep } from '../../../stage/arrowStep';
import type { Viewport } from '../../../stage/viewport';

const props = defineProps<{ at: Viewport }>();
const store = useOrder();
const drag = ref<{ index: number; x: number; y: number; dx: number; dy: number }>();
const places = computed(() => store.plan!.markPlaces);

function place(index: number): Record<string, string> {
  const [x, y] = places.value[index];
  const [dx, dy] = drag.value?.index === index ? [drag.value.dx, drag.value.dy] : [0, 0];
  return {
    left: `${props.at.x + (x + dx) * props.at.scale}px`,
    top: `${props.at.y + (y + dy) * props.at.scale}px`,
  };
}
function move(index: number, dx: number, dy: number): void {
  const films = store.choices!.films;
  if (!films.marks) return;
  const tidy = (value: number): number => rounded(value, 2);
  const at = places.value.map(([x, y], i) =>
    i === index ? { x: tidy(x + dx), y: tidy(y + dy) } : { x: tidy(x), y: tidy(y) },
  );
  store.change({ films: { ...films, marks: { ...films.marks, at } } });
}
function down(event: PointerEvent, index: number): void {
  if (event.button !== 0) return;
  (event.currentTarget as HTMLElement).setPointerCapture(event.pointerId);
  drag.value = { index, x: event.clientX, y: event.clientY, dx: 0, dy: 0 };
}
function pull(event: PointerEvent): void {
  if (!drag.value) return;
  const { scale } = props.at;
  const { x, y } = drag.value;
  drag.value = { ...drag.value, dx: (event.clientX - x) / scale, dy: (event.clientY - y) / scale };
}
function drop(): void {
  const done = drag.value;
  drag.value = undefined;
  if (done && Math.hypot(done.dx, done.dy) * props.at.scale >= 2) move(done.index, done.dx, done.dy);
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
  <button
    v-for="(_, i) in places"
    :key="i"
    class="mark"
    :class="{ held: drag?.index === i }"
    :style="place(i)"
    :aria-label="`Layer mark ${i + 1}: drag or arrow keys move it`"
    @pointerdown.stop="down($event, i)"
    @pointermove="pull"
    @pointerup="drop"
    @pointercancel="drag = undefined"
    @keydown="key($event, i)"
  ></button>
</template>

<style scoped>
.mark {
  z-index: 2;
  position: absolute;
  width: 28px;
  height: 28px;
  padding: 0;
  background: none;
  border: 1.5px dashed var(--damson);
  border-radius: 50%;
  cursor: move;
  transform: translate(-50%, -50%);
}
.mark:hover,
.mark.held {
  background: color-mix(in srgb, var(--damson) 16%, transparent);
  border-style: solid;
}
</style>
