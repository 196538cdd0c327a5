<script setup lang="ts">
/** The fitting map on a tablet: where each panel goes, measured from a datum, ticked off as it goes on. */
import { useLocalStorage } from '@vueuse/core';
import Column from 'primevue/column';
import DataTable from 'primevue/datatable';
import { computed, watch } from 'vue';
import { addressOf } from '../../../contracts/address';
import type { KeepOut } from '../../../core/panels/choices';
import { placeOfPicture } from '../../../core/panels/surface';
import type { Datum, MapPanel } from '../../../core/panels/fittingMap';
import { datumWord, DATUMS_ACROSS, DATUMS_DOWN } from '../../../core/panels/fittingMap';
import ChoiceField from '../../parts/ChoiceField.vue';
import OrderSheet from '../../parts/OrderSheet.vue';
import { useOrderSheet } from '../../parts/orderSheet';
import { call } from '../../stores/api';
import { useUnits } from '../../stores/units';

const units = useUnits();
/** What is measured from is remembered on this tablet. */
const datum = useLocalStorage<Datum>('jam-pan-datum', { across: 'left', down: 'upper' });
const word = (edge: Datum['across'] | Datum['down']): string => datumWord(edge, map.value!.isOnSurface);
const named = <T extends Datum['across'] | Datum['down']>(all: readonly T[]) =>
  all.map((value) => ({ value, label: word(value) }));
const {
  id,
  order,
  sheet: map,
  problem,
  load,
  useTicks,
} = useOrderSheet('Fitting', (own) =>
  call('GET /api/orders/{id}/fitting-map', { params: { id: own }, query: datum.value }),
);
const { done, tick } = useTicks<number>('fitted');
watch(datum, load, { immediate: true, deep: true });

/** mm of the sign that letters on the drawing are high. */
const em = computed(() => Math.max(map.value!.width, map.value!.height * 1.6) / 62);
const view = computed(() => {
  const { width, height } = map.value!;
  const [left, top, rim] = [em.value * 5, em.value * 2.2, em.value * 0.6];
  return `${-left} ${-top} ${width + left + rim} ${height + top + rim}`;
});
/** A line of tape for each seam and edge, and its figure outside the sign. */
const tape = computed(() => {
  const { width, height, tape: lines } = map.value!;
  const through = (way: readonly number[] | undefined): string | undefined =>
    way &&
    `M${way
      .map((v, i) => `${v}${i % 2 === 0 ? ' ' : 'L'}`)
      .join('')
      .slice(0, -1)}`;
  return [
    ...lines.upright.map(({ at, from, way }) => ({
      d: through(way) ?? `M${at} ${-em.value * 0.4}V${height}`,
      x: at,
      y: -em.value * 0.8,
      anchor: 'middle',
      from,
    })),
    ...lines.level.map(({ at, from, way }) => ({
      d: through(way) ?? `M${-em.value * 0.4} ${at}H${width}`,
      x: -em.value * 0.7,
      y: at + em.value * 0.32,
      anchor: 'end',
      from,
    })),
  ];
});
/** A place that is kept clear: its edge and both diagonals. */
const crossed = ({ x, y, width, height }: KeepOut): string =>
  `M${x} ${y}h${width}v${height}h${-width}zl${width} ${height}M${x} ${y + height}l${width} ${-height}`;
const sizeOf = ({ seen }: Pick<MapPanel, 'seen'>): string =>
  `${units.number(seen.maxX - seen.minX)} × ${units.length(seen.maxY - seen.minY)}`;
