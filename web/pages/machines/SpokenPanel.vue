<script setup lang="ts">
/** Where a machine listens, and how it is spoken to there. */
import type { Device } from '../../../core/layout/cutter';
import ChoiceRow from '../../parts/ChoiceRow.vue';
import NumberField from '../../parts/NumberField.vue';
import SwitchRow from '../../parts/SwitchRow.vue';
import type { MachineEmits, MachineProps } from './change';
import LinkRows from './LinkRows.vue';
import PairRow from './PairRow.vue';

const props = defineProps<MachineProps>();
const emit = defineEmits<MachineEmits>();
const set = (what: Partial<Device>): void => emit('change', { device: { ...props.machine.device, ...what } });
const FEED = [
  { value: 'x', label: 'X runs along the film' },
  { value: 'y', label: 'Y runs along the film' },
] as const;
const SWITCHES = [
  ['feedReversed', 'Counts back along the film'],
  ['acrossReversed', 'Counts from the far edge'],
  ['sendsForce', 'Is told the force'],
  ['sendsSpeed', 'Is told the speed'],
] as const;
</script>

<template>
  <section aria-label="Link">
    <h3>Link</h3>
    <LinkRows :machine="machine" />
    <h3>How it is spoken to</h3>
    <PairRow label="One step">
      <NumberField
        label="One step, mm"
        :value="machine.device.step"
        :digits="3"
        :min="0.001"
        :max="1"
        @change="set({ step: $event })"
      />
      <span class="soft">mm</span>
    </PairRow>
    <ChoiceRow
      label="Its axes"
      :value="machine.device.feedAxis"
      :options="FEED"
      @change="set({ feedAxis: $event })"
    />
    <SwitchRow
      v-for="[key, name] in SWITCHES"
      :key="key"
      :label="name"
      :on="machine.device[key]"
      @change="set({ [key]: $event })"
    />
    <PairRow label="Points at a time · holds">
      <NumberField
        label="Points at a time"
        :value="machine.device.pointsInDown"
        :min="1"
        :max="10000"
        @change="set({ pointsInDown: $event })"
      />
      <NumberField
        label="Bytes it holds"
        :value="machine.device.bufferBytes"
        :min="32"
        :max="100000000"
        @change="set({ bufferBytes: $event })"
      />
      <span class="soft">bytes</span>
    </PairRow>
  </section>
</template>
