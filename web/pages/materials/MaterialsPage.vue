<script setup lang="ts">
/** The shop's films: what is on the shelf, what it holds together, what it costs. */
import { addressOf } from '../../../contracts/address';
import { ChevronRight, Download, Upload } from '@lucide/vue';
import Checkbox from 'primevue/checkbox';
import Column from 'primevue/column';
import DataTable from 'primevue/datatable';
import { computed, ref, shallowRef } from 'vue';
import type { Build, Film } from '../../../core/films/film';
import { BUILDS, buildOf, FINISHES, finishOf, stockOf } from '../../../core/films/film';
import type { Balance } from '../../../core/films/ordering';
import { balanceOf, wantedOf } from '../../../core/films/ordering';
import ChoiceField from '../../parts/ChoiceField.vue';
import DraftField from '../../parts/DraftField.vue';
import { finds } from '../../parts/finds';
import LengthField from '../../parts/LengthField.vue';
import NumberField from '../../parts/NumberField.vue';
import { onShelf } from '../../parts/onShelf';
import OnlyFor from '../../parts/OnlyFor.vue';
import ProblemNote from '../../parts/ProblemNote.vue';
import SearchField from '../../parts/SearchField.vue';
import UndoNote from '../../parts/UndoNote.vue';
import { useMe } from '../../stores/me';
import { useUnits } from '../../stores/units';
import { useWanted } from '../../stores/wanted';
import FilmDetails from './FilmDetails.vue';
import { moveByArrow } from './moveByArrow';
import { useInCutters } from './useInCutters';
import { useFilms } from './useFilms';

const { films, cutters, leastOffcut, state, problem, underWay, again, change, keepFrom, bring } = useFilms();
const search = ref('');
const PUT_AWAY = 'put away';
const shown = ref<'all' | Build | typeof PUT_AWAY>('all');
/** Films whose particulars are open, by id. */
const opened = ref<Record<string, boolean>>({});
const isOpen = ({ id }: Film): boolean => opened.value[id] === true;
const toggle = (film: Film): void => void (opened.value = isOpen(film) ? {} : { [film.id]: true });
const me = useMe();
const named = <T extends string>(values: readonly T[]) => values.map((value) => ({ value, label: value }));
const units = useUnits();
const { wanted } = useWanted();
const balance = (film: Film): Balance => balanceOf(film, wantedOf(wanted.value, film.id));
const toOrder = computed(() => films.value.filter((film) => balance(film).packs > 0).length);
const inCutters = useInCutters(cutters);
const input = ref<HTMLInputElement>();

const rows = computed(() =>
  films.value.filter(
    (film) =>
      (shown.value === PUT_AWAY) === (film.putAway === true) &&
      (shown.value === 'all' || shown.value === PUT_AWAY || buildOf(film) === shown.value) &&
      finds(search.value, `${film.name} ${film.code} ${film.colour}`),
  ),
);

/** What was taken out last, for as long as that can be taken back at once. */
const taken = shallowRef<{
  readonly says: string;
  readonly film: string;
  /** What brings it back to the film as it is then: cuts take film off the shelf meanwhile. */
  readonly back: (now: Film) => Partial<Film>;
}>();
async function takeOut(film: Film, what: Partial<Film>): Promise<void> {
  await change(film, what);
  const { id, name, rolls } = film;
  const at = rolls.findIndex((roll, i) => what.rolls?.[i] !== roll);
  taken.value = what.rolls
    ? {
        says: `A roll of ${name} is taken away.`,
        film: id,
        back: (now) => ({ rolls: now.rolls.toSpliced(at, 0, rolls[at]) }),
      }
    : { says: `${name} is put away.`, film: id, back: () => ({ putAway: false }) };
}
async function takeBack(): Promise<void> {
  const { film: id, back } = taken.value!;
  taken.value = undefined;
  const now = films.value.find((film) => film.id === id);
  if (now) await change(now, back(now));
}
const edited = (film: Film, what: Partial<Film>): Promise<void> =>
  what.putAway === true || (what.rolls && what.rolls.length < film.rolls.length)
    ? takeOut(film, what)
    : change(film, what);
async function readTable(event: Event): Promise<void> {
  const field = event.target as HTMLInputElement;
  const file = field.files?.[0];
  field.value = '';
  if (file) await bring(await file.text());
}
</script>

