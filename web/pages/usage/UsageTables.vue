<script setup lang="ts">
/** The same as the charts in numbers: by film with the shelf before and after, by week, order and cutter. */
import Column from 'primevue/column';
import DataTable from 'primevue/datatable';
import { computed } from 'vue';
import type { FilmSums, Usage } from '../../../contracts/usage';
import { DOINGS } from '../../../contracts/usage';
import { duration, useUnits } from '../../stores/units';
import { PARTS, partsOf, shareKept, TIMES } from './parts';

const props = defineProps<{ usage: Usage }>();
const units = useUnits();
interface Row extends FilmSums {
  readonly key: string;
  readonly name: string;
}
const tables = computed(
  (): readonly { readonly title: string; readonly head: string; readonly rows: readonly Row[] }[] => [
    {
      title: 'By film',
      head: 'Film',
      rows: props.usage.byFilm
        .filter(({ used }) => used > 0)
        .map((row) => ({ ...row, key: row.film ?? '', name: row.name ?? 'Not known' })),
    },
    {
      title: 'By week',
      head: 'Week of',
      rows: props.usage.byWeek.map((row) => ({ ...row, key: row.monday, name: row.monday })),
    },
    {
      title: 'By order',
      head: 'Order',
      rows: props.usage.byOrder.map((row) => ({
        ...row,
        key: `${row.number}`,
        name: `#${row.number} ${row.name}`,
      })),
    },
    {
      title: 'By cutter',
      head: 'Cutter',

      rows: props.usage.byCutter.map((row) => ({ ...row, key: row.cutter })),
    },
  ],
);
const shelf = computed(() => props.usage.byFilm.filter(({ film }) => film !== null));
const SHELF = [
  ['before', 'before'],
  ['came', 'came in, or was counted'],
  ['gone', 'used'],
  ['after', 'after'],
] as const;
const money = (sum: number): string => (sum === 0 ? '–' : sum.toFixed(2));
</script>

<template>
  <div class="tables">
    <section v-for="{ title, head, rows } in tables" :key="title" class="panel" :aria-label="title">
      <h2>{{ title }}</h2>
      <p v-if="rows.length === 0" class="soft">Nothing in these weeks.</p>
      <DataTable v-else :value="[...rows]" data-key="key" size="small" removable-sort>
        <Column field="name" :header="head" sortable />
        <Column field="used" header="used" sortable class="figure">
          <template #body="{ data }: { data: Row }">{{ units.run(data.used) }}</template>
        </Column>
        <Column v-for="{ key, says } in PARTS" :key="key" :header="says" class="figure">
          <template #body="{ data }: { data: Row }">{{ units.run(partsOf(data)[key]) }}</template>
        </Column>
        <Column header="share on signs" class="figure">
          <template #body="{ data }: { data: Row }">{{ shareKept(data) }}</template>
        </Column>
        <Column field="cost" header="cost" sortable class="figure">
          <template #body="{ data }: { data: Row }">{{ money(data.cost) }}</template>
        </Column>
      </DataTable>
    </section>
    <section class="panel" aria-label="The shelf">
      <h2>The shelf</h2>
      <p v-if="shelf.length === 0" class="soft">Nothing in these weeks.</p>
      <DataTable v-else :value="[...shelf]" data-key="film" size="small">
        <Column field="name" header="Film" />
        <Column v-for="[key, says] in SHELF" :key="key" :header="says" class="figure">
          <template #body="{ data }: { data: Usage['byFilm'][number] }">{{ units.area(data[key]) }}</template>
        </Column>
      </DataTable>
    </section>
    <section class="panel" aria-label="Hours">
      <h2>Hours</h2>
      <p v-if="usage.byCutter.length === 0" class="soft">Nothing in these weeks.</p>
      <DataTable v-else :value="[...usage.byCutter]" data-key="cutter" size="small">
        <Column field="name" header="Cutter" />
        <Column v-for="one in DOINGS" :key="one" :header="TIMES[one].says" class="figure">
          <template #body="{ data }: { data: Usage['byCutter'][number] }">{{
            data.times[one] > 0 ? duration(data.times[one]) : '–'
          }}</template>
        </Column>
      </DataTable>
    </section>
  </div>
</template>

<style scoped>
.tables {
  display: grid;
  gap: 14px;
}
h2 {
  margin-bottom: 8px;
  font-size: 17px;
}
p {
  margin: 0;
}
</style>
