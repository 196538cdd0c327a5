<script setup lang="ts">
import { dueText } from '../../parts/dueText';
import { addressOf } from '../../../contracts/address';
import { Archive, CopyPlus, FilePlus2, Type } from '@lucide/vue';
import Dialog from 'primevue/dialog';
import { useIntersectionObserver } from '@vueuse/core';
import { onMounted, ref } from 'vue';
import { useRouter } from 'vue-router';
import type { OrderFilter, OrderRow } from '../../../contracts/api';
import ProblemNote from '../../parts/ProblemNote.vue';
import SearchField from '../../parts/SearchField.vue';
import UndoNote from '../../parts/UndoNote.vue';
import { PLAIN_TEXT } from '../order/artwork/sources';
import { useOrders } from '../../stores/orders';
import { useUnits } from '../../stores/units';
import FoundCuts from './FoundCuts.vue';

const orders = useOrders();
const units = useUnits();
const router = useRouter();
const picker = ref<HTMLInputElement>();

const FILTERS: readonly (readonly [OrderFilter, string])[] = [
  ['all', 'All'],
  ['late', 'Late'],
  ['open', 'Open'],
  ['queued', 'Queued'],
  ['cutting', 'At the cutter'],
  ['cut', 'Cut'],
  ['put-away', 'Put away'],
];
const TAG: Readonly<Record<OrderRow['state'], string>> = {
  open: '',
  queued: 'check',
  cutting: 'check',
  cut: 'good',
};
function stateOf({ state, cutters }: OrderRow): string {
  if (state === 'open') return 'Open';
  if (state === 'cut') return 'Cut';
  return `${state === 'cutting' ? 'At' : 'Queued for'} ${cutters.join(', ')}`;
}
/** The order that a person is asked about before it is gone. */
const toClear = ref<OrderRow>();
async function clearNow(): Promise<void> {
  const row = toClear.value;
  toClear.value = undefined;
  if (row) await orders.clear(row);
}
/** The end of what is shown: what is behind it is fetched when it comes near. */
const end = ref<HTMLElement>();
useIntersectionObserver(end, ([entry]) => entry?.isIntersecting && orders.more(), { rootMargin: '600px' });

async function onPick(event: Event): Promise<void> {
  const input = event.target as HTMLInputElement;
  const [file] = input.files ?? [];
  input.value = '';
  if (!file) return;
  const order = await orders.bringIn(file);
  if (order) await router.push({ name: 'order', params: { id: order.id } });
}
async function typed(): Promise<void> {
  const order = await orders.fromText(PLAIN_TEXT);
  if (order) await router.push({ name: 'order', params: { id: order.id }, query: { open: 'artwork' } });
}
onMounted(() => void orders.refresh());
/** The same graphics and choices, for a customer who comes back. */
async function repeat(row: OrderRow): Promise<void> {
  const order = await orders.repeat(row);
  if (order) await router.push({ name: 'order', params: { id: order.id } });
}
</script>

