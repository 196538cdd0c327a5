<script setup lang="ts" generic="T extends string | number">
/** One choice of a few. */
import Select from 'primevue/select';
import { inject } from 'vue';
import { LOCKED } from './locked';

defineProps<{
  label: string;
  /** undefined: none of them yet */
  value: T | undefined;
  options: readonly { readonly value: T; readonly label: string }[];
  disabled?: boolean;
  placeholder?: string;
}>();
defineEmits<{ change: [value: T] }>();
const locked = inject(LOCKED, undefined);

/** Lists longer than this are searched by typing, and only what is seen of them is drawn. */
const LONG = 40;
const ROW_HEIGHT = 34;
</script>

<template>
  <Select
    size="small"
    :aria-label="label"
    :model-value="value"
    :options="[...options]"
    option-label="label"
    option-value="value"
    :disabled="disabled || locked"
    :placeholder="placeholder"
    :filter="options.length > LONG"
    :virtual-scroller-options="options.length > LONG ? { itemSize: ROW_HEIGHT } : undefined"
    @update:model-value="$emit('change', $event)"
  />
</template>
