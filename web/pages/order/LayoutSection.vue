<script setup lang="ts">
import { own } from '../../../core/units/own';
import { watchDebounced } from '@vueuse/core';
import { computed, onUnmounted } from 'vue';
import type { LayoutChoices, Pack } from '../../../core/layout/strip';
import { packOf, PACKS } from '../../../core/layout/strip';
import ChoiceRow from '../../parts/ChoiceRow.vue';
import FoldOut from '../../parts/FoldOut.vue';
import LengthRow from '../../parts/LengthRow.vue';
import RadioCards from '../../parts/RadioCards.vue';
import { useOnFilm } from '../../stores/onFilm';
import { useOrder } from '../../stores/order';
import { SETTLED, usePacking } from '../../stores/packing';
import { useUnits } from '../../stores/units';
import { pickKey, pickOf, picksOf } from './layout/rollPicks';
import CopiesRows from './layout/CopiesRows.vue';
import PlaceRows from './layout/PlaceRows.vue';
import SharingRows from './layout/SharingRows.vue';
import WeedingRows from './layout/WeedingRows.vue';

const store = useOrder();
const laying = useOnFilm();
const units = useUnits();
const layout = computed(() => store.choices!.layout);
const set = (change: Partial<LayoutChoices>): void =>
  store.change({ layout: { ...layout.value, ...change } });

/** Films of this order that can be cut from more than one thing, or from what lies in a cutter. */
const severalRolls = computed(() =>
  (store.plan?.films ?? []).filter(
    ({ film }) =>
      film.rolls.length > 1 ||
      film.rolls.some(({ offcut }) => offcut !== undefined) ||
      own(layout.value.rolls, film.id) !== undefined,
  ),
);
const packing = usePacking();
watchDebounced(() => store.chosenPlan, packing.ask, { immediate: true, debounce: SETTLED });
onUnmounted(packing.stop);
/** Some film of it is not. */
const isLaidHere = computed(() => films.value.some(({ film }) => !own(store.away, film.id)));
const othersSay = computed(() => {
  const others = new Set(Object.values(layout.value.guests).flat());
  return others.size === 0 ? undefined : `${others.size} with it`;
});
const PACK_WORDS: Readonly<Record<Pack, string>> = { one: 'As one', word: 'By word', piece: 'By piece' };
const packs = computed(() =>
  PACKS.map((pack) => {
    const length = packing.offers[pack];
    return {
      value: pack,
      label: PACK_WORDS[pack],
      says: length === undefined ? '…' : units.run(length),
    };
  }),
);
const isPacked = computed(
  () => layout.value.pack !== 'one' || Object.values(layout.value.packFilm).some((pack) => pack !== 'one'),
);
const films = computed(() => store.plan?.films ?? []);
const FILM_PACK = [
  { value: 'all', label: 'as all' },
  { value: 'one', label: 'as one' },
  { value: 'word', label: 'by word' },
  { value: 'piece', label: 'by piece' },
] as const;
function setFilmPack(id: string, pack: Pack | 'all'): void {
  const { [id]: _gone, ...rest } = layout.value.packFilm;
  set({ packFilm: pack === 'all' ? rest : { ...rest, [id]: pack } });
}
const TURNS = [
  { value: 'quarter', label: 'any quarter' },
  { value: 'free', label: 'any way' },
  { value: 'none', label: 'not at all' },
] as const;
const filmName = (id: string): string => films.value.find(({ film }) => film.id === id)?.film.name ?? '';

/** Rows of copies are of films that are laid as one. */
const hasRows = computed(() => films.value.some(({ film }) => packOf(layout.value, film) === 'one'));

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
</script>

<template>
  <div v-for="[id, host] in Object.entries(store.away)" :key="id" class="row away">
    <span
      >{{ filmName(id) }} is cut with
      <router-link :to="{ name: 'order', params: { id: host.id } }"
        ><span class="number">#{{ host.number }}</span> {{ host.name }}</router-link
      ></span
    >
    <button class="button slim" @click="store.cutByItself(id)">Cut it by itself</button>
  </div>
  <RadioCards
    v-if="isLaidHere"
    class="packs"
    label="Taken apart to save film"
    name="pack"
    :value="layout.pack"
    :options="packs"
    @change="set({ pack: $event, packFilm: {} })"
  />
  <template v-if="isPacked">
    <LengthRow label="Between pieces" :value="layout.between" :max="200" @change="set({ between: $event })" />
    <ChoiceRow label="Pieces turn" :value="layout.turns" :options="TURNS" @change="set({ turns: $event })" />
    <div class="search">
      <template v-if="packing.now">
        <span role="status" class="hint">
          Packing {{ filmName(packing.now.film) }} · {{ (100 * packing.now.used).toFixed(1) }} % ·
          {{ packing.seconds.toFixed(0) }} s
        </span>
        <button class="button" @click="packing.stop()">Stop here</button>
      </template>
      <template v-else>
        <span class="hint"
          >Pieces are lined up by hand: the application sheet shows where each one sits.</span
        >
        <button class="button" :disabled="store.planning" @click="packing.start()">Pack closer</button>
      </template>
    </div>
    <FoldOut v-if="films.length > 1" title="Films by themselves" name="pack-films">
      <ChoiceRow
        v-for="f in films"
        :key="f.film.id"
        :label="f.film.name"
        :value="own(layout.packFilm, f.film.id) ?? 'all'"
        :options="FILM_PACK"
        @change="setFilmPack(f.film.id, $event)"
      />
    </FoldOut>
  </template>
  <FoldOut v-if="isLaidHere" title="With this film" name="sharing" :says="othersSay">
    <SharingRows />
  </FoldOut>
  <CopiesRows :layout="layout" :has-rows="hasRows" @change="set" />
  <LengthRow
    v-if="hasRows"
    label="Between copies"
    :value="layout.spacing"
    :max="1000"
    @change="set({ spacing: $event })"
  />
  <ChoiceRow
    v-for="s in severalRolls"
    :key="s.film.id"
    :label="`${s.film.name} from`"
    :value="pickKey(own(layout.rolls, s.film.id))"
    :options="picksOf(s.film, own(layout.rolls, s.film.id), units)"
    @change="laying.pickRoll(s.film.id, pickOf($event))"
  />
  <ChoiceRow
    v-if="hasRows"
    label="On the film"
    :value="layout.turn"
    :options="TURN"
    @change="set({ turn: $event })"
  />
  <ChoiceRow label="Mirror" :value="layout.mirror" :options="MIRROR" @change="set({ mirror: $event })" />
  <PlaceRows :layout="layout" :has-rows="hasRows" @change="set" />
  <WeedingRows :layout="layout" :has-rows="hasRows" @change="set" />
</template>

<style scoped>
.packs {
  grid-template-columns: repeat(3, 1fr);
  margin-bottom: 8px;
}
.packs :deep(.card) {
  grid-template-columns: auto 1fr;
  gap: 0 5px;
  padding: 4px 6px;
}
.packs :deep(b) {
  font-size: 14px;
  white-space: nowrap;
}
.packs :deep(.card small) {
  grid-column: 1 / 3;
}
.away {
  align-items: center;
  font-size: 13.5px;
}
.search {
  display: flex;
  gap: 10px;
  align-items: center;
  justify-content: space-between;
  min-height: 44px;
}
.search .button {
  flex: none;
}
.row :deep(.p-select) {
  width: 184px;
}
</style>
