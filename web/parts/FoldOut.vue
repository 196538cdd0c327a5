<script setup lang="ts">
/** A heading that shows or hides what is under it, and remembers which. */
import { ChevronRight } from '@lucide/vue';
import { useLocalStorage } from '@vueuse/core';
import { ONE_OR_NOUGHT } from '../stores/remembered';

const props = defineProps<{ title: string; name: string; says?: string; open?: boolean }>();
const key = `jam-pan-fold-${props.name}`;
const shown = useLocalStorage(key, props.open === true, ONE_OR_NOUGHT);
const turn = (): void => void (shown.value = !shown.value);
</script>

<template>
  <section class="fold">
    <h3>
      <button :aria-expanded="shown" @click="turn">
        <ChevronRight :size="15" class="arrow" :class="{ shown }" aria-hidden="true" />
        <span>{{ title }}</span>
        <span v-if="says" class="says number">{{ says }}</span>
      </button>
    </h3>
    <div v-if="shown" class="inside"><slot /></div>
  </section>
</template>

<style scoped>
.fold {
  border: 0;
  border-top: 1px solid var(--rule);
}
h3 {
  font-size: 14.5px;
}
h3 button {
  display: flex;
  align-items: center;
  gap: 5px;
  width: 100%;
  padding: 7px 0 5px;
  font-weight: 680;
  text-align: left;
  background: none;
  border: 0;
}
.arrow {
  transition: transform 0.12s;
}
.arrow.shown {
  transform: rotate(90deg);
}
.says {
  margin-left: auto;
  font-size: 12.5px;
  font-weight: 400;
  color: var(--ink-soft);
}
/* no wider than the card, whatever is in it */
.inside {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 8px;
}
@media (prefers-reduced-motion: reduce) {
  .arrow {
    transition: none;
  }
}
</style>
