<script setup lang="ts">
/** How the waste is taken apart: its border, and lines through it. */
import { computed } from 'vue';
import type { LayoutChoices } from '../../../../core/layout/strip';
import type { WeedLineChoices } from '../../../../core/layout/weedChoices';
import { LEAST_STEP, MOST_STEP } from '../../../../core/layout/weedChoices';
import ChoiceRow from '../../../parts/ChoiceRow.vue';
import LengthField from '../../../parts/LengthField.vue';
import LengthRow from '../../../parts/LengthRow.vue';

const { layout, hasRows } = defineProps<{
  layout: LayoutChoices;
  /** Some film is laid as one, copies in rows. */
  hasRows: boolean;
}>();
const emit = defineEmits<{ change: [change: Partial<LayoutChoices>] }>();

const hasOthers = computed(() => layout.border === 'order' || Object.keys(layout.guests).length > 0);
const borders = computed(() => [
  { value: 'none' as const, label: 'none' },
  { value: 'box' as const, label: 'around all' },
  ...(hasOthers.value ? [{ value: 'order' as const, label: 'around each order' }] : []),
  ...(hasRows ? [{ value: 'copy' as const, label: 'around each copy' }] : []),
  { value: 'follow' as const, label: 'following the art' },
]);
const border = computed(() => (layout.border === 'copy' && !hasRows ? 'box' : layout.border));
const WAYS = [
  { value: 'none', label: 'none' },
  { value: 'step', label: 'at a step' },
  { value: 'lift', label: 'for easy lifting' },
  { value: 'hand', label: 'by hand' },
] as const;
const DIRECTIONS = [
  { value: 'across', label: 'across the film' },
  { value: 'along', label: 'along the film' },
  { value: 'both', label: 'both ways' },
] as const;
const setLines = (change: Partial<WeedLineChoices>): void =>
  emit('change', { weedLines: { ...layout.weedLines, ...change } });
</script>

<template>
  <ChoiceRow
    label="Weed border"
    :value="border"
    :options="borders"
    @change="emit('change', { border: $event })"
  />
  <LengthRow
    v-if="layout.border !== 'none'"
    label="Border away from the art"
    full-label="Border distance"
    :value="layout.borderDistance"
    :max="200"
    @change="emit('change', { borderDistance: $event })"
  />
  <ChoiceRow
    label="Weed lines"
    :value="layout.weedLines.way"
    :options="WAYS"
    @change="setLines({ way: $event })"
  />
  <template v-if="layout.weedLines.way !== 'none'">
    <div v-if="layout.weedLines.way !== 'hand'" class="row">
      <span>{{
        layout.weedLines.way === 'lift' ? 'Widest strip of waste' : 'From line to line'
      }}</span><LengthField
        label="Weed line step"
        :value="layout.weedLines.step"
        :min="LEAST_STEP"
        :max="MOST_STEP"
        @change="setLines({ step: $event })"
      />
    </div>
    <ChoiceRow
      v-if="layout.weedLines.way === 'step'"
      label="Lines run"
      :value="layout.weedLines.direction"
      :options="DIRECTIONS"
      @change="setLines({ direction: $event })"
    />
    <LengthRow
      label="Lines away from the art"
      full-label="Weed line distance"
      :value="layout.weedLines.away"
      :min="0.5"
      :max="100"
      @change="setLines({ away: $event })"
    />
  </template>
</template>

<style scoped>
.row :deep(.p-select) {
  width: 184px;
}
</style>
