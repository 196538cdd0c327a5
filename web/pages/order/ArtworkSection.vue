<script setup lang="ts">
import { computed } from 'vue';
import LengthField from '../../parts/LengthField.vue';
import { useOrder } from '../../stores/order';
import { useUnits } from '../../stores/units';

const store = useOrder();
const units = useUnits();
const artwork = computed(() => store.choices!.artwork);
const plan = computed(() => store.plan!);

function size(side: 'width' | 'height', mm: number): void {
  const other = side === 'width' ? 'height' : 'width';
  if (artwork.value.lockAspect) store.change({ artwork: { ...artwork.value, [side]: mm, [other]: null } });
  else
    store.change({
      artwork: { ...artwork.value, width: plan.value.width, height: plan.value.height, [side]: mm },
    });
}
function lock(event: Event): void {
  const lockAspect = (event.target as HTMLInputElement).checked;
  const { width, height } = plan.value;
  store.change({
    artwork: { ...artwork.value, width, height: lockAspect ? null : height, lockAspect },
  });
}
const asInFile = (): void =>
  store.change({ artwork: { ...artwork.value, width: null, height: null, lockAspect: true } });
</script>

<template>
  <div class="row">
    <span>Finished width</span
    ><LengthField
      label="Finished width"
      :value="plan.width"
      :min="1"
      :max="30000"
      @change="size('width', $event)"
    />
  </div>
  <div class="row">
    <span>Finished height</span
    ><LengthField
      label="Finished height"
      :value="plan.height"
      :min="1"
      :max="30000"
      @change="size('height', $event)"
    />
  </div>
  <label class="row"
    ><span>Keep proportions</span><input type="checkbox" :checked="artwork.lockAspect" @change="lock"
  /></label>
  <div class="row">
    <span class="hint"
      >In the file: {{ units.number(plan.natural.width) }} × {{ units.length(plan.natural.height) }}</span
    >
    <button
      class="button small"
      :disabled="artwork.width === null && artwork.height === null"
      @click="asInFile"
    >
      Use it
    </button>
  </div>
  <div class="row">
    <span class="hint">{{ store.order!.fileName }}</span>
    <a class="button small" :href="`/api/orders/${store.order!.id}/pieces/p1/original`" download>Original</a>
  </div>
</template>

<style scoped>
.small {
  min-height: 28px;
  padding: 0 10px;
  font-size: 13.5px;
}
input[type='checkbox'] {
  width: 19px;
  height: 19px;
  accent-color: var(--damson);
}
.hint {
  overflow: hidden;
  text-overflow: ellipsis;
}
</style>
