<script setup lang="ts">
/** Two people changed the same field: theirs stays until one says otherwise. */
import { useOrder } from '../../stores/order';
import { clashSentence } from './clashWords';

const store = useOrder();
</script>

<template>
  <div v-if="store.clashes.length > 0" class="notes">
    <div v-for="(clash, i) in store.clashes" :key="i" class="note" role="alert">
      <p>{{ clashSentence(clash) }}</p>
      <button class="button small" @click="store.settleClash(clash, 'mine')">
        {{ clash.met === 'change' ? 'Use mine' : 'Change it all the same' }}
      </button>
      <button class="button small" @click="store.settleClash(clash, 'theirs')">Leave theirs</button>
    </div>
  </div>
</template>

<style scoped>
.notes {
  display: grid;
  gap: 6px;
}
.note {
  display: flex;
  gap: 10px;
  align-items: center;
  padding: 8px 14px;
  background: var(--quince-soft);
  border: var(--line) solid var(--quince);
  border-radius: var(--radius-card);
}
p {
  flex: 1;
  margin: 0;
}
</style>
