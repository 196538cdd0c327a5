<script setup lang="ts">
/** Near-equal colours, found and folded into one. */
import { computed, ref } from 'vue';
import { nearEqual } from '../../../../core/films/fold';
import FoldOut from '../../../parts/FoldOut.vue';
import { useOrder } from '../../../stores/order';

const store = useOrder();
const films = computed(() => store.choices!.films);
const KEY = 'jam-pan-fold-limit';
const limit = ref(Number(localStorage.getItem(KEY) ?? 3));
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
function setLimit(event: Event): void {
  limit.value = Number((event.target as HTMLInputElement).value);
  localStorage.setItem(KEY, String(limit.value));
}
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
    <label class="row"
      ><span>Alike up to</span>
      <input
        type="range"
        min="0.5"
        max="15"
        step="0.5"
        :value="limit"
        aria-label="Alike up to ΔE"
        @input="setLimit"
      />
      <output class="number">ΔE {{ limit.toFixed(1) }}</output></label
    >
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
input[type='range'] {
  flex: 1;
  min-width: 60px;
  accent-color: var(--damson);
}
output {
  min-width: 4.5em;
  font-size: 13px;
  text-align: right;
}
</style>
