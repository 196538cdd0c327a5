<script setup lang="ts">
/** What is larger than the cutter: where it is taken apart, and which panels are cut. */
import { Trash2 } from '@lucide/vue';
import Checkbox from 'primevue/checkbox';
import { computed, watch } from 'vue';
import { heightOf, widthOf } from '../../../core/geometry/bounds';
import type { PanelChoices, PanelWay } from '../../../core/panels/choices';
import { formatNumber, MM_PER_INCH } from '../../../core/units/length';
import ChoiceRow from '../../parts/ChoiceRow.vue';
import LengthField from '../../parts/LengthField.vue';
import NumberField from '../../parts/NumberField.vue';
import RadioCards from '../../parts/RadioCards.vue';
import { useOrder } from '../../stores/order';
import { AXIS_WORDS, useSeams } from '../../stores/seams';
import { useUnits } from '../../stores/units';
import { count } from './runCardSections';

const emit = defineEmits<{ again: [panel: number] }>();
const store = useOrder();
const units = useUnits();
const seams = useSeams();
const panels = computed(() => store.choices!.panels);
const made = computed(() => store.plan?.panelling);
const set = (change: Partial<PanelChoices>): void => store.change({ panels: { ...panels.value, ...change } });

const WAYS: readonly { readonly way: PanelWay; readonly label: string }[] = [
  { way: 'when-needed', label: 'Where they cut least' },
  { way: 'equal', label: 'Equal panels' },
  { way: 'media', label: 'As wide as the film' },
  { way: 'grid', label: 'Columns and rows' },
  { way: 'by-hand', label: 'By hand' },
  { way: 'never', label: 'No seams' },
];
const ON_TOP = [
  { value: 'next', label: 'right and lower' },
  { value: 'before', label: 'left and upper' },
] as const;

/** What each way would come to is asked for while it is looked at. */
watch(() => store.plan, seams.ask, { immediate: true });
function comesTo(way: PanelWay): string {
  const isNow = way === panels.value.way;
  const sum = isNow ? made.value?.sum : seams.offers?.ways.find((offer) => offer.way === way)?.sum;
  if (!sum) return '';
  return `${count(sum.panels, 'panel')}, ${units.length(sum.ink)} cut, ${count(sum.crossings, 'outline')}`;
}
function choose(way: PanelWay): void {
  if (way === 'by-hand') seams.takeOver();
  else seams.place({ way });
}

const byHand = computed(() => panels.value.way === 'by-hand');
/** Each panel once, with the films that have something on it. */
const listed = computed(() => {
  const numbers = new Map<number, { films: string[]; width: number; height: number }>();
  for (const { number, film, bounds } of made.value?.panels ?? []) {
    const known = numbers.get(number) ?? { films: [], width: 0, height: 0 };
    known.films.push(film.name);
    known.width = Math.max(known.width, widthOf(bounds));
    known.height = Math.max(known.height, heightOf(bounds));
    numbers.set(number, known);
  }
  return [...numbers].map(([number, panel]) => ({ number, ...panel }));
});
const inMm = ({ width, height }: { width: number; height: number }): string =>
  `${formatNumber(width, 'mm')} × ${formatNumber(height, 'mm')} mm`;
const inInches = ({ width, height }: { width: number; height: number }): string =>
  `${(width / MM_PER_INCH).toFixed(2)} × ${(height / MM_PER_INCH).toFixed(2)} in`;
const isCut = (number: number): boolean => !panels.value.skip.includes(number);
</script>

<template>
  <p v-if="!made" class="hint">
    {{
      panels.way === 'never'
        ? 'No seams are made, whatever the size.'
        : 'Every film fits its cutter in one. Seams can be set all the same.'
    }}
  </p>
  <RadioCards
    label="Seams"
    name="seams"
    beneath
    :value="panels.way"
    :options="WAYS.map(({ way, label }) => ({ value: way, label, says: comesTo(way) }))"
    @change="choose"
  />
  <template v-if="panels.way === 'grid'">
    <div class="row">
      <span>Columns</span>
      <NumberField
        label="Columns"
        :min="1"
        :max="200"
        :value="panels.columns"
        @change="seams.place({ columns: $event })"
      />
    </div>
    <div class="row">
      <span>Rows</span>
      <NumberField
        label="Rows"
        :min="1"
        :max="200"
        :value="panels.rows"
        @change="seams.place({ rows: $event })"
      />
    </div>
  </template>
  <template v-if="byHand">
    <template v-for="(word, axis) in AXIS_WORDS" :key="axis">
      <div v-for="(x, i) in panels[axis]" :key="`${axis} ${i}`" class="row">
        <span>{{ word }} seam {{ i + 1 }}</span>
        <span class="seam">
          <LengthField
            :label="`${word} seam ${i + 1}`"
            :value="x"
            :min="-100000"
            :max="100000"
            @change="seams.move(axis, i, $event)"
          />
          <button
            class="button small"
            :aria-label="`Take ${axis} seam ${i + 1} away`"
            @click="seams.remove(axis, i)"
          >
            <Trash2 :size="15" />
          </button>
        </span>
      </div>
    </template>
    <div class="row">
      <button class="button small" @click="seams.add('upright')">Add an upright seam</button>
      <button class="button small" @click="seams.add('level')">Add a level seam</button>
    </div>
  </template>
  <div class="row">
    <span>Overlap</span
    ><LengthField label="Overlap" :value="panels.overlap" :max="1000" @change="set({ overlap: $event })" />
  </div>
  <ChoiceRow
    v-if="panels.overlap > 0"
    label="On top lies the"
    :value="panels.onTop"
    :options="ON_TOP"
    @change="set({ onTop: $event })"
  />
  <div class="row">
    <span>Kept in hand across</span
    ><LengthField
      label="Kept in hand across"
      :value="panels.reserve"
      :max="5000"
      @change="set({ reserve: $event })"
    />
  </div>
  <router-link
    v-if="listed.length && store.order"
    class="button small"
    :to="{ name: 'fitting', params: { id: store.order.id } }"
    >Fitting map</router-link
  >
  <ul v-if="listed.length" class="panels" aria-label="Panels">
    <li v-for="panel in listed" :key="panel.number">
      <label>
        <Checkbox
          binary
          :model-value="isCut(panel.number)"
          :aria-label="`Cut panel ${panel.number}`"
          @update:model-value="seams.cut(panel.number, $event)"
        />
        <b class="number">{{ panel.number }}</b>
        <span class="number size">{{ inMm(panel) }}</span>
        <small class="soft"
          ><span class="number">{{ inInches(panel) }}</span> · {{ panel.films.join(', ') }}</small
        >
      </label>
      <button
        v-if="store.canRecut"
        class="button small"
        :aria-label="`Cut panel ${panel.number} again`"
        @click="emit('again', panel.number)"
      >
        Again
      </button>
    </li>
  </ul>
</template>

<style scoped>
.panels {
  display: grid;
  gap: 4px;
  margin: 0;
  padding: 0;
  list-style: none;
}
.seam {
  display: flex;
  gap: 5px;
}
.panels li {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 5px;
  align-items: center;
}
.panels label {
  display: grid;
  grid-template-columns: auto 22px 1fr;
  gap: 0 8px;
  align-items: center;
  padding: 4px 10px;
  background: var(--card);
  border: 1px solid var(--rule);
  border-radius: var(--radius-card);
}
.size {
  font-size: 13px;
}
.panels small {
  grid-column: 3;
}
</style>
