<script setup lang="ts">
/** The cells of a trial grid as they were cut, and how each looks. */
import { computed } from 'vue';
import type { Calibration } from '../../../contracts/calibrations';
import type { Cell, CellLook } from '../../../core/calibration/grid';
import type { Setup } from '../../../core/calibration/run';
import { foundIn } from '../machines/calibrations/runs';
import { cutAsText, looksOf } from './looks';

const props = defineProps<{
  grid: Calibration & { readonly setup: Setup & { readonly kind: 'force' } };
}>();
defineEmits<{ tap: [cell: number] }>();

const rows = computed(() => {
  const { cells, columns } = props.grid.setup;
  return Array.from({ length: Math.ceil(cells.length / columns) }, (_, r) =>
    cells.slice(r * columns, (r + 1) * columns).map((cell, c) => ({ ...cell, at: r * columns + c })),
  );
});
const lookOf = (i: number): CellLook | undefined => props.grid.measured.looks?.[i] ?? undefined;
const isBest = (i: number): boolean => props.grid.measured.picked === i;
const isOdd = (i: number): boolean => foundIn(props.grid)?.oddCells?.includes(i) ?? false;
const names = computed(() => looksOf(props.grid.setup.cells));
const described = ({ at, ...cell }: Cell & { readonly at: number }): string => {
  const look = lookOf(at);
  return [
    `${cell.force} g ${cutAsText(cell)}${look ? `: ${names.value[look]}` : ''}`,
    ...(isBest(at) ? ['the best'] : []),
    ...(isOdd(at) ? ['unlike the others'] : []),
  ].join(', ');
};
</script>

<template>
  <div
    class="cells"
    :class="{ 'in-dashes': rows[0][0].dashes }"
    role="group"
    aria-label="Cells"
    :style="{ '--columns': grid.setup.columns }"
  >
    <span class="corner soft">g<br />{{ rows[0][0].dashes ? 'dash · gap' : 'cm/s' }}</span>
    <b v-for="cell in rows[0]" :key="cell.at" class="number head">{{ cell.force }}</b>
    <template v-for="row in rows" :key="row[0].at">
      <b class="number side">{{ row[0].dashes?.join(' · ') ?? row[0].speed }}</b>
      <button
        v-for="cell in row"
        :key="cell.at"
        :class="[lookOf(cell.at), { best: isBest(cell.at), odd: isOdd(cell.at) }]"
        :disabled="grid.state !== 'measuring'"
        :aria-pressed="lookOf(cell.at) !== undefined || isBest(cell.at)"
        :aria-label="described(cell)"
        @click="$emit('tap', cell.at)"
      >
        <svg viewBox="0 0 24 24" aria-hidden="true">
          <path v-if="cell.dashes" class="dashed" d="M3 3h18v18h-18z" />
          <path v-else d="M3 3h18v18h-18zL21 21" />
        </svg>
      </button>
    </template>
  </div>
</template>

<style scoped>
.cells {
  display: grid;
  --side: 52px;

  grid-template-columns: var(--side) repeat(var(--columns), minmax(34px, 66px));
  gap: 5px;
  align-items: center;
}
.in-dashes {
  --side: 84px;
}
.corner {
  font-size: 12px;
  line-height: 1.1;
  text-align: right;
}
.head {
  text-align: center;
}
.side {
  white-space: nowrap;
  text-align: right;
  padding-right: 6px;
}
.cells button {
  display: grid;
  place-items: center;
  min-height: 44px;
  padding: 4px;
  background: var(--card);
  border: var(--line) solid var(--rule);
  border-radius: var(--radius-card);
}
.cells button:disabled {
  cursor: default;
}
svg {
  width: 26px;
}
path {
  fill: none;
  stroke: var(--ink-soft);
  stroke-width: 1.6;
}
.cells .dashed {
  stroke-dasharray: 5 1.6;
}
.cells .clean {
  background: var(--gooseberry-soft);
}
.cells .clean path {
  stroke: var(--ink);
}
.cells .into-backing {
  background: var(--currant-soft);
}
.cells .into-backing path {
  stroke: var(--currant);
  stroke-width: 2.4;
}
.cells .not-through {
  background: var(--rule-soft);
}
.cells .not-through path {
  stroke-dasharray: 2.4 2.4;
}
.cells .odd {
  border: 2px dashed var(--quince);
}
.cells .best {
  border: 3px solid var(--damson);
}
</style>
