<script setup lang="ts">
/** Which print marks a machine's sensor reads, and where it sits. */
import type { MarkSensor } from '../../../core/layout/cutter';
import type { MarkKind } from '../../../core/registration/readMarks';
import { MARK_KINDS } from '../../../core/registration/readMarks';
import LengthField from '../../parts/LengthField.vue';
import NumberField from '../../parts/NumberField.vue';
import SwitchRow from '../../parts/SwitchRow.vue';
import type { MachineEmits, MachineProps } from './change';
import PairRow from './PairRow.vue';

const props = defineProps<MachineProps>();
const emit = defineEmits<MachineEmits>();
/** A sensor as it begins: before it is calibrated it is where the knife is. */
const NEW_SENSOR: MarkSensor = {
  kinds: ['in'],
  most: 4,
  farthest: 1000,
  noise: 0.03,
  reach: 8,
  offset: [0, 0],
};
const MARKS: Readonly<Record<MarkKind, string>> = {
  in: 'corners that face in',
  out: 'corners that face out',
  dots: 'dots',
};
const set = (what: Partial<MarkSensor>): void =>
  emit('change', { sensor: { ...props.machine.sensor!, ...what } });
function toggle(kind: MarkKind, isOn: boolean): void {
  const kinds = MARK_KINDS.filter((one) => (one === kind ? isOn : props.machine.sensor!.kinds.includes(one)));
  if (kinds.length > 0) set({ kinds });
}
function setOffset(axis: 0 | 1, mm: number): void {
  const [x, y] = props.machine.sensor!.offset;
  set({ offset: axis === 0 ? [mm, y] : [x, mm] });
}
</script>

<template>
  <SwitchRow
    label="Reads print marks"
    :on="!!machine.sensor"
    @change="$emit('change', { sensor: $event ? NEW_SENSOR : null })"
  />
  <template v-if="machine.sensor">
    <SwitchRow
      v-for="kind in MARK_KINDS"
      :key="kind"
      :label="MARKS[kind]"
      :on="machine.sensor.kinds.includes(kind)"
      @change="toggle(kind, $event)"
    />
    <PairRow label="Marks at the most · apart">
      <NumberField
        label="Marks at the most"
        :value="machine.sensor.most"
        :min="2"
        :max="200"
        @change="set({ most: $event })"
      />
      <LengthField
        label="Marks as far apart as"
        :value="machine.sensor.farthest"
        :min="10"
        :max="100000"
        @change="set({ farthest: $event })"
      />
    </PairRow>
    <PairRow label="From the knife, X · Y" hint="On the cutter's own axes">
      <NumberField
        v-for="axis in [0, 1] as const"
        :key="axis"
        :label="`Sensor from the knife, ${'XY'[axis]}, mm`"
        :value="machine.sensor.offset[axis]"
        :digits="2"
        :min="-200"
        :max="200"
        @change="setOffset(axis, $event)"
      />
      <span class="soft">mm</span>
    </PairRow>
  </template>
</template>
