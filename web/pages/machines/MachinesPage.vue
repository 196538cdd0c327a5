<script setup lang="ts">
/** One place for each machine: what it is, what it reaches, how it is spoken to, and whether it answers. */
import { Plus } from '@lucide/vue';
import { computed, ref } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import type { Cutter } from '../../../core/layout/cutter';
import OnlyFor from '../../parts/OnlyFor.vue';
import ProblemNote from '../../parts/ProblemNote.vue';
import { useCutters } from '../../stores/cutters';
import { useMe } from '../../stores/me';
import { useUnits } from '../../stores/units';
import AddMachine from './AddMachine.vue';
import { KIND_NAMES } from './kinds';
import MachineDetails from './MachineDetails.vue';
import CalibrationSection from './calibrations/CalibrationSection.vue';
import type { Quantity } from '../../../core/calibration/stale';
import { useCalibrations } from './calibrations/useCalibrations';
import SectionLinks from './SectionLinks.vue';
import { useMachines } from './useMachines';

const route = useRoute();
const router = useRouter();
const me = useMe();
const units = useUnits();
const { machines, films, recipes, stale, state, problem, change, retire, add } = useMachines();
const live = useCutters();
live.follow();

const picked = computed<Cutter | undefined>(
  () => machines.value.find(({ id }) => id === route.params.id) ?? machines.value[0],
);
const stateOf = ({ id, isRetired }: Cutter): { readonly name: string; readonly says: string } => {
  if (isRetired) return { name: 'retired', says: 'not in use' };
  const found = live.states.find((one) => one.id === id);
  if (!found) return { name: 'asked', says: 'is asked' };
  return {
    name: found.state,
    says: { answers: 'answers', away: 'does not answer', 'at-work': 'at work', silent: 'answers nothing' }[
      found.state
    ],
  };
};
const about = ({ kind, widest, sensor }: Cutter): string =>
  [`${units.length(widest)} ${KIND_NAMES[kind]}`, ...(sensor ? ['sensor'] : [])].join(' · ');

const calibrations = useCalibrations(() => picked.value?.id ?? '');
const quantity = computed(() => route.params.section as Quantity | '' | undefined);
/** What the machine cuts with, by its recipes. */
const blades = computed(() => {
  const own = Object.entries(recipes.value).filter(([key]) => key.startsWith(`${picked.value?.id}/`));
  return [...new Set(own.filter(([, { bladeOffset }]) => bladeOffset > 0).map(([, { blade }]) => blade))];
});

const isAdding = ref(false);
async function added(cutter: Parameters<typeof add>[0]): Promise<void> {
  const id = await add(cutter);
  if (id === undefined) return;
  isAdding.value = false;
  await router.push({ name: 'machine', params: { id } });
}
</script>

<template>
  <div class="page">
    <nav aria-label="Cutters">
      <h1>Cutters</h1>
      <p v-if="state === 'loading'" class="soft" role="status">Looking them up.</p>
      <p v-else-if="state === 'failed'" role="alert">
        The shop's cutters could not be looked up. Load the page again.
      </p>
      <router-link
        v-for="machine in machines"
        :key="machine.id"
        :to="{ name: 'machine', params: { id: machine.id } }"
        :class="['machine', stateOf(machine).name, { here: machine.id === picked?.id }]"
        :aria-current="machine.id === picked?.id ? 'page' : undefined"
      >
        <strong>{{ machine.name }}</strong>
        <span class="soft">{{ about(machine) }}</span>
        <span class="soft"><i aria-hidden="true"></i>{{ stateOf(machine).says }}</span>
      </router-link>
      <button
        v-if="me.may('lead')"
        class="button small"
        :aria-pressed="isAdding"
        @click="isAdding = !isAdding"
      >
        <Plus :size="16" aria-hidden="true" />Add a cutter
      </button>
      <AddMachine v-if="isAdding" @add="added" @close="isAdding = false" />
    </nav>
    <section v-if="picked" class="machine-page" :aria-label="picked.name">
      <header>
        <h2>{{ picked.name }}</h2>
        <span class="soft">{{ about(picked) }}</span>
        <button v-if="me.may('lead')" class="button small" @click="retire(picked)">
          {{ picked.isRetired ? 'Take into use again' : 'Take out of use' }}
        </button>
      </header>
      <ProblemNote
        v-if="problem"
        :message="problem.message"
        :ways-out="problem.waysOut"
        @close="problem = undefined"
      />
      <p v-if="picked.isRetired" class="soft">
        Nothing is planned for it any more; what it has cut keeps its name.
      </p>
      <ProblemNote
        v-if="calibrations.problem.value"
        :message="calibrations.problem.value.message"
        :ways-out="calibrations.problem.value.waysOut"
        @close="calibrations.problem.value = undefined"
      />
      <SectionLinks
        :machine="picked"
        :runs="calibrations.runs.value"
        :stale="stale"
        @moved="change(picked, { movedAt: $event })"
      />
      <CalibrationSection
        v-if="quantity"
        :key="`${picked.id} ${quantity}`"
        :machine="picked"
        :quantity="quantity"
        :blades="blades"
        :films="films"
        :calibrations="calibrations"
      />
      <OnlyFor v-else role="lead" says="Only a lead changes what a cutter's record says." fields-only>
        <MachineDetails :key="picked.id" :machine="picked" @change="change(picked, $event)" />
      </OnlyFor>
    </section>
  </div>
</template>

<style scoped>
.page {
  display: grid;
  grid-template-columns: 250px minmax(0, 1fr);
  min-height: 100%;
}
nav {
  display: grid;
  align-content: start;
  gap: 8px;
  padding: 18px 14px;
  border-right: var(--line) solid var(--ink);
}
h1 {
  margin: 0 4px 6px;
  font-size: 26px;
}
.machine {
  display: grid;
  gap: 1px;
  padding: 9px 12px;
  color: var(--ink);
  text-decoration: none;
  border: var(--line) solid transparent;
  border-radius: var(--radius-label);
}
.machine:hover {
  border-color: var(--rule);
}
.machine.here {
  background: var(--damson-soft);
  border-color: var(--damson);
}
.machine span {
  font-size: 14px;
}
i {
  display: inline-block;
  width: 9px;
  height: 9px;
  margin-right: 6px;
  background: var(--rule);
  border-radius: 50%;
}
.answers i {
  background: var(--gooseberry);
}
.away i {
  background: var(--currant);
}
.at-work i {
  background: var(--quince);
}
.retired strong {
  font-weight: 500;
}
.machine-page {
  padding: 18px 22px;
  background: var(--bench);
}
header {
  display: flex;
  gap: 12px;
  align-items: baseline;
  margin-bottom: 14px;
}
h2 {
  font-size: 24px;
}
header .button {
  margin-left: auto;
}
</style>
