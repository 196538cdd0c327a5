<script setup lang="ts" generic="T extends string">
/** One of a few, each on a card with what it comes to. */
import RadioButton from 'primevue/radiobutton';

defineProps<{
  label: string;
  name: string;
  value: T | undefined;
  options: readonly { readonly value: T; readonly label: string; readonly says: string }[];
  /** What is said stands beneath the name, where it is long. */
  beneath?: boolean;
}>();
defineEmits<{ change: [value: T] }>();
</script>

<template>
  <div role="radiogroup" :aria-label="label" class="cards" :class="{ beneath }">
    <label v-for="option in options" :key="option.value" class="card">
      <RadioButton
        :name="name"
        :value="option.value"
        :model-value="value"
        @update:model-value="$emit('change', option.value)"
      />
      <b>{{ option.label }}</b>
      <small class="soft">{{ option.says }}</small>
    </label>
  </div>
</template>

<style scoped>
.cards {
  display: grid;
  gap: 4px;
}
.card {
  display: grid;
  grid-template-columns: auto 1fr auto;
  gap: 0 8px;
  align-items: center;
  min-height: 36px;
  padding: 3px 12px;
  background: var(--card);
  border: 1px solid var(--rule);
  border-radius: var(--radius-card);
}
.card:has(input:checked) {
  border-color: var(--damson);
  background: var(--damson-soft);
}
.beneath small {
  grid-column: 2 / 4;
}
small:empty {
  display: none;
}
</style>
