<script setup lang="ts">
/** The shop's films: what is on the shelf, what it holds together, what it costs. */
import { Download, Search, Upload } from '@lucide/vue';
import { computed, onMounted, ref } from 'vue';
import { labText } from '../../../core/films/csv';
import type { Film } from '../../../core/films/film';
import { limitsOf } from '../../../core/films/film';
import type { Build } from '../../../core/films/overlap';
import { buildOf } from '../../../core/films/overlap';
import type { Shop } from '../../../core/plan/plan';
import LengthField from '../../parts/LengthField.vue';
import ProblemNote from '../../parts/ProblemNote.vue';
import { ApiProblem, call } from '../../stores/api';
import { forgetShop } from '../../stores/order';

const films = ref<readonly Film[]>([]);
const state = ref<'loading' | 'ready' | 'failed'>('loading');
const problem = ref<ApiProblem>();
const search = ref('');
const shown = ref<'all' | Build>('all');
const input = ref<HTMLInputElement>();
const BUILDS: readonly Build[] = ['opaque', 'metallic', 'translucent', 'flock'];

const rows = computed(() => {
  const words = search.value.toLowerCase().split(/\s+/).filter(Boolean);
  return films.value.filter(
    (film) =>
      (shown.value === 'all' || buildOf(film) === shown.value) &&
      words.every((word) => `${film.name} ${film.code} ${film.colour}`.toLowerCase().includes(word)),
  );
});

async function load(): Promise<void> {
  try {
    films.value = (await call<Shop>('GET', '/api/shop')).films;
    state.value = 'ready';
  } catch (error) {
    if (!(error instanceof ApiProblem)) throw error;
    state.value = 'failed';
  }
}
onMounted(load);

async function keep(work: () => Promise<readonly Film[]>): Promise<void> {
  problem.value = undefined;
  try {
    films.value = await work();
    forgetShop();
  } catch (error) {
    if (!(error instanceof ApiProblem)) throw error;
    problem.value = error;
  }
}
const change = (film: Film, what: Partial<Film>): Promise<void> =>
  keep(() => call('PATCH', `/api/films/${film.id}`, what));
const limit = (film: Film, what: Partial<ReturnType<typeof limitsOf>>): Promise<void> =>
  change(film, { limits: { ...limitsOf(film), ...what } });

function number(event: Event, set: (value: number) => Promise<void>): void {
  const value = Number((event.target as HTMLInputElement).value.replace(',', '.'));
  if (Number.isFinite(value) && value >= 0) void set(value);
}
async function bring(event: Event): Promise<void> {
  const field = event.target as HTMLInputElement;
  const file = field.files?.[0];
  field.value = '';
  if (!file) return;
  const csv = await file.text();
  await keep(() => call('POST', '/api/films', { csv }));
}
const text = (event: Event): string => (event.target as HTMLInputElement).value;
</script>

<template>
  <div class="page">
    <div class="head">
      <h1>Films</h1>
      <label class="search">
        <Search :size="17" aria-hidden="true" />
        <input v-model="search" type="search" placeholder="Name, code or colour" aria-label="Search films" />
      </label>
      <div class="builds" role="group" aria-label="Show films that are">
        <button
          v-for="b in ['all', ...BUILDS] as const"
          :key="b"
          :aria-pressed="shown === b"
          @click="shown = b"
        >
          {{ b }}
        </button>
      </div>
      <span class="soft number">{{ rows.length }} of {{ films.length }}</span>
      <a class="button" href="/api/films.csv" download
        ><Download :size="16" aria-hidden="true" />As a table</a
      >
      <button class="button" @click="input?.click()">
        <Upload :size="16" aria-hidden="true" />Bring a table
      </button>
      <input ref="input" type="file" hidden accept=".csv,text/csv" data-test="film-table" @change="bring" />
    </div>
    <ProblemNote
      v-if="problem"
      :message="problem.message"
      :ways-out="problem.waysOut"
      @close="problem = undefined"
    />
    <p v-if="state === 'loading'" class="soft" role="status">Fetching the films …</p>
    <div v-else-if="state === 'failed'">
      <p>The films could not be fetched.</p>
      <button class="button" @click="load">Try again</button>
    </div>
    <p v-else-if="rows.length === 0" class="soft">No film matches. Clear the search or show all.</p>
    <table v-else>
      <thead>
        <tr>
          <th>Film</th>
          <th>Code</th>
          <th>Colour</th>
          <th>L* a* b*</th>
          <th>Made</th>
          <th>Roll</th>
          <th>Left</th>
          <th>From the back</th>
          <th>Narrowest</th>
          <th>Island mm²</th>
          <th>Per m</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="film in rows" :key="film.id" :class="{ short: film.lengthLeft < 2000 }">
          <td>
            <span class="name"
              ><i class="swatch" :style="{ '--film': film.colour }"></i
              ><input
                :value="film.name"
                :aria-label="`Name of ${film.name}`"
                @change="change(film, { name: text($event) })"
            /></span>
          </td>
          <td>
            <input
              class="number code"
              :value="film.code"
              :aria-label="`Code of ${film.name}`"
              @change="change(film, { code: text($event) })"
            />
          </td>
          <td>
            <input
              type="color"
              :value="film.colour"
              :aria-label="`Colour of ${film.name}`"
              @change="change(film, { colour: text($event) })"
            />
            <span class="number soft">{{ film.colour }}</span>
          </td>
          <td class="number soft">{{ labText(film.colour) }}</td>
          <td>
            <select
              :value="buildOf(film)"
              :aria-label="`What ${film.name} is made as`"
              @change="change(film, { build: text($event) as Build })"
            >
              <option v-for="b in BUILDS" :key="b">{{ b }}</option>
            </select>
          </td>
          <td>
            <LengthField
              :label="`Roll width of ${film.name}`"
              :value="film.rollWidth"
              :min="20"
              :max="5000"
              @change="change(film, { rollWidth: $event })"
            />
          </td>
          <td>
            <LengthField
              :label="`Length left of ${film.name}`"
              :value="film.lengthLeft"
              :max="10000000"
              @change="change(film, { lengthLeft: $event })"
            />
          </td>
          <td class="middle">
            <input
              type="checkbox"
              :checked="film.cutFromBack"
              :aria-label="`${film.name} is cut from the back`"
              @change="change(film, { cutFromBack: ($event.target as HTMLInputElement).checked })"
            />
          </td>
          <td>
            <LengthField
              fine
              :label="`Narrowest stem of ${film.name}`"
              :value="limitsOf(film).narrowest"
              :max="100"
              @change="limit(film, { narrowest: $event })"
            />
          </td>
          <td>
            <input
              class="number figure"
              :value="limitsOf(film).island"
              :aria-label="`Smallest island of ${film.name}, mm²`"
              @change="number($event, (island) => limit(film, { island }))"
            />
          </td>
          <td>
            <input
              class="number figure"
              :value="film.price ?? ''"
              :aria-label="`Price per metre of ${film.name}`"
              @change="number($event, (price) => change(film, { price }))"
            />
          </td>
        </tr>
      </tbody>
    </table>
  </div>
