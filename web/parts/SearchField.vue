<script setup lang="ts">
/** What is looked for in a list. */
import { Search } from '@lucide/vue';

const text = defineModel<string>({ required: true });
defineProps<{ label: string; placeholder: string }>();
</script>

<template>
  <label class="search">
    <Search :size="17" aria-hidden="true" />
    <input v-model="text" type="search" :placeholder="placeholder" :aria-label="label" />
  </label>
</template>

<style scoped>
.search {
  display: flex;
  flex: 1;
  gap: 8px;
  align-items: center;
  min-width: 180px;
  max-width: 330px;
  height: 36px;
  padding: 0 11px;
  background: var(--card);
  border: 1px solid #b9ad9c;
  border-radius: var(--radius-card);
}
.search:focus-within {
  outline: 2.5px solid var(--bilberry);
}
input {
  flex: 1;
  min-width: 0;
  font: inherit;
  color: inherit;
  background: none;
  border: 0;
  outline: 0;
}
</style>
