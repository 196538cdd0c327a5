<script setup lang="ts">
/** What a machine is, and which film goes into it. */
import { computed } from 'vue';
import ChoiceField from '../../parts/ChoiceField.vue';
import ChoiceRow from '../../parts/ChoiceRow.vue';
import DraftField from '../../parts/DraftField.vue';
import LengthField from '../../parts/LengthField.vue';
import LengthRow from '../../parts/LengthRow.vue';
import type { MachineEmits, MachineProps } from './change';
import { KINDS } from './kinds';
import PairRow from './PairRow.vue';

const props = defineProps<MachineProps>();
defineEmits<MachineEmits>();
const isBed = computed(() => props.machine.kind === 'flatbed');
const THICK = { none: 'whatever', limit: 'up to' } as const;
const LIMITS = [THICK.none, THICK.limit].map((value) => ({ value, label: value }));
const TOOLS = [
  { value: 1, label: 'a knife' },
  { value: 2, label: 'a knife and a second tool' },
];
const readName = (typed: string): string | undefined => typed.trim() || undefined;
</script>

<template>
  <section aria-label="What it takes">
    <h3>What it takes</h3>
    <div class="row">
      <span>Name</span>
      <DraftField
        :value="machine.name"
        label="Name of the cutter"
        :read="readName"
        @change="$emit('change', { name: $event })"
      />
    </div>
    <ChoiceRow
      label="Kind"
      full-label="Kind of cutter"
      :value="machine.kind"
      :options="KINDS"
      @change="$emit('change', { kind: $event })"
    />
    <PairRow label="Film from · to">
      <LengthField
        label="Narrowest film"
        :value="machine.narrowest"
        :min="10"
        :max="5000"
        @change="$emit('change', { narrowest: $event })"
      />
      <LengthField
        label="Widest film"
        :value="machine.widest"
        :min="50"
        :max="5000"
        @change="$emit('change', { widest: $event })"
      />
    </PairRow>
    <PairRow label="Thick, with its backing">
      <ChoiceField
        label="Whether thickness is limited"
        :value="typeof machine.thickest === 'number' ? THICK.limit : THICK.none"
        :options="LIMITS"
        @change="$emit('change', { thickest: $event === THICK.none ? null : 0.5 })"
      />
      <LengthField
        v-if="typeof machine.thickest === 'number'"
        fine
        label="Thickest film"
        :value="machine.thickest"
        :min="0.05"
        :max="50"
        @change="$emit('change', { thickest: $event })"
      />
    </PairRow>
    <LengthRow
      :label="isBed ? 'Bed is long' : 'Film runs true for'"
      full-label="How long film runs true"
      :value="machine.trackLength"
      :min="100"
      :max="100000"
      @change="$emit('change', { trackLength: $event })"
    />
    <ChoiceRow
      label="Holds"
      full-label="What it holds"
      :value="machine.device.tools ?? 1"
      :options="TOOLS"
      @change="$emit('change', { device: { ...machine.device, tools: $event } })"
    />
  </section>
</template>
