<script setup lang="ts">
import { computed } from 'vue';
import SwitchRow from '../../../parts/SwitchRow.vue';
import LengthRow from '../../../parts/LengthRow.vue';
import { useArtwork } from '../../../stores/artwork';
import { useOrder } from '../../../stores/order';
import { useUnits } from '../../../stores/units';

const store = useOrder();
const art = useArtwork();
const units = useUnits();
const plan = computed(() => store.plan!);

function size(side: 'width' | 'height', mm: number): void {
  const other = side === 'width' ? 'height' : 'width';
  if (art.choices.lockAspect) art.change({ [side]: mm, [other]: null });
  else art.change({ width: plan.value.width, height: plan.value.height, [side]: mm });
}
function lock(lockAspect: boolean): void {
  const { width, height } = plan.value;
  art.change({ width, height: lockAspect ? null : height, lockAspect });
}
const asDrawn = (): void => art.change({ width: null, height: null, lockAspect: true });
const typed = computed(() => art.choices.width !== null || art.choices.height !== null);
</script>

<template>
  <LengthRow
    label="Finished width"
    :value="plan.width"
    :min="1"
    :max="30000"
    @change="size('width', $event)"
  />
  <LengthRow
    label="Finished height"
    :value="plan.height"
    :min="1"
    :max="30000"
    @change="size('height', $event)"
  />
  <SwitchRow label="Keep proportions" :on="art.choices.lockAspect" @change="lock" />
  <div class="row">
    <span class="hint"
      >{{ art.pieces.length > 1 ? 'As placed' : 'In the file' }}: {{ units.number(plan.natural.width) }} ×
      {{ units.length(plan.natural.height) }}</span
    >
    <button class="button small" :disabled="!typed" @click="asDrawn">Use it</button>
  </div>
</template>
