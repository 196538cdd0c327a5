<script setup lang="ts">
/** The fitting map on a tablet: where each panel goes, measured from a datum, ticked off as it goes on. */
import { ArrowLeft, Printer } from '@lucide/vue';
import { useLocalStorage } from '@vueuse/core';
import Column from 'primevue/column';
import DataTable from 'primevue/datatable';
import { computed, ref, watch } from 'vue';
import { useRoute } from 'vue-router';
import { addressOf } from '../../../contracts/address';
import type { Order } from '../../../contracts/api';
import type { MapPage } from '../../../contracts/bench';
import type { Datum, MapPanel } from '../../../core/panels/fittingMap';
import { DATUM_WORDS, DATUMS_ACROSS, DATUMS_DOWN } from '../../../core/panels/fittingMap';
import ChoiceField from '../../parts/ChoiceField.vue';
import { ApiProblem, call } from '../../stores/api';
import { useUnits } from '../../stores/units';

const route = useRoute();
const units = useUnits();
const id = Number(route.params.id);
const order = ref<Order>();
const map = ref<MapPage>();
const problem = ref('');

/** What is measured from is remembered on this tablet. */
const datum = useLocalStorage<Datum>('jam-pan-datum', { across: 'left', down: 'upper' });
const named = <T extends keyof typeof DATUM_WORDS>(all: readonly T[]) =>
  all.map((value) => ({ value, label: DATUM_WORDS[value] }));

/** What is on the wall is remembered, for as long as the order stays as it is. */
const done = useLocalStorage<readonly number[]>(() => `jam-pan-fitted-${id}-${order.value?.revision}`, []);
const tick = (number: number): void => {
  done.value = done.value.includes(number) ? done.value.filter((n) => n !== number) : [...done.value, number];
};

async function load(): Promise<void> {
  problem.value = '';
  try {
    [order.value, map.value] = await Promise.all([
      call('GET /api/orders/{id}', { params: { id } }),
      call('GET /api/orders/{id}/fitting-map', { params: { id }, query: datum.value }),
    ]);
    document.title = `Fitting ${order.value.name} · Jam Pan`;
  } catch (error) {
    if (!(error instanceof ApiProblem)) throw error;
    problem.value = error.message;
  }
}
watch(datum, load, { immediate: true, deep: true });

/** mm of the sign that letters on the drawing are high. */
const em = computed(() => Math.max(map.value!.width, map.value!.height * 1.6) / 62);
const view = computed(() => {
  const { width, height } = map.value!;
  const [left, top, rim] = [em.value * 5, em.value * 2.2, em.value * 0.6];
  return `${-left} ${-top} ${width + left + rim} ${height + top + rim}`;
});
const sizeOf = ({ seen }: Pick<MapPanel, 'seen'>): string =>
  `${units.number(seen.maxX - seen.minX)} × ${units.length(seen.maxY - seen.minY)}`;
const next = computed(() => map.value?.panels.find(({ number }) => !done.value.includes(number))?.number);
</script>

