<script setup lang="ts">
/** One quantity of a machine: a run of it from setting up to keeping, and all runs before. */
import SelectButton from 'primevue/selectbutton';
import { computed, ref, watch } from 'vue';
import type { Calibration } from '../../../../contracts/calibrations';
import { addressOf } from '../../../../contracts/address';
import { rowValues } from '../../../../core/calibration/blade';
import type { Setup } from '../../../../core/calibration/run';
import { isPrinted, leastChange, sameQuantity } from '../../../../core/calibration/run';
import type { Film } from '../../../../core/films/film';
import type { Spot } from '../../../../core/geometry/spot';
import type { Cutter } from '../../../../core/layout/cutter';
import { cuttableWidth } from '../../../../core/layout/cutter';
import { useCutters } from '../../../stores/cutters';
import ChoiceRow from '../../../parts/ChoiceRow.vue';
import KnifeBox from '../../../parts/KnifeBox.vue';
import LengthRow from '../../../parts/LengthRow.vue';
import OnlyFor from '../../../parts/OnlyFor.vue';
import CrossesSeen from './CrossesSeen.vue';
import LevelsSeen from './LevelsSeen.vue';
import type { Quantity } from '../../../../core/calibration/stale';
import type { Way } from './quantities';
import { QUANTITY_NAMES } from '../../../../core/calibration/stale';
import { isOf, WAYS } from './quantities';
import RowPicture from './RowPicture.vue';
import RunAtWork from './RunAtWork.vue';
import { foundIn, inUseOf, isAtWork, isOpen, saidAt, undecided } from './runs';
import RunSaysPanel from './RunSaysPanel.vue';
import TriedBefore from './TriedBefore.vue';
import type { useCalibrations } from './useCalibrations';
import WhatYouSaw from './WhatYouSaw.vue';

const props = defineProps<{
  machine: Cutter;
  quantity: Quantity;
  blades: readonly string[];
  films: readonly Film[];
  calibrations: ReturnType<typeof useCalibrations>;
}>();

const { runs, isBusy } = props.calibrations;
const ways = computed(() => WAYS[props.quantity]);
const own = computed(() => runs.value.filter(({ setup }) => isOf(props.quantity, setup)));
const goesBy = ({ setup }: Calibration, { kind, axis }: Way): boolean =>
  setup.kind === kind && (setup.kind !== 'length' || setup.axis === axis);
/** As a person picked it, else the one that is under way. */
const picked = ref<number>();
const chosen = computed(
  () =>
    picked.value ??
    Math.max(
      0,
      ways.value.findIndex((one) => own.value.some((run) => isOpen(run) && goesBy(run, one))),
    ),
);
const way = computed(() => ways.value[chosen.value]);
const byPrint = computed(() => way.value.kind === 'sensor-print' || way.value.kind === 'contrast');
const blade = ref(props.blades[0] ?? '45°');
const whole = ref(1000);
const live = useCutters();
const inIt = computed(() => live.states.find(({ id }) => id === props.machine.id)?.film);

/** Sheets that can be printed on and go into the machine. */
const sheets = computed(() =>
  props.films
    .filter(({ print, putAway }) => print && !putAway)
    .flatMap((film) =>
      film.rolls
        .filter(
          ({ sheets: count, width }) =>
            count && width >= props.machine.narrowest && width <= props.machine.widest,
        )
        .map(({ width, lengthLeft }) => ({
          value: `${film.id} ${width} ${lengthLeft}`,
          label: `${film.name}, ${width} × ${lengthLeft} mm`,
          film: film.id,
          width: lengthLeft,
          height: width,
        })),
    ),
);
const sheet = ref('');
watch(sheets, (all) => (sheet.value ||= all[0]?.value ?? ''), { immediate: true });

/** The run that is under way, this way. */
const run = computed(() => own.value.find((one) => isOpen(one) && goesBy(one, way.value)));
/** Runs of the same quantity as what is set up or looked at. */
const alike = computed(() => {
  const setup = run.value?.setup ?? setupNow();
  return setup ? own.value.filter((one) => sameQuantity(one.setup, setup)) : [];
});
const earlier = computed(() => alike.value.filter(({ id }) => id !== run.value?.id));
const least = computed(() => leastChange(way.value.kind, props.machine.device.step));

