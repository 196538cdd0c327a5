<script setup lang="ts">
/** Yes or no, on a line of the run card. */
import Checkbox from 'primevue/checkbox';

defineProps<{ label: string; on: boolean }>();
defineEmits<{ change: [on: boolean] }>();
</script>

<template>
  <label class="row">
    <span>{{ label }}</span>
    <Checkbox binary :model-value="on" :aria-label="label" @update:model-value="$emit('change', $event)" />
  </label>
</template>
