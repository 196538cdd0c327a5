<script setup lang="ts">
/** What there is to see of a machine: its record, and what it is calibrated for, each with how old that is. */
import { computed } from 'vue';
import type { Calibration } from '../../../contracts/calibrations';
import { smallest } from '../../../core/geometry/lists';
import type { Cutter } from '../../../core/layout/cutter';
import type { Stale, StaleCalibration } from '../../../core/calibration/stale';
import { BY_SENSOR, QUANTITIES, QUANTITY_NAMES } from '../../../core/calibration/stale';
import { useMe } from '../../stores/me';
import { isOf } from './calibrations/quantities';
import { isAtWork } from './calibrations/runs';
import { daysSince } from './calibrations/texts';

const me = useMe();
const props = defineProps<{
  machine: Cutter;
  runs: readonly Calibration[];
  /** Of all machines. */
  stale: readonly StaleCalibration[];
}>();
const emit = defineEmits<{ moved: [at: string | null] }>();

const WHY: Readonly<Record<Stale, string>> = { age: 'old', moved: 'moved since', knife: 'another knife' };
const movedDays = computed(() => (props.machine.movedAt ? daysSince(props.machine.movedAt) : undefined));

const links = computed(() =>
  QUANTITIES.filter((quantity) => props.machine.sensor || !BY_SENSOR.includes(quantity)).map((quantity) => {
    const kept = props.runs.filter(({ setup, keptAt }) => keptAt && isOf(quantity, setup));
    const open = props.runs.some(
      (run) => isOf(quantity, run.setup) && (isAtWork(run) || run.state === 'measuring'),
    );
    const days = kept.length > 0 ? smallest(kept.map(({ keptAt }) => daysSince(keptAt!))) : undefined;
    return {
      quantity,
      name: QUANTITY_NAMES[quantity],
      says: open ? 'under way' : days === undefined ? 'never done' : days === 0 ? 'today' : `${days} days`,
      why: props.stale.find((one) => one.cutter === props.machine.id && one.quantity === quantity)?.why,
    };
  }),
);
</script>

<template>
  <div class="sections" role="navigation" aria-label="What there is to see of it">
    <router-link
      :to="{ name: 'machine', params: { id: machine.id } }"
      :class="{ here: !$route.params.section }"
      :aria-current="$route.params.section ? undefined : 'page'"
    >
      <strong>Record and link</strong>
    </router-link>
    <router-link
      v-for="link in links"
      :key="link.quantity"
      :to="{ name: 'machine', params: { id: machine.id, section: link.quantity } }"
      :class="{ here: $route.params.section === link.quantity }"
      :aria-current="$route.params.section === link.quantity ? 'page' : undefined"
    >
      <strong>{{ link.name }}</strong>
      <span class="soft"
        >{{ link.says }} <em v-if="link.why">{{ WHY[link.why] }}</em></span
      >
    </router-link>
    <p class="moved soft">
      <template v-if="movedDays !== undefined">
        moved {{ movedDays === 0 ? 'today' : movedDays === 1 ? 'a day ago' : `${movedDays} days ago` }}
        <button v-if="me.may('lead')" class="link" @click="emit('moved', null)">Not moved after all</button>
      </template>
      <button v-else-if="me.may('lead')" class="link" @click="emit('moved', new Date().toISOString())">
        It was moved
      </button>
    </p>
  </div>
</template>

<style scoped>
.sections {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  margin-bottom: 16px;
}
a {
  display: flex;
  gap: 8px;
  align-items: baseline;
  padding: 6px 12px;
  color: var(--ink);
  text-decoration: none;
  background: var(--card);
  border: var(--line) solid var(--rule);
  border-radius: var(--radius-card);
}
a:hover {
  border-color: var(--ink-soft);
}
a.here {
  background: var(--damson-soft);
  border-color: var(--damson);
}
strong {
  font-weight: 650;
}
span {
  font-size: 13px;
}
p {
  display: flex;
  gap: 8px;
  align-items: center;
  margin: 0 0 0 auto;
  font-size: 13.5px;
}
em {
  margin-left: 2px;
  padding: 1px 7px;
  font-style: normal;
  font-weight: 650;
  color: var(--quince-text);
  background: var(--quince-soft);
  border-radius: 99px;
}
</style>
