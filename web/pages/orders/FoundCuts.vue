<script setup lang="ts">
/** Cuts that the search names by their number or by their sheet's code. */
import type { RouteLocationRaw } from 'vue-router';
import type { FoundCut } from '../../../contracts/api';
import { dayText } from '../../parts/dayText';

defineProps<{ cuts: readonly FoundCut[] }>();
/** What is done is seen as it was cut, what is left out in its order, all else where it is. */
function placeOf({ id, orderId, cutterId, state }: FoundCut): RouteLocationRaw {
  const order = { name: 'order', params: { id: orderId } };
  if (state === 'done') return { ...order, query: { cut: id } };
  if (state === 'cancelled') return order;
  return state === 'held' ? { name: 'floor' } : { name: 'cutter', params: { id: cutterId } };
}
function says({ state, endedAt, cutter }: FoundCut): string {
  if (state === 'done') return `cut on ${cutter}, ${dayText(new Date(endedAt!), true)}`;
  if (state === 'cancelled') return 'left out';
  return state === 'held' ? 'on the shelf' : `at ${cutter}`;
}
</script>

<template>
  <ul v-if="cuts.length" aria-label="Cuts found">
    <li v-for="cut in cuts" :key="cut.id">
      <router-link :to="placeOf(cut)">
        <i class="swatch" :style="{ '--film': cut.colour }" aria-hidden="true"></i>
        <b
          >Cut <span class="number">{{ cut.id }}</span></b
        >
        <span>{{ cut.film }}{{ cut.sheet ? `, sheet ${cut.sheet}` : '' }}</span>
        <span class="soft"
          ><span class="number">#{{ cut.orderNumber }}</span> {{ cut.orderName }}</span
        >
        <span class="soft at">{{ says(cut) }}</span>
      </router-link>
    </li>
  </ul>
</template>

<style scoped>
ul {
  display: grid;
  gap: 6px;
  margin: 0 0 12px;
  padding: 0;
  list-style: none;
}
a {
  display: flex;
  gap: 14px;
  align-items: center;
  padding: 7px 14px;
  color: var(--ink);
  text-decoration: none;
  background: var(--damson-soft);
  border-radius: var(--radius-card);
}
a:hover b {
  text-decoration: underline;
}
.swatch {
  width: 15px;
  height: 20px;
}
.at {
  margin-left: auto;
}
</style>
