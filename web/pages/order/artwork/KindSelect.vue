<script setup lang="ts">
/** What a line is for, with the way it is drawn beside its name. */
import { computed } from 'vue';
import type { LineKind } from '../../../../core/artwork/choices';
import ChoiceField from '../../../parts/ChoiceField.vue';
import LineSwatch from '../LineSwatch.vue';
import { LINE_KINDS } from './kinds';

/** No kind of its own. */
const REST = 'rest';

const props = defineProps<{
  kind: LineKind | undefined;
  label: string;
  /** What it has where it has none of its own; missing: it always has one. */
  rest?: string;
}>();
const emit = defineEmits<{ change: [kind: LineKind | undefined] }>();
const options = computed(() => [
  ...(props.rest === undefined ? [] : [{ value: REST, label: props.rest } as const]),
  ...LINE_KINDS,
]);
const pick = (value: LineKind | typeof REST): void => emit('change', value === REST ? undefined : value);
</script>

<template>
  <span class="kind">
    <LineSwatch :kind="kind ?? 'kiss'" />
    <ChoiceField
      :label="label"
      :value="kind ?? (rest === undefined ? undefined : REST)"
      :options="options"
      @change="pick"
    />
  </span>
</template>

<style scoped>
.kind {
  display: flex;
  align-items: center;
  gap: 6px;
}
</style>
