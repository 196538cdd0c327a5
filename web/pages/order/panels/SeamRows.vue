<script setup lang="ts">
/** Every seam by itself: where it stands when it was set by hand, and what its neighbours share. */
import { Trash2 } from '@lucide/vue';
import { computed } from 'vue';
import FoldOut from '../../../parts/FoldOut.vue';
import LengthField from '../../../parts/LengthField.vue';
import { useOrder } from '../../../stores/order';
import { AXIS_WORDS, useSeams } from '../../../stores/seams';
import { useUnits } from '../../../stores/units';
import { count } from '../runCardSections';
import { overlapAt } from '../../../../core/panels/choices';
import { AXES } from '../../../../core/panels/axis';

const store = useOrder();
const seams = useSeams();
const units = useUnits();
const panels = computed(() => store.choices!.panels);
const byHand = computed(() => panels.value.way === 'by-hand');
const rows = computed(() =>
  AXES.flatMap((axis) =>
    seams.now()[axis].map((at, i) => ({ axis, i, at, name: `${AXIS_WORDS[axis]} seam ${i + 1}` })),
  ),
);
</script>

<template>
  <FoldOut
    v-if="rows.length || byHand"
    title="Seams one by one"
    name="seam-rows"
    open
    :says="count(rows.length, 'seam')"
  >
    <div v-for="{ axis, i, at, name } in rows" :key="name" class="seam">
      <span>{{ name }}</span>
      <LengthField
        v-if="byHand"
        :label="name"
        :value="at"
        :min="-100000"
        :max="100000"
        @change="seams.move(axis, i, $event)"
      />
      <b v-else class="number">{{ units.length(at) }}</b>
      <button
        v-if="byHand"
        class="button small"
        :aria-label="`Take ${axis} seam ${i + 1} away`"
        @click="seams.remove(axis, i)"
      >
        <Trash2 :size="15" />
      </button>
      <span class="soft shared">shares</span>
      <LengthField
        :label="`Overlap at ${name.toLowerCase()}`"
        :value="overlapAt(panels, axis, i)"
        :max="1000"
        @change="seams.overlapOf(axis, i, $event === panels.overlap ? null : $event)"
      />
    </div>
    <div v-if="byHand" class="row">
      <button class="button small" @click="seams.add('upright')">Add an upright seam</button>
      <button class="button small" @click="seams.add('level')">Add a level seam</button>
    </div>
  </FoldOut>
</template>

<style scoped>
.seam {
  display: grid;
  grid-template-columns: 1fr auto 34px;
  gap: 4px 6px;
  align-items: center;
}
.seam .number {
  grid-column: 2;
  text-align: right;
}
.shared {
  grid-column: 1;
  text-align: right;
}
</style>
