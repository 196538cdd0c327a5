<script setup lang="ts">
/** More of the same, each a step further on. */
import { ref } from 'vue';
import { duplicatePieces } from '../../../../core/artwork/arrange';
import LengthField from '../../../parts/LengthField.vue';
import { useArtwork } from '../../../stores/artwork';

const art = useArtwork();
const count = ref(1);
const dx = ref(0);
const dy = ref(100);
function go(): void {
  const ids = art.selected.length > 0 ? art.selected : art.pieces.slice(0, 1).map(({ id }) => id);
  const more = Math.min(200, Math.max(1, Math.round(count.value)));
  const { choices, made } = duplicatePieces(art.choices, art.placed, ids, more, dx.value, dy.value);
  art.set(choices);
  art.selected = made;
}
</script>

<template>
  <div class="pitch">
    <input v-model.number="count" class="number" type="number" min="1" max="200" aria-label="How many more" />
    <span>more, each</span>
    <LengthField label="Step to the right" :value="dx" :min="-30000" :max="30000" @change="dx = $event" />
    <LengthField label="Step down" :value="dy" :min="-30000" :max="30000" @change="dy = $event" />
    <button class="button small" @click="go">Place</button>
  </div>
</template>

<style scoped>
.pitch {
  display: flex;
  align-items: center;
  gap: 5px;
  font-size: 13.5px;
}
.pitch :deep(input) {
  width: 74px;
}
.pitch > input {
  width: 46px;
  min-height: 31px;
  padding: 0 5px;
  font: inherit;
  border: 1px solid var(--rule);
  border-radius: var(--radius-field);
  background: var(--card);
}
</style>
