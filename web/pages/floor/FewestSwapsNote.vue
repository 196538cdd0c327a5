<script setup lang="ts">
/** What other orders of the lanes would save, before they are taken. */
import type { FewestSwaps } from '../../../contracts/floor';
import { duration } from '../../stores/units';

defineProps<{ proposals: FewestSwaps; nameOf: (cutter: string) => string }>();
defineEmits<{ accept: [proposal: FewestSwaps[number]]; close: [] }>();
</script>

<template>
  <section class="fewest" aria-label="Fewest swaps">
    <p v-if="proposals.length === 0">No lane can do with fewer changes and be in time.</p>
    <div v-for="one in proposals" :key="one.cutter">
      <span
        ><strong>{{ nameOf(one.cutter) }}</strong> {{ one.then.changes }} changes instead of
        {{ one.now.changes }}: {{ duration(one.now.seconds - one.then.seconds) }} less<template
          v-if="one.then.late < one.now.late"
          >, {{ one.now.late - one.then.late }} fewer late</template
        >.</span
      >
      <button class="button slim" @click="$emit('accept', one)">Put in this order</button>
    </div>
    <button class="button slim" @click="$emit('close')">Leave it</button>
  </section>
</template>

<style scoped>
.fewest {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 22px;
  align-items: center;
  padding: 8px 14px;
  background: var(--gooseberry-soft);
  border: var(--line) solid var(--gooseberry);
  border-radius: var(--radius-label);
}
.fewest > div {
  display: flex;
  gap: 10px;
  align-items: center;
}
p {
  margin: 0;
}
</style>