/** What neighbours share: one figure for all seams, or each seam's own. */
const shared = computed(() => {
  const { tape: lines } = map.value!;
  const own = [...lines.upright, ...lines.level].flatMap(({ overlap }) => overlap ?? []);
  const all = [...new Set(own)];
  if (all.every((mm) => mm === 0)) return 'Panels lie edge to edge.';
  if (all.length === 1) return `Each panel lies ${units.length(all[0])} beneath the next.`;
  return `At the seams panels lie ${own.map((mm) => units.length(mm)).join(', ')} beneath the next, in this order.`;
});
const picture = computed(() => {
  const own = map.value?.picture;
  if (!own) return undefined;
  const href = addressOf('GET /api/files/{hash}/picture', {
    params: { hash: own.file },
    query: { width: 2000 },
  });
  return { href, ...placeOfPicture(own) };
});
const next = computed(() => map.value?.panels.find(({ number }) => !done.value.has(number))?.number);
</script>

<template>
  <OrderSheet
    :id="id"
    :order="order"
    title="Fitting map"
    :ready="map !== undefined"
    waits="Laying out the panels …"
    :problem="problem"
    :paper="addressOf('GET /api/orders/{id}/fitting-map.pdf', { params: { id }, query: datum })"
    @retry="load"
  >
    <template v-if="map">
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
          The {{ map.isOnSurface ? 'surface' : 'sign' }} is
          <b class="number">{{ units.number(map.width) }} × {{ units.length(map.height) }}</b
          >. {{ shared }}
        </span>
      </p>
      <svg class="map" :viewBox="view" role="img" aria-label="The sign in its panels, with tape lines">
        <rect class="sign" x="0" y="0" :width="map.width" :height="map.height" :stroke-width="em / 12" />
        <image v-if="picture" v-bind="picture" preserveAspectRatio="none" class="picture" />
        <g :transform="`translate(${map.sign.minX} ${map.sign.minY})`">
          <path
            v-for="(film, i) in map.outlines"
            :key="i"
            :d="film.outline"
            :fill="film.colour"
            fill-rule="evenodd"
            class="art"
          />
        </g>
        <g v-for="(one, i) in map.keepOuts" :key="`clear ${i}`" :stroke-width="em / 12">
          <path class="clear" :d="crossed(one)" />
          <text class="figure" :x="one.x + em * 0.3" :y="one.y + em" :font-size="em * 0.8">
            {{ one.name }}
          </text>
        </g>
        <rect
          v-for="panel in map.panels"
          :key="panel.number"
          class="panel"
          :class="{ done: done.has(panel.number), next: panel.number === next, piece: panel.isPiece }"
          :stroke-width="em / 14"
          :x="panel.seen.minX"
          :y="panel.seen.minY"
          :width="panel.seen.maxX - panel.seen.minX"
          :height="panel.seen.maxY - panel.seen.minY"
        />
        <g
          v-for="mark in tape"
          :key="mark.d"
          :stroke-width="em / 7"
          :stroke-dasharray="`${em * 0.9} ${em * 0.35}`"
        >
          <path class="tape" :d="mark.d" />
          <text class="figure" :x="mark.x" :y="mark.y" :text-anchor="mark.anchor" :font-size="em * 0.92">
            {{ units.number(mark.from) }}
          </text>
        </g>
        <g class="numbers" :font-size="em * (map.panels.length > 40 ? 1 : 1.7)">
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
        <Column :header="`Left edge from ${word(map.datum.across)}`">
          <template #body="{ data }"
            ><span class="number">{{ units.length(data.across) }}</span></template
          >
        </Column>
        <Column :header="`Top edge from ${word(map.datum.down)}`">
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
              :aria-pressed="done.has(data.number)"
              :aria-label="`${done.has(data.number) ? 'On the wall' : 'To put on'}: panel ${data.number}`"
              @click="tick(data.number)"
            >
              {{ done.has(data.number) ? 'On the wall' : 'To put on' }}
            </button>
          </template>
        </Column>
      </DataTable>
    </template>
  </OrderSheet>
</template>

<style scoped>
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
.panel.piece {
  stroke: var(--damson);
}
.picture {
  opacity: 0.6;
}
.clear {
  fill: color-mix(in srgb, var(--currant) 8%, transparent);
  stroke: var(--currant);
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
.figure {
  stroke: none;
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
