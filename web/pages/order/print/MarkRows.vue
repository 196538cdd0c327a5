<script setup lang="ts">
/** Print marks: which kind, how large, how far off the art. */
import { computed } from 'vue';
import type { PrintChoices, PrintMarkChoices } from '../../../../core/print/choices';
import { TIGHT, USUAL_MARKS } from '../../../../core/print/choices';
import ChoiceRow from '../../../parts/ChoiceRow.vue';
import LengthField from '../../../parts/LengthField.vue';
import LengthRow from '../../../parts/LengthRow.vue';
import RadioCards from '../../../parts/RadioCards.vue';
import { useOrder } from '../../../stores/order';
import { useUnits } from '../../../stores/units';

const { print } = defineProps<{ print: PrintChoices }>();
const emit = defineEmits<{ change: [change: Partial<PrintChoices>] }>();
const store = useOrder();
const units = useUnits();
const set = (to: Partial<PrintMarkChoices>): void => emit('change', { marks: { ...print.marks, ...to } });

const KINDS = [
  { value: 'in', label: 'Corners in', says: 'arms toward the art' },
  { value: 'out', label: 'Corners out', says: 'more room for art' },
  { value: 'dots', label: 'Dots', says: 'small sheets' },
] as const;
const CORNERS = [
  { value: 4, label: 'four' },
  { value: 3, label: 'three' },
] as const;
const PATCH = [
  { value: 'when-needed', label: 'when needed' },
  { value: 'always', label: 'always' },
  { value: 'never', label: 'never' },
] as const;
const isTight = computed(() => print.marks.at !== null || print.marks.away <= TIGHT);
function drawTight(): void {
  set({ at: null, away: isTight.value ? USUAL_MARKS.away : TIGHT });
}
const cutter = computed(() => store.shop?.cutters.find(({ id }) => id === store.plan!.printed?.cutter));
/** What the machine reads by itself. */
const reads = computed(() => {
  if (!cutter.value) return '';
  const { name, sensor } = cutter.value;
  return sensor
    ? `${name} reads up to ${sensor.most} marks, as far as ${units.run(sensor.farthest)} apart.`
    : `${name} has no sensor: its marks are taken by hand.`;
});
const aside = computed(() => store.plan!.printed?.sheets[0]?.marks.findIndex(({ isBetween }) => isBetween));
</script>

<template>
  <RadioCards
    class="kinds"
    label="Print marks"
    name="print-marks"
    beneath
    :value="print.marks.kind"
    :options="KINDS"
    @change="set({ kind: $event })"
  />
  <ChoiceRow
    label="At the corners"
    full-label="Marks at the corners"
    :value="print.marks.corners"
    :options="CORNERS"
    @change="set({ corners: $event })"
  />
  <LengthRow
    label="Between corners, every"
    :value="print.marks.between"
    :min="20"
    :max="10_000"
    @change="set({ between: $event })"
  />
  <LengthRow
    v-if="print.marks.at === null"
    label="Away from the art"
    full-label="Marks away from the art"
    :value="print.marks.away"
    :max="500"
    @change="set({ away: $event })"
  />
  <div class="row">
    <span>{{ print.marks.kind === 'dots' ? 'Line' : 'Arm · line' }}</span>
    <span class="two">
      <LengthField
        v-if="print.marks.kind !== 'dots'"
        label="Arm of a mark"
        :value="print.marks.arm"
        :min="2"
        :max="100"
        @change="set({ arm: $event })"
      />
      <LengthField
        label="Line of a mark"
        fine
        :value="print.marks.line"
        :min="0.2"
        :max="10"
        @change="set({ line: $event })"
      />
    </span>
  </div>
  <ChoiceRow
    label="Patch behind"
    full-label="White patch behind the marks"
    :value="print.patch"
    :options="PATCH"
    @change="emit('change', { patch: $event })"
  />
  <div v-if="aside !== undefined && aside >= 0" class="row">
    <span>Tells a turned sheet</span><span class="good">mark {{ aside + 1 }} is off centre</span>
  </div>
  <div class="acts">
    <button class="button small" @click="drawTight">
      {{ isTight ? 'Let them keep their distance' : 'Draw them in tight' }}
    </button>
  </div>
  <p class="hint">{{ reads }} Drag a corner's mark on the sheet to set all of them.</p>
</template>

<style scoped>
.kinds {
  grid-template-columns: repeat(3, 1fr);
}
.kinds :deep(.card) {
  grid-template-columns: auto 1fr;
  gap: 0 5px;
  align-content: start;
  padding: 5px 6px;
}
.kinds :deep(b) {
  font-size: 13.5px;
  line-height: 1.2;
}
.kinds :deep(.card small) {
  grid-column: 1 / 3;
  line-height: 1.2;
}
.two {
  display: flex;
  gap: 6px;
}
.two :deep(input) {
  width: 6.9em;
  padding-inline: 6px;
}
.good {
  padding: 1px 9px;
  font-size: 13px;
  font-weight: 650;
  color: #415a18;
  background: var(--gooseberry-soft, #e6f0d3);
  border-radius: 99px;
}
.row :deep(.p-select) {
  width: 160px;
}
</style>
