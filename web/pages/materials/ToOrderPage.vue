<script setup lang="ts">
/** Films of which too little is left for what is queued and planned; what was ordered, until it has come. */
import { Download } from '@lucide/vue';
import Column from 'primevue/column';
import DataTable from 'primevue/datatable';
import { computed, ref } from 'vue';
import type { Balance } from '../../../core/films/ordering';
import { arrived, balanceOf, lowOf, packOf, toOrderCsv, wantedOf } from '../../../core/films/ordering';
import NumberField from '../../parts/NumberField.vue';
import { onShelf } from '../../parts/onShelf';
import OnlyFor from '../../parts/OnlyFor.vue';
import ProblemNote from '../../parts/ProblemNote.vue';
import { useUnits } from '../../stores/units';
import { useWanted } from '../../stores/wanted';
import { useFilms } from './useFilms';

const { films, state, problem, again, change } = useFilms();
const { rows, wanted } = useWanted();
const units = useUnits();

const balances = computed(() => films.value.map((film) => balanceOf(film, wantedOf(wanted.value, film.id))));
const short = computed(() => balances.value.filter(({ packs }) => packs > 0));
const coming = computed(() => balances.value.filter(({ film }) => (film.coming ?? 0) > 0));
/** Other numbers of packs than are proposed, by film. */
const asked = ref<Readonly<Record<string, number>>>({});
const packsOf = ({ film, packs }: Balance): number => asked.value[film.id] ?? packs;
async function order(balance: Balance): Promise<void> {
  const { film } = balance;
  await change(film, { coming: (film.coming ?? 0) + packsOf(balance) });
  const { [film.id]: _done, ...rest } = asked.value;
  asked.value = rest;
}
const costOf = (balance: Balance): number => {
  const pack = packOf(balance.film);
  return (packsOf(balance) * pack.lengthLeft * (pack.sheets ?? 1) * (balance.film.price ?? 0)) / 1000;
};
const total = computed(() => short.value.reduce((sum, one) => sum + costOf(one), 0));
/** Orders that want it beside those that are named. */
const othersOf = ({ film }: Balance): number => {
  const { count = 0, orders = [] } = wanted.value.get(film.id) ?? {};
  return count - orders.length;
};
const asCsv = computed(
  () =>
    `data:text/csv;charset=utf-8,${encodeURIComponent(toOrderCsv(short.value.map((one) => ({ film: one.film, packs: packsOf(one) }))))}`,
);
</script>