/** Where a row starts when nothing is known, mm. */
const ROWS = { 'blade-row': [0.1, 0.6], 'overcut-row': [0, 1.5] } as const;
function setupNow(): Setup | undefined {
  const { kind, axis = 'along' } = way.value;
  switch (kind) {
    case 'sensor-pen':
      return { kind };
    case 'sensor-print':
    case 'contrast': {
      const found = sheets.value.find(({ value }) => value === sheet.value);
      return found && { kind, film: found.film, width: found.width, height: found.height };
    }
    case 'length':
      return { kind, axis, whole: whole.value };
    case 'blade-gap':
      return { kind, blade: blade.value };
    case 'blade-row':
    case 'overcut-row': {
      const before = own.value.find(
        ({ setup, state }) => setup.kind === kind && setup.blade === blade.value && state === 'kept',
      );
      const about = before && foundIn(before)?.own[0];
      return { kind, blade: blade.value, values: rowValues(about, ROWS[kind]) };
    }
    case 'force':
      return undefined;
  }
}
watch(
  [() => way.value.axis, inIt],
  ([axis]) => {
    if (axis !== 'across') return;
    const reached = cuttableWidth(props.machine, inIt.value?.width ?? props.machine.widest);
    whole.value = Math.min(whole.value, Math.floor(reached - 10));
  },
  { immediate: true },
);

const begin = (): void => {
  const setup = setupNow();
  if (setup) void props.calibrations.setUp(setup, !isPrinted(setup));
};
const step = (what: 'cut' | 'stop' | 'keep' | 'drop', one = run.value): void => {
  if (one) void props.calibrations.step(what, one.id);
};
const measure = (measured: Calibration['measured']): void => {
  if (run.value) void props.calibrations.measure(run.value, measured);
};
function setOff(place: number, off: Spot): void {
  const { measured, seen } = run.value!;
  measure({ ...undecided(measured, place), off: saidAt(measured.off, seen!.places.length, place, off) });
}
const inUse = computed(() => inUseOf(alike.value));
</script>

