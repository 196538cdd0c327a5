<script setup lang="ts">
/**
 * A test cut of force against speed, or of force against dashes and gaps, and how its cells look: what to cut with comes from
 * all of them. Where a cutter takes no force, its knob is turned from column to column.
 */
import { computed, ref } from 'vue';
import type { Calibration } from '../../../contracts/calibrations';
import type { CellLook } from '../../../core/calibration/grid';
import { forcesByHand } from '../../../core/calibration/grid';
import type { Setup } from '../../../core/calibration/run';
import type { Film } from '../../../core/films/film';
import type { Cutter } from '../../../core/layout/cutter';
import type { useCalibrations } from '../machines/calibrations/useCalibrations';
import RunAtWork from '../machines/calibrations/RunAtWork.vue';
import { foundIn, isAtWork, isOpen, saidAt } from '../machines/calibrations/runs';
import { shortDate } from '../machines/calibrations/texts';
import GridAsked from './GridAsked.vue';
import GridCells from './GridCells.vue';
import { cutAsText, looksOf } from './looks';
import type { ShownRecipe } from './useRecipes';
import { useMe } from '../../stores/me';

const me = useMe();
const props = defineProps<{
  film: Film;
  cutter: Cutter;
  shown: ShownRecipe;
  calibrations: ReturnType<typeof useCalibrations>;
}>();

type GridSetup = Setup & { readonly kind: 'force' };
interface Grid extends Calibration {
  readonly setup: GridSetup;
}
const isGrid = (run: Calibration): run is Grid =>
  run.setup.kind === 'force' && run.setup.film === props.film.id && run.setup.line === props.shown.kind;
const grids = computed(() => props.calibrations.runs.value.filter(isGrid));
const open = computed(() => grids.value.find(isOpen));
const picked = ref<number>();
/** The one that is shown: the open one, or one of those before that was picked, or the last. */
const grid = computed(
  () => open.value ?? grids.value.find(({ id }) => id === picked.value) ?? grids.value[0],
);

const step = (what: 'cut' | 'stop' | 'keep' | 'drop'): void =>
  void (grid.value && props.calibrations.step(what, grid.value.id));

type Brush = CellLook | 'best';
const brushes = computed((): readonly (readonly [Brush, string])[] => {
  const names = looksOf(grid.value?.setup.cells ?? []);
  const looks: readonly CellLook[] = ['clean', 'into-backing', 'not-through'];
  return [...looks.map((look) => [look, names[look]] as const), ['best', 'the best one']];
});
const brush = ref<Brush>('clean');
function tap(i: number): void {
  const run = grid.value;
  if (run?.state !== 'measuring') return;
  const { measured } = run;
  if (brush.value === 'best')
    return void props.calibrations.measure(run, { ...measured, picked: measured.picked === i ? null : i });
  const look = measured.looks?.[i] === brush.value ? null : brush.value;
  const looks = saidAt(measured.looks, run.setup.cells.length, i, look);
  void props.calibrations.measure(run, { ...measured, looks });
}
const found = computed(() => grid.value && foundIn(grid.value));
const proposed = computed(() => {
  const [change] = found.value?.changes ?? [];
  if (!change) return undefined;
  const { speed, dashes } = found.value!.force!;
  const as = dashes ? `dashes of ${dashes[0]} mm, gaps of ${dashes[1]} mm` : `${speed}`;
  return `Use ${Math.round(change.value)} g ${dashes ? 'with' : 'at'} ${as}`;
});
/** What is to be set by hand before the next column is cut. */
const byHand = computed(() => {
  if (props.cutter.device.sendsForce || open.value?.state !== 'ready') return undefined;
  const forces = forcesByHand(open.value.setup.cells);
  return { force: forces[open.value.part], column: open.value.part + 1, of: forces.length };
});
const isMeasuring = computed(() => grid.value?.state === 'measuring');
</script>

