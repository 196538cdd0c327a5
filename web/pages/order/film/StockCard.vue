<script setup lang="ts">
/** Where a strip could be cut from: rolls, sheets and offcuts, what each would leave, and what lies in the cutter now. */
import { watchDebounced } from '@vueuse/core';
import { computed, shallowRef } from 'vue';
import type { Roll } from '../../../../core/films/film';
import type { RollPick } from '../../../../core/layout/strip';
import type { StockOffer } from '../../../../core/plan/offers';
import { own } from '../../../../core/units/own';
import { sizeOf, stockWord } from '../../../parts/onShelf';
import { useCutters } from '../../../stores/cutters';
import { useOnFilm } from '../../../stores/onFilm';
import { useOrder } from '../../../stores/order';
import { SETTLED } from '../../../stores/packing';
import { useUnits } from '../../../stores/units';
import type { StripView } from '../../../workers/packed';

const { strip } = defineProps<{ strip: StripView }>();
const store = useOrder();
const laying = useOnFilm();
const machines = useCutters();
const units = useUnits();
machines.follow(() => strip.cutter);

const offers = shallowRef<readonly StockOffer[]>([]);
async function ask(): Promise<void> {
  const { plan } = store;
  const found: StockOffer[] = [];
  await store.stockOffers(strip.film.id, (offer) => {
    if (store.plan !== plan) return;
    found.push(offer);
    offers.value = [...found];
  });
}
watchDebounced(() => [store.chosenPlan, strip.film.id], ask, { immediate: true, debounce: SETTLED });

const picked = computed(() => own(store.choices?.layout.rolls ?? {}, strip.film.id));
const pickOf = ({ width, offcut }: Roll): RollPick => offcut ?? width;
const isPicked = (roll: Roll): boolean => picked.value === pickOf(roll);

/** Whether it is enough, and what it leaves or lacks. */
function verdict({ roll, length, findings }: StockOffer) {
  const stop = findings.find(({ severity }) => severity === 'stop');
  if (length === undefined || stop) return { fits: false, says: 'does not fit' };
  const there = roll.lengthLeft * (roll.sheets ?? 1);
  if (length > there) return { fits: false, says: `too short by ${units.run(length - there)}` };
  const short = findings.find(({ code }) => code === 'film-short');
  if (short) return { fits: false, says: 'too short' };
  if (roll.sheets !== undefined && roll.offcut === undefined) return { fits: true, says: 'sheets' };
  return { fits: true, says: `leaves ${units.run(there - length)}` };
}
const rows = computed(() => offers.value.map((offer) => ({ ...offer, ...verdict(offer) })));
const loaded = computed(() => machines.states.find(({ id }) => id === strip.cutter));
const loadedSize = computed(() => {
  const film = loaded.value?.film;
  return film ? { width: film.width, length: film.length } : undefined;
});
const isLoadedPicked = computed(
  () =>
    typeof picked.value === 'object' &&
    picked.value.width === loadedSize.value?.width &&
    picked.value.length === loadedSize.value.length,
);
const take = (pick: RollPick | undefined): void => laying.pickRoll(strip.film.id, pick);
</script>

<template>
  <section>
    <h2>Where it could be cut from</h2>
    <ul>
      <li v-for="row in rows" :key="`${row.roll.offcut ?? ''} ${row.roll.width} ${row.roll.lengthLeft}`">
        <span class="fits" :class="{ on: row.fits }">{{ row.fits ? 'fits' : '' }}</span>
        <span class="what"
          ><b>{{ stockWord(row.roll) }}</b> <span class="number">{{ sizeOf(row.roll, units) }}</span><small
            class="soft"
            >{{ row.says }}</small
          ></span
        >
        <button
          class="button slim"
          :aria-pressed="isPicked(row.roll)"
          :disabled="!laying.isFree"
          @click="take(isPicked(row.roll) ? undefined : pickOf(row.roll))"
        >
          {{ isPicked(row.roll) ? 'Taken' : 'Take it' }}
        </button>
      </li>
      <li v-if="loadedSize">
        <span class="fits"></span>
        <span class="what"
          ><b>In {{ loaded?.name }} now</b>
          <span class="number">{{
            sizeOf({ width: loadedSize.width, lengthLeft: loadedSize.length }, units)
          }}</span><small class="soft">as it reads it</small></span
        >
        <button
          class="button slim"
          :aria-pressed="isLoadedPicked"
          :disabled="!laying.isFree"
          @click="take(isLoadedPicked ? undefined : loadedSize)"
        >
          {{ isLoadedPicked ? 'Taken' : 'Take size' }}
        </button>
      </li>
    </ul>
    <p v-if="rows.length === 0" class="hint">Nothing of it is on the shelf.</p>
  </section>
</template>

<style scoped>
h2 {
  margin: 0 0 8px;
  font-size: 15px;
}
ul {
  display: grid;
  gap: 5px;
  margin: 0;
  padding: 0;
  max-height: 132px;
  overflow-y: auto;
  list-style: none;
}
li {
  display: grid;
  grid-template-columns: 36px minmax(0, 1fr) 86px;
  gap: 8px;
  align-items: center;
  font-size: 13px;
  white-space: nowrap;
}
.what {
  overflow: hidden;
  line-height: 1.25;
  text-overflow: ellipsis;
}
.what .number {
  margin-left: 5px;
  font-size: 12px;
}
.what small {
  display: block;
  font-size: 12px;
}
.fits.on {
  padding: 1px 6px;
  font-size: 12px;
  font-weight: 650;
  color: var(--gooseberry-text, #46611c);
  background: var(--gooseberry-soft);
  border-radius: 10px;
}
.slim[aria-pressed='true'] {
  color: var(--card);
  background: var(--damson);
}
</style>
