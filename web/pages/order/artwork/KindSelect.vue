<script setup lang="ts">
/** What a line is for, with the way it is drawn beside its name. */
import type { LineKind } from '../../../../core/artwork/choices';
import ChoiceField from '../../../parts/ChoiceField.vue';
import { LINE_KINDS } from './kinds';

defineProps<{ kind: LineKind | undefined; label: string }>();
defineEmits<{ change: [kind: LineKind] }>();
</script>

<template>
  <span class="kind">
    <svg width="34" height="12" viewBox="0 0 34 12" aria-hidden="true" :class="kind ?? 'kiss'">
      <template v-if="kind === 'through'"><path d="M1 4H33M1 8H33" /></template>
      <path v-else d="M1 6H33" />
    </svg>
    <ChoiceField
      :label="label"
      :value="kind"
      :options="LINE_KINDS"
      placeholder="by colour"
      @change="$emit('change', $event)"
    />
  </span>
</template>

<style scoped>
.kind {
  display: flex;
  align-items: center;
  gap: 6px;
}
svg path {
  fill: none;
  stroke: var(--ink);
  stroke-width: 1.6;
}
.through path {
  stroke: var(--damson);
}
.perforated path {
  stroke: var(--bilberry);
  stroke-dasharray: 8 4;
}
.crease path {
  stroke: var(--gooseberry-text);
  stroke-dasharray: 7 3 1.5 3;
}
.pen path {
  stroke: var(--quince-text);
  stroke-dasharray: 1.6 3;
}
.print path {
  stroke: #8b8290;
  stroke-width: 0.7;
}
</style>
