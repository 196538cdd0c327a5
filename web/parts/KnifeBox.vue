<script setup lang="ts">
/** The knife that is in a cutter: since when, how much it has cut, and another put in. */
import { computed, ref } from 'vue';
import { useKnives } from '../stores/knives';
import ChoiceField from './ChoiceField.vue';

const props = defineProps<{
  cutter: { readonly id: string; readonly name: string };
  /** What its recipes call such blades. */
  blades: readonly string[];
}>();
const knives = useKnives();
knives.follow();

const here = computed(() => knives.knives.find(({ cutter }) => cutter === props.cutter.id));
const drawer = computed(() =>
  knives.knives.filter(({ cutter, blade }) => cutter === null && props.blades.includes(blade)),
);
const isChanging = ref(false);
const options = computed(() => [
  ...props.blades.map((blade) => ({ value: `new ${blade}`, label: `a new one, ${blade}` })),
  ...drawer.value.map(({ id, blade, metres }) => ({
    value: `old ${id}`,
    label: `knife ${id} from the drawer, ${blade}, ${metres.toFixed(0)} m`,
  })),
]);
const chosen = ref('');
const which = computed(() =>
  options.value.some(({ value }) => value === chosen.value) ? chosen.value : (options.value[0]?.value ?? ''),
);
async function putIn(): Promise<void> {
  const [kind, ...rest] = which.value.split(' ');
  const name = rest.join(' ');
  await knives.putIn(props.cutter.id, kind === 'new' ? { blade: name } : { knife: Number(name) });
  isChanging.value = false;
}
const since = (date: string): string =>
  new Date(date).toLocaleDateString(undefined, { day: 'numeric', month: 'long' });
</script>

<template>
  <section class="knife" :aria-label="`Knife in ${cutter.name}`">
    <h3>{{ here ? `Knife ${here.id}` : 'Knife' }}</h3>
    <p v-if="here" class="soft">
      {{ here.blade }}, in {{ cutter.name }} since {{ since(here.putInAt!) }} ·
      <b class="number">{{ here.metres.toFixed(1) }} m</b> cut
    </p>
    <p v-else-if="knives.ready" class="soft">
      Nobody has said which knife is in {{ cutter.name }}. Say so when one is put in, and its metres are
      counted.
    </p>
    <slot :knife="here"></slot>
    <p v-if="knives.problem" role="alert">{{ knives.problem.message }}</p>
    <div v-if="isChanging" class="change">
      <ChoiceField label="Knife to put in" :value="which" :options="options" @change="chosen = $event" />
      <button class="button slim" @click="putIn">It is in</button>
      <button class="button slim" @click="isChanging = false">Never mind</button>
    </div>
    <div v-else class="change">
      <button class="button slim" @click="isChanging = true">
        {{ here ? 'Another knife is put in' : 'Say which knife is in' }}
      </button>
      <button v-for="one in drawer" :key="one.id" class="button slim" @click="knives.throwAway(one.id)">
        Throw knife {{ one.id }} away
      </button>
    </div>
  </section>
</template>

<style scoped>
.knife {
  display: grid;
  gap: 7px;
  padding: 14px 16px;
  background: var(--card);
  border: var(--line) solid var(--rule);
  border-radius: var(--radius-label);
}
h3 {
  font-size: 16px;
}
p {
  margin: 0;
  font-size: 14px;
}
.change {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
}
</style>
