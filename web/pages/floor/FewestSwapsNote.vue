<script setup lang="ts">
/** What other orders of the lanes would save, before they are taken. */
import type { FewestSwaps } from '../../../contracts/floor';
import { duration } from '../../stores/units';
import ProposalsNote from './ProposalsNote.vue';

defineProps<{ proposals: FewestSwaps; nameOf: (cutter: string) => string }>();
defineEmits<{ accept: [proposal: FewestSwaps[number]]; close: [] }>();
</script>

<template>
  <ProposalsNote
    label="Fewest swaps"
    none="No lane can do with fewer changes and be in time."
    :count="proposals.length"
    @close="$emit('close')"
  >
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
  </ProposalsNote>
</template>
