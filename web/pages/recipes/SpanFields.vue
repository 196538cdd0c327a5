<script setup lang="ts">
/** From which value to which a grid goes, and in how many. */
import NumberField from '../../parts/NumberField.vue';
import type { Span, SpanAsked } from './spans';

const props = defineProps<{ asked: SpanAsked; span: Span; most: number }>();
const emit = defineEmits<{ change: [span: Span] }>();
const set = (what: Partial<Span>): void => emit('change', { ...props.span, ...what });
</script>

<template>
  <label
    >{{ asked.name
    }}<NumberField
      :label="`Least ${asked.of}, ${asked.unit}`"
      :value="span.from"
      :min="asked.range.least"
      :max="span.to"
      :digits="asked.digits"
      @change="set({ from: $event })" />to<NumberField
      :label="`Most ${asked.of}, ${asked.unit}`"
      :value="span.to"
      :min="span.from"
      :max="asked.range.most"
      :digits="asked.digits"
      @change="set({ to: $event })" />{{ asked.unit }} in<NumberField
      :label="asked.counted"
      :value="span.many"
      :min="asked.fewest"
      :max="most"
      @change="set({ many: $event })"
  /></label>
</template>

<style scoped>
label {
  display: flex;
  gap: 6px;
  align-items: center;
}
label :deep(.p-inputtext) {
  width: 58px;
  text-align: right;
}
</style>
