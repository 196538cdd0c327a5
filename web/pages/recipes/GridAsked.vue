<script setup lang="ts">
/** What a trial grid shall span, within what the machine can do and what fits on what is in it. */
import { computed, ref, watch } from 'vue';
import { gridCells, MOST_CELLS, perforatedCells } from '../../../core/calibration/grid';
import { gridRoom } from '../../../core/calibration/patterns';
import type { Setup } from '../../../core/calibration/run';
import type { Film } from '../../../core/films/film';
import type { Cutter, Range } from '../../../core/layout/cutter';
import { cuttableWidth } from '../../../core/layout/cutter';
import { useCutters } from '../../stores/cutters';
import SpanFields from './SpanFields.vue';
import type { Span, SpanAsked } from './spans';
import { spansAsked } from './spans';
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
/** Dashes of 2 to 4 mm with gaps of 0.2 to 0.5 mm (common practice, no source). */
const spans = ref<Record<SpanAsked['key'], Span>>({
  force: { from: 40, to: 100, many: 7 },
  speed: { from: 10, to: 50, many: 5 },
  on: { from: 2, to: 4, many: 2 },
  off: { from: 0.2, to: 0.5, many: 2 },
});
const asked = computed(() => spansAsked(props.cutter, isPerforated.value));
watch(
  () => `${props.cutter.id} ${props.film.id} ${props.shown.kind}`,
  () => {
    const { force, speed } = props.cutter;
    const middle = props.shown.recipe.force ?? Math.min(80, force.most);
    const inside = (value: number, { least, most }: Range): number =>
      Math.round(Math.min(most, Math.max(least, value)));
    Object.assign(spans.value, {
      force: { ...spans.value.force, from: inside(middle * 0.5, force), to: inside(middle * 1.4, force) },
      speed: { ...spans.value.speed, from: inside(10, speed), to: inside(50, speed) },
    });
  },
  { immediate: true },
);

const rows = computed(() => {
  const { speed, on, off } = spans.value;
  return isPerforated.value ? on.many * off.many : Math.min(speed.many, room.value.rows);
});
const columns = computed(() => Math.min(spans.value.force.many, room.value.columns));
const mostOf = ({ key }: SpanAsked): number =>
  key === 'force' ? room.value.columns : key === 'speed' ? room.value.rows : MOST_DASHES;
const MOST_DASHES = 5;
const isTooMuch = computed(() => rows.value > room.value.rows || rows.value * columns.value > MOST_CELLS);
function cut(): void {
  const { force, speed, on, off } = spans.value;
  const span = ({ from, to }: Span): readonly [number, number] => [from, to];
  const common = { force: span(force), columns: columns.value };
  const cells = isPerforated.value
    ? perforatedCells({
        ...common,
        on: span(on),
        off: span(off),
        each: [on.many, off.many],
        speed: props.shown.recipe.speed ?? props.cutter.ownSpeed,
      })
    : gridCells({ ...common, speed: span(speed), rows: rows.value });
  emit('cut', {
    kind: 'force',
    film: props.film.id,
    line: props.shown.kind,
    columns: columns.value,
    cells,
  });
}
</script>

<template>
  <div class="asked">
    <SpanFields
      v-for="one in asked"
      :key="one.key"
      :asked="one"
      :span="spans[one.key]"
      :most="mostOf(one)"
      @change="spans[one.key] = $event"
    />
    <button class="button main" :disabled="busy || isTooMuch" @click="cut">Cut a grid</button>
    <span class="soft">{{
      isTooMuch
        ? `${columns} × ${rows} cells are too many: take fewer dashes, gaps or forces`
        : inIt
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
</style>
