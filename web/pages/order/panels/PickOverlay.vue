<script setup lang="ts">
/** Shapes picked on the sign: to be kept whole, put together, or to stand alone. One of these at a time. */
import { computed, onMounted } from 'vue';
import { liesOn } from '../../../../core/geometry/nesting';
import type { Region } from '../../../../core/geometry/region';
import type { Place } from '../../../../core/panels/choices';
import { useOrder } from '../../../stores/order';
import type { Picking } from '../../../stores/seams';
import { useSeams } from '../../../stores/seams';
import StageAsk from '../../../stage/StageAsk.vue';
import type { Viewport } from '../../../stage/viewport';
import { usePickedShapes } from '../../../stage/pickedShapes';
import PickedOutlines from '../../../stage/PickedOutlines.vue';
import { count } from '../runCardSections';

const props = defineProps<{ at: Viewport; picking: Picking }>();
const store = useOrder();
const seams = useSeams();
const panels = computed(() => store.choices!.panels);

const { picked, missed, take, tap, places } = usePickedShapes(shapeOnTop);
defineExpose({ tap });

async function shapeOnTop({ x, y }: Place): Promise<Region | undefined> {
  let around: Region | undefined;
  for (const { film } of [...(store.plan?.films ?? [])].reverse()) {
    const region = await store.shapeAt(film.id, x, y);
    if (region && liesOn(region, [x, y])) return region;
    around ??= region;
  }
  // nothing lies there: the shape is meant in whose counter it is
  return around;
}

/** Shapes that were picked already for the same thing; a group begins anew. */
const before = props.picking === 'group' ? [] : panels.value[props.picking];
onMounted(async () => {
  for (const place of before) await take(place);
  missed.value = false;
});

function done(): void {
  const { picking } = props;
  if (picking === 'group') seams.place({ groups: [...panels.value.groups, places()] });
  else seams.place({ [picking]: places() });
  seams.picking = undefined;
}
const ASKS = {
  whole: ['Tap the shapes that no seam shall cross.', 'Keep them whole'],
  group: ['Tap the shapes that belong together.', 'Put them together'],
  alone: ['Tap the shapes that shall stand alone.', 'Let them stand alone'],
} as const;
const says = computed(() => {
  if (missed.value) return 'No shape lies there.';
  const n = picked.value.length;
  return n === 0 ? ASKS[props.picking][0] : `${count(n, 'shape')} picked.`;
});
const isReady = computed(() =>
  props.picking === 'group' ? picked.value.length > 1 : picked.value.length + before.length > 0,
);
</script>

<template>
  <PickedOutlines :at="at" :shapes="picked" tone="kept" />
  <StageAsk label="Shapes on the sign" :says="says">
    <button class="button small" :disabled="!isReady" @click="done">{{ ASKS[picking][1] }}</button>
    <button class="button small" @click="seams.picking = undefined">Leave it</button>
  </StageAsk>
</template>
