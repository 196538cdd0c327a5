<script setup lang="ts">
/** How each film lies under those above it, its copies, and cutting one film again. */
import { computed } from 'vue';
import type { Overlap } from '../../../../core/films/overlap';
import { own } from '../../../../core/units/own';
import ChoiceField from '../../../parts/ChoiceField.vue';
import FoldOut from '../../../parts/FoldOut.vue';
import LengthField from '../../../parts/LengthField.vue';
import NumberField from '../../../parts/NumberField.vue';
import SwitchRow from '../../../parts/SwitchRow.vue';
import { useOrder } from '../../../stores/order';
import { useStage } from '../../../stores/stage';

const emit = defineEmits<{ recut: [film: string, own: boolean] }>();
const store = useOrder();
const stage = useStage();
const films = computed(() => store.choices!.films);
const layers = computed(() => store.plan?.films ?? []);

/** Cut with another order: then only its own art is cut again. */
const isAway = (id: string): boolean => own(store.away, id) !== undefined;
const isShared = (id: string): boolean =>
  (store.plan?.strips ?? []).some(({ film, shares }) => film.id === id && shares.length > 1);

function set(id: string, change: Partial<Overlap>): void {
  const now = layers.value.find(({ film }) => film.id === id)!.overlap;
  const by = change.mode === 'trap' && now.by === 0 ? 0.8 : now.by;
  store.change({
    films: { ...films.value, overlap: { ...films.value.overlap, [id]: { ...now, by, ...change } } },
  });
}
function copies(id: string, typed: number): void {
  const { [id]: _own, ...rest } = films.value.copies;
  const all = store.choices!.layout.copies;
  store.change({ films: { ...films.value, copies: typed !== all ? { ...rest, [id]: typed } : rest } });
}
const WAYS = [
  { value: 'full', label: 'whole beneath' },
  { value: 'trap', label: 'its edge beneath' },
  { value: 'butt', label: 'edge to edge' },
] as const;
</script>

<template>
  <FoldOut title="Overlaps and copies" name="overlap">
    <SwitchRow
      label="Show what lies under other films"
      :on="stage.showsHidden"
      @change="stage.showsHidden = $event"
    />
    <div v-for="(s, i) in layers" :key="s.film.id" class="film">
      <span class="head">
        <b><i class="swatch" :style="{ '--film': s.film.colour }"></i>{{ s.film.name }}</b>
        <label class="copies">
          <span>copies</span>
          <NumberField
            :min="1"
            :max="1000"
            :label="`Copies of ${s.film.name}`"
            :value="s.copies"
            @change="copies(s.film.id, $event)"
          />
        </label>
      </span>
      <span class="fields">
        <ChoiceField
          :label="`How ${s.film.name} lies under other films`"
          :value="s.overlap.mode"
          :options="WAYS"
          :disabled="i === layers.length - 1"
          @change="set(s.film.id, { mode: $event })"
        />
        <LengthField
          v-if="s.overlap.mode === 'trap' && i < layers.length - 1"
          fine
          :label="`Overlap of ${s.film.name}`"
          :value="s.overlap.by"
          :min="0.1"
          :max="20"
          @change="set(s.film.id, { by: $event })"
        />
      </span>
      <span v-if="store.canRecut" class="again">
        <button class="button small" @click="emit('recut', s.film.id, isAway(s.film.id))">Cut again</button>
        <button v-if="isShared(s.film.id)" class="button small" @click="emit('recut', s.film.id, true)">
          Only #{{ store.order?.number }} again
        </button>
        <button
          class="button small"
          :aria-pressed="stage.again === s.film.id"
          @click="stage.again = stage.again === s.film.id ? undefined : s.film.id"
        >
          Some shapes again …
        </button>
      </span>
    </div>
  </FoldOut>
</template>

<style scoped>
.film {
  display: grid;
  gap: 3px;
}
.film b {
  display: flex;
  align-items: center;
  gap: 6px;
  font-size: 13.5px;
}
.swatch {
  width: 13px;
  height: 16px;
}
.head,
.fields {
  display: flex;
  gap: 5px;
}
.copies {
  display: flex;
  align-items: center;
  gap: 5px;
  margin-left: auto;
  font-size: 13px;
  color: var(--ink-soft);
}
.fields :deep(.field input) {
  width: 84px;
}
.copies input {
  width: 60px;
}
.again {
  display: flex;
  gap: 6px;
  margin-bottom: 5px;
}
</style>
