<script setup lang="ts">
/** The shop's films: what is on the shelf, what it holds together, what it costs. */
import { Download, Upload } from '@lucide/vue';
import { computed, onMounted, ref } from 'vue';
import type { Build, Film } from '../../../core/films/film';
import { BUILDS, buildOf } from '../../../core/films/film';
import type { Shop } from '../../../core/plan/plan';
import { finds } from '../../parts/finds';
import ProblemNote from '../../parts/ProblemNote.vue';
import SearchField from '../../parts/SearchField.vue';
import { ApiProblem, call } from '../../stores/api';
import { forgetShop } from '../../stores/order';
import FilmRow from './FilmRow.vue';

const films = ref<readonly Film[]>([]);
const state = ref<'loading' | 'ready' | 'failed'>('loading');
const problem = ref<ApiProblem>();
const search = ref('');
const shown = ref<'all' | Build>('all');
/** The film whose particulars are open. */
const opened = ref<string>();
const input = ref<HTMLInputElement>();

const rows = computed(() =>
  films.value.filter(
    (film) =>
      (shown.value === 'all' || buildOf(film) === shown.value) &&
      finds(search.value, `${film.name} ${film.code} ${film.colour}`),
  ),
);

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
async function bring(event: Event): Promise<void> {
  const field = event.target as HTMLInputElement;
  const file = field.files?.[0];
  field.value = '';
  if (!file) return;
  const csv = await file.text();
  await keep(() => call('POST', '/api/films', { csv }));
}
</script>

<template>
  <div class="page">
    <div class="head">
      <h1>Films</h1>
      <SearchField v-model="search" placeholder="Name, code or colour" label="Search films" />
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
          <th><span class="unseen">Open</span></th>
          <th>Film</th>
          <th>Code</th>
          <th>Made</th>
          <th>Finish</th>
          <th>Rolls</th>
          <th>From the back</th>
          <th>Per m</th>
        </tr>
      </thead>
      <tbody>
        <FilmRow
          v-for="film in rows"
          :key="film.id"
          :film="film"
          :open="opened === film.id"
          @toggle="opened = opened === film.id ? undefined : film.id"
          @change="change(film, $event)"
        />
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
.unseen {
  position: absolute;
  width: 1px;
  overflow: hidden;
  clip-path: inset(50%);
}
</style>
