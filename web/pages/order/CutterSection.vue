<script setup lang="ts">
import { computed } from 'vue';
import RadioButton from 'primevue/radiobutton';
import { own } from '../../../core/units/own';
import type { Cutter } from '../../../core/layout/cutter';
import { cuttableWidth } from '../../../core/layout/cutter';
import ChoiceRow from '../../parts/ChoiceRow.vue';
import { useOrder } from '../../stores/order';
import { useUnits } from '../../stores/units';

const store = useOrder();
const units = useUnits();
const cutters = computed(() => store.shop?.cutters ?? []);
const choices = computed(() => store.choices!.cutter);
const films = computed(() => store.plan?.films.map(({ film }) => film) ?? []);
/** No cutter has this id. */
const AS_ORDER = '*';
const options = computed(() => [
  { value: AS_ORDER, label: 'as the order' },
  ...cutters.value.map(({ id, name }) => ({ value: id, label: name })),
]);
const chosen = computed(() => cutters.value.find(({ id }) => id === store.plan?.cutter?.id));
const reach = ({ narrowest, widest }: Cutter): string =>
  `${units.number(narrowest)} to ${units.length(widest)}`;
function says(cutter: Cutter): string {
  const { kind, widest, trackLength, margins, device } = cutter;
  const across = `The knife reaches ${units.length(cuttableWidth(cutter, widest))} of the widest film`;
  const along =
    kind === 'flatbed'
      ? `on a bed ${units.run(trackLength)} long`
      : `and keeps film true for ${units.run(trackLength)}`;
  const edges = margins.far + margins.near;
  const tools = (device.tools ?? 1) > 1 ? ' It has a second tool, for pen or crease lines.' : '';
  return `${across} ${along}; ${units.length(edges)} at the edges stay uncut.${tools}`;
}
function send(film: string, cutter: string): void {
  const { [film]: _before, ...rest } = choices.value.film;
  store.change({
    cutter: { ...choices.value, film: cutter === AS_ORDER ? rest : { ...rest, [film]: cutter } },
  });
}
</script>

<template>
  <div role="radiogroup" aria-label="Cutter of the order" class="cutters">
    <label v-for="cutter in cutters" :key="cutter.id" class="cutter">
      <RadioButton
        name="cutter"
        :value="cutter.id"
        :model-value="store.plan?.cutter?.id"
        @update:model-value="store.change({ cutter: { ...choices, order: cutter.id } })"
      />
      <b>{{ cutter.name }}</b>
      <small class="soft"
        >{{ cutter.kind }}, <span class="number">{{ reach(cutter) }}</span></small
      >
    </label>
  </div>
  <p v-if="chosen" class="hint">
    {{ says(chosen) }}
    <router-link :to="{ name: 'cutter', params: { id: chosen.id } }">Go to {{ chosen.name }}</router-link>
  </p>
  <template v-if="cutters.length > 1 && films.length > 1">
    <ChoiceRow
      v-for="film in films"
      :key="film.id"
      :label="`Cutter for ${film.name}`"
      :value="own(choices.film, film.id) ?? AS_ORDER"
      :options="options"
      @change="send(film.id, $event)"
    />
  </template>
</template>

<style scoped>
.cutters {
  display: grid;
  gap: 4px;
}
.cutter {
  display: grid;
  grid-template-columns: auto 1fr auto;
  gap: 8px;
  align-items: center;
  min-height: 38px;
  padding: 4px 12px;
  background: var(--card);
  border: 1px solid var(--rule);
  border-radius: var(--radius-card);
}
.cutter:has(input:checked) {
  border-color: var(--damson);
  background: var(--damson-soft);
}
</style>
