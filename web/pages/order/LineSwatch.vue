<script setup lang="ts">
/** The way a kind of line is drawn. */
import type { LineKind } from '../../../core/artwork/choices';

defineProps<{ kind: LineKind }>();
</script>

<template>
  <svg width="34" height="12" viewBox="0 0 34 12" aria-hidden="true" :class="kind">
    <path v-if="kind === 'through'" d="M1 4H33M1 8H33" />
    <path v-else d="M1 6H33" />
  </svg>
</template>

<style scoped>
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
