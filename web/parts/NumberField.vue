<script setup lang="ts">
/** A plain number between bounds; anything else goes back to what it was. */
import DraftField from './DraftField.vue';

const props = defineProps<{
  value: number | undefined;
  label: string;
  min?: number;
  max?: number;
  digits?: number;
}>();
const emit = defineEmits<{ change: [value: number] }>();

function read(text: string): string | undefined {
  const value = Number(text.replace(',', '.'));
  const isGood = text !== '' && value >= (props.min ?? 0) && value <= (props.max ?? 1e9);
  return isGood ? value.toFixed(props.digits ?? 0) : undefined;
}
</script>

<template>
  <DraftField
    class="number"
    inputmode="decimal"
    :label="label"
    :value="value === undefined ? '' : value.toFixed(digits ?? 0)"
    :read="read"
    @change="emit('change', Number($event))"
  />
</template>
