<script setup lang="ts">
/** Shapes that a cut line goes around, tapped on the sheet: each tap takes one in or leaves it out, and the line follows. */
import { computed, ref } from 'vue';
import { inverse, mapped } from '../../../../core/geometry/matrix';
import StageAsk from '../../../stage/StageAsk.vue';
import { useOrder } from '../../../stores/order';
import { useStage } from '../../../stores/stage';
import type { SheetView } from '../../../workers/packedSheets';
import { count } from '../runCardSections';

const { line, sheet } = defineProps<{ line: number; sheet: SheetView }>();
const store = useOrder();
const stage = useStage();
const lines = computed(() => store.choices!.print.lines);
const picked = computed(() => lines.value[line]?.shapes ?? []);
const missed = ref(false);

function set(shapes: readonly string[]): void {
  const { layers: _layers, shapes: _shapes, ...rest } = lines.value[line];
  const now = { ...rest, around: null, ...(shapes.length > 0 && { shapes }) };
  const { print } = store.choices!;
  store.change({ print: { ...print, lines: lines.value.map((one, i) => (i === line ? now : one)) } });
}
/** @param at mm on the sheet */
async function tap(at: { x: number; y: number }, reach: number): Promise<void> {
  const place = sheet.places.find(
    ({ box }) => at.x >= box.minX && at.x <= box.maxX && at.y >= box.minY && at.y <= box.maxY,
  );
  const [x, y] = place ? mapped([at.x, at.y], inverse(place.matrix)) : [NaN, NaN];
  const shape = place && (await store.pick(x, y, reach));
  const goes = store.plan?.colours.find(({ colour }) => colour === shape?.colour)?.goesTo;
  missed.value = !shape || shape.isLine || goes !== 'print';
  if (!shape || missed.value) return;
  const { ref: name } = shape;
  set(picked.value.includes(name) ? picked.value.filter((one) => one !== name) : [...picked.value, name]);
}
defineExpose({ tap });
const says = computed(() => {
  if (missed.value) return 'Nothing that is printed lies there.';
  if (picked.value.length === 0) return `Tap what cut line ${line + 1} goes around.`;
  return `Cut line ${line + 1} goes around ${count(picked.value.length, 'shape')}.`;
});
</script>

<template>
  <StageAsk :label="`Shapes for cut line ${line + 1}`" :says="says">
    <button class="button small" :disabled="picked.length === 0" @click="set([])">Around all</button>
    <button class="button small" @click="stage.lineFor = undefined">Done</button>
  </StageAsk>
</template>