<template>
  <div class="page">
    <div class="head">
      <h1>Films</h1>
      <SearchField v-model="search" placeholder="Name, code" label="Search films" />
      <div class="pills" role="group" aria-label="Show films that are">
        <button
          v-for="b in ['all', ...BUILDS, PUT_AWAY] as const"
          :key="b"
          :aria-pressed="shown === b"
          @click="shown = b"
        >
          {{ b }}
        </button>
      </div>
      <span role="status" class="soft">{{ underWay > 0 ? 'Saving …' : '' }}</span>
      <span class="soft number">{{ rows.length }} of {{ films.filter((film) => !film.putAway).length }}</span>
      <router-link class="button" to="/materials/to-order"
        >To order<span v-if="toOrder > 0" class="tag check">{{ toOrder }}</span></router-link
      >
      <span class="tables">
        <a class="button" :href="addressOf('GET /api/films.csv', {})" download
          ><Download :size="16" aria-hidden="true" />As a table</a
        >
        <button v-if="me.may('lead')" class="button" @click="input?.click()">
          <Upload :size="16" aria-hidden="true" />Bring a table
        </button>
      </span>
      <input
        ref="input"
        type="file"
        hidden
        accept=".csv,text/csv"
        data-test="film-table"
        @change="readTable"
      />
    </div>
    <ProblemNote
      v-if="problem"
      :message="problem.message"
      :ways-out="problem.waysOut"
      @close="problem = undefined"
    />
    <OnlyFor role="lead" says="Only a lead changes films and what lies on the shelf." fields-only>
      <div v-if="leastOffcut" class="offcuts">
        <span>Offcuts are kept from</span>
        <LengthField
          label="Least width of an offcut"
          :value="leastOffcut.width"
          :min="1"
          :max="5000"
          @change="keepFrom({ width: $event })"
        />
        <span>×</span>
        <LengthField
          label="Least length of an offcut"
          :value="leastOffcut.length"
          :min="1"
          :max="100000"
          @change="keepFrom({ length: $event })"
        />
      </div>
      <p v-if="state === 'loading'" class="soft" role="status">Fetching the films …</p>
      <div v-else-if="state === 'failed'">
        <p>The films could not be fetched.</p>
        <button class="button" @click="again">Try again</button>
      </div>
      <p v-else-if="rows.length === 0" class="soft">No film matches. Clear the search or show all.</p>
      <DataTable
        v-else
        v-model:expanded-rows="opened"
        :value="rows"
        data-key="id"
        size="small"
        scrollable
        scroll-height="flex"
        class="table"
        removable-sort
        @keydown="moveByArrow"
      >
        <Column class="opener">
          <template #header><span class="unseen">Open</span></template>
          <template #body="{ data }: { data: Film }">
            <button
              class="open"
              :aria-expanded="isOpen(data)"
              :aria-label="`Rolls, colour and limits of ${data.name}`"
              @click="toggle(data)"
            >
              <ChevronRight :size="16" aria-hidden="true" />
            </button>
          </template>
        </Column>
        <Column field="name" header="Film" sortable>
          <template #body="{ data }: { data: Film }">
            <span class="name"
              ><i class="swatch" :style="{ '--film': data.colour }"></i>
              <DraftField
                :value="data.name"
                :label="`Name of ${data.name}`"
                :read="(name) => name || undefined"
                @change="change(data, { name: $event })"
            /></span>
          </template>
        </Column>
        <Column field="code" header="Code" sortable>
          <template #body="{ data }: { data: Film }">
            <DraftField
              class="number code"
              :value="data.code"
              :label="`Code of ${data.name}`"
              @change="change(data, { code: $event })"
            />
          </template>
        </Column>
        <Column header="Made" sortable :sort-field="buildOf as (film: unknown) => string">
          <template #body="{ data }: { data: Film }">
            <ChoiceField
              :value="buildOf(data)"
              :options="named(BUILDS)"
              :label="`What ${data.name} is made as`"
              @change="change(data, { build: $event })"
            />
          </template>
        </Column>
        <Column header="Finish" sortable :sort-field="finishOf as (film: unknown) => string">
          <template #body="{ data }: { data: Film }">
            <ChoiceField
              :value="finishOf(data)"
              :options="named(FINISHES)"
              :label="`Finish of ${data.name}`"
              @change="change(data, { finish: $event })"
            />
          </template>
        </Column>
        <Column header="On the shelf" sortable :sort-field="stockOf as unknown as (film: unknown) => string">
          <template #body="{ data }: { data: Film }">
            <span class="number stock" :class="{ short: balance(data).packs > 0 }">
              <span v-if="data.rolls.length === 0" class="soft">none on the shelf</span>
              <span v-for="(roll, i) in data.rolls" :key="i">{{ onShelf(roll, units) }}</span>
              <span v-if="inCutters.get(data.id)" class="soft"
                >in {{ inCutters.get(data.id)!.join(' and ') }}</span
              >
              <span v-if="data.coming" class="soft">{{ data.coming }} on the way</span>
            </span>
          </template>
        </Column>
        <Column field="cutFromBack" header="Mirrored" sortable>
          <template #body="{ data }: { data: Film }">
            <Checkbox
              binary
              :disabled="!me.may('lead')"
              :model-value="data.cutFromBack"
              :aria-label="`${data.name} is cut from the back`"
              @update:model-value="change(data, { cutFromBack: $event })"
            />
          </template>
        </Column>
        <Column field="price" header="Per m" sortable>
          <template #body="{ data }: { data: Film }">
            <NumberField
              class="price"
              :digits="2"
              :max="999_999"
              :value="data.price"
              :label="`Price per metre of ${data.name}`"
              @change="change(data, { price: $event })"
            />
          </template>
        </Column>
        <template #expansion="{ data }: { data: Film }">
          <OnlyFor role="lead">
            <FilmDetails :film="data" @change="edited(data, $event)" />
          </OnlyFor>
        </template>
      </DataTable>
    </OnlyFor>
    <UndoNote v-if="taken" :says="taken.says" @undo="takeBack" @close="taken = undefined" />
  </div>
