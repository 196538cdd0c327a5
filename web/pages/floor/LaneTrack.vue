<script setup lang="ts">
/** A cutter's cuts on the time axis, with what has to be changed before each. */
import type { ScaleTime } from 'd3-scale';
import { isWaiting } from '../../../contracts/floor';
import type { Cut } from '../../../contracts/cuts';
import { clock } from '../../parts/clock';
import { duration, useUnits } from '../../stores/units';
import type { CutBlock, Lane } from './useFloor';

const props = defineProps<{
  lane: Lane;
  x: ScaleTime<number, number>;
  now: Date;
  picked: number | undefined;
  /** Cuts that would be cut otherwise by now. */
  old: ReadonlySet<number>;
  /** Before which cut something would be put; null: behind all; undefined: nowhere here. */
  gap: number | null | undefined;
}>();
defineEmits<{
  press: [cut: Cut, event: PointerEvent];
  pick: [cut: Cut];
  key: [cut: Cut, event: KeyboardEvent];
}>();
const units = useUnits();

const at = (seconds: number): number => props.x(momentAt(seconds));
/** What is under way began in the past. */
const begin = ({ start, cut }: CutBlock): number => (isWaiting(cut) ? start : start - cut.secondsDone);
const LEAST_PX = 12;
const boxOf = (block: CutBlock): { left: string; width: string } => {
  const left = at(begin(block));
  return { left: `${left}px`, width: `${Math.max(LEAST_PX, at(block.end) - left - 3)}px` };
};
const [WEDGE_PX, LEAST_WEDGE_PX, POINT_PX] = [44, 10, 8];
const wedgeOf = ({ from, start }: CutBlock): number => Math.max(LEAST_WEDGE_PX, at(start) - at(from) - 3);
/** An arrow as long as the change takes. */
function chevron(width: number): string {
  const [right, low, point] = [width - 1, WEDGE_PX - 1, Math.min(POINT_PX, width / 2 - 1)];
  return `1,1 ${right - point},1 ${right},${WEDGE_PX / 2} ${right - point},${low} 1,${low} ${1 + point},${WEDGE_PX / 2}`;
}
const changeOf = ({ swaps }: CutBlock): string => swaps.join(' and ');
/** px that a letter takes about, and the ends of the arrow. */
const [LETTER_PX, ENDS_PX] = [5.5, 18];
const hasRoom = (block: CutBlock): boolean => wedgeOf(block) > LETTER_PX * changeOf(block).length + ENDS_PX;
const momentAt = (seconds: number): Date => new Date(props.now.getTime() + 1000 * seconds);
/** All that a block says, for whoever does not see it. */
function saysOf({ cut, swaps, end, isLate }: CutBlock): string {
  const change = swaps.length > 0 ? `, after a change of ${swaps.join(' and ')}` : '';
  return `${cut.orderName}, ${cut.film.name}, ${duration(cut.seconds)}, done at ${clock(momentAt(end))}${change}${isLate ? ', late' : ''}${props.old.has(cut.id) ? ', changed since it was queued' : ''}`;
}
</script>

<template>
  <ol :aria-label="`Cuts at ${lane.cutter.name}`">
    <li v-for="(block, i) in lane.blocks" :key="block.cut.id">
      <svg
        v-if="block.swaps.length > 0"
        class="wedge"
        :class="{ knife: block.swaps.includes('knife') }"
        :style="{ left: `${at(block.from)}px` }"
        :width="wedgeOf(block)"
        :height="WEDGE_PX"
        aria-hidden="true"
      >
        <title>Change of {{ changeOf(block) }}</title>
        <polygon :points="chevron(wedgeOf(block))" />
        <text v-if="hasRoom(block)" :x="wedgeOf(block) / 2 + 3" :y="WEDGE_PX / 2 + 4">
          {{ changeOf(block) }}
        </text>
      </svg>
      <i v-if="gap === block.cut.id" class="gap" :style="{ left: `${at(block.from) - 2}px` }"></i>
      <button
        class="block"
        :class="{ late: block.isLate, picked: block.cut.id === picked, waits: isWaiting(block.cut) }"
        :style="{ ...boxOf(block), '--film': block.cut.film.colour }"
        :aria-label="saysOf(block)"
        :aria-pressed="block.cut.id === picked"
        :data-cut="block.cut.id"
        :data-waiting="isWaiting(block.cut) ? block.cut.id : undefined"
        @pointerdown="isWaiting(block.cut) && $emit('press', block.cut, $event)"
        @click="$emit('pick', block.cut)"
        @keydown="$emit('key', block.cut, $event)"
      >
        <span class="text" aria-hidden="true">
          <strong>{{ block.cut.orderName }}</strong>
          <small class="number"
            >{{ block.cut.film.name }} · {{ units.run(block.cut.length) }}{{ block.isLate ? ' · late' : ''
            }}{{ old.has(block.cut.id) ? ' · changed since' : '' }}</small
          >
        </span>
        <span
          v-if="block.cut.secondsDone > 0"
          class="done"
          :style="{ width: `${Math.min(100, (100 * block.cut.secondsDone) / block.cut.seconds)}%` }"
        ></span>
      </button>
      <i
        v-if="gap === null && i === lane.blocks.length - 1"
        class="gap"
        :style="{ left: `${at(block.end) + 2}px` }"
      ></i>
    </li>
  </ol>
</template>

<style scoped>
ol {
  position: relative;
  margin: 0;
  padding: 0;
  list-style: none;
}
.block {
  position: absolute;
  top: 16px;
  bottom: 16px;
  container-type: inline-size;
  overflow: hidden;
  padding: 0 0 0 11px;
  text-align: left;
  color: var(--ink);
  background: linear-gradient(90deg, var(--film) 9px, var(--ink) 9px 10.5px, var(--card) 10.5px);
  border: var(--line) solid var(--ink);
  border-radius: var(--radius-card);
  touch-action: none;
  z-index: 1;
}
.block.waits {
  cursor: grab;
}
.block.picked {
  outline: 3px solid var(--bilberry);
  outline-offset: 1px;
}
.block.late {
  border-color: var(--currant);
}
.block.late small {
  color: var(--currant);
}
.text {
  display: grid;
  padding: 0 8px;
}
@container (max-width: 52px) {
  .text {
    visibility: hidden;
  }
}
strong,
small {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
strong {
  font-size: 13.5px;
}
small {
  font-size: 12px;
  color: var(--ink-soft);
}
.done {
  position: absolute;
  bottom: 0;
  left: 10.5px;
  height: 6px;
  background: var(--gooseberry);
}
.wedge {
  position: absolute;
  top: 24px;
}
.wedge polygon {
  fill: var(--quince-soft);
  stroke: var(--quince);
  stroke-width: 1.5px;
  stroke-linejoin: round;
}
.wedge.knife polygon {
  fill: var(--damson-soft);
  stroke: var(--damson);
}
.wedge text {
  font-size: 12px;
  fill: var(--quince-text);
  text-anchor: middle;
}
.wedge.knife text {
  fill: var(--damson);
}
.gap {
  position: absolute;
  top: 8px;
  bottom: 8px;
  z-index: 2;
  width: 4px;
  background: var(--bilberry);
  border-radius: 2px;
}
</style>
