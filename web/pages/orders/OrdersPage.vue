<script setup lang="ts">
import { FilePlus2, Type } from '@lucide/vue';
import Dialog from 'primevue/dialog';
import { useIntersectionObserver } from '@vueuse/core';
import { onMounted, ref } from 'vue';
import { useRouter } from 'vue-router';
import type { OrderFilter, OrderRow } from '../../../contracts/api';
import ProblemNote from '../../parts/ProblemNote.vue';
import SearchField from '../../parts/SearchField.vue';
import UndoNote from '../../parts/UndoNote.vue';
import { PLAIN_TEXT } from '../order/artwork/sources';
import type { GoTo } from '../../stores/intake';
import { useIntake } from '../../stores/intake';
import { useOrders } from '../../stores/orders';
import FoundCuts from './FoundCuts.vue';
import OrderListRow from './OrderListRow.vue';

const orders = useOrders();
const intake = useIntake();
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
  const files = [...(input.files ?? [])];
  input.value = '';
  if (files.length > 0) await intake.start(files, goTo);
}
const goTo: GoTo = async (id) => {
  if (id !== undefined) await router.push({ name: 'order', params: { id } });
};
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
      <div class="pills states" role="group" aria-label="Show orders that are">
        <button
          v-for="[filter, word] in FILTERS"
          :key="filter"
          :aria-pressed="orders.show === filter"
          @click="orders.show = filter"
        >
          {{ word }}<span v-if="orders.counts" class="number count">{{ orders.counts[filter] }}</span>
        </button>
      </div>
      <input ref="picker" type="file" multiple hidden @change="onPick" />
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
      <OrderListRow
        v-for="row in orders.rows"
        :key="row.id"
        :row="row"
        :is-away="orders.show === 'put-away'"
        @repeat="repeat(row)"
        @put-away="orders.putAway(row)"
        @bring-back="orders.bringBack(row)"
        @clear="toClear = row"
      />
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
      Drop drawings or pictures anywhere to start an order; on an open order they are added to it. The file
      itself is kept as it came.
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
  margin-right: auto;
}
.rows {
  display: grid;
  gap: 9px;
  margin: 0;
  padding: 0;
  list-style: none;
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
}
</style>
