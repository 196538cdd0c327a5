<script setup lang="ts">
import { computed } from 'vue';
import type { Recipe } from '../../../core/layout/cutter';
import LengthField from '../../parts/LengthField.vue';
import { useOrder } from '../../stores/order';
import { duration } from '../../stores/units';

const film = defineModel<string | undefined>('film');
const store = useOrder();
const strips = computed(() => store.plan!.strips);
const shown = computed(() => strips.value.find((s) => s.film.id === film.value) ?? strips.value[0]);

function set(change: Partial<Recipe>): void {
  const { recipes } = store.choices!.cut;
  const id = shown.value.film.id;
  store.change({ cut: { recipes: { ...recipes, [id]: { ...recipes[id], ...change } } } });
}
function nudge(key: 'force' | 'speed', by: number, min: number, max: number): void {
  set({ [key]: Math.min(max, Math.max(min, shown.value.recipe[key] + by)) });
}
function asShop(): void {
  const { [shown.value.film.id]: _mine, ...recipes } = store.choices!.cut.recipes;
  store.change({ cut: { recipes } });
}
const changed = computed(
  () => JSON.stringify(shown.value?.recipe) !== JSON.stringify(shown.value?.shopRecipe),
);
const file = (ending: string): string =>
  `/api/orders/${store.order!.id}/films/${shown.value.film.id}.${ending}`;
</script>

<template>
  <p v-if="!shown" class="hint">No film is laid out yet.</p>
  <template v-else>
    <div class="films" role="group" aria-label="Film">
      <button v-for="s in strips" :key="s.film.id" :aria-pressed="s === shown" @click="film = s.film.id">
        <span class="swatch" :style="{ '--film': s.film.colour }"></span>{{ s.film.name }}
      </button>
    </div>
    <div class="row">
      <span>Force</span>
      <span class="nudge">
        <button aria-label="Less force" @click="nudge('force', -5, 5, 600)">−</button>
        <b class="number">{{ shown.recipe.force }} g</b>
        <button aria-label="More force" @click="nudge('force', 5, 5, 600)">+</button>
      </span>
    </div>
    <div class="row">
      <span>Speed</span>
      <span class="nudge">
        <button aria-label="Slower" @click="nudge('speed', -5, 5, 150)">−</button>
        <b class="number">{{ shown.recipe.speed }} cm/s</b>
        <button aria-label="Faster" @click="nudge('speed', 5, 5, 150)">+</button>
      </span>
    </div>
    <div class="row">
      <span>Blade</span><b class="number">{{ shown.recipe.blade }}</b>
    </div>
    <div class="row">
      <span>Blade offset</span
      ><LengthField
        label="Blade offset"
        fine
        :value="shown.recipe.bladeOffset"
        :max="2"
        @change="set({ bladeOffset: $event })"
      />
    </div>
    <div class="row">
      <span>Overcut</span
      ><LengthField
        label="Overcut"
        fine
        :value="shown.recipe.overcut"
        :max="10"
        @change="set({ overcut: $event })"
      />
    </div>
    <div class="row">
      <span class="hint"
        >{{ (shown.cutLength / 1000).toFixed(2) }} m of cutting, {{ duration(shown.seconds) }}</span
      >
      <button class="button small" :disabled="!changed" @click="asShop">Shop's recipe</button>
    </div>
    <div class="row">
      <span class="hint">The cut as a file</span>
      <span class="files">
        <a class="button small" :href="file('plt')" download>HP-GL</a>
        <a class="button small" :href="file('svg')" download>SVG</a>
      </span>
    </div>
  </template>
</template>

<style scoped>
.films {
  display: flex;
  flex-wrap: wrap;
  gap: 5px;
}
.films button {
  display: flex;
  align-items: center;
  gap: 6px;
  padding: 2px 9px 2px 4px;
  font-size: 13.5px;
  border: 1px solid var(--rule);
  border-radius: 99px;
  background: var(--card);
}
.films button[aria-pressed='true'] {
  border-color: var(--damson);
  background: var(--damson-soft);
}
.films .swatch {
  width: 15px;
  height: 18px;
}
.nudge {
  display: flex;
  align-items: center;
  gap: 9px;
}
.nudge b {
  min-width: 5.2em;
  text-align: center;
}
.nudge button {
  width: 31px;
  height: 31px;
  font-weight: 700;
  border: var(--line) solid var(--ink);
  border-radius: var(--radius-card);
  background: var(--card);
}
.small {
  min-height: 28px;
  padding: 0 10px;
  font-size: 13.5px;
}
.files {
  display: flex;
  gap: 6px;
}
</style>