<template>
  <div class="calibration" :aria-label="QUANTITY_NAMES[quantity]" role="region">
    <div class="middle">
      <header>
        <div>
          <h3>{{ way.title }}</h3>
          <p class="soft">{{ way.says }}</p>
        </div>
        <SelectButton
          v-if="ways.length > 1"
          :model-value="chosen"
          :options="ways.map(({ label }, value) => ({ label, value }))"
          option-label="label"
          option-value="value"
          :allow-empty="false"
          :aria-label="`Ways to find the ${QUANTITY_NAMES[quantity].toLowerCase()}`"
          @update:model-value="picked = $event"
        />
      </header>

      <OnlyFor role="operator" says="Machines are calibrated by operators and leads.">
        <div v-if="!run" class="set-up">
          <ChoiceRow
            v-if="byPrint && sheets.length > 0"
            label="Sheet"
            :value="sheet"
            :options="sheets"
            @change="sheet = $event"
          />
          <p v-else-if="byPrint">
            No sheet on the shelf can be printed on and goes into {{ machine.name }}. Add one under Materials.
          </p>
          <LengthRow
            v-if="way.kind === 'length'"
            label="As long as"
            :value="whole"
            :min="50"
            :max="5000"
            @change="whole = $event"
          />
          <ChoiceRow
            v-if="quantity === 'blade' || quantity === 'overcut'"
            label="Blade"
            :value="blade"
            :options="blades.map((value) => ({ value, label: value }))"
            @change="blade = $event"
          />
          <button class="button main" :disabled="isBusy || !setupNow()" @click="begin">
            {{ way.button }}
          </button>
        </div>

        <RunAtWork
          v-else-if="isAtWork(run)"
          class="card"
          :run="run"
          :machine="machine.name"
          :label="`${QUANTITY_NAMES[quantity]} of ${machine.name}`"
          @stop="step('stop')"
        />

        <div v-else-if="run.state !== 'measuring'" class="set-up">
          <p v-if="run.problem" class="problem" role="alert">{{ run.problem }}</p>
          <template v-if="isPrinted(run.setup)">
            <p v-if="!run.problem">
              The sheet is {{ run.setup.width }} × {{ run.setup.height }} mm. Print it, load it this side up,
              its writing to the near edge, and {{ run.setup.kind === 'contrast' ? 'have it read' : 'cut' }}.
            </p>
            <div class="buttons">
              <button class="button" :disabled="isBusy" @click="calibrations.print(run)">Print it</button>
              <a
                class="button"
                :href="addressOf('GET /api/calibrations/{id}/sheet.pdf', { params: { id: run.id } })"
                target="_blank"
                >As PDF</a
              >
            </div>
          </template>
          <div class="buttons">
            <button class="button main" :disabled="isBusy" @click="step('cut')">
              {{
                run.setup.kind === 'contrast'
                  ? 'It is loaded: read it'
                  : isPrinted(run.setup)
                    ? 'It is loaded: read and cut'
                    : way.button
              }}
            </button>
            <button class="button" :disabled="isBusy" @click="step('drop')">Never mind</button>
          </div>
        </div>

        <LevelsSeen v-else-if="run.seen?.levels" :levels="run.seen.levels" :found="foundIn(run)" />
        <CrossesSeen
          v-else-if="run.setup.kind === 'sensor-print' && run.seen"
          :places="run.seen.places"
          :off="run.seen.places.map((_, i) => run!.measured.off?.[i] ?? null)"
          @change="setOff"
        />
        <CrossesSeen
          v-else-if="run.setup.kind === 'sensor-pen' && run.seen"
          :places="run.seen.places"
          :off="run.seen.off ?? []"
          is-read
        />
        <RowPicture
          v-else-if="run.setup.kind === 'blade-row' || run.setup.kind === 'overcut-row'"
          :values="run.setup.values"
          :picked="run.measured.picked"
          :what="run.setup.kind === 'blade-row' ? 'blade offset' : 'overcut'"
          @pick="measure({ ...run.measured, picked: $event })"
        />
      </OnlyFor>

      <TriedBefore :runs="alike" :now="run?.id" :least="least" @back="step('keep', $event)" />
    </div>

    <aside>
      <template v-if="run?.state === 'measuring'">
        <WhatYouSaw
          v-if="
            run.setup.kind === 'sensor-print' || run.setup.kind === 'length' || run.setup.kind === 'blade-gap'
          "
          :run="run"
          @change="measure"
        />
        <RunSaysPanel
          :run="run"
          :earlier="earlier"
          :least="least"
          :is-busy="isBusy"
          @keep="step('keep')"
          @drop="step('drop')"
          @change="measure"
        />
      </template>
      <RunSaysPanel v-else-if="inUse" :run="inUse" :earlier="[]" :least="least" />
      <p v-else class="soft">Nothing was found out about it yet.</p>
      <KnifeBox v-if="quantity === 'blade' || quantity === 'overcut'" :cutter="machine" :blades="blades" />
    </aside>
  </div>
</template>

<style scoped>
.calibration {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 292px;
  gap: 18px;
  align-items: start;
}
.middle {
  display: grid;
  gap: 14px;
}
header {
  display: flex;
  gap: 16px;
  align-items: start;
  justify-content: space-between;
}
header :deep(.p-selectbutton) {
  flex: none;
  border: var(--line) solid var(--ink);
  border-radius: var(--radius-card);
}
header :deep(.p-togglebutton) {
  padding: 0;
  color: var(--ink);
  background: var(--card);
  border: 0;
  border-radius: 7px;
}
header :deep(.p-togglebutton-checked .p-togglebutton-content) {
  color: var(--card);
  background: var(--ink);
  border-radius: 6px;
  box-shadow: none;
}
h3 {
  font-size: 22px;
}
p {
  margin: 0;
}
header p {
  max-width: 58ch;
  margin-top: 4px;
  font-size: 14px;
}
.set-up,
.card {
  display: grid;
  gap: 10px;
  justify-items: start;
  padding: 14px;
  background: var(--card);
  border: var(--line) solid var(--rule);
  border-radius: var(--radius-label);
}
.set-up :deep(.row) {
  display: flex;
  gap: 12px;
  align-items: center;
}
.problem {
  padding: 8px 12px;
  background: var(--quince-soft);
  border: var(--line) solid var(--quince);
  border-radius: var(--radius-card);
}
.buttons {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
aside {
  display: grid;
  gap: 14px;
  padding: 14px 16px;
  background: var(--card);
  border: var(--line) solid var(--rule);
  border-radius: var(--radius-label);
}
@media (max-width: 1100px) {
  .calibration {
    grid-template-columns: minmax(0, 1fr) 250px;
    gap: 12px;
  }
  header {
    flex-direction: column;
    gap: 8px;
  }
}
</style>
