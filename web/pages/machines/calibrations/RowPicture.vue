<script setup lang="ts">
/** A row of test shapes: the one whose corners close best is picked. */
import { useUnits } from '../../../stores/units';

defineProps<{ values: readonly number[]; picked: number | null | undefined; what: string }>();
defineEmits<{ pick: [i: number] }>();
const units = useUnits();
</script>

<template>
  <div class="row-picture">
    <p class="soft">
      Look at the corners under a loupe. Too little leaves them round, too much gives them ears. Tap the one
      that is sharp and closed.
    </p>
    <div role="group" :aria-label="`Shapes with rising ${what}`" class="shapes">
      <button v-for="(value, i) in values" :key="i" :aria-pressed="picked === i" @click="$emit('pick', i)">
        <b
          ><span class="unseen">Shape</span> {{ i + 1 }} <span class="unseen">{{ what }}</span></b
        >
        <svg viewBox="0 0 24 24" aria-hidden="true"><rect x="3" y="3" width="18" height="18" /></svg>
        <span class="number">{{ units.length(value, true) }}</span>
      </button>
    </div>
  </div>
</template>

<style scoped>
.row-picture {
  padding: 14px;
  background: var(--bench);
  border: var(--line) solid var(--rule);
  border-radius: var(--radius-label);
}
p {
  max-width: 60ch;
  margin: 0 0 10px;
  font-size: 14px;
}
.shapes {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(92px, 1fr));
  gap: 8px;
}
button {
  display: grid;
  justify-items: center;
  gap: 2px;
  padding: 8px 4px;
  background: var(--card);
  border: var(--line) solid var(--rule);
  border-radius: var(--radius-card);
}
button[aria-pressed='true'] {
  background: var(--damson-soft);
  border-color: var(--damson);
}
svg {
  width: 34px;
}
rect {
  fill: none;
  stroke: var(--ink);
  stroke-width: 1.4;
}
.number {
  font-size: 13px;
}
</style>