<template>
  <div class="page">
    <div class="head">
      <h1>Orders</h1>
      <SearchField
        v-model="orders.search"
        class="search"
        placeholder="Name, number, film, cut"
        label="Search orders"
      />
      <div class="states" role="group" aria-label="Show orders that are">
        <button
          v-for="[filter, word] in FILTERS"
          :key="filter"
          :aria-pressed="orders.show === filter"
          @click="orders.show = filter"
        >
          {{ word }}<span v-if="orders.counts" class="number count">{{ orders.counts[filter] }}</span>
        </button>
      </div>
      <input ref="picker" type="file" hidden @change="onPick" />
      <button class="button" @click="typed"><Type :size="17" aria-hidden="true" />From text</button>
      <button class="button main" @click="picker?.click()">
        <FilePlus2 :size="18" aria-hidden="true" />New order
      </button>
    </div>
    <ProblemNote
      v-if="orders.problem"
      :message="orders.problem.message"
      :ways-out="orders.problem.waysOut"
      @close="orders.problem = undefined"
    />
    <FoundCuts :cuts="orders.cuts" />
    <p v-if="orders.state === 'loading'" class="quiet" role="status">Fetching the orders …</p>
    <div v-else-if="orders.state === 'failed'" class="quiet">
      <p>The orders could not be fetched.</p>
      <button class="button" @click="orders.refresh()">Try again</button>
    </div>
    <div v-else-if="orders.rows.length === 0 && orders.search === '' && orders.show === 'all'" class="quiet">
      <h2>No orders yet</h2>
      <p>Drop a customer's drawing or picture anywhere on this page, or start from text.</p>
    </div>
    <p v-else-if="orders.rows.length === 0 && orders.cuts.length === 0" class="quiet">
      No order matches. Clear the search or show all.
    </p>
    <ul v-else class="rows">
      <li v-for="row in orders.rows" :key="row.id">
        <router-link :to="{ name: 'order', params: { id: row.id } }">
          <span class="thumb"
            ><img
              v-if="row.summary"
              :src="`${addressOf('GET /api/orders/{id}/thumbnail.png', { params: { id: row.id } })}?${row.summary.revision ?? row.changedAt}`"
              alt=""
              loading="lazy"
          /></span>
          <span class="what">
            <strong>{{ row.name }}</strong>
            <span class="soft"
              ><span class="number">#{{ row.number }}</span> · {{ row.fileName || 'typed text' }}</span
            >
          </span>
          <span v-if="row.summary" class="size number"
            >{{ units.number(row.summary.width) }} × {{ units.length(row.summary.height) }}</span
          >
          <span v-else class="size soft">planning …</span>
          <span
            v-if="row.summary"
            class="films"
            :aria-label="row.summary.films.map((f) => f.name).join(', ')"
          >
            <span
              v-for="film in row.summary.films.slice(0, 8)"
              :key="film.name"
              class="swatch"
              :style="{ '--film': film.colour }"
              :title="film.name"
            ></span>
            <span v-if="row.summary.films.length > 8" class="soft">+{{ row.summary.films.length - 8 }}</span>
          </span>
          <span v-else class="films"></span>
          <span class="due" :class="{ late: row.late }">{{
            row.due ? `${row.late ? 'was due' : 'due'} ${dueText(row.due)}` : 'no due date'
          }}</span>
          <span class="state">
            <span v-if="row.summary && row.summary.stops > 0" class="tag stop">cannot be cut yet</span>
            <span v-else-if="row.summary && row.summary.checks > 0" class="tag check"
              >{{ row.summary.checks }} to check</span
            >
            <span class="tag" :class="TAG[row.state]">{{ stateOf(row) }}</span>
          </span>
        </router-link>
        <span v-if="orders.show === 'put-away'" class="away">
          <button class="button small" @click="repeat(row)">Once more</button>
          <button class="button small" @click="orders.bringBack(row)">Bring back</button>
          <button class="button small" @click="toClear = row">Clear for good</button>
        </span>
        <span v-else class="away quick">
          <button
            class="aside"
            :aria-label="`Order ${row.name} once more`"
            title="Order it once more"
            @click="repeat(row)"
          >
            <CopyPlus :size="17" />
          </button>
          <button
            class="aside"
            :aria-label="`Put ${row.name} away`"
            title="Put away"
            @click="orders.putAway(row)"
          >
            <Archive :size="17" />
          </button>
        </span>
      </li>
    </ul>
    <UndoNote
      v-if="orders.putAwayLast"
      :says="`${orders.putAwayLast.name} is put away.`"
      @undo="orders.bringBack(orders.putAwayLast)"
      @close="orders.putAwayLast = undefined"
    />
    <Dialog
      :visible="toClear !== undefined"
      modal
      :header="`Clear ${toClear?.name} for good?`"
      @update:visible="toClear = undefined"
    >
      <p class="clear">
        Its choices, its whole undo and its file, when no other order has it, are taken out. This cannot be
        taken back.
      </p>
      <div class="clear-acts">
        <button class="button" autofocus @click="toClear = undefined">Keep it</button>
        <button class="button danger" @click="clearNow">Clear for good</button>
      </div>
    </Dialog>
    <p ref="end" class="soft foot">
      <template v-if="orders.hasMore">{{ orders.rows.length }} shown; more follow.</template>
      Drop a drawing or a picture anywhere to start an order. The file itself is kept as it came.
    </p>
  </div>
