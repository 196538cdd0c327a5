<script setup lang="ts">
/** Small shapes at the same places on every film, to line the films up by hand. */
import { computed } from 'vue';
import type { MarkChoices } from '../../../../core/films/marks';
import ChoiceRow from '../../../parts/ChoiceRow.vue';
import FoldOut from '../../../parts/FoldOut.vue';
import LengthRow from '../../../parts/LengthRow.vue';
import SwitchRow from '../../../parts/SwitchRow.vue';
import { useOrder } from '../../../stores/order';

const store = useOrder();
const films = computed(() => store.choices!.films);
const marks = computed(() => films.value.marks);
const START: MarkChoices = { shape: 'triangle', count: 3, size: null, at: null };
const set = (change: Partial<MarkChoices> | null): void =>
  store.change({ films: { ...films.value, marks: change && { ...(marks.value ?? START), ...change } } });
const SHAPES = (['triangle', 'square', 'cross', 'ring'] as const).map((value) => ({ value, label: value }));
const COUNTS = [
  { value: 2, label: 'two' },
  { value: 3, label: 'three' },
  { value: 4, label: 'four' },
] as const;
const says = computed(() => (marks.value ? `${marks.value.count} of ${marks.value.shape}` : 'none'));
</script>

<template>
  <FoldOut title="Layer marks" name="marks" :says="says">
    <SwitchRow label="The same marks on every film" :on="marks !== null" @change="set($event ? {} : null)" />
    <template v-if="marks">
      <ChoiceRow
        label="Shape"
        full-label="Shape of the layer marks"
        :value="marks.shape"
        :options="SHAPES"
        @change="set({ shape: $event })"
      />
      <ChoiceRow
        label="How many"
        full-label="How many layer marks"
        :value="marks.count"
        :options="COUNTS"
        @change="set({ count: $event, at: null })"
      />
      <LengthRow
        label="Size"
        full-label="Size of the layer marks"
        :value="marks.size ?? 0"
        :min="0"
        :max="100"
        @change="set({ size: $event < 2 ? null : $event })"
      />
      <button v-if="marks.at" class="button small" @click="set({ at: null })">
        Put them back around the sign
      </button>
      <p class="hint">
        Drag them on the sign, or move them with the arrow keys; they stay where they are put. Each is a hole
        in a tab of film that stays on the backing. A size of 0 follows the sign.
      </p>
    </template>
  </FoldOut>
</template>
