<script setup lang="ts">
/** Pieces that are dragged, turned and pinned on their film; what would be in the way shows while one is held. */
import { Pin } from '@lucide/vue';
import { useEventListener } from '@vueuse/core';
import { computed, ref, shallowRef } from 'vue';
import type { Held } from '../../../../core/layout/dragging';
import { pieceName } from '../../../../core/layout/strip';
import type { Lying } from '../../../../core/packing/lying';
import { rounded } from '../../../../core/units/rounded';
import { arrowStep } from '../../../stage/arrowStep';
import type { Viewport } from '../../../stage/viewport';
import { useOnFilm } from '../../../stores/onFilm';
import { useOrder } from '../../../stores/order';
import type { PlacementView, StripView } from '../../../workers/packed';
import { matrixAt, middleOf, pathOfRegion, pieceAt } from './pieceShape';

const { at, strip } = defineProps<{ at: Viewport; strip: StripView }>();
const emit = defineEmits<{ hold: [placement: PlacementView | undefined] }>();
const store = useOrder();
const film = useOnFilm();

/** px on the overlay → mm on the strip, from the edge of the cuttable width. */
const host = ref<HTMLElement>();
function onStrip(event: MouseEvent): readonly [number, number] {
  const box = host.value!.getBoundingClientRect();
  return [
    (event.clientX - box.left - at.x) / at.scale,
    (event.clientY - box.top - at.y) / at.scale - strip.edges.far,
  ];
}
const sx = (x: number): number => at.x + x * at.scale;
const sy = (y: number): number => at.y + (y + strip.edges.far) * at.scale;

interface Hand {
  readonly placement: PlacementView;
  readonly from: readonly [number, number];
  readonly to: Lying;
  readonly says: Held | undefined;
}
const hand = shallowRef<Hand>();
const outline = computed(() => hand.value && pathOfRegion(strip.parts[hand.value.placement.part].region));
const transform = computed(() => {
  if (!hand.value) return '';
  const m = matrixAt(strip, hand.value.placement, hand.value.to);
  return `translate(${at.x} ${at.y + strip.edges.far * at.scale}) scale(${at.scale}) matrix(${m.join(' ')})`;
});
const touched = computed(() => {
  const names = new Set(hand.value?.says?.touches.map(({ part, copy }) => pieceName(part, copy)));
  return strip.placements.filter(({ kept }) => kept && names.has(pieceName(kept.part, kept.copy)));
});
const isBad = computed(() => touched.value.length > 0 || hand.value?.says?.isInside === false);

async function take(event: PointerEvent): Promise<void> {
  const from = onStrip(event);
  const placement = event.button === 0 && film.isFree ? pieceAt(strip, from) : undefined;
  if (!placement?.kept) return;
  event.stopPropagation();
  event.preventDefault();
  host.value!.setPointerCapture(event.pointerId);
  const { part, copy } = placement.kept;
  hand.value = { placement, from, to: placement.kept, says: undefined };
  emit('hold', placement);
  await store.hold({ film: strip.film.id, part, copy });
  await ask();
}
/** Only the newest place is asked for, once the one before it is answered. */
let asking = false;
async function ask(): Promise<void> {
  if (asking) return;
  asking = true;
  for (let asked: Lying | undefined; hand.value && hand.value.to !== asked;) {
    asked = hand.value.to;
    const says = await store.held(asked);
    if (hand.value) hand.value = { ...hand.value, says };
  }
  asking = false;
}
function carry(to: Lying): void {
  if (!hand.value) return;
  hand.value = { ...hand.value, to };
  void ask();
}
function drag(event: PointerEvent): void {
  const held = hand.value;
  if (!held) return;
  const [x, y] = onStrip(event);
  const { kept } = held.placement;
  carry({
    turn: held.to.turn,
    x: rounded(kept!.x + x - held.from[0], 1),
    y: rounded(kept!.y + y - held.from[1], 1),
  });
}
async function drop(): Promise<void> {
  const held = hand.value;
  if (!held) return;
  const { kept } = held.placement;
  const isMoved = held.to.x !== kept!.x || held.to.y !== kept!.y || held.to.turn !== kept!.turn;
  const inside = isMoved ? (await store.held(held.to))?.inside : undefined;
  hand.value = undefined;
  emit('hold', undefined);
  if (inside) film.put(strip, kept!, { turn: inside.turn, x: rounded(inside.x, 3), y: rounded(inside.y, 3) });
}
function letGo(): void {
  hand.value = undefined;
  emit('hold', undefined);
}

