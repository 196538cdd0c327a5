<script setup lang="ts">
/** Crosses as they were printed, and as they were cut: each red one is drawn onto what is seen. */
import { computed, ref } from 'vue';
import { largest, smallest } from '../../../../core/geometry/lists';
import type { Spot } from '../../../../core/geometry/spot';
import { formatOff } from '../../../../core/calibration/seenText';
import { useUnits } from '../../../stores/units';

const props = defineProps<{
  /** mm on the strip */
  places: readonly Spot[];
  off: readonly (Spot | null)[];
  /** It was read by the machine: nothing to draw about. */
  isRead?: boolean;
}>();
const emit = defineEmits<{ change: [place: number, off: Spot] }>();
const units = useUnits();

/** What is off is drawn so many times as large; mm of the step by key, and by hand. */
const [TIMES, STEP, FINE] = [10, 0.05, 0.05];
/** mm around the places */
const AROUND = 36;
const box = computed(() => {
  const [xs, ys] = [0, 1].map((k) => props.places.map((place) => place[k]));
  const [x, y] = [smallest(xs) - AROUND, smallest(ys) - AROUND];
  return { x, y, width: largest(xs) + AROUND - x, height: largest(ys) + AROUND - y };
});
/** mm of the sheet that something takes which is drawn as large on any sheet: of a picture 200 wide. */
const unit = computed(() => Math.max(box.value.width, 1.5 * box.value.height) / 200);
const arm = computed(() => 9 * unit.value);
const seen = (i: number): Spot => props.off[i] ?? [0, 0];
const rounded = (mm: number): number => Math.round(mm / FINE) * FINE;

const svg = ref<SVGSVGElement>();
let grabbed: { readonly place: number; readonly from: DOMPoint; readonly off: Spot } | undefined;
const at = ({ clientX, clientY }: PointerEvent): DOMPoint =>
  new DOMPoint(clientX, clientY).matrixTransform(svg.value!.getScreenCTM()!.inverse());
function grab(place: number, event: PointerEvent): void {
  if (props.isRead) return;
  (event.currentTarget as Element).setPointerCapture(event.pointerId);
  grabbed = { place, from: at(event), off: seen(place) };
}
function drag(event: PointerEvent): void {
  if (!grabbed) return;
  const { place, from, off } = grabbed;
  const to = at(event);
  emit('change', place, [
    rounded(off[0] + (to.x - from.x) / TIMES),
    rounded(off[1] + (to.y - from.y) / TIMES),
  ]);
}
const KEYS: Readonly<Record<string, Spot>> = {
  ArrowLeft: [-STEP, 0],
  ArrowRight: [STEP, 0],
  ArrowUp: [0, -STEP],
  ArrowDown: [0, STEP],
};
function press(place: number, event: KeyboardEvent): void {
  const by = KEYS[event.key];
  if (!by || props.isRead) return;
  event.preventDefault();
  const [x, y] = seen(place);
  emit('change', place, [rounded(x + by[0]), rounded(y + by[1])]);
}
const cross = ([x, y]: Spot): string =>
  `M${x - arm.value} ${y}h${2 * arm.value}M${x} ${y - arm.value}v${2 * arm.value}`;
</script>

<template>
  <figure>
    <svg
      ref="svg"
      :viewBox="`${box.x} ${box.y} ${box.width} ${box.height}`"
      role="group"
      :style="{ '--unit': `${unit}px` }"
      aria-label="Crosses as they lie in the cutter"
      @pointermove="drag"
      @pointerup="grabbed = undefined"
      @pointercancel="grabbed = undefined"
    >
      <rect
        class="sheet"
        :x="box.x + 1"
        :y="box.y + 1"
        :width="box.width - 2"
        :height="box.height - 2"
        rx="1"
      />
      <g v-for="(place, i) in places" :key="i">
        <path class="printed" :d="cross(place)" />
        <g
          :tabindex="isRead ? undefined : 0"
          :role="isRead ? 'img' : 'button'"
          class="cut"
          :class="{ unsaid: !off[i] }"
          :aria-label="`${isRead ? 'Read' : 'Cut'} ${i + 1}: ${off[i] ? formatOff(off[i]!, units.unit) : 'not said'}`"
          @pointerdown="grab(i, $event)"
          @keydown="press(i, $event)"
        >
          <rect
            class="hold"
            :x="place[0] + TIMES * seen(i)[0] - arm"
            :y="place[1] + TIMES * seen(i)[1] - arm"
            :width="2 * arm"
            :height="2 * arm"
          />
          <path :d="cross([place[0] + TIMES * seen(i)[0], place[1] + TIMES * seen(i)[1]])" />
        </g>
        <circle class="tag" :cx="place[0] - 14 * unit" :cy="place[1] - 9 * unit" :r="5 * unit" />
        <text class="tag" :x="place[0] - 14 * unit" :y="place[1] - 7 * unit" text-anchor="middle">
          {{ i + 1 }}
        </text>
      </g>
    </svg>
    <figcaption class="soft">
      Seen from above as it lies in the cutter; the film runs to the right, the front is beneath. What is off
      is drawn
      {{ TIMES }} times as large.
    </figcaption>
  </figure>
</template>

<style scoped>
figure {
  margin: 0;
  padding: 14px;
  background: var(--bench);
  border: var(--line) solid var(--rule);
  border-radius: var(--radius-label);
}
svg {
  display: block;
  width: 100%;
  max-height: 300px;
  touch-action: none;
}
.sheet {
  fill: var(--card);
  stroke: var(--rule);
  stroke-width: 0.4;
}
path {
  fill: none;
}
.printed {
  stroke: var(--ink);
  stroke-width: calc(1.2 * var(--unit));
}
.cut path {
  stroke: var(--currant);
  stroke-width: calc(0.7 * var(--unit));
}
.cut.unsaid path {
  stroke-dasharray: 1.6 1.2;
}
.cut {
  cursor: grab;
}
.hold {
  fill: transparent;
}
.cut:focus-visible {
  outline: none;
}
.cut:focus-visible .hold {
  stroke: var(--bilberry);
  stroke-width: 0.9;
}
circle.tag {
  fill: var(--card);
  stroke: var(--bilberry);
  stroke-width: calc(0.6 * var(--unit));
}
text.tag {
  font: 650 calc(6.4 * var(--unit)) var(--text);
  fill: var(--bilberry);
}
figcaption {
  margin-top: 8px;
  font-size: 13px;
}
</style>
