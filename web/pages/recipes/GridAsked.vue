<script setup lang="ts">
/** What a trial grid shall span, within what the machine can do and what fits on what is in it. */
import { computed, ref, watch } from 'vue';
import { gridCells, MOST_CELLS, perforatedCells } from '../../../core/calibration/grid';
import { gridRoom } from '../../../core/calibration/patterns';
import type { Setup } from '../../../core/calibration/run';
import type { Film } from '../../../core/films/film';
import type { Cutter } from '../../../core/layout/cutter';
import { cuttableWidth, LEAST_DASHES } from '../../../core/layout/cutter';
import NumberField from '../../parts/NumberField.vue';
import { useCutters } from '../../stores/cutters';
import type { ShownRecipe } from './useRecipes';

const props = defineProps<{ film: Film; cutter: Cutter; shown: ShownRecipe; busy: boolean }>();
const emit = defineEmits<{ cut: [setup: Setup] }>();

const isPerforated = computed(() => props.shown.kind === 'perforated');
/** How many fit on what is in the cutter. */
const live = useCutters();
const inIt = computed(() => live.states.find(({ id }) => id === props.cutter.id)?.film);
const room = computed(() => {
  const { width, length } = inIt.value ?? { width: props.cutter.widest, length: 1000 };
  const fits = gridRoom(
    cuttableWidth(props.cutter, width),
    length - props.cutter.margins.lead,
    isPerforated.value,
  );
  return { columns: Math.min(15, fits.columns), rows: Math.min(10, fits.rows) };
});
const asked = ref({ from: 40, to: 100, slow: 10, fast: 50, columns: 7, rows: 5 });
/** Dashes of 2 to 4 mm with gaps of 0.2 to 0.5 mm (common practice, no source). */
const dashes = ref({ on: [2, 4] as [number, number], off: [0.2, 0.5] as [number, number], many: 2, gaps: 2 });
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
const PARTS = [
  { key: 'on', many: 'many', name: 'Dashes', of: 'dash', least: LEAST_DASHES[0], most: 20, digits: 1 },
  { key: 'off', many: 'gaps', name: 'Gaps', of: 'gap', least: LEAST_DASHES[1], most: 5, digits: 2 },
] as const;
const size = computed(() => ({
  columns: Math.min(asked.value.columns, room.value.columns),
  rows: Math.min(asked.value.rows, room.value.rows),
}));
function cut(): void {
  const { from, to, slow, fast } = asked.value;
  const { on, off, many, gaps } = dashes.value;
  const { columns } = size.value;
  const speed = props.shown.recipe.speed ?? props.cutter.ownSpeed;
  const all = isPerforated.value
    ? perforatedCells({ force: [from, to], columns, on, off, each: [many, gaps], speed })
    : gridCells({ force: [from, to], speed: [slow, fast], ...size.value });
  // whole rows of as many as fit
  const rows = Math.min(
    isPerforated.value ? room.value.rows : size.value.rows,
    Math.floor(MOST_CELLS / columns),
  );
  const cells = all.slice(0, rows * columns);
  const setup: Setup = {
    kind: 'force',
    film: props.film.id,
    line: props.shown.kind,
    columns,
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
    <template v-if="isPerforated">
      <label v-for="part in PARTS" :key="part.key"
        >{{ part.name
        }}<NumberField
          :label="`Least ${part.of}, mm`"
          :value="dashes[part.key][0]"
          :min="part.least"
          :max="dashes[part.key][1]"
          :digits="part.digits"
          @change="dashes[part.key][0] = $event" />to<NumberField
          :label="`Most ${part.of}, mm`"
          :value="dashes[part.key][1]"
          :min="dashes[part.key][0]"
          :max="part.most"
          :digits="part.digits"
          @change="dashes[part.key][1] = $event" />mm in<NumberField
          :label="`How many ${part.name.toLowerCase()}`"
          :value="dashes[part.many]"
          :min="1"
          :max="5"
          @change="dashes[part.many] = $event"
      /></label>
    </template>
    <label v-else
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
