<script setup lang="ts">
/** A force or a speed as the machine's own panel counts it; nothing where it counts none. */
import { computed } from 'vue';
import type { Range } from '../../core/layout/cutter';
import { ofStep, ownStep } from '../../core/layout/ownSteps';
import NumberField from './NumberField.vue';

const props = defineProps<{
  label: string;
  range: Range;
  value: number;
  /** Digits behind the point that it is kept with. */
  digits: number;
}>();
defineEmits<{ change: [value: number] }>();
const step = computed(() => ownStep(props.range, props.value));
</script>

<template>
  <div v-if="step !== undefined" class="row">
    <span class="soft">on its panel, of {{ range.steps }}</span>
    <NumberField
      :label="`${label}, step on the machine’s panel`"
      :value="step"
      :min="1"
      :max="range.steps"
      @change="$emit('change', ofStep(range, $event, digits))"
    />
  </div>
</template>
