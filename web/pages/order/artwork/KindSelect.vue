<script setup lang="ts">
/** What a line is for, with the way it is drawn beside its name. */
import type { LineKind } from '../../../../core/artwork/choices';
import ChoiceField from '../../../parts/ChoiceField.vue';
import LineSwatch from '../LineSwatch.vue';
import { LINE_KINDS } from './kinds';

defineProps<{ kind: LineKind | undefined; label: string }>();
defineEmits<{ change: [kind: LineKind] }>();
</script>

<template>
  <span class="kind">
    <LineSwatch :kind="kind ?? 'kiss'" />
    <ChoiceField
      :label="label"
      :value="kind"
      :options="LINE_KINDS"
      placeholder="by colour"
      @change="$emit('change', $event)"
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
