<script setup lang="ts">
import { computed } from 'vue';
import { FIT_LIMITS, LEAST_LEAD } from '../../../contracts/shop';
import type { FitLimits } from '../../../core/registration/verdict';
import { USUAL_LIMITS } from '../../../core/registration/verdict';
import { own } from '../../../core/units/own';
import type { Cutter } from '../../../core/layout/cutter';
import { cuttableWidth } from '../../../core/layout/cutter';
import ChoiceRow from '../../parts/ChoiceRow.vue';
import FoldOut from '../../parts/FoldOut.vue';
import LengthRow from '../../parts/LengthRow.vue';
import OnlyFor from '../../parts/OnlyFor.vue';
import NumberField from '../../parts/NumberField.vue';
import RadioCards from '../../parts/RadioCards.vue';
import { useOrder } from '../../stores/order';
import { useUnits } from '../../stores/units';

/** Film at each edge that stays uncut. */
const EDGES = [
  ['far', 'Far edge'],
  ['near', 'Near edge'],
  ['lead', 'Leading edge'],
  ['tail', 'Behind the cut'],
] as const;
const store = useOrder();
const units = useUnits();
const cutters = computed(() => store.shop?.cutters ?? []);
const choices = computed(() => store.choices!.cutter);
const films = computed(() => [
  ...(store.plan?.films.map(({ film }) => film) ?? []),
  ...(store.plan?.printed ? [store.plan.printed.film] : []),
]);
/** No cutter has this id. */
const AS_ORDER = '*';
const options = computed(() => [
  { value: AS_ORDER, label: 'as the order' },
  ...cutters.value.map(({ id, name }) => ({ value: id, label: name })),
]);
const chosen = computed(() => cutters.value.find(({ id }) => id === store.plan?.cutter?.id));
const reach = ({ narrowest, widest }: Cutter): string =>
  `${units.number(narrowest)} to ${units.length(widest)}`;
const cards = computed(() =>
  cutters.value.map((cutter) => ({
    value: cutter.id,
    label: cutter.name,
    says: `${cutter.kind}, ${reach(cutter)}`,
  })),
);
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
/** The cutter that printed sheets are cut at. */
const reader = computed(() => cutters.value.find(({ id }) => id === store.plan?.printed?.cutter));
const limits = computed(() => reader.value?.fitLimits ?? USUAL_LIMITS);
/** What a sheet may be off by besides: name, words, unit, digits, and how many of the unit make one. */
const LIMITS = [
  ['scale', 'Scale off by', '%', 1, 100],
  ['rotation', 'Lying aslant by', '°', 1, 1],
  ['skew', 'Corners off square by', '°', 2, 1],
] as const;
const setLimits = (change: Partial<FitLimits>) =>
  store.changeCutter(reader.value!.id, { fitLimits: { ...limits.value, ...change } });
function send(film: string, cutter: string): void {
  const { [film]: _before, ...rest } = choices.value.film;
  store.change({
    cutter: { ...choices.value, film: cutter === AS_ORDER ? rest : { ...rest, [film]: cutter } },
  });
}
</script>

<template>
  <RadioCards
    label="Cutter of the order"
    name="cutter"
    :value="store.plan?.cutter?.id"
    :options="cards"
    @change="store.change({ cutter: { ...choices, order: $event } })"
  />
  <p v-if="chosen" class="hint">
    {{ says(chosen) }}
    <router-link :to="{ name: 'cutter', params: { id: chosen.id } }">Go to {{ chosen.name }}</router-link>
  </p>
  <FoldOut v-if="chosen" :title="`Margins of ${chosen.name}, for all orders`" name="margins">
    <OnlyFor role="lead" says="A lead changes this.">
      <LengthRow
        v-for="[edge, word] in EDGES"
        :key="edge"
        :label="word"
        :full-label="`${word}, ${chosen.name}`"
        :value="chosen.margins[edge]"
        :min="edge === 'lead' ? LEAST_LEAD : 0"
        :max="500"
        @change="store.changeCutter(chosen.id, { margins: { ...chosen.margins, [edge]: $event } })"
      />
    </OnlyFor>
  </FoldOut>
  <FoldOut v-if="reader" :title="`Sheet limits of ${reader.name}, for all orders`" name="fit-limits">
    <OnlyFor role="lead" says="A lead changes this.">
      <LengthRow
        label="A mark off by"
        :full-label="`A mark may lie off by, ${reader.name}`"
        fine
        :value="limits.residual"
        :min="FIT_LIMITS.residual[0]"
        :max="FIT_LIMITS.residual[1]"
        @change="setLimits({ residual: $event })"
      />
      <div v-for="[name, word, unit, digits, times] in LIMITS" :key="name" class="row">
        <span>{{ word }}, {{ unit }}</span>
        <NumberField
          :label="`${word}, ${unit}, ${reader.name}`"
          :value="limits[name] * times"
          :digits="digits"
          :min="FIT_LIMITS[name][0] * times"
          :max="FIT_LIMITS[name][1] * times"
          @change="setLimits({ [name]: $event / times })"
        />
      </div>
    </OnlyFor>
  </FoldOut>
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
