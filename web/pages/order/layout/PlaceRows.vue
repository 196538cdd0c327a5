<script setup lang="ts">
/** Where on the film all of it lies, and how wide it is. */
import { computed } from 'vue';
import { scaleToWidth } from '../../../../core/layout/fitWidth';
import type { LayoutChoices } from '../../../../core/layout/strip';
import { packOf } from '../../../../core/layout/strip';
import { rounded } from '../../../../core/units/rounded';
import ChoiceRow from '../../../parts/ChoiceRow.vue';
import LengthRow from '../../../parts/LengthRow.vue';
import { useOrder } from '../../../stores/order';

const { layout, hasRows } = defineProps<{ layout: LayoutChoices; hasRows: boolean }>();
const emit = defineEmits<{ change: [change: Partial<LayoutChoices>] }>();
const store = useOrder();

const PLACE = [
  { value: 'edge', label: 'at the edge' },
  { value: 'middle', label: 'in the middle' },
  { value: 'at', label: 'at an exact place' },
] as const;
/** Rounded so that it is never a hair too wide. */
const DIGITS = 2;
const scale = computed(() => {
  const whole = (store.plan?.strips ?? []).flatMap(({ film, parts, placements, cuttable }) => {
    // what other orders have on it stays as it is
    const own = placements.filter(({ part }) => parts[part].order === undefined);
    return packOf(layout, film) === 'one' ? [{ cuttable, placements: own }] : [];
  });
  return store.plan?.panelling ? undefined : scaleToWidth(whole, layout);
});
function fit(): void {
  const { artwork } = store.choices!;
  const { width, height } = store.plan!;
  const to = (mm: number): number => rounded(mm * scale.value! - 0.5 * 10 ** -DIGITS, DIGITS);
  const size = artwork.lockAspect
    ? { width: to(width), height: null }
    : { width: to(width), height: to(height) };
  store.change({ artwork: { ...artwork, ...size } });
}
</script>

<template>
  <ChoiceRow
    label="Across the roll"
    :value="layout.place"
    :options="PLACE"
    @change="emit('change', { place: $event })"
  />
  <template v-if="layout.place === 'at'">
    <LengthRow
      label="Behind the leading edge"
      full-label="Place along the film"
      :value="layout.placeAt.x"
      @change="emit('change', { placeAt: { ...layout.placeAt, x: $event } })"
    />
    <LengthRow
      label="From the far edge of its reach"
      full-label="Place across the film"
      :value="layout.placeAt.y"
      :max="5000"
      @change="emit('change', { placeAt: { ...layout.placeAt, y: $event } })"
    />
  </template>
  <div v-if="hasRows && scale !== undefined" class="row">
    <span>Size of the sign</span>
    <button class="button slim" :disabled="store.planning" @click="fit">Fit to the film’s width</button>
  </div>
</template>

<style scoped>
.row :deep(.p-select) {
  width: 184px;
}
</style>
