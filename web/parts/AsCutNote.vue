<script setup lang="ts">
/** Whether all of a cut was cut, and once, by its own record. */
import type { AsCutSaid } from '../../contracts/cuts';
import { useUnits } from '../stores/units';
import { asCutText, isAmiss } from './asCutText';

defineProps<{ said: AsCutSaid }>();
const units = useUnits();
</script>

<template>
  <p :class="{ amiss: isAmiss(said) }">{{ asCutText(said, units.length) }}</p>
</template>

<style scoped>
.amiss {
  color: var(--currant);
  font-weight: 650;
}
</style>