<template>
  <section class="trial" aria-label="Trial grid">
    <header>
      <h2>Trial grid</h2>
      <span class="soft">{{
        isMeasuring
          ? 'weed it, then tap how each cell looks, or only the best one'
          : grid && !isAtWork(grid)
            ? `of ${shortDate(grid.startedAt)}`
            : `force against ${shown.kind === 'perforated' ? 'dashes and gaps' : 'speed'}, cut for real`
      }}</span>
    </header>
    <GridAsked
      v-if="!open"
      :film="film"
      :cutter="cutter"
      :shown="shown"
      :busy="calibrations.isBusy.value"
      @cut="calibrations.setUp($event, cutter.device.sendsForce)"
    />
    <RunAtWork
      v-if="grid && isAtWork(grid)"
      :run="grid"
      :machine="cutter.name"
      label="Trial grid"
      @stop="step('stop')"
    />
    <div v-else-if="open && !isMeasuring" class="at-work">
      <p v-if="open.problem" class="problem" role="alert">{{ open.problem }}</p>
      <p v-if="byHand" class="by-hand" role="status">
        Set the knob of {{ cutter.name }} to <b class="number">{{ byHand.force }} g</b>, then cut column
        {{ byHand.column }} of {{ byHand.of }}.
      </p>
      <div class="buttons">
        <button class="button main" @click="step('cut')">
          {{ byHand ? `Cut column ${byHand.column}` : 'Cut it again' }}
        </button>
        <button class="button" @click="step('drop')">Never mind</button>
      </div>
    </div>
    <template v-else-if="grid">
      <GridCells :grid="grid" @tap="tap" />
      <div v-if="isMeasuring" class="brushes" role="radiogroup" aria-label="What a tapped cell is">
        <button
          v-for="[value, label] in brushes"
          :key="value"
          role="radio"
          :class="value"
          :aria-checked="brush === value"
          @click="brush = value"
        >
          {{ label }}
        </button>
      </div>
      <p v-if="grid.says?.says === 'more' && isMeasuring" class="soft">{{ grid.says.message }}</p>
      <div v-if="found?.force" class="found">
        <p>
          {{ found.force.dashes ? 'Tears along it' : 'Cuts cleanly' }} from
          <b class="number">{{ Math.round(found.force.clean.value) }} g</b>
          <span class="soft number">
            ({{ Math.round(found.force.clean.from) }} to {{ Math.round(found.force.clean.to) }})</span
          ><template v-if="found.force.backing"
            >, {{ found.force.dashes ? 'falls apart' : 'into the backing' }} from
            <b class="number">{{ Math.round(found.force.backing.value) }} g</b></template
          >
          {{ cutAsText(found.force) }}.
        </p>
        <p v-if="found.oddCells?.length" class="soft">
          {{ found.oddCells.length === 1 ? 'One cell looks' : `${found.oddCells.length} cells look` }}
          otherwise than all the others say, and {{ found.oddCells.length === 1 ? 'counts' : 'count' }} for
          little: look once more.
        </p>
      </div>
      <div v-if="isMeasuring" class="buttons">
        <button
          class="button main"
          :disabled="!proposed || calibrations.isBusy.value || !me.may('lead')"
          @click="step('keep')"
        >
          {{ proposed ?? 'Use it' }}
        </button>
        <button class="button" @click="step('drop')">Drop</button>
        <p v-if="!me.may('lead')" class="soft">A lead takes it into the recipe.</p>
      </div>
    </template>
    <div v-if="!open && grids.length > 1" class="others">
      <span class="soft">Grids before</span>
      <button
        v-for="one in grids"
        :key="one.id"
        class="button slim"
        :aria-pressed="one.id === grid?.id"
        @click="picked = one.id"
      >
        {{ shortDate(one.startedAt) }}{{ one.after ? ` · ${Math.round(one.after[0])} g` : '' }}
      </button>
    </div>
  </section>
</template>

<style scoped>
.trial {
  display: grid;
  gap: 12px;
  align-content: start;
  padding: 14px 18px;
  background: var(--card);
  border: var(--line) solid var(--rule);
  border-radius: var(--radius-label);
}
header {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 16px;
  align-items: baseline;
  justify-content: space-between;
}
h2 {
  font-size: 20px;
}
p {
  margin: 0;
}
.at-work {
  display: grid;
  gap: 10px;
  justify-items: start;
}
.problem {
  padding: 8px 12px;
  background: var(--quince-soft);
  border: var(--line) solid var(--quince);
  border-radius: var(--radius-card);
}
.by-hand {
  font-size: 17px;
}
.brushes,
.buttons,
.others {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: center;
}
.brushes button {
  min-height: 32px;
  padding: 0 14px;
  font-weight: 650;
  background: var(--card);
  border: var(--line) solid var(--rule);
  border-radius: 99px;
}
.brushes .clean {
  color: var(--gooseberry-text);
  background: var(--gooseberry-soft);
}
.brushes .into-backing {
  color: var(--currant);
  background: var(--currant-soft);
}
.brushes .not-through {
  background: var(--rule-soft);
}
.brushes [aria-checked='true'] {
  border-color: var(--ink);
  box-shadow: inset 0 0 0 1px var(--ink);
}
.others [aria-pressed='true'] {
  background: var(--damson-soft);
  border-color: var(--damson);
}
.found {
  display: grid;
  gap: 4px;
}
</style>
