<script setup lang="ts">
/** Boxes around the pieces, to pick and move them on the sign; they draw to one another's edges and middles. */
import { computed, ref } from 'vue';
import { movePieces, snapBox, withGroups } from '../../../../core/artwork/arrange';
import type { Guide } from '../../../../core/artwork/arrange';
import type { Bounds } from '../../../../core/geometry/bounds';
import { emptyBounds, joinBounds } from '../../../../core/geometry/bounds';
import { useArtwork } from '../../../stores/artwork';
import { arrowStep } from '../../../stage/arrowStep';
import type { Viewport } from '../../../stage/viewport';

const props = defineProps<{ at: Viewport }>();
const art = useArtwork();
/** px within which a moved box is drawn to a line */
const REACH = 7;
const drag = ref<{ x: number; y: number; dx: number; dy: number; guides: readonly Guide[] }>();

const boxes = computed(() =>
  art.placed.map(({ id, box }) => ({ id, box, name: art.pieces.find((p) => p.id === id)?.name ?? id })),
);
const style = (box: Bounds, moved: boolean): Record<string, string> => {
  const { scale, x, y } = props.at;
  const [dx, dy] = moved && drag.value ? [drag.value.dx, drag.value.dy] : [0, 0];
  return {
    left: `${x + (box.minX + dx) * scale}px`,
    top: `${y + (box.minY + dy) * scale}px`,
    width: `${Math.max(8, (box.maxX - box.minX) * scale)}px`,
    height: `${Math.max(8, (box.maxY - box.minY) * scale)}px`,
  };
};

function down(event: PointerEvent, id: string): void {
  if (event.button !== 0) return;
  const more = event.shiftKey || event.ctrlKey || event.metaKey;
  if (more || !art.selected.includes(id)) art.select(id, more);
  (event.currentTarget as HTMLElement).setPointerCapture(event.pointerId);
  drag.value = { x: event.clientX, y: event.clientY, dx: 0, dy: 0, guides: [] };
}
function move(event: PointerEvent): void {
  if (!drag.value) return;
  const { scale } = props.at;
  const [dx, dy] = [(event.clientX - drag.value.x) / scale, (event.clientY - drag.value.y) / scale];
  const mine = boxes.value.filter(({ id }) => art.selected.includes(id));
  const others = boxes.value.filter(({ id }) => !art.selected.includes(id)).map(({ box }) => box);
  const around = mine.reduce((sum, { box }) => joinBounds(sum, box), emptyBounds());
  const there = {
    minX: around.minX + dx,
    minY: around.minY + dy,
    maxX: around.maxX + dx,
    maxY: around.maxY + dy,
  };
  const snapped = event.altKey ? { dx: 0, dy: 0, guides: [] } : snapBox(there, others, REACH / scale);
  drag.value = { ...drag.value, dx: dx + snapped.dx, dy: dy + snapped.dy, guides: snapped.guides };
}
function up(): void {
  const done = drag.value;
  drag.value = undefined;
  if (!done || Math.hypot(done.dx, done.dy) * props.at.scale < 2) return;
  art.set(movePieces(art.choices, art.placed, art.selected, done.dx, done.dy));
}
function key(event: KeyboardEvent, id: string): void {
  const by = arrowStep(event);
  if (event.key === 'Enter' || event.key === ' ') art.select(id, event.shiftKey);
  else if (by) {
    const ids = art.selected.includes(id) ? art.selected : withGroups(art.choices, [id]);
    art.set(movePieces(art.choices, art.placed, ids, ...by));
  } else return;
  event.preventDefault();
  event.stopPropagation();
}
</script>

<template>
  <div
    v-for="b in boxes"
    :key="b.id"
    class="handle"
    :class="{ picked: art.selected.includes(b.id) }"
    :style="style(b.box, art.selected.includes(b.id))"
    tabindex="0"
    role="button"
    :aria-label="`${b.name}: drag or arrow keys move it`"
    :aria-pressed="art.selected.includes(b.id)"
    @pointerdown.stop="down($event, b.id)"
    @pointermove="move"
    @pointerup="up"
    @pointercancel="drag = undefined"
    @keydown="key($event, b.id)"
  ></div>
  <template v-if="drag">
    <div
      v-for="g in drag.guides"
      :key="g.axis"
      class="guide"
      :class="g.axis"
      :style="
        g.axis === 'across' ? { left: `${at.x + g.at * at.scale}px` } : { top: `${at.y + g.at * at.scale}px` }
      "
    ></div>
  </template>
</template>

<style scoped>
.handle {
  position: absolute;
  cursor: move;
  border: 1px dashed transparent;
}
.handle:hover {
  border-color: var(--ink-soft);
}
.handle.picked {
  border: 1.5px solid var(--damson);
}
.guide {
  position: absolute;
  background: var(--damson);
  pointer-events: none;
}
.guide.across {
  top: 0;
  bottom: 0;
  width: 1px;
}
.guide.down {
  right: 0;
  left: 0;
  height: 1px;
}
</style>
