<script setup lang="ts">
/** How a machine moves, and what its sensor reads. */
import type { Cutter, Range } from '../../../core/layout/cutter';
import DraftField from '../../parts/DraftField.vue';
import NumberField from '../../parts/NumberField.vue';
import type { MachineEmits, MachineProps } from './change';
import PaceRows from './PaceRows.vue';
import PairRow from './PairRow.vue';
import SensorRows from './SensorRows.vue';

const props = defineProps<MachineProps>();
const emit = defineEmits<MachineEmits>();
const setMotion = (what: Partial<Cutter['motion']>): void =>
  emit('change', { motion: { ...props.machine.motion, ...what } });
const RANGES = [
  ['force', 'Force', 'g', 5000],
  ['speed', 'Speed', 'cm/s', 500],
] as const;
/** A whole number, or nothing. */
const stepsIn = (text: string): string | undefined =>
  text === '' || (/^\d+$/.test(text) && Number(text) >= 2 && Number(text) <= 1000) ? text : undefined;
const withSteps = ({ least, most }: Range, text: string): Range => ({
  least,
  most,
  ...(text && { steps: Number(text) }),
});
const ENDS = [
  ['least', 'Least'],
  ['most', 'Most'],
] as const;
</script>

<template>
  <section aria-label="How it moves">
    <h3>How it moves</h3>
    <PairRow v-for="[key, name, unit, most] in RANGES" :key="key" :label="`${name}, ${unit}`">
      <NumberField
        v-for="[end, word] in ENDS"
        :key="end"
        :label="`${word} ${key}, ${unit}`"
        :value="machine[key][end]"
        :max="most"
        @change="$emit('change', { [key]: { ...machine[key], [end]: $event } })"
      />
    </PairRow>
    <PairRow
      label="In so many steps: force · speed"
      hint="Steps that its own panel counts from the least to the most; empty: it counts none"
    >
      <DraftField
        v-for="[key, name] in RANGES"
        :key="key"
        class="number"
        :label="`${name}, steps of its own`"
        :value="machine[key].steps?.toString() ?? ''"
        :read="stepsIn"
        @change="$emit('change', { [key]: withSteps(machine[key], $event) })"
      />
    </PairRow>
    <PairRow label="By itself · knife up, cm/s" hint="When its speed is left to the machine">
      <NumberField
        label="Its own speed, cm/s"
        :value="machine.ownSpeed"
        :min="0.1"
        :max="500"
        @change="$emit('change', { ownSpeed: $event })"
      />
      <NumberField
        label="Speed with the knife up, cm/s"
        :value="machine.motion.travelSpeed"
        :min="0.5"
        :max="500"
        @change="setMotion({ travelSpeed: $event })"
      />
    </PairRow>
    <PairRow label="Gathers speed, mm/s²">
      <NumberField
        label="Acceleration, mm/s²"
        :value="machine.motion.acceleration"
        :min="10"
        :max="100000"
        @change="setMotion({ acceleration: $event })"
      />
    </PairRow>
    <PairRow label="Knife down · up, s">
      <NumberField
        label="Seconds to lower the knife"
        :value="machine.motion.down"
        :digits="2"
        :max="5"
        @change="setMotion({ down: $event })"
      />
      <NumberField
        label="Seconds to raise the knife"
        :value="machine.motion.up"
        :digits="2"
        :max="5"
        @change="setMotion({ up: $event })"
      />
    </PairRow>
    <PaceRows :machine="machine" @change="$emit('change', $event)" />
    <h3>Sensor</h3>
    <SensorRows :machine="machine" @change="$emit('change', $event)" />
  </section>
</template>
