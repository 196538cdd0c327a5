<script setup lang="ts">
/** What is larger than the cutter: where it is taken apart, and which panels are cut. */
import { watchDebounced } from '@vueuse/core';
import Checkbox from 'primevue/checkbox';
import { computed } from 'vue';
import { heightOf, widthOf } from '../../../core/geometry/bounds';
import { OFFERED_WAYS } from '../../../core/panels/choices';
import type { PanelWay } from '../../../core/panels/choices';
import { formatNumber, MM_PER_INCH } from '../../../core/units/length';
import ChoiceRow from '../../parts/ChoiceRow.vue';
import FoldOut from '../../parts/FoldOut.vue';
import LengthRow from '../../parts/LengthRow.vue';
import NumberField from '../../parts/NumberField.vue';
import RadioCards from '../../parts/RadioCards.vue';
import SwitchRow from '../../parts/SwitchRow.vue';
import { useOrder } from '../../stores/order';
import { useSeams } from '../../stores/seams';
import { useUnits } from '../../stores/units';
import GroupsPanel from './panels/GroupsPanel.vue';
import SeamRows from './panels/SeamRows.vue';
import SurfacePanel from './panels/SurfacePanel.vue';
import { count } from './runCardSections';
import { useMe } from '../../stores/me';

const emit = defineEmits<{ again: [panel: number] }>();
const store = useOrder();
const units = useUnits();
const seams = useSeams();
const panels = computed(() => store.choices!.panels);
const made = computed(() => store.plan?.panelling);

const WAYS: readonly { readonly way: PanelWay; readonly label: string }[] = [
  { way: 'when-needed', label: 'Where they cut least' },
  { way: 'wandering', label: 'Wandering through the gaps' },
  { way: 'pieces', label: 'Whole pieces first' },
  { way: 'equal', label: 'Equal panels' },
  { way: 'media', label: 'As wide as the film' },
  { way: 'grid', label: 'Columns and rows' },
  { way: 'by-hand', label: 'By hand' },
  { way: 'never', label: 'No seams' },
];
const NUMBERS = [
  { value: 'cut', label: 'cut' },
  { value: 'pen', label: 'with the pen' },
  { value: 'none', label: 'none' },
] as const;
const ON_TOP = [
  { value: 'next', label: 'right and lower' },
  { value: 'before', label: 'left and upper' },
] as const;

/** What each way would come to is asked for while it is looked at, once changes have settled, ms. */
const SETTLED = 350;
watchDebounced(() => store.plan, seams.ask, { immediate: true, debounce: SETTLED });
const OFFERED: ReadonlySet<PanelWay> = new Set(OFFERED_WAYS);
function comesTo(way: PanelWay): string {
  const isNow = way === panels.value.way;
  const offer = seams.offers?.ways.find((one) => one.way === way);
  const sum = isNow ? made.value?.sum : offer?.sum;
  // the line is there from the start, so that no card moves under a finger
  if (!sum) return made.value && OFFERED.has(way) ? '…' : '';
  const parts = way === 'pieces' ? `${sum.panels} to put up` : count(sum.panels, 'panel');
  const tooLarge = offer?.fits === false ? ', too large' : '';
  return `${parts}, ${units.length(sum.ink)} cut, ${count(sum.crossings, 'outline')}${tooLarge}`;
}
function choose(way: PanelWay): void {
  if (way === 'by-hand') seams.takeOver();
  else seams.place({ way });
}

