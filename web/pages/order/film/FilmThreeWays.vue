<script setup lang="ts">
/** What each way to take art apart comes to, side by side. */
import { watchDebounced } from '@vueuse/core';
import { scaleLinear } from 'd3-scale';
import { computed } from 'vue';
import { largest } from '../../../../core/geometry/lists';
import type { Pack } from '../../../../core/layout/strip';
import { PACKS } from '../../../../core/layout/strip';
import { useOrder } from '../../../stores/order';
import { SETTLED, usePacking } from '../../../stores/packing';
import { useUnits } from '../../../stores/units';

const store = useOrder();
const packing = usePacking();
const units = useUnits();
watchDebounced(() => store.chosenPlan, packing.ask, { immediate: true, debounce: SETTLED });
const WORDS: Readonly<Record<Pack, string>> = { one: 'as one', word: 'by word', piece: 'by piece' };
const ways = computed(() => {
  const known = PACKS.flatMap((pack) => {
    const length = packing.offers[pack];
    return length === undefined ? [] : [{ pack, length }];
  });
  const share = scaleLinear(
    [
      0,
      largest(
        known.map(({ length }) => length),
        1,
      ),
    ],
    [0, 100],
  );
  return known.map(({ pack, length }) => ({
    pack,
    length,
    share: share(length),
    isOn: store.choices?.layout.pack === pack,
  }));
});
</script>

<template>
  <section>
    <h2>Film, three ways</h2>
    <dl>
      <template v-for="way in ways" :key="way.pack">
        <dt>{{ WORDS[way.pack] }}</dt>
        <dd>
          <span class="bar" :class="{ on: way.isOn }" :style="{ width: `${0.66 * way.share}%` }"></span>
          <span class="number" :class="{ on: way.isOn }">{{ units.run(way.length) }}</span>
        </dd>
      </template>
    </dl>
    <p v-if="ways.length === 0" class="hint">Nothing is laid out yet.</p>
  </section>
</template>

<style scoped>
h2 {
  margin: 0 0 8px;
  font-size: 15px;
}
dl {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 7px 10px;
  align-items: center;
  margin: 0;
  font-size: 13px;
}
dt {
  color: var(--ink-soft);
  text-align: right;
}
dd {
  display: flex;
  align-items: center;
  gap: 8px;
  margin: 0;
}
.bar {
  height: 14px;
  background: var(--damson-soft);
  border: 1px solid color-mix(in srgb, var(--damson) 35%, transparent);
  border-radius: 3px;
}
.bar.on {
  background: var(--damson);
}
.number {
  white-space: nowrap;
}
.number.on {
  font-weight: 680;
}
</style>
