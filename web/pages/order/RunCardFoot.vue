<script setup lang="ts">
/** What the order takes, and the way to the cutter. */
import { until } from '@vueuse/core';
import { computed, ref } from 'vue';
import { atWhichCutter } from '../../parts/atWhichCutter';
import OutdatedNote from '../../parts/OutdatedNote.vue';
import { useOrder } from '../../stores/order';
import { useOutdated } from '../../stores/outdated';
import { usePacking } from '../../stores/packing';
import { duration, useUnits } from '../../stores/units';
import { cutsOf } from '../../workers/packed';
import FilmLeft from './FilmLeft.vue';
import { count } from './runCardSections';

const emit = defineEmits<{ queue: []; hold: [] }>();
const store = useOrder();
const packing = usePacking();
const units = useUnits();
const plan = computed(() => store.plan);
/** Cuts that were queued here; those that another order is cut with are queued there. */
const open = computed(() => store.openCuts.filter(({ orderId }) => orderId === store.order?.id));
/** What waits and is of an earlier state of the order. */
const outdated = useOutdated(() => store.openCuts);
/** Strips of film and printed sheets. */
const toCut = computed(() => (plan.value ? cutsOf(plan.value).length : 0));
/** An order of which all is cut with another says so. */
const label = computed(() => {
  if (store.cutWith) return `Cut with #${store.cutWith.number}`;
  return toCut.value === 0 ? 'Queue' : `Queue ${count(toCut.value, 'cut')}`;
});
const canQueue = computed(
  () =>
    plan.value !== undefined &&
    plan.value.findings.every((f) => f.severity !== 'stop') &&
    toCut.value > 0 &&
    open.value.length === 0 &&
    store.saving !== 'waiting' &&
    !store.halted &&
    // what is only looked at is not what would be cut
    !store.looked &&
    !packing.now,
);
/** What was just changed is cut as it was changed: a press waits until it is saved and planned. */
const pressed = ref<'queue' | 'hold'>();
async function press(what: 'queue' | 'hold'): Promise<void> {
  const { id } = store.order!;
  if (pressed.value) return;
  pressed.value = what;
  await until(() => store.isUpToDate || !canQueue.value).toBe(true);
  pressed.value = undefined;
  // another order was opened meanwhile, or it came out as nothing that can be cut
  if (store.order?.id !== id || !canQueue.value) return;
  if (what === 'queue') emit('queue');
  else emit('hold');
}
</script>

<template>
  <div class="foot">
    <dl>
      <div>
        <dd class="number">{{ plan ? units.run(plan.totals.filmLength) : '–' }}</dd>
        <dt>film</dt>
      </div>
      <div>
        <dd class="number">{{ plan ? units.area(plan.totals.filmArea) : '–' }}</dd>
        <dt>area</dt>
      </div>
      <div>
        <dd class="number">
          {{ plan && toCut > 0 ? duration(plan.totals.seconds) : '–' }}
        </dd>
        <dt>at cutter</dt>
      </div>
      <div>
        <dd class="number">{{ plan ? plan.totals.swaps : '–' }}</dd>
        <dt>film swaps</dt>
      </div>
    </dl>
    <FilmLeft v-if="!open.length && toCut > 0" />
    <OutdatedNote
      v-for="one in outdated.all.value"
      :key="one.order.id"
      class="outdated"
      :outdated="one"
      :busy="outdated.isBusy.value || store.saving === 'waiting'"
      :problem="outdated.problem.value?.message"
      @replace="outdated.replace(one)"
      @keep="outdated.keep(one)"
    />
    <router-link v-if="open.length" class="button main" :to="atWhichCutter(open)">
      {{
        open.some(({ state }) => state === 'held')
          ? 'On the shelf: go to the floor'
          : 'In the queue: go to the cutter'
      }}
    </router-link>
    <div v-else class="send">
      <button
        class="button main"
        :disabled="!canQueue"
        :aria-busy="pressed === 'queue'"
        @click="press('queue')"
      >
        {{ pressed === 'queue' ? 'Queued once it is planned …' : label }}
      </button>
      <button
        class="button"
        :disabled="!canQueue"
        :aria-busy="pressed === 'hold'"
        title="To be sent later, from the floor"
        @click="press('hold')"
      >
        {{ pressed === 'hold' ? 'Held …' : 'Hold' }}
      </button>
    </div>
  </div>
</template>

<style scoped>
.foot {
  padding: 10px 16px 14px;
  background: var(--paper);
  border-top: var(--line) solid var(--ink);
}
dl {
  display: flex;
  justify-content: space-between;
  margin: 0 0 10px;
}
dl div {
  display: flex;
  flex-direction: column;
}
dd {
  margin: 0;
  font-size: 16px;
  font-weight: 700;
}
dt {
  font-size: 12.5px;
  color: var(--ink-soft);
}
.foot > .button {
  width: 100%;
}
.outdated {
  margin-bottom: 10px;
}
.send {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 8px;
}
</style>