const films = computed(() => new Set(made.value?.panels.map(({ film }) => film.id)).size);
/** The cutter that the order goes to keeps so much in hand, where nothing else is said. */
const cutter = computed(() => store.plan?.cutter);
const me = useMe();
const reserve = computed(() => panels.value.reserve ?? cutter.value?.reserve ?? 0);
const isOwnReserve = computed(
  () => cutter.value && panels.value.reserve !== null && panels.value.reserve !== cutter.value.reserve,
);
/** Each panel once, with the films that have something on it. */
const listed = computed(() => {
  const numbers = new Map<
    number,
    { films: string[]; width: number; height: number; isPiece: boolean; isPrinted: boolean }
  >();
  for (const { number, film, bounds, isPiece } of made.value?.panels ?? []) {
    const known = numbers.get(number) ?? { films: [], width: 0, height: 0, isPiece, isPrinted: true };
    known.films.push(film.name);
    // a printed sheet is cut again under Print marks
    known.isPrinted &&= film.id === store.plan?.printed?.film.id;
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
const keptSays = computed(() => {
  const { keepLetters, whole } = panels.value;
  const picked = whole.length > 0 ? [count(whole.length, 'shape')] : [];
  return [...(keepLetters ? ['letters'] : []), ...picked].join(', ') || 'nothing';
});
const joinSays = computed(() => {
  const { overlap, keys } = panels.value;
  return [overlap > 0 ? units.length(overlap) : 'edge to edge', ...(keys ? ['keys'] : [])].join(', ');
});
/** Its own number is the order's until the cutter has it; what is typed meanwhile is a new one of its own. */
async function keepForCutter(): Promise<void> {
  const kept = reserve.value;
  const isKept = await store.changeCutter(cutter.value!.id, { reserve: kept });
  if (isKept && panels.value.reserve === kept) seams.set({ reserve: null });
}
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
  <template v-if="panels.way === 'pieces'">
    <GroupsPanel />
  </template>
  <SeamRows />
  <FoldOut title="Kept whole" name="kept-whole" :says="keptSays">
    <SwitchRow label="Letters" :on="panels.keepLetters" @change="seams.place({ keepLetters: $event })" />
    <div class="row">
      <button class="button small" @click="seams.picking = 'whole'">Pick shapes on the sign</button>
      <button v-if="panels.whole.length" class="button small" @click="seams.place({ whole: [] })">
        None of them
      </button>
    </div>
    <p class="hint">No seam crosses them where that can be. Where it cannot, that is said.</p>
  </FoldOut>
  <FoldOut title="Overlap and keys" name="panel-joins" :says="joinSays">
    <LengthRow label="Overlap" :value="panels.overlap" :max="1000" @change="seams.set({ overlap: $event })" />
    <ChoiceRow
      v-if="panels.overlap > 0"
      label="On top lies the"
      :value="panels.onTop"
      :options="ON_TOP"
      @change="seams.set({ onTop: $event })"
    />
    <LengthRow
      v-if="films > 1 || panels.stagger > 0"
      label="Films’ seams apart"
      :value="panels.stagger"
      :max="1000"
      @change="seams.set({ stagger: $event })"
    />
    <SwitchRow label="Keys across seams" :on="panels.keys" @change="seams.set({ keys: $event })" />
    <ChoiceRow
      label="Numbers in the waste"
      :value="panels.numbers"
      :options="NUMBERS"
      @change="seams.set({ numbers: $event })"
    />
  </FoldOut>
  <LengthRow
    label="Kept in hand across"
    :value="reserve"
    :max="5000"
    @change="seams.set({ reserve: $event })"
  />
  <div v-if="isOwnReserve" class="row">
    <button v-if="me.may('lead')" class="button small" @click="keepForCutter">
      Always on {{ cutter!.name }}
    </button>
    <button class="button small" @click="seams.set({ reserve: null })">
      As {{ cutter!.name }} has it, {{ units.length(cutter!.reserve) }}
    </button>
  </div>
  <SurfacePanel />
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
          :aria-label="`Cut ${panel.isPiece ? 'piece' : 'panel'} ${panel.number}`"
          @update:model-value="seams.cut(panel.number, $event)"
        />
        <b class="number">{{ panel.number }}</b>
        <span class="number size">{{ inMm(panel) }}</span>
        <small class="soft"
          ><span class="number">{{ inInches(panel) }}</span> · {{ panel.films.join(', ') }}</small
        >
      </label>
      <button
        v-if="store.canRecut && !panel.isPrinted"
        class="button small"
        :aria-label="`Cut ${panel.isPiece ? 'piece' : 'panel'} ${panel.number} again`"
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
