<script setup lang="ts">
/** What a recipe says of curves and corners. */
import type { Recipe } from '../../core/layout/cutter';
import { CORNER_ANGLES, MOST_SLOW_RADIUS } from '../../core/layout/cutter';
import { USUAL_CORNER } from '../../core/toolpath/compensate';
import LengthRow from './LengthRow.vue';
import NumberField from './NumberField.vue';

defineProps<{
  recipe: Recipe;
  /** A pen or a wheel has nothing that swings. */
  swings: boolean;
  /** The cutter is told a speed. */
  isTold: boolean;
}>();
defineEmits<{ change: [what: { readonly slowRadius: number } | { readonly cornerAngle: number }] }>();
</script>

<template>
  <LengthRow
    v-if="isTold && recipe.speed !== null"
    label="Slower in curves under"
    :value="recipe.slowRadius ?? 0"
    :max="MOST_SLOW_RADIUS"
    @change="$emit('change', { slowRadius: $event })"
  />
  <div v-if="swings" class="row">
    <span>Corners turn more than</span>
    <span class="degrees"
      ><NumberField
        label="Corners turn more than, degrees"
        :value="recipe.cornerAngle ?? USUAL_CORNER"
        :min="CORNER_ANGLES[0]"
        :max="CORNER_ANGLES[1]"
        @change="$emit('change', { cornerAngle: $event })"
      />°</span
    >
  </div>
</template>

<style scoped>
.degrees {
  display: flex;
  gap: 6px;
  align-items: center;
}
.degrees :deep(.p-inputtext) {
  width: 64px;
  text-align: right;
}
</style>
