<script setup lang="ts">
/** How a perforated line is cut. */
import { LEAST_DASHES } from '../../core/layout/cutter';
import LengthRow from './LengthRow.vue';

const props = defineProps<{ dashes: readonly [on: number, off: number] }>();
const emit = defineEmits<{ change: [what: { readonly dashes: readonly [number, number] }] }>();
const set = (on: number, off: number): void => emit('change', { dashes: [on, off] });
</script>

<template>
  <LengthRow
    label="Dashes"
    :value="dashes[0]"
    :min="LEAST_DASHES[0]"
    :max="100"
    @change="set($event, props.dashes[1])"
  />
  <LengthRow
    label="Gaps"
    fine
    :value="dashes[1]"
    :min="LEAST_DASHES[1]"
    :max="20"
    @change="set(props.dashes[0], $event)"
  />
</template>
