<script setup lang="ts">
/** A length on a line of the run card. */
import LengthField from './LengthField.vue';

defineProps<{
  label: string;
  /** Where the label would be too short by itself. */
  fullLabel?: string;
  value: number;
  fine?: boolean;
  min?: number;
  max?: number;
}>();
defineEmits<{ change: [mm: number] }>();
</script>

<template>
  <div class="row">
    <span>{{ label }}</span>
    <LengthField
      :label="fullLabel ?? label"
      :value="value"
      :fine="fine"
      :min="min"
      :max="max"
      @change="$emit('change', $event)"
    />
  </div>
</template>
