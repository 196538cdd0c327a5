<script setup lang="ts">
/** The shop's machines: what each asks for, whether it answers, and what waits for it. */
import { ExternalLink } from '@lucide/vue';
import { computed, onMounted, shallowRef } from 'vue';
import type { Cut } from '../../../contracts/cuts';
import type { CutterState } from '../../../contracts/shop';
import type { Cutter } from '../../../core/layout/cutter';
import { cuttableWidth } from '../../../core/layout/cutter';
import type { Shop } from '../../../core/plan/shop';
import ProblemNote from '../../parts/ProblemNote.vue';
import { call } from '../../stores/api';
import { useCutters } from '../../stores/cutters';
import { duration, useUnits } from '../../stores/units';
import { KIND_NAMES } from '../machines/kinds';
import { answersOf, asksOf } from './asks';

const units = useUnits();
const store = useCutters();
const shop = shallowRef<Shop>();
store.follow();
onMounted(async () => (shop.value = await call('GET /api/shop').catch(() => undefined)));

interface Row {
  readonly state: CutterState;
  readonly record: Cutter | undefined;
  readonly cuts: readonly Cut[];
  readonly waiting: readonly Cut[];
}
const rows = computed<Row[]>(() =>
  store.states.map((state) => {
    const cuts = store.cuts.filter(({ cutterId }) => cutterId === state.id);
    return {
      state,
      record: shop.value?.cutters.find(({ id }) => id === state.id),
      cuts,
      waiting: cuts.filter((cut) => cut.state === 'queued'),
    };
  }),
);
const about = ({ kind, widest, trackLength, device, ...rest }: Cutter): string =>
  [
    KIND_NAMES[kind],
    kind === 'flatbed'
      ? `${units.number(trackLength)} × ${units.length(widest)}`
      : `cuts ${units.length(cuttableWidth({ widest, ...rest }, widest))} wide`,
    ...((device.tools ?? 1) > 1 ? ['two tools'] : []),
  ].join(' · ');
const sum = (cuts: readonly Cut[]): number => cuts.reduce((all, { seconds }) => all + seconds, 0);
</script>

<template>
  <div class="page">
    <h1>At the cutter</h1>
    <ProblemNote v-if="store.problem" :message="store.problem.message" @close="store.problem = undefined" />
    <p v-if="!store.ready && !store.problem" class="soft" role="status">Asking the machines.</p>
    <p v-else-if="store.ready && rows.length === 0">The shop has no cutter yet.</p>
    <ul>
      <li v-for="{ state, record, cuts, waiting } in rows" :key="state.id" :class="state.state">
        <router-link class="go" :to="{ name: 'cutter', params: { id: state.id } }">
          <h2>{{ state.name }}</h2>
          <span v-if="record" class="soft">{{ about(record) }}</span>
          <strong :class="{ asking: asksOf(cuts).isAsking }">{{ asksOf(cuts).says }}</strong>
        </router-link>
        <p class="soft">
          <i class="dot" aria-hidden="true"></i>{{ answersOf(state, units) }}
          <template v-if="waiting.length > 0">
            · {{ waiting.length === 1 ? '1 cut waits' : `${waiting.length} cuts wait` }},
            {{ duration(sum(waiting)) }}
          </template>
        </p>
        <a v-if="state.panel" class="panel" :href="state.panel" target="_blank" rel="noopener"
          >{{ state.name }}’s front panel <ExternalLink :size="15" aria-hidden="true"
        /></a>
      </li>
    </ul>
  </div>
</template>

<style scoped>
.page {
  max-width: 1100px;
  margin: 0 auto;
  padding: 22px 24px;
}
h1 {
  margin-bottom: 16px;
  font-size: 26px;
}
ul {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(420px, 1fr));
  gap: 14px;
  margin: 0;
  padding: 0;
  list-style: none;
}
li {
  display: grid;
  align-content: start;
  gap: 8px;
  padding: 16px 18px;
  background: var(--card);
  border: var(--line) solid var(--ink);
  border-radius: var(--radius-label);
}
.go {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 4px 12px;
  align-items: baseline;
  min-height: 44px;
  color: var(--ink);
  text-decoration: none;
}
.go strong {
  grid-column: 1 / 3;
  font: 700 22px/1.25 var(--heading);
}
.go:hover h2 {
  text-decoration: underline;
}
h2 {
  font-size: 17px;
}
.asking {
  color: var(--damson);
}
li p {
  margin: 0;
}
.dot {
  display: inline-block;
  width: 10px;
  height: 10px;
  margin-right: 8px;
  border-radius: 50%;
  background: var(--gooseberry);
}
.away .dot {
  background: var(--currant);
}
.at-work .dot {
  background: var(--quince);
}
.panel {
  display: inline-flex;
  gap: 5px;
  align-items: center;
  justify-self: start;
  min-height: 24px;
}
</style>
