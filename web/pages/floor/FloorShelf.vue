<script setup lang="ts">
/** Cuts that are held until somebody sends them. */
import type { Cut } from '../../../contracts/cuts';
import { duration, useUnits } from '../../stores/units';

defineProps<{
  cuts: readonly Cut[];
  picked: number | undefined;
  /** Cuts that would be cut otherwise by now. */
  old: ReadonlySet<number>;
  isTarget: boolean;
}>();
defineEmits<{
  press: [cut: Cut, event: PointerEvent];
  pick: [cut: Cut];
  key: [cut: Cut, event: KeyboardEvent];
}>();
const units = useUnits();
</script>

<template>
  <section class="shelf" data-shelf :class="{ target: isTarget }" aria-labelledby="shelf">
    <h2 id="shelf">Shelf <span class="soft">held until somebody sends them</span></h2>
    <p v-if="cuts.length === 0" class="soft">
      Nothing is held. Drag a cut here, or queue an order onto the shelf.
    </p>
    <ul v-else>
      <li v-for="cut in cuts" :key="cut.id">
        <button
          :data-cut="cut.id"
          :aria-pressed="cut.id === picked"
          @pointerdown="$emit('press', cut, $event)"
          @click="$emit('pick', cut)"
          @keydown="$emit('key', cut, $event)"
        >
          <i class="swatch" :style="{ '--film': cut.film.colour }" aria-hidden="true"></i>
          <span>
            <strong>{{ cut.orderName }}</strong>
            <small class="number soft">#{{ cut.orderNumber }} · {{ cut.film.name }}</small>
            <small class="number soft">{{ units.run(cut.length) }} · {{ duration(cut.seconds) }}</small>
            <small v-if="old.has(cut.id)">changed since it was queued</small>
          </span>
        </button>
      </li>
    </ul>
  </section>
</template>

<style scoped>
.shelf {
  display: grid;
  gap: 8px;
  padding: 4px 2px 12px;
  border-radius: var(--radius-label);
}
.target {
  background: var(--damson-soft);
}
h2 {
  font-size: 16px;
}
h2 .soft {
  margin-left: 10px;
  font: 400 14px/1 var(--text);
}
p {
  margin: 0;
}
ul {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(230px, 1fr));
  gap: 10px;
  margin: 0;
  padding: 0;
  list-style: none;
}
button {
  display: flex;
  gap: 10px;
  width: 100%;
  padding: 9px 12px;
  text-align: left;
  background: var(--card);
  border: var(--line) dashed var(--ink-soft);
  border-radius: var(--radius-label);
  touch-action: none;
}
button[aria-pressed='true'] {
  outline: 3px solid var(--bilberry);
}
button span {
  display: grid;
  min-width: 0;
}
strong,
small {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
</style>