</template>

<style scoped>
.page {
  height: 100%;
  padding: 16px 24px 24px;
  overflow: auto;
}
.head {
  display: flex;
  flex-wrap: wrap;
  gap: 10px 14px;
  align-items: center;
  margin-bottom: 12px;
}
.search {
  display: flex;
  flex: 1;
  gap: 8px;
  align-items: center;
  min-width: 180px;
  max-width: 300px;
  height: 36px;
  padding: 0 10px;
  background: var(--card);
  border: 1px solid var(--rule);
  border-radius: var(--radius-field);
}
.search input {
  flex: 1;
  min-width: 0;
  font: inherit;
  background: none;
  border: 0;
}
.builds {
  display: flex;
  gap: 2px;
}
.builds button {
  height: 32px;
  padding: 0 11px;
  font-weight: 620;
  background: none;
  border: 0;
  border-radius: 99px;
}
.builds button[aria-pressed='true'] {
  color: var(--card);
  background: var(--ink);
}
table {
  width: 100%;
  border-collapse: separate;
  border-spacing: 0;
  background: var(--card);
  border: 1px solid var(--rule);
  border-radius: var(--radius-label);
}
th {
  padding: 8px 7px 6px;
  font-size: 13px;
  font-weight: 620;
  text-align: left;
  color: var(--ink-soft);
  border-bottom: 1px solid var(--rule);
}
td {
  padding: 2px 7px;
  font-size: 13.5px;
  white-space: nowrap;
  border-bottom: 1px solid var(--rule-soft);
}
tr.short td:nth-child(7) {
  background: var(--quince-soft);
}
.middle {
  text-align: center;
}
.name {
  display: flex;
  align-items: center;
  gap: 8px;
}
.swatch {
  width: 17px;
  height: 24px;
}
td input:not([type]) {
  width: 122px;
  min-height: 29px;
  padding: 0 5px;
  font: inherit;
  background: none;
  border: 1px solid transparent;
  border-radius: var(--radius-field);
}
td input.number:not([type]) {
  font-family: var(--numbers);
}
td input.code {
  width: 76px !important;
}
td input.figure {
  width: 58px !important;
  text-align: right;
}
td input:hover,
td input:focus {
  border-color: var(--rule) !important;
}
td:nth-child(7) :deep(.field input) {
  width: 112px;
}
td :deep(.field input) {
  width: 92px;
  min-height: 29px;
  font-size: 13.5px;
}
td input[type='color'] {
  width: 30px;
  height: 24px;
  padding: 1px;
  margin-right: 6px;
  vertical-align: middle;
  background: none;
  border: 1px solid var(--rule);
  border-radius: 5px;
}
td input[type='checkbox'] {
  width: 18px;
  height: 18px;
  accent-color: var(--damson);
}
select {
  min-height: 28px;
  font: inherit;
  background: none;
  border: 1px solid transparent;
  border-radius: var(--radius-field);
}
select:hover {
  border-color: var(--rule);
}
</style>
