<script setup lang="ts">
/** Cuts that wait are of an earlier state of their order, or of the shop: what differs, and whether they are replaced. */
import { computed } from 'vue';
import type { Outdated } from '../../contracts/cuts';
import { outdatedHead, outdatedSays } from './outdatedText';

const props = defineProps<{
  outdated: Outdated;
  busy: boolean;
  /** Why what was said last was not done. */
  problem?: string;
  /** Before a machine: all of it is seen, and buttons are for fingers. */
  large?: boolean;
}>();
defineEmits<{ replace: []; keep: [] }>();
const says = computed(() => outdatedSays(props.outdated));
/** Sentences that are seen without unfolding. */
const FEW = 2;
const isFolded = computed(() => !props.large && says.value.length > FEW);
</script>

<template>
  <section class="outdated" :class="{ large }" aria-label="Changed since it was queued" role="status">
    <strong>{{ outdatedHead(outdated) }}</strong>
    <component :is="isFolded ? 'details' : 'div'">
      <summary v-if="isFolded">What differs</summary>
      <ul>
        <li v-for="one in says" :key="one">{{ one }}</li>
      </ul>
    </component>
    <p v-if="problem" role="alert">{{ problem }}</p>
    <div class="ways">
      <button :class="large ? 'big main' : 'button main slim'" :disabled="busy" @click="$emit('replace')">
        Replace the queued cuts
      </button>
      <button :class="large ? 'big' : 'button slim'" :disabled="busy" @click="$emit('keep')">
        Keep what is queued
      </button>
    </div>
  </section>
</template>

<style scoped>
.outdated {
  display: grid;
  gap: 6px;
  padding: 8px 14px;
  font-size: 14px;
  background: var(--quince-soft);
  border: var(--line) solid var(--quince);
  border-radius: var(--radius-label);
}
.outdated.large {
  gap: 10px;
  padding: 14px 20px;
  font-size: 17px;
}
ul,
p {
  margin: 0;
}
ul {
  padding-left: 18px;
}
summary {
  cursor: pointer;
}
.ways {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
</style>