</template>

<style scoped>
.page {
  max-width: 1240px;
  margin: 0 auto;
  padding: 18px 20px;
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 14px;
}
.head {
  display: flex;
  align-items: center;
  gap: 14px;
}
h1 {
  font-size: 25px;
}
.search {
  margin-left: 12px;
}
.states {
  display: flex;
  gap: 2px;
  margin-right: auto;
}
.states button {
  padding: 5px 12px;
  border: 0;
  border-radius: 99px;
  background: none;
  font-weight: 620;
}
.states button[aria-pressed='true'] {
  background: var(--ink);
  color: var(--card);
}
.rows {
  display: grid;
  gap: 9px;
  margin: 0;
  padding: 0;
  list-style: none;
}
.rows li {
  position: relative;

  /* rows out of sight cost nothing */
  content-visibility: auto;
  contain-intrinsic-height: auto 98px;
}
.away {
  position: absolute;
  right: 16px;
  bottom: 8px;
}
.away {
  display: flex;
  gap: 8px;
}
.quick {
  gap: 2px;
}
.aside {
  display: grid;
  place-items: center;
  width: 30px;
  height: 28px;
  color: var(--ink-soft);
  background: none;
  border: 0;
  border-radius: var(--radius-field);
  opacity: 0;
}
.rows li:hover .aside,
.aside:focus-visible {
  opacity: 1;
}
.aside:hover {
  color: var(--ink);
  background: var(--rule-soft);
}
.clear {
  max-width: 420px;
  margin: 0 0 16px;
}
.clear-acts {
  display: flex;
  gap: 10px;
  justify-content: flex-end;
}
.danger {
  color: #fffdf7;
  background: var(--currant);
  border-color: var(--currant);
}
.danger:hover:not(:disabled) {
  background: #8e1d2d;
}
.count {
  margin-left: 5px;
  font-size: 12.5px;
  opacity: 0.75;
}
.rows a {
  display: grid;
  grid-template-columns: 158px minmax(190px, 1fr) 178px 190px 128px 200px;
  align-items: center;
  gap: 18px;
  padding: 9px 16px 9px 9px;
  color: inherit;
  text-decoration: none;
  background: var(--card);
  border: var(--line) solid var(--rule);
  border-radius: var(--radius-label);
}
.rows a:hover {
  border-color: var(--ink);
}
.thumb {
  display: grid;
  place-items: center;
  height: 76px;
  padding: 7px;
  background: var(--bench);
  border-radius: var(--radius-field);
}
.thumb img {
  max-width: 100%;
  max-height: 62px;
}
.what {
  display: grid;
  gap: 2px;
  min-width: 0;
}
.what strong {
  font: 680 17px/1.2 var(--heading);
}
.what span {
  font-size: 14px;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.size,
.due {
  font-size: 14px;
}
.late {
  color: var(--currant);
  font-weight: 650;
}
.films {
  display: flex;
  align-items: center;
  gap: 4px;
}
.state {
  display: flex;
  gap: 6px;
  justify-content: flex-end;
}
.quiet {
  padding: 70px 0;
  text-align: center;
  color: var(--ink-soft);
}
.foot {
  font-size: 14px;
  text-align: center;
  margin: 4px;
}
@media (max-width: 1180px) {
  .head {
    flex-wrap: wrap;
  }
  .rows a {
    grid-template-columns: 120px minmax(0, 1fr) 160px 140px 110px minmax(0, 136px);
    gap: 12px;
  }
  .films,
  .state {
    flex-wrap: wrap;
  }
}
</style>
