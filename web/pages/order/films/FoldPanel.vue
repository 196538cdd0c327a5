<script setup lang="ts">
/** Near-equal colours, found and folded into one. */
import { useLocalStorage } from '@vueuse/core';
import { computed } from 'vue';
import { nearEqual } from '../../../../core/films/fold';
import FoldOut from '../../../parts/FoldOut.vue';
import SliderRow from '../../../parts/SliderRow.vue';
import { useOrder } from '../../../stores/order';

const store = useOrder();
const films = computed(() => store.choices!.films);
const limit = useLocalStorage('jam-pan-fold-limit', 3);
const groups = computed(() => nearEqual(store.plan?.colours ?? [], limit.value));
const near = computed(() => groups.value.reduce((sum, { from }) => sum + from.length, 0));
const done = computed(() => Object.entries(films.value.fold));
const says = computed(() =>
  near.value > 0
    ? `${near.value} near-equal`
    : done.value.length > 0
      ? `${done.value.length} folded`
      : 'none alike',
);
const set = (fold: Readonly<Record<string, string>>): void =>
  store.change({ films: { ...films.value, fold } });
function fold(which = groups.value): void {
  const more = which.flatMap(({ into, from }) => from.map((colour) => [colour, into] as const));
  set({ ...films.value.fold, ...Object.fromEntries(more) });
}
function unfold(colour: string): void {
  const { [colour]: _gone, ...rest } = films.value.fold;
  set(rest);
}
</script>

<template>
  <FoldOut title="Near-equal colours" name="fold" :says="says">
    <SliderRow
      label="Alike up to"
      full-label="Alike up to ΔE"
      :min="0.5"
      :max="15"
      :step="0.5"
      :value="limit"
      :says="`ΔE ${limit.toFixed(1)}`"
      @move="limit = $event"
    />
    <div v-for="g in groups" :key="g.into" class="group">
      <span class="swatches">
        <i v-for="c in [g.into, ...g.from]" :key="c" class="swatch" :style="{ '--film': c }" :title="c"></i>
      </span>
      <button class="button small" @click="fold([g])">Fold into {{ g.into }}</button>
    </div>
    <button v-if="groups.length > 1" class="button small" @click="fold()">Fold all {{ near }}</button>
    <div v-for="[from, into] in done" :key="from" class="group">
      <span class="swatches number"
        ><i class="swatch" :style="{ '--film': from }"></i>{{ from }} is cut as
        <i class="swatch" :style="{ '--film': into }"></i
      ></span>
      <button class="button small" @click="unfold(from)">Unfold</button>
    </div>
  </FoldOut>
</template>

<style scoped>
.group {
  display: flex;
  align-items: center;
  justify-content: space-between;
  gap: 8px;
}
.swatches {
  display: flex;
  flex-wrap: wrap;
  gap: 3px;
  align-items: center;
  font-size: 12.5px;
}
.swatch {
  width: 15px;
  height: 19px;
}
</style>
