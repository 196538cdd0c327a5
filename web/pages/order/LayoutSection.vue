<script setup lang="ts">
import { own } from '../../../core/units/own';
import { computed } from 'vue';
import type { LayoutChoices } from '../../../core/layout/strip';
import ChoiceRow from '../../parts/ChoiceRow.vue';
import LengthField from '../../parts/LengthField.vue';
import NumberField from '../../parts/NumberField.vue';
import { onShelf } from '../../parts/onShelf';
import { useOrder } from '../../stores/order';
import SwitchRow from '../../parts/SwitchRow.vue';
import { useUnits } from '../../stores/units';
import type { FilmView } from '../../workers/packed';

const store = useOrder();
const units = useUnits();
const layout = computed(() => store.choices!.layout);
const set = (change: Partial<LayoutChoices>): void =>
  store.change({ layout: { ...layout.value, ...change } });

/** Films of this order of which more than one roll is on the shelf. */
const severalRolls = computed(() => (store.plan?.films ?? []).filter(({ film }) => film.rolls.length > 1));
const rollsOf = ({ film }: FilmView) => [
  { value: 0, label: 'which takes least' },
  ...film.rolls.map((roll) => ({ value: roll.width, label: onShelf(roll, units) })),
];
function setRoll(id: string, width: number): void {
  const { [id]: _gone, ...rest } = layout.value.rolls;
  set({ rolls: width === 0 ? rest : { ...rest, [id]: width } });
}

const TURN = [
  { value: 'shorter', label: 'the shorter way' },
  { value: 'as-drawn', label: 'as drawn' },
  { value: 'turned', label: 'turned by 90°' },
] as const;
const MIRROR = [
  { value: 'by-film', label: 'as the film needs' },
  { value: 'mirrored', label: 'mirrored' },
  { value: 'not-mirrored', label: 'not mirrored' },
] as const;
const PLACE = [
  { value: 'edge', label: 'at the edge' },
  { value: 'middle', label: 'in the middle' },
] as const;
</script>

<template>
  <div class="row">
    <span>Copies</span>
    <NumberField
      class="copies"
      label="Copies"
      :min="1"
      :max="1000"
      :value="layout.copies"
      @change="set({ copies: $event })"
    />
  </div>
  <div class="row">
    <span>Spacing</span
    ><LengthField label="Spacing" :value="layout.spacing" :max="1000" @change="set({ spacing: $event })" />
  </div>
  <ChoiceRow
    v-for="s in severalRolls"
    :key="s.film.id"
    :label="`Roll of ${s.film.name}`"
    :value="own(layout.rolls, s.film.id) ?? 0"
    :options="rollsOf(s)"
    @change="setRoll(s.film.id, $event)"
  />
  <ChoiceRow label="On the film" :value="layout.turn" :options="TURN" @change="set({ turn: $event })" />
  <ChoiceRow label="Mirror" :value="layout.mirror" :options="MIRROR" @change="set({ mirror: $event })" />
  <ChoiceRow
    label="Across the roll"
    :value="layout.place"
    :options="PLACE"
    @change="set({ place: $event })"
  />
  <SwitchRow
    label="Weed border, a box around each copy"
    :on="layout.border"
    @change="set({ border: $event })"
  />
  <div v-if="layout.border" class="row">
    <span>Border away from the art</span
    ><LengthField
      label="Border distance"
      :value="layout.borderDistance"
      :max="200"
      @change="set({ borderDistance: $event })"
    />
  </div>
</template>

<style scoped>
.copies {
  width: 8.2em;
  font-weight: 650;
  text-align: right;
}
.row :deep(.p-select) {
  width: 184px;
}
</style>
