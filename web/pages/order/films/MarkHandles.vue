<script setup lang="ts">
/** Layer marks to take hold of on the sign: dragged, or moved with the arrow keys, they stay where they are put. */
import { rounded } from '../../../../core/units/rounded';
import { computed } from 'vue';
import { useOrder } from '../../../stores/order';
import { useHandleDrag } from '../../../stage/handleDrag';
import type { Viewport } from '../../../stage/viewport';

const props = defineProps<{ at: Viewport }>();
const store = useOrder();
const places = computed(() => store.plan!.markPlaces);

function place(index: number): Record<string, string> {
  const [x, y] = places.value[index];
  const [dx, dy] = handle.by(index);
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
const handle = useHandleDrag(() => props.at, move);
</script>

<template>
  <button
    v-for="(_, i) in places"
    :key="i"
    class="mark"
    :class="{ held: handle.isHeld(i) }"
    :style="place(i)"
    :aria-label="`Layer mark ${i + 1}: drag or arrow keys move it`"
    v-on="handle.on(i)"
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
