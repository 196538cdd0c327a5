<script setup lang="ts" generic="T extends string | number">
/** One choice of a few, in words, on a line of the run card. */
import Select from 'primevue/select';

defineProps<{
  label: string;
  value: T;
  options: readonly { readonly value: T; readonly label: string }[];
}>();
defineEmits<{ change: [value: T] }>();
</script>

<template>
  <div class="row">
    <span>{{ label }}</span>
    <Select
      size="small"
      :aria-label="label"
      :model-value="value"
      :options="[...options]"
      option-label="label"
      option-value="value"
      @update:model-value="$emit('change', $event)"
    />
  </div>
</template>
