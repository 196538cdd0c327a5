<script setup lang="ts">
/** What was used, row by row on one scale, by what became of it. */
import { scaleLinear } from 'd3-scale';
import { computed } from 'vue';
import type { FilmSums } from '../../../contracts/usage';
import { largest } from '../../../core/geometry/lists';
import { useUnits } from '../../stores/units';
import { PARTS, partsOf, shareKept } from './parts';

export interface UsedRow extends FilmSums {
  readonly key: string;
  readonly name: string;
  /** Of a film. */
  readonly colour?: string | null;
  /** Of an order. */
  readonly number?: number;
}
const props = defineProps<{ rows: readonly UsedRow[]; most: number }>();
const units = useUnits();
const shown = computed(() => props.rows.filter(({ used }) => used > 0).slice(0, props.most));
const rest = computed(() => props.rows.filter(({ used }) => used > 0).slice(props.most));
const x = computed(() => scaleLinear([0, largest(shown.value.map(({ used }) => used), 1)], [0, 100])); // prettier-ignore
const says = (row: UsedRow): string => {
  const parts = partsOf(row);
  return PARTS.map(({ key, says: what }) => `${units.run(parts[key])} ${what}`).join(', ');
};
</script>

<template>
  <p v-if="shown.length === 0" class="soft">Nothing was cut in these weeks.</p>
  <ol v-else>
    <li v-for="row in shown" :key="row.key" :title="says(row)">
      <i
        v-if="row.colour !== undefined"
        class="swatch"
        :style="{ '--film': row.colour ?? 'transparent' }"
      ></i>
      <span class="name"
        ><span v-if="row.number" class="number soft">#{{ row.number }}&nbsp;</span>{{ row.name }}</span
      >
      <span class="bar" aria-hidden="true">
        <i
          v-for="{ key, colour } in PARTS"
          :key="key"
          :style="{ background: colour, width: `${x(partsOf(row)[key])}%` }"
        ></i>
      </span>
      <b class="number">{{ units.run(row.used) }}</b>
      <span class="number soft share">{{ shareKept(row) }}</span>
      <span class="unseen">on signs: {{ says(row) }}</span>
    </li>
  </ol>
  <p v-if="rest.length" class="soft">and {{ rest.length }} more, as a table</p>
</template>

<style scoped>
ol {
  display: grid;
  gap: 7px;
  margin: 0;
  padding: 0;
  list-style: none;
}
li {
  display: flex;
  gap: 10px;
  align-items: center;
}
.swatch {
  width: 15px;
  height: 20px;
}
.name {
  flex: 0 0 34%;
  overflow: hidden;
  font-weight: 600;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.bar {
  display: flex;
  flex: 1;
  height: 12px;
  overflow: hidden;
  background: var(--rule-soft);
  border-radius: 3px;
}
b {
  min-width: 62px;
  text-align: right;
}
.share {
  min-width: 40px;
  text-align: right;
}
p {
  margin: 0;
}
</style>
