<script setup lang="ts" generic="T extends string | number">
/** One choice of a few, in words, on a line of the run card. */
import ChoiceField from './ChoiceField.vue';

defineProps<{
  label: string;
  /** Where the label would be too short by itself. */
  fullLabel?: string;
  value: T;
  options: readonly { readonly value: T; readonly label: string }[];
}>();
defineEmits<{ change: [value: T] }>();
</script>

<template>
  <div class="row">
    <span>{{ label }}</span>
    <ChoiceField
      :label="fullLabel ?? label"
      :value="value"
      :options="options"
      @change="$emit('change', $event)"
    />
  </div>
</template>