<template>
  <div class="page">
    <header>
      <router-link class="button" :to="{ name: 'order', params: { id } }"
        ><ArrowLeft :size="17" aria-hidden="true" />The order</router-link
      >
      <h1>{{ order?.name ?? 'Fitting map' }}</h1>
      <span v-if="order" class="soft number">#{{ order.number }}</span>
      <a
        v-if="map"
        class="button paper"
        :href="addressOf('GET /api/orders/{id}/fitting-map.pdf', { params: { id }, query: datum })"
        target="_blank"
        ><Printer :size="17" aria-hidden="true" />On paper</a
      >
    </header>
    <div v-if="problem">
      <p role="alert">{{ problem }}</p>
      <button class="button" @click="load">Try again</button>
    </div>
    <p v-else-if="!map" class="soft" role="status">Laying out the panels …</p>
    <template v-else>
      <p class="from">
        <span>Measured from</span>
        <ChoiceField
          label="Measured across from"
          :value="datum.across"
          :options="named(DATUMS_ACROSS)"
          @change="datum = { ...datum, across: $event }"
        />
        <span>and</span>
        <ChoiceField
          label="Measured down from"
          :value="datum.down"
          :options="named(DATUMS_DOWN)"
          @change="datum = { ...datum, down: $event }"
        />
        <span class="soft">
          The sign is <b class="number">{{ units.number(map.width) }} × {{ units.length(map.height) }}</b
          >.
          <template v-if="map.overlap > 0"
            >Each panel lies <b class="number">{{ units.length(map.overlap) }}</b> beneath the next.</template
          >
          <template v-else>Panels lie edge to edge.</template>
        </span>
      </p>
      <svg class="map" :viewBox="view" role="img" aria-label="The sign in its panels, with tape lines">
        <rect class="sign" x="0" y="0" :width="map.width" :height="map.height" :stroke-width="em / 12" />
        <path
          v-for="(film, i) in map.outlines"
          :key="i"
          :d="film.outline"
          :fill="film.colour"
          fill-rule="evenodd"
          class="art"
        />
        <rect
          v-for="panel in map.panels"
          :key="panel.number"
          class="panel"
          :class="{ done: done.includes(panel.number), next: panel.number === next }"
          :x="panel.seen.minX"
          :y="panel.seen.minY"
          :width="panel.seen.maxX - panel.seen.minX"
          :height="panel.seen.maxY - panel.seen.minY"
        />
        <g class="tape" :stroke-width="em / 7" :stroke-dasharray="`${em * 0.9} ${em * 0.35}`">
          <path
            v-for="mark in map.tape.upright"
            :key="`u${mark.at}`"
            :d="`M${mark.at} ${-em * 0.4}V${map.height}`"
          />
          <path
            v-for="mark in map.tape.level"
            :key="`l${mark.at}`"
            :d="`M${-em * 0.4} ${mark.at}H${map.width}`"
          />
        </g>
        <g class="figures" :font-size="em * 0.92">
          <text
            v-for="mark in map.tape.upright"
            :key="`u${mark.at}`"
            :x="mark.at"
            :y="-em * 0.8"
            text-anchor="middle"
          >
            {{ units.number(mark.from) }}
          </text>
          <text
            v-for="mark in map.tape.level"
            :key="`l${mark.at}`"
            :x="-em * 0.7"
            :y="mark.at + em * 0.32"
            text-anchor="end"
          >
            {{ units.number(mark.from) }}
          </text>
        </g>
        <g class="numbers" :font-size="em * 1.7">
          <text
            v-for="panel in map.panels"
            :key="panel.number"
            :x="(panel.seen.minX + panel.seen.maxX) / 2"
            :y="(panel.seen.minY + panel.seen.maxY) / 2 + em * 0.6"
            text-anchor="middle"
            :stroke-width="em / 3"
          >
            {{ panel.number }}
          </text>
        </g>
      </svg>
      <DataTable :value="[...map.panels]" data-key="number" class="panels" size="small">
        <Column field="turn" header="Goes on" />
        <Column field="number" header="Panel" />
        <Column header="Seen">
          <template #body="{ data }"
            ><span class="number">{{ sizeOf(data) }}</span></template
          >
        </Column>
        <Column :header="`Left edge from ${DATUM_WORDS[map.datum.across]}`">
          <template #body="{ data }"
            ><span class="number">{{ units.length(data.across) }}</span></template
          >
        </Column>
        <Column :header="`Top edge from ${DATUM_WORDS[map.datum.down]}`">
          <template #body="{ data }"
            ><span class="number">{{ units.length(data.down) }}</span></template
          >
        </Column>
        <Column header="Films">
          <template #body="{ data }">{{
            data.films.map((film: { name: string }) => film.name).join(', ')
          }}</template>
        </Column>
        <Column header="">
          <template #body="{ data }">
            <button
              class="button tick"
              :aria-pressed="done.includes(data.number)"
              :aria-label="`${done.includes(data.number) ? 'On the wall' : 'To put on'}: panel ${data.number}`"
              @click="tick(data.number)"
            >
              {{ done.includes(data.number) ? 'On the wall' : 'To put on' }}
            </button>
          </template>
        </Column>
      </DataTable>
    </template>
  </div>
</template>

<style scoped>
.page {
  height: 100%;
  padding: 14px 24px 30px;
  overflow: auto;
}
header {
  display: flex;
  gap: 14px;
  align-items: center;
  margin-bottom: 10px;
}
header .button {
  min-height: 44px;
}
h1 {
  margin: 0;
  font-size: 26px;
}
.paper {
  margin-left: auto;
}
.from {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: center;
  margin: 0 0 10px;
}
.map {
  display: block;
  width: 100%;
  max-height: 52vh;
  margin-bottom: 14px;
  background: var(--bench);
  border-radius: var(--radius-card);
}
.sign {
  fill: var(--card);
  stroke: var(--ink-soft);
}
.art {
  opacity: 0.5;
}
.panel {
  fill: none;
}
.panel.next {
  fill: color-mix(in srgb, var(--quince) 24%, transparent);
}
.panel.done {
  fill: color-mix(in srgb, var(--gooseberry) 22%, transparent);
}
.tape {
  fill: none;
  stroke: var(--damson);
}
.figures {
  font-family: var(--numbers);
  fill: var(--ink);
}
.numbers {
  font-family: var(--numbers);
  font-weight: 700;
  fill: var(--ink);
  stroke: var(--card);
  paint-order: stroke;
}
.tick {
  min-height: 44px;
}
.tick[aria-pressed='true'] {
  background: var(--gooseberry-soft);
}
</style>
