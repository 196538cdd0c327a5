<script setup lang="ts">
/** What of the film a machine reaches, drawn to scale. */
import { computed } from 'vue';
import LengthRow from '../../parts/LengthRow.vue';
import BedDrawing from './BedDrawing.vue';
import type { MachineEmits, MachineProps } from './change';

const props = defineProps<MachineProps>();
defineEmits<MachineEmits>();
/** Edges with what holds film there, by the names that people give them. */
const EDGES = computed(() => {
  const held = props.machine.kind === 'flatbed' ? 'At the' : 'Rollers,';
  return [
    ['far', `${held} far edge`],
    ['near', `${held} near edge`],
    ['lead', 'Before the cut'],
    ['tail', 'Behind the cut'],
  ] as const;
});
</script>

<template>
  <section aria-label="What it reaches">
    <h3>What it reaches</h3>
    <BedDrawing :machine="machine" />
    <LengthRow
      v-for="[edge, name] in EDGES"
      :key="edge"
      :label="name"
      :value="machine.margins[edge]"
      :min="edge === 'lead' ? 4 : 0"
      :max="500"
      @change="$emit('change', { margins: { ...machine.margins, [edge]: $event } })"
    />
    <LengthRow
      label="Kept in hand"
      title="Of the width, when art is taken apart into panels"
      :value="machine.reserve"
      :max="5000"
      @change="$emit('change', { reserve: $event })"
    />
  </section>
</template>
