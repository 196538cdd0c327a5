<script setup lang="ts">
/** One strip as it will lie in the cutter, large: its pieces and weed lines laid by hand, and what it takes. */
import { useEventListener } from '@vueuse/core';
import { computed, shallowRef, watch } from 'vue';
import type { Bounds } from '../../../../core/geometry/bounds';
import StageCanvas from '../../../stage/StageCanvas.vue';
import StageHead from '../../../stage/StageHead.vue';
import { stockWord } from '../../../parts/onShelf';
import { useOnFilm } from '../../../stores/onFilm';
import { useOrder } from '../../../stores/order';
import { useUnits } from '../../../stores/units';
import type { PlacementView, StripView } from '../../../workers/packed';
import { useOneOf } from '../oneOf';
import { isForList } from '../orderKeys';
import { stripDrawer } from './drawStrip';
import FilmThreeWays from './FilmThreeWays.vue';
import LengthRule from './LengthRule.vue';
import StockCard from './StockCard.vue';
import OrdersOverlay from './OrdersOverlay.vue';
import PiecesOverlay from './PiecesOverlay.vue';
import WeedLinesOverlay from './WeedLinesOverlay.vue';

const film = defineModel<string | undefined>('film');
const emit = defineEmits<{ point: [at: { x: number; y: number } | undefined] }>();
const store = useOrder();
const laying = useOnFilm();
const units = useUnits();

const { shown: strip, choices, pick } = useOneOf<StripView>(() => store.plan?.strips ?? [], film);
const held = shallowRef<PlacementView>();
watch(strip, () => (held.value = undefined));

/** A sheet or an offcut is shown whole; of a roll what is used. */
const box = computed<Bounds>(() => {
  const { length = 1, roll } = strip.value ?? {};
  const isSheet = roll?.sheets !== undefined;
  return {
    minX: 0,
    minY: 0,
    maxX: isSheet ? Math.max(length, roll.lengthLeft) : length,
    maxY: roll?.width ?? 1,
  };
});
/** Kept free around the strip for what stands beside it, px. */
const ROOM = { top: 42, right: 60, bottom: 46, left: 34 };
const draw = computed(() =>
  stripDrawer(strip.value!, { run: strip.value!.length * 1.05, asLines: false, without: held.value }),
);
/** What the strip takes: of what, how much, how much of it is waste, and what it costs. */
const takes = computed(() => {
  if (!strip.value) return '';
  const { roll, length, used, film: own, shares } = strip.value;
  const whose = ({ order = store.order!.number, share }: (typeof shares)[number]): string =>
    `#${order} ${Math.round(share * 100)} %`;
  return [
    `${stockWord(roll)}, ${units.length(roll.width)}`,
    `${units.run(length)} of ${units.run(roll.lengthLeft)}`,
    `${units.area(length * roll.width)}, ${Math.round(used * 100)} % used`,
    ...(shares.length > 1 ? [shares.map(whose).join(', ')] : []),
    ...(own.price === undefined ? [] : [`costs ${((own.price * length) / 1000).toFixed(2)}`]),
  ].join(' · ');
});

const pointer = shallowRef<{ x: number; y: number }>();
function point(at: { x: number; y: number } | undefined): void {
  pointer.value = at && { x: at.x, y: at.y - (strip.value?.edges.far ?? 0) };
  emit('point', pointer.value);
}
/** @param there mm along the film; what lies beside it is nowhere */
function addLine(there?: number): void {
  if (!strip.value || !laying.linesAreFree) return;
  const isOn = there !== undefined && there > 0 && there < strip.value.length;
  laying.addLine(strip.value, isOn ? there : undefined);
}
useEventListener('keydown', (event) => {
  const isField = event.target instanceof HTMLElement && event.target.closest('input, textarea') !== null;
  if (isField || isForList(event) || event.ctrlKey || event.metaKey || event.altKey) return;
  if (event.key.toLowerCase() !== 'l') return;
  event.preventDefault();
  addLine(pointer.value?.x);
});
const isPacked = computed(() => strip.value?.placements.some(({ kept }) => kept) ?? false);
</script>

<template>
  <div class="film">
    <StageHead label="Strips" :choices="choices" :picked="strip?.id" :says="takes" @pick="pick" />
    <StageCanvas
      v-if="strip"
      v-slot="{ view: at }"
      class="canvas"
      :label="`${strip.film.name} on the film`"
      :box="box"
      :draw="draw"
      :content="[strip, held]"
      :room="ROOM"
      align="left"
      @point="point"
    >
      <PiecesOverlay v-if="isPacked" :at="at" :strip="strip" @hold="held = $event" />
      <WeedLinesOverlay :at="at" :strip="strip" />
      <OrdersOverlay v-if="strip.shares.length > 1" :at="at" :strip="strip" />
      <LengthRule :at="at" :strip="strip" />
    </StageCanvas>
    <p v-else class="none">No film can be laid out yet. See what is to be looked at on the left.</p>
    <div class="below">
      <div class="hand">
        <p v-if="isPacked" class="hint">
          Drag a piece to where it shall lie: it is pinned there, and what is in its way moves.
          <kbd>R</kbd> turns it.
        </p>
        <p v-else class="hint">Laid as one: by word or by piece, under Layout, its pieces can be dragged.</p>
        <button class="button small" :disabled="!strip || !laying.linesAreFree" @click="addLine()">
          Add a weed line <kbd aria-hidden="true">L</kbd>
        </button>
      </div>
      <StockCard v-if="strip" class="card" :strip="strip" />
      <FilmThreeWays class="card" />
    </div>
  </div>
</template>

<style scoped>
.film {
  display: grid;
  grid-template-rows: auto minmax(0, 1fr) auto;
  min-height: 0;
}
.none {
  margin: 0;
  padding: 20px;
  color: var(--ink-soft);
}
.below {
  display: grid;
  grid-template-columns: minmax(0, 1.35fr) minmax(0, 1fr);
  gap: 10px 14px;
  padding: 0 14px 12px;
}
.hand {
  display: flex;
  grid-column: 1 / -1;
  gap: 14px;
  align-items: center;
  justify-content: space-between;
}
.hand button {
  flex: none;
}
.hand p {
  margin: 0;
}
.card {
  padding: 10px 14px;
  background: var(--card);
  border: 1px solid var(--rule);
  border-radius: var(--radius-card);
}
</style>
