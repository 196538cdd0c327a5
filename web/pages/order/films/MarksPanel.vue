<script setup lang="ts">
/** Small shapes at the same places on every film, to line the films up by hand. */
import { computed } from 'vue';
import type { MarkChoices, MarkShape } from '../../../../core/films/marks';
import FoldOut from '../../../parts/FoldOut.vue';
import LengthField from '../../../parts/LengthField.vue';
import { useOrder } from '../../../stores/order';

const store = useOrder();
const films = computed(() => store.choices!.films);
const marks = computed(() => films.value.marks);
const START: MarkChoices = { shape: 'triangle', count: 3, size: null, at: null };
const set = (change: Partial<MarkChoices> | null): void =>
  store.change({ films: { ...films.value, marks: change && { ...(marks.value ?? START), ...change } } });
const value = (event: Event): string => (event.target as HTMLSelectElement).value;
const says = computed(() => (marks.value ? `${marks.value.count} of ${marks.value.shape}` : 'none'));
</script>

<template>
  <FoldOut title="Layer marks" name="marks" :says="says">
    <label class="row"
      ><span>The same marks on every film</span>
      <input
        type="checkbox"
        :checked="marks !== null"
        @change="set(($event.target as HTMLInputElement).checked ? {} : null)"
    /></label>
    <template v-if="marks">
      <label class="row"
        ><span>Shape</span>
        <select
          aria-label="Shape of the layer marks"
          :value="marks.shape"
          @change="set({ shape: value($event) as MarkShape })"
        >
          <option>triangle</option>
          <option>square</option>
          <option>cross</option>
          <option>ring</option>
        </select></label
      >
      <label class="row"
        ><span>How many</span>
        <select
          aria-label="How many layer marks"
          :value="marks.count"
          @change="set({ count: Number(value($event)) as 2 | 3 | 4, at: null })"
        >
          <option :value="2">two</option>
          <option :value="3">three</option>
          <option :value="4">four</option>
        </select></label
      >
      <div class="row">
        <span>Size</span>
        <LengthField
          label="Size of the layer marks"
          :value="marks.size ?? 0"
          :min="0"
          :max="100"
          @change="set({ size: $event < 2 ? null : $event })"
        />
      </div>
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
