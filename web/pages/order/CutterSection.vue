<script setup lang="ts">
import { computed } from 'vue';
import { own } from '../../../core/units/own';
import { cuttableWidth } from '../../../core/layout/cutter';
import ChoiceRow from '../../parts/ChoiceRow.vue';
import { useOrder } from '../../stores/order';
import { useUnits } from '../../stores/units';

const store = useOrder();
const units = useUnits();
const cutters = computed(() => store.shop?.cutters ?? []);
const choices = computed(() => store.choices!.cutter);
const films = computed(() => store.plan?.films.map(({ film }) => film) ?? []);
const options = computed(() => [
  { value: '', label: 'as the order' },
  ...cutters.value.map(({ id, name }) => ({ value: id, label: name })),
]);
function send(film: string, cutter: string): void {
  const { [film]: _before, ...rest } = choices.value.film;
  store.change({ cutter: { ...choices.value, film: cutter === '' ? rest : { ...rest, [film]: cutter } } });
}
</script>

<template>
  <div v-for="cutter in cutters" :key="cutter.id" class="cutter">
    <label class="row">
      <b>{{ cutter.name }}</b>
      <input
        type="radio"
        name="cutter"
        :checked="store.plan?.cutter?.id === cutter.id"
        @change="store.change({ cutter: { ...choices, order: cutter.id } })"
      />
    </label>
    <dl>
      <dt>Takes rolls</dt>
      <dd class="number">
        {{ units.number(cutter.narrowestRoll) }} to {{ units.length(cutter.widestRoll) }}
      </dd>
      <dt>Cuts at most</dt>
      <dd class="number">{{ units.length(cuttableWidth(cutter, cutter.widestRoll)) }} wide</dd>
      <dt>Under each roller</dt>
      <dd class="number">{{ units.length(cutter.rollerMargin) }}</dd>
      <dt>Keeps film true for</dt>
      <dd class="number">{{ units.run(cutter.trackLength) }}</dd>
    </dl>
    <router-link :to="{ name: 'cutter', params: { id: cutter.id } }">Go to {{ cutter.name }}</router-link>
  </div>
  <template v-if="cutters.length > 1">
    <ChoiceRow
      v-for="film in films"
      :key="film.id"
      :label="`Cutter for ${film.name}`"
      :value="own(choices.film, film.id) ?? ''"
      :options="options"
      @change="send(film.id, $event)"
    />
  </template>
</template>

<style scoped>
.cutter {
  padding: 6px 12px 10px;
  background: var(--card);
  border: 1px solid var(--rule);
  border-radius: var(--radius-card);
}
dl {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 3px 10px;
  margin: 0 0 8px;
  font-size: 14px;
}
dt {
  color: var(--ink-soft);
}
dd {
  margin: 0;
}
input {
  accent-color: var(--damson);
  width: 18px;
  height: 18px;
}
</style>