<template>
  <div class="page">
    <div class="head">
      <h1>To order</h1>
      <span class="soft">what is left, less what the queue and orders want, is less than is kept</span>
      <span v-if="total > 0" class="number">{{ total.toFixed(2) }} in all</span>
      <a v-if="short.length" class="button" :href="asCsv" download="to-order.csv"
        ><Download :size="16" aria-hidden="true" />As a table</a
      >
      <router-link class="button" to="/materials">All films</router-link>
    </div>
    <ProblemNote
      v-if="problem"
      :message="problem.message"
      :ways-out="problem.waysOut"
      @close="problem = undefined"
    />
    <p v-if="state === 'loading' || !rows" class="soft" role="status">Looking along the shelf.</p>
    <div v-else-if="state === 'failed'">
      <p>The films could not be fetched.</p>
      <button class="button" @click="again">Try again</button>
    </div>
    <OnlyFor v-else role="lead" says="Only a lead orders film." fields-only>
      <p v-if="short.length === 0" class="none">Nothing: there is enough of every film.</p>
      <DataTable
        v-else
        class="table"
        :value="[...short]"
        data-key="film.id"
        size="small"
        aria-label="To order"
      >
        <Column header="Film">
          <template #body="{ data }: { data: Balance }">
            <span class="name"
              ><i class="swatch" :style="{ '--film': data.film.colour }"></i>
              <span
                >{{ data.film.name }}<small class="number soft">{{ data.film.code }}</small></span
              ></span
            >
          </template>
        </Column>
        <Column header="On the shelf" class="figure">
          <template #body="{ data }: { data: Balance }">{{ units.run(data.left) }}</template>
        </Column>
        <Column header="On its way" class="figure">
          <template #body="{ data }: { data: Balance }">{{
            data.coming > 0 ? units.run(data.coming) : '–'
          }}</template>
        </Column>
        <Column header="In the queue" class="figure">
          <template #body="{ data }: { data: Balance }">{{
            data.queued > 0 ? units.run(data.queued) : '–'
          }}</template>
        </Column>
        <Column header="For orders">
          <template #body="{ data }: { data: Balance }">
            <span v-if="data.planned === 0" class="soft">–</span>
            <span v-else class="orders">
              <b class="number">{{ units.run(data.planned) }}</b>
              <router-link
                v-for="one in wanted.get(data.film.id)?.orders"
                :key="one.id"
                class="number"
                :title="one.name"
                :to="{ name: 'order', params: { id: one.id } }"
                >#{{ one.number }}</router-link
              >
              <span v-if="othersOf(data) > 0" class="soft">and {{ othersOf(data) }} more</span>
            </span>
          </template>
        </Column>
        <Column header="Leaves" class="figure">
          <template #body="{ data }: { data: Balance }">
            <b :class="{ none: data.leaves < 0 }">{{
              data.leaves < 0 ? `${units.run(-data.leaves)} short` : units.run(data.leaves)
            }}</b>
            <small class="soft">kept: {{ units.run(lowOf(data.film)) }}</small>
          </template>
        </Column>
        <Column header="Order">
          <template #body="{ data }: { data: Balance }">
            <span class="packs">
              <NumberField
                :value="packsOf(data)"
                :min="1"
                :max="1000"
                :label="`Packs of ${data.film.name} to order`"
                @change="asked = { ...asked, [data.film.id]: $event }"
              />
              × <span class="number">{{ onShelf(packOf(data.film), units) }}</span>
            </span>
          </template>
        </Column>
        <Column header="Cost" class="figure">
          <template #body="{ data }: { data: Balance }">{{
            costOf(data) > 0 ? costOf(data).toFixed(2) : '–'
          }}</template>
        </Column>
        <Column>
          <template #body="{ data }: { data: Balance }">
            <button class="button slim" @click="order(data)">
              It is ordered<span class="unseen">: {{ data.film.name }}</span>
            </button>
          </template>
        </Column>
      </DataTable>
      <section v-if="coming.length" aria-labelledby="coming">
        <h2 id="coming">On its way</h2>
        <ul>
          <li v-for="{ film } in coming" :key="film.id">
            <i class="swatch" :style="{ '--film': film.colour }"></i>
            <span
              >{{ film.name }}, {{ film.coming }} ×
              <span class="number">{{ onShelf(packOf(film), units) }}</span></span
            >
            <button class="button slim" @click="change(film, arrived(film))">
              It has come<span class="unseen">: {{ film.name }}</span>
            </button>
            <button class="button slim" @click="change(film, { coming: 0 })">
              It will not come<span class="unseen">: {{ film.name }}</span>
            </button>
          </li>
        </ul>
      </section>
    </OnlyFor>
  </div>
</template>

<style scoped>
.page {
  display: grid;
  gap: 14px;
  align-content: start;
  max-width: 1280px;
  margin: 0 auto;
  padding: 16px 24px 24px;
}
.head {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 14px;
  align-items: center;
}
.head .soft {
  flex: 1;
}
h1 {
  font-size: 26px;
}
h2 {
  margin: 18px 0 8px;
  font-size: 17px;
}
p {
  margin: 0;
}
.none {
  color: var(--gooseberry-text);
}
b.none {
  color: var(--currant);
}
.name {
  display: flex;
  gap: 9px;
  align-items: center;
  font-weight: 620;
}
small {
  display: block;
  white-space: nowrap;
  font-size: 12.5px;
  font-weight: 400;
}
.swatch {
  width: 19px;
  height: 25px;
}
.orders {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 9px;
}
.packs {
  display: flex;
  gap: 6px;
  align-items: center;
  white-space: nowrap;
}
.packs :deep(input) {
  width: 52px;
}
.table {
  overflow: hidden;
  border: var(--line) solid var(--ink);
  border-radius: var(--radius-label);
}
ul {
  display: grid;
  gap: 8px;
  margin: 0;
  padding: 0;
  list-style: none;
}
li {
  display: flex;
  gap: 10px;
  align-items: center;
}
</style>