</template>

<style scoped>
.offcuts {
  display: flex;
  margin: 2px 0 10px;
  gap: 8px;
  align-items: center;
}
.offcuts :deep(input) {
  width: 7.4em;
}
.page {
  display: flex;
  flex-direction: column;
  height: 100%;
  padding: 16px 24px 18px;
}
.tables {
  display: flex;
  gap: 8px;
  margin-left: auto;
}
.head .search {
  min-width: 120px;
}
.head {
  display: flex;
  flex-wrap: wrap;
  gap: 10px 14px;
  align-items: center;
  margin-bottom: 12px;
}
.table {
  min-height: 0;
  border: 1px solid var(--rule);
  border-radius: var(--radius-label);
  overflow: hidden;
}
.table :deep(td) {
  padding: 1px 5px;
  white-space: nowrap;
}
.table :deep(th) {
  padding-inline: 5px;
  font-size: 14px;
}
.table :deep(td[colspan]) {
  padding: 8px 14px;
}
.table :deep(td:not([colspan]) input[type='text']),
.table :deep(td:not([colspan]) .p-select) {
  padding-block: 2px;
  background: none;
  border-color: transparent;
  box-shadow: none;
}
.table :deep(td:not([colspan]) .p-select) {
  width: 116px;
}
.table :deep(td:not([colspan]) .p-select-label) {
  padding-block: 2px;
}
.table :deep(tr:hover td:not([colspan]) input[type='text']),
.table :deep(tr:hover td:not([colspan]) .p-select),
.table :deep(td:not([colspan]) input[type='text']:focus),
.table :deep(td:not([colspan]) .p-select.p-focus) {
  background: var(--card);
  border-color: var(--rule);
}
.name {
  display: flex;
  align-items: center;
  gap: 6px;
}
.name input {
  width: 146px;
}
.swatch {
  flex: none;
  width: 19px;
  height: 25px;
}
.code {
  width: 88px;
}
.price {
  width: 62px;
  text-align: right;
}
.stock > span {
  white-space: nowrap;
}
.stock {
  display: grid;
  width: 164px;
  padding: 2px 6px;
  font-size: 13px;
  white-space: normal;
  border-radius: var(--radius-field);
}
.short {
  background: var(--quince-soft);
}
@media (max-width: 1100px) {
  .head {
    gap: 8px;
  }
  .pills button {
    padding: 0 7px;
  }
}
.open {
  display: grid;
  place-items: center;
  width: 28px;
  height: 28px;
  padding: 0;
  background: none;
  border: 0;
  border-radius: var(--radius-field);
}
.open[aria-expanded='true'] svg {
  transform: rotate(90deg);
}
</style>
