<script setup lang="ts">
/** What a person measured of a run, place by place. */
import { computed, ref } from 'vue';
import type { Calibration } from '../../../../contracts/calibrations';
import { GAPS, stationsOf } from '../../../../core/calibration/patterns';
import { formatOff, parseOff } from '../../../../core/calibration/seenText';
import type { Spot } from '../../../../core/geometry/spot';
import { parseLength } from '../../../../core/units/length';
import { useUnits } from '../../../stores/units';
import MeasureField from './MeasureField.vue';
import { saidAt, undecided } from './runs';

const props = defineProps<{ run: Calibration }>();
const emit = defineEmits<{ change: [measured: Calibration['measured']] }>();
const units = useUnits();
const wrong = ref<string>();

const rows = computed((): readonly string[] => {
  const { setup, seen } = props.run;
  if (setup.kind === 'sensor-print') return (seen?.places ?? []).map((_, i) => `Cross ${i + 1}`);
  if (setup.kind === 'length')
    return stationsOf(setup.whole).map((mm, i) => `To tick ${i + 1}, told ${units.length(mm)}`);
  return Array.from({ length: GAPS }, (_, i) => `Gap ${i + 1}`);
});
const isOff = computed(() => props.run.setup.kind === 'sensor-print');
const textOf = (i: number): string => {
  const { off, lengths } = props.run.measured;
  const [spot, length] = [off?.[i], lengths?.[i]];
  if (isOff.value) return spot ? formatOff(spot, units.unit) : '';
  return length === null || length === undefined ? '' : units.length(length, true);
};
function read(text: string) {
  if (isOff.value) {
    const said = parseOff(text, units.unit);
    return said.ok ? { ok: true as const, text: formatOff(said.off, units.unit) } : said;
  }
  const said = parseLength(text, units.unit);
  if (!said.ok) return said;
  return said.mm >= 0 && said.mm <= 10_000
    ? { ok: true as const, text: units.length(said.mm, true) }
    : { ok: false as const, message: 'That is no length of this pattern.' };
}
function set(i: number, text: string): void {
  const { measured } = props.run;
  const plain = undecided(measured, i);
  const many = rows.value.length;
  if (isOff.value) {
    const said = text === '' ? undefined : parseOff(text, units.unit);
    return emit('change', { ...plain, off: saidAt<Spot>(measured.off, many, i, said?.ok ? said.off : null) });
  }
  const said = text === '' ? undefined : parseLength(text, units.unit);
  emit('change', { ...plain, lengths: saidAt(measured.lengths, many, i, said?.ok ? said.mm : null) });
}
</script>

<template>
  <div class="saw">
    <h3>What you saw</h3>
    <p class="soft">
      {{
        isOff
          ? `Where each cut lies beside its cross, in ${units.unit}: “0.3 left, 0.2 front”.`
          : run.setup.kind === 'length'
            ? 'From the first tick to each of the others.'
            : 'Between the ends of each pair of lines.'
      }}
    </p>
    <div v-for="(label, i) in rows" :key="i" class="row" :class="{ out: run.measured.leftOut?.includes(i) }">
      <span>{{ label }}</span>
      <MeasureField
        :label="label"
        :value="textOf(i)"
        :read="read"
        @change="set(i, $event)"
        @wrong="wrong = $event"
      />
    </div>
    <p v-if="wrong" class="wrong" role="alert">{{ wrong }}</p>
  </div>
</template>

<style scoped>
.saw {
  display: grid;
  gap: 5px;
}
h3 {
  font-size: 16px;
}
p {
  margin: 0;
  font-size: 13.5px;
}
.row {
  display: flex;
  gap: 8px;
  align-items: center;
  justify-content: space-between;
  font-size: 14px;
}
.out {
  opacity: 0.55;
  text-decoration: line-through;
}
.row :deep(.measure) {
  width: 176px;
  text-align: right;
}
.wrong {
  color: var(--currant);
}
</style>
