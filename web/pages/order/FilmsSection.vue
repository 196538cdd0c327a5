<script setup lang="ts">
import { ArrowDown, ArrowUp, GripVertical } from '@lucide/vue';
import Select from 'primevue/select';
import { computed, ref, watch } from 'vue';
import { VueDraggable } from 'vue-draggable-plus';
import { deltaE, labOf } from '../../../core/films/colour';
import { useOrder } from '../../stores/order';
import { useUnits } from '../../stores/units';
import type { ColourView } from '../../workers/packed';
import FoldPanel from './films/FoldPanel.vue';
import MarksPanel from './films/MarksPanel.vue';
import OverlapPanel from './films/OverlapPanel.vue';

const film = defineModel<string | undefined>('film');
const emit = defineEmits<{ reorder: [colours: string[]]; recut: [film: string] }>();
const store = useOrder();
const units = useUnits();
const colours = ref<ColourView[]>([]);
watch(
  () => store.plan?.colours,
  (now) => (colours.value = [...(now ?? [])]),
  { immediate: true },
);
const choices = computed(() => store.choices!.films);

/** Films for one colour, nearest first. */
const optionsFor = (colour: string) => {
  const lab = labOf(colour);
  return (store.shop?.films ?? [])
    .map((f) => ({ ...f, away: deltaE(lab, labOf(f.colour)) }))
    .sort((a, b) => a.away - b.away);
};
const pick = (colour: string, id: string): void =>
  store.change({ films: { ...choices.value, film: { ...choices.value.film, [colour]: id } } });

function toggle(colour: ColourView): void {
  const off = colour.on
    ? [...choices.value.off, colour.colour]
    : choices.value.off.filter((c) => c !== colour.colour);
  store.change({ films: { ...choices.value, off } });
}
const dropped = (): void =>
  emit(
    'reorder',
    colours.value.map((c) => c.colour),
  );
function move(index: number, by: 1 | -1): void {
  const order = colours.value.map((c) => c.colour);
  [order[index], order[index + by]] = [order[index + by], order[index]];
  emit('reorder', order);
}
</script>

<template>
  <p class="hint">
    {{ colours.length }} {{ colours.length === 1 ? 'colour' : 'colours' }} seen. Cut from top to bottom: base
    first.
  </p>
  <VueDraggable v-model="colours" handle=".grip" :animation="120" class="list" @end="dropped">
    <div
      v-for="(c, i) in colours"
      :key="c.colour"
      class="colour"
      :class="{ off: !c.on, picked: film && film === c.film?.id }"
    >
      <span class="grip" title="Drag to change the order"
        ><GripVertical :size="16" aria-hidden="true"
      /></span>
      <button
        class="swatch"
        :style="{ '--film': c.colour }"
        :aria-label="`Show only ${c.film?.name ?? c.colour}`"
        @click="film = film === c.film?.id ? undefined : c.film?.id"
      ></button>
      <div class="what">
        <Select
          :model-value="c.film?.id"
          :options="optionsFor(c.colour)"
          option-label="name"
          option-value="id"
          filter
          size="small"
          :aria-label="`Film for ${c.colour}`"
          :disabled="!c.on"
          @update:model-value="pick(c.colour, $event)"
        >
          <template #option="{ option }">
            <span class="swatch little" :style="{ '--film': option.colour }"></span>
            <span class="option"
              >{{ option.name
              }}<small class="number"
                >{{ units.length(option.rollWidth) }}{{ option.cutFromBack ? ' · from the back' : '' }}</small
              ></span
            >
            <small class="number">ΔE {{ option.away.toFixed(1) }}</small>
          </template>
        </Select>
      </div>
      <div class="acts">
        <button :disabled="i === 0" :aria-label="`Cut ${c.film?.name} earlier`" @click="move(i, -1)">
          <ArrowUp :size="15" />
        </button>
        <button
          :disabled="i === colours.length - 1"
          :aria-label="`Cut ${c.film?.name} later`"
          @click="move(i, 1)"
        >
          <ArrowDown :size="15" />
        </button>
      </div>
      <input type="checkbox" :checked="c.on" :aria-label="`Cut ${c.colour}`" @change="toggle(c)" />
      <span class="number detail"
        >{{ c.shapes }} {{ c.shapes === 1 ? 'shape' : 'shapes' }} · {{ c.colour }} · ΔE
        {{ c.deltaE.toFixed(1) }}</span
      >
    </div>
  </VueDraggable>
  <FoldPanel />
  <OverlapPanel @recut="emit('recut', $event)" />
  <MarksPanel />
</template>

<style scoped>
.list {
  display: grid;
  gap: 7px;
}
.colour {
  display: grid;
  grid-template-columns: 14px 22px minmax(0, 1fr) auto auto;
  align-items: center;
  gap: 3px 8px;
  padding: 7px 9px 6px 5px;
  background: var(--card);
  border: 1px solid var(--rule);
  border-radius: var(--radius-card);
}
.picked {
  border-color: var(--damson);
  background: var(--damson-soft);
}
.off {
  opacity: 0.62;
}
.grip {
  color: var(--ink-soft);
  cursor: grab;
}
.colour > .grip,
.colour > .swatch {
  grid-row: span 2;
}
.colour > .swatch {
  width: 22px;
  height: 34px;
  padding: 0;
}
.what {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 2px;
  min-width: 0;
}
.what :deep(.p-select) {
  width: 100%;
}
.detail {
  grid-column: 3 / -1;
  font-size: 12px;
  color: var(--ink-soft);
  white-space: nowrap;
}
.acts {
  display: flex;
}
.acts button {
  display: grid;
  place-items: center;
  width: 24px;
  height: 28px;
  padding: 0;
  border: 0;
  background: none;
}
.acts button:disabled {
  color: var(--rule);
}
input[type='checkbox'] {
  width: 19px;
  height: 19px;
  accent-color: var(--damson);
}
.little {
  width: 15px;
  height: 20px;
  margin-right: 9px;
}
.option {
  display: grid;
  flex: 1;
  margin-right: 14px;
}
.option small {
  color: var(--ink-soft);
  font-size: 12px;
}
</style>
