<script setup lang="ts">
/** Yes or no, on a line of the run card. */
import Checkbox from 'primevue/checkbox';
import { inject } from 'vue';
import { LOCKED } from './locked';

defineProps<{ label: string; on: boolean }>();
defineEmits<{ change: [on: boolean] }>();
const locked = inject(LOCKED, undefined);
</script>

<template>
  <label class="row">
    <span>{{ label }}</span>
    <Checkbox
      binary
      :disabled="locked"
      :model-value="on"
      :aria-label="label"
      @update:model-value="$emit('change', $event)"
    />
  </label>
</template>
