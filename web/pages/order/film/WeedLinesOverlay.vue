<script setup lang="ts">
/** Weed lines by their handles on the film's edge: dragged, moved by keys, taken out. */
import { computed, ref } from 'vue';
import type { WeedLineAt } from '../../../../core/layout/weedChoices';
import { rounded } from '../../../../core/units/rounded';
import { arrowStep } from '../../../stage/arrowStep';
import type { Viewport } from '../../../stage/viewport';
import { useOnFilm } from '../../../stores/onFilm';
import { useUnits } from '../../../stores/units';
import type { StripView } from '../../../workers/packed';

const { at, strip } = defineProps<{ at: Viewport; strip: StripView }>();
const film = useOnFilm();
const units = useUnits();

const lines = computed(() => film.linesOn(strip));
const drag = ref<{ line: WeedLineAt; start: number; to: number }>();
const isHeld = (line: WeedLineAt): boolean =>
  drag.value?.line.axis === line.axis && drag.value.line.at === line.at;
const now = (line: WeedLineAt): number => (isHeld(line) ? drag.value!.to : line.at);
/** How far a handle stands off the film's edge, px. */
const OUT = 10;
const px = (x: number): number => at.x + x * at.scale;
const py = (y: number): number => at.y + (y + strip.edges.far) * at.scale;
const placeOf = (line: WeedLineAt) =>
  line.axis === 'upright'
    ? { left: `${px(now(line))}px`, top: `${at.y - OUT}px` }
    : { left: `${at.x - OUT}px`, top: `${py(now(line))}px` };

const alongOf = (event: PointerEvent, { axis }: WeedLineAt): number =>
  (axis === 'upright' ? event.clientX : event.clientY) / at.scale;
function down(event: PointerEvent, line: WeedLineAt): void {
  if (event.button !== 0 || !film.linesAreFree) return;
  (event.currentTarget as HTMLElement).setPointerCapture(event.pointerId);
  drag.value = { line, start: alongOf(event, line), to: line.at };
}
function pull(event: PointerEvent): void {
  const held = drag.value;
  if (!held) return;
  const to = held.line.at + alongOf(event, held.line) - held.start;
  drag.value = { ...held, to: rounded(event.altKey ? to : Math.round(to), 1) };
}
function drop(): void {
  const held = drag.value;
  drag.value = undefined;
  if (held && held.to !== held.line.at) film.moveLine(strip, held.line, held.to);
}
function key(event: KeyboardEvent, line: WeedLineAt): void {
  const by = arrowStep(event)?.[line.axis === 'upright' ? 0 : 1];
  if (event.key === 'Delete' || event.key === 'Backspace') film.removeLine(strip, line);
  else if (by) film.moveLine(strip, line, line.at + by);
  else return;
  event.preventDefault();
  event.stopPropagation();
}
</script>

<template>
  <svg v-if="drag" class="held" width="100%" height="100%" aria-hidden="true">
    <path
      v-if="drag.line.axis === 'upright'"
      :d="`M${px(drag.to)} ${at.y}V${at.y + strip.roll.width * at.scale}`"
    />
    <path v-else :d="`M${at.x} ${py(drag.to)}H${px(strip.length)}`" />
  </svg>
  <button
    v-for="(line, i) in lines"
    :key="i"
    class="handle"
    :class="[line.axis, { held: isHeld(line) }]"
    :style="placeOf(line)"
    role="slider"
    :aria-label="`Weed line ${i + 1}, ${line.axis === 'upright' ? 'across' : 'along'} the film: drag it, arrow keys move it, Delete takes it out`"
    :aria-orientation="line.axis === 'upright' ? 'horizontal' : 'vertical'"
    :aria-valuenow="line.at"
    :aria-valuetext="units.length(line.at)"
    :title="`${units.length(line.at)} · double-click takes it out`"
    @pointerdown.stop="down($event, line)"
    @pointermove="pull"
    @pointerup="drop"
    @pointercancel="drag = undefined"
    @dblclick.stop="film.removeLine(strip, line)"
    @keydown="key($event, line)"
  >
    <span class="number">{{ units.number(now(line)) }}</span>
  </button>
</template>

<style scoped>
.held path {
  fill: none;
  stroke: var(--bilberry);
  stroke-width: 1.5px;
  stroke-dasharray: 6 4;
}
svg.held {
  position: absolute;
  inset: 0;
}
.handle {
  position: absolute;
  width: 12px;
  height: 16px;
  margin: -8px 0 0 -6px;
  padding: 0;
  background: var(--card);
  border: 1.5px solid var(--bilberry);
  border-radius: 3px;
  cursor: ew-resize;
}
.handle.level {
  width: 16px;
  height: 12px;
  margin: -6px 0 0 -8px;
  cursor: ns-resize;
}
.handle span {
  display: none;
  position: absolute;
  bottom: 15px;
  left: 50%;
  padding: 1px 5px;
  font-size: 12px;
  color: var(--card);
  background: var(--bilberry);
  border-radius: 4px;
  transform: translateX(-50%);
  white-space: nowrap;
}
.handle:hover span,
.handle:focus-visible span,
.handle.held span {
  display: block;
}
.handle.level span {
  bottom: auto;
  top: -3px;
  left: 18px;
  transform: none;
}
</style>
