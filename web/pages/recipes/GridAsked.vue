<script setup lang="ts">
/** What a trial grid shall span, within what the machine can do and what fits on what is in it. */
import { computed, ref, watch } from 'vue';
import { gridCells, MOST_CELLS } from '../../../core/calibration/grid';
import { gridRoom } from '../../../core/calibration/patterns';
import type { Setup } from '../../../core/calibration/run';
import type { Film } from '../../../core/films/film';
import type { Cutter } from '../../../core/layout/cutter';
import { cuttableWidth } from '../../../core/layout/cutter';
import NumberField from '../../parts/NumberField.vue';
import { useCutters } from '../../stores/cutters';
import type { ShownRecipe } from './useRecipes';

const props = defineProps<{ film: Film; cutter: Cutter; shown: ShownRecipe; busy: boolean }>();
const emit = defineEmits<{ cut: [setup: Setup] }>();

/** How many fit on what is in the cutter. */
const live = useCutters();
const inIt = computed(() => live.states.find(({ id }) => id === props.cutter.id)?.film);
const room = computed(() => {
  const { width, length } = inIt.value ?? { width: props.cutter.widest, length: 1000 };
  const fits = gridRoom(cuttableWidth(props.cutter, width), length - props.cutter.margins.lead);
  return { columns: Math.min(15, fits.columns), rows: Math.min(10, fits.rows) };
});
const asked = ref({ from: 40, to: 100, slow: 10, fast: 50, columns: 7, rows: 5 });
watch(
  () => `${props.cutter.id} ${props.film.id} ${props.shown.kind}`,
  () => {
    const { force, speed } = props.cutter;
    const middle = props.shown.recipe.force ?? Math.min(80, force.most);
    const between = (value: number, least: number, most: number): number =>
      Math.round(Math.min(most, Math.max(least, value)));
    asked.value = {
      ...asked.value,
      from: between(middle * 0.5, force.least, force.most),
      to: between(middle * 1.4, force.least, force.most),
      slow: between(10, speed.least, speed.most),
      fast: between(50, speed.least, speed.most),
    };
  },
  { immediate: true },
);
const size = computed(() => ({
  columns: Math.min(asked.value.columns, room.value.columns),
  rows: Math.min(asked.value.rows, room.value.rows),
}));
function cut(): void {
  const { from, to, slow, fast } = asked.value;
  const cells = gridCells({ force: [from, to], speed: [slow, fast], ...size.value }).slice(0, MOST_CELLS);
  const setup: Setup = {
    kind: 'force',
    film: props.film.id,
    line: props.shown.kind,
    columns: size.value.columns,
    cells,
  };
  emit('cut', setup);
}
</script>

<template>
  <div class="asked">
    <label
      >Force<NumberField
        label="Least force of the grid, g"
        :value="asked.from"
        :min="cutter.force.least"
        :max="cutter.force.most"
        @change="asked.from = $event" />to<NumberField
        label="Most force of the grid, g"
        :value="asked.to"
        :min="asked.from"
        :max="cutter.force.most"
        @change="asked.to = $event" />g in<NumberField
        label="Columns"
        :value="asked.columns"
        :min="2"
        :max="room.columns"
        @change="asked.columns = $event"
    /></label>
    <label
      >Speed<NumberField
        label="Least speed of the grid, cm/s"
        :value="asked.slow"
        :min="cutter.speed.least"
        :max="cutter.speed.most"
        @change="asked.slow = $event" />to<NumberField
        label="Most speed of the grid, cm/s"
        :value="asked.fast"
        :min="asked.slow"
        :max="cutter.speed.most"
        @change="asked.fast = $event" />cm/s in<NumberField
        label="Rows"
        :value="asked.rows"
        :min="1"
        :max="room.rows"
        @change="asked.rows = $event"
    /></label>
    <button class="button main" :disabled="busy" @click="cut">Cut a grid</button>
    <span class="soft">{{
      inIt
        ? `${room.columns} × ${room.rows} cells fit on what is in ${cutter.name}`
        : `Load a piece of ${film.name} into ${cutter.name}`
    }}</span>
  </div>
</template>

<style scoped>
.asked {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 18px;
  align-items: center;
  font-size: 14px;
}
.asked label {
  display: flex;
  gap: 6px;
  align-items: center;
}
.asked :deep(.p-inputtext) {
  width: 58px;
  text-align: right;
}
</style>