const turned = (turn: number, by: number): number => (turn + by + 360) % 360;
useEventListener('keydown', (event) => {
  if (!hand.value) return;
  const step = film.turnStep(strip) * (event.shiftKey ? -1 : 1);
  if (event.key === 'Escape') letGo();
  else if (event.key.toLowerCase() === 'r' && step !== 0)
    carry({ ...hand.value.to, turn: turned(hand.value.to.turn, step) });
  else return;
  event.preventDefault();
  event.stopImmediatePropagation();
});

async function key(event: KeyboardEvent, placement: PlacementView): Promise<void> {
  const kept = placement.kept!;
  const by = arrowStep(event);
  const step = film.turnStep(strip) * (event.shiftKey ? -1 : 1);
  const isTurn = event.key.toLowerCase() === 'r' && step !== 0;
  if (!film.isFree || (!by && !isTurn)) return;
  event.preventDefault();
  event.stopPropagation();
  const to = isTurn
    ? { ...kept, turn: turned(kept.turn, step) }
    : { ...kept, x: kept.x + by![0], y: kept.y + by![1] };
  await store.hold({ film: strip.film.id, part: kept.part, copy: kept.copy });
  const inside = (await store.held(to))?.inside;
  if (inside) film.put(strip, kept, { turn: inside.turn, x: inside.x, y: inside.y });
}
/** More handles than these say nothing. */
const MOST_HANDLES = 300;
const handles = computed(() => {
  const all = strip.placements.filter(({ kept }) => kept);
  return all.length > MOST_HANDLES ? all.filter(({ kept }) => kept?.pinned) : all;
});
</script>

<template>
  <div
    ref="host"
    class="pieces"
    :class="{ held: hand }"
    @pointerdown="take"
    @pointermove="drag"
    @pointerup="drop"
    @pointercancel="letGo"
  ></div>
  <svg v-if="hand" class="hand" width="100%" height="100%" aria-hidden="true">
    <rect
      v-for="{ box } in touched"
      :key="`${box.minX} ${box.minY}`"
      class="touched"
      :x="sx(box.minX)"
      :y="sy(box.minY)"
      :width="(box.maxX - box.minX) * at.scale"
      :height="(box.maxY - box.minY) * at.scale"
    />
    <path :d="outline" :transform="transform" :fill="strip.film.colour" :class="{ bad: isBad }" />
  </svg>
  <template v-if="!hand">
    <button
      v-for="placement in handles"
      :key="pieceName(placement.kept!.part, placement.kept!.copy)"
      class="pin"
      :class="{ pinned: placement.kept!.pinned }"
      :style="{
        left: `${sx(middleOf(strip, placement)[0])}px`,
        top: `${sy(middleOf(strip, placement)[1])}px`,
      }"
      :aria-pressed="placement.kept!.pinned"
      :aria-label="`${strip.parts[placement.part].label}: pinned. Arrow keys move it, R turns it`"
      :title="placement.kept!.pinned ? 'Pinned: stays when the rest is packed' : 'Pin it here'"
      :disabled="!film.isFree"
      @pointerdown.stop
      @click="film.put(strip, placement.kept!, { pinned: !placement.kept!.pinned })"
      @keydown="key($event, placement)"
    >
      <Pin :size="13" aria-hidden="true" />
    </button>
  </template>
</template>

<style scoped>
.pieces {
  position: absolute;
  inset: 0;
}
.held {
  cursor: grabbing;
}
.hand {
  position: absolute;
  inset: 0;
}
.hand path {
  opacity: 0.9;
  stroke: var(--ink);
  stroke-width: 1.5px;
  vector-effect: non-scaling-stroke;
}
.hand .bad {
  stroke: var(--currant);
  stroke-width: 3px;
}
.touched {
  fill: color-mix(in srgb, var(--currant) 16%, transparent);
  stroke: var(--currant);
  stroke-dasharray: 4 3;
}
.pin {
  position: absolute;
  display: grid;
  place-items: center;
  width: 22px;
  height: 22px;
  margin: -11px 0 0 -11px;
  padding: 0;
  color: transparent;
  background: none;
  border: 0;
  border-radius: 50%;
}
.pin::before {
  content: '';
  position: absolute;
  inset: 7px;
  background: var(--card);
  border: 1px solid var(--ink-soft);
  border-radius: 50%;
  opacity: 0.75;
}
.pin svg {
  position: relative;
}
.pin:hover,
.pin:focus-visible {
  color: var(--ink);
}
.pin:hover::before,
.pin:focus-visible::before {
  inset: 0;
  opacity: 1;
}
.pin.pinned {
  color: var(--card);
}
.pin.pinned::before {
  inset: 0;
  background: var(--damson);
  border-color: var(--card);
  opacity: 1;
}
</style>
