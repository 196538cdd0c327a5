<script setup lang="ts">
/** Films of which too little is left for this order, once all that is in the queue is cut; before it is queued. */
import { computed } from 'vue';
import type { Film } from '../../../core/films/film';
import { balanceOf, lowOf, wantedOf } from '../../../core/films/ordering';
import { useOrder } from '../../stores/order';
import { useUnits } from '../../stores/units';
import { useWanted } from '../../stores/wanted';
import { cutsOf } from '../../workers/packed';

const store = useOrder();
const units = useUnits();
const { rows, wanted } = useWanted();

/** What the order takes, by film. */
const taken = computed(() => {
  const by = new Map<string, { film: Film; mm: number }>();
  for (const { film, takes } of store.plan ? cutsOf(store.plan) : [])
    by.set(film.id, { film, mm: (by.get(film.id)?.mm ?? 0) + takes });
  return [...by.values()];
});
const short = computed(() =>
  rows.value === undefined
    ? []
    : taken.value.flatMap(({ film, mm }) => {
        const { queued } = wantedOf(wanted.value, film.id);
        const { left, leaves } = balanceOf({ ...film, coming: 0 }, { queued, planned: mm });
        return leaves < lowOf(film) ? [{ film, mm, queued, left, leaves }] : [];
      }),
);
</script>

<template>
  <ul v-if="short.length" aria-label="Film that runs low">
    <li v-for="{ film, mm, queued, left, leaves } in short" :key="film.id" :class="{ lacks: leaves < 0 }">
      <i class="swatch" :style="{ '--film': film.colour }" aria-hidden="true"></i>
      <span v-if="leaves < 0"
        ><b>{{ film.name }} does not reach:</b> {{ units.run(left) }} on the shelf<template v-if="queued > 0"
          >, {{ units.run(queued) }} of it for the queue</template
        >; this takes {{ units.run(mm) }}.</span
      >
      <span v-else>Leaves {{ units.run(leaves) }} of {{ film.name }}.</span>
    </li>
    <li><router-link to="/materials/to-order">What is to be ordered</router-link></li>
  </ul>
</template>

<style scoped>
ul {
  display: grid;
  gap: 3px;
  margin: 0 0 10px;
  padding: 7px 10px;
  font-size: 13px;
  list-style: none;
  background: var(--quince-soft);
  border-radius: var(--radius-field);
}
li {
  display: flex;
  gap: 8px;
  align-items: baseline;
}
.swatch {
  align-self: center;
  width: 11px;
  height: 15px;
}
.lacks b {
  color: var(--currant);
}
</style>
