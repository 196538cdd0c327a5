<script setup lang="ts">
/** Findings at their places on the sign: near ones gathered into one with a count, which opens as one zooms in. */
import { computed } from 'vue';
import type { Bounds } from '../../../core/geometry/bounds';
import type { Finding, Severity } from '../../../core/findings/finding';
import type { Gathered } from '../../stage/gather';
import { gather, gatherScale } from '../../stage/gather';
import type { Viewport } from '../../stage/viewport';
import { useArtwork } from '../../stores/artwork';
import { useStage } from '../../stores/stage';

const props = defineProps<{
  at: Viewport;
  sheet: { readonly width: number; readonly height: number };
  window: { readonly width: number; readonly height: number };
}>();
const emit = defineEmits<{ finding: []; closer: [box: Bounds] }>();
const art = useArtwork();
const look = useStage();

interface Pin {
  readonly n: number;
  readonly finding: Finding;
  readonly x: number;
  readonly y: number;
}

/** What the page's edge cuts off is pinned at that edge. */
const within = (from: number, to: number, size: number): number => {
  const [a, b] = [Math.max(0, from), Math.min(size, to)];
  return Math.min(size, Math.max(0, a <= b ? (a + b) / 2 : (from + to) / 2));
};
const pins = computed<Pin[]>(() =>
  art.groups
    .filter(({ code }) => !look.hiddenKinds.includes(code))
    .flatMap(({ members }) => members)
    .flatMap(({ n, finding }) => {
      if (!finding.where) return [];
      const { minX, minY, maxX, maxY } = finding.where;
      const { width, height } = props.sheet;
      return [{ n, finding, x: within(minX, maxX, width), y: within(minY, maxY, height) }];
    }),
);
const scale = computed(() => gatherScale(props.at.scale));
const gathered = computed(() => gather(pins.value, scale.value));
/** Only what is in the window is there. */
const shown = computed(() => {
  const { x, y, scale: s } = props.at;
  const isIn = (px: number, size: number): boolean => px > -20 && px < size + 20;
  return gathered.value.filter(
    (one) => isIn(x + one.x * s, props.window.width) && isIn(y + one.y * s, props.window.height),
  );
});

const WORST: Readonly<Record<Severity, number>> = { stop: 0, check: 1, note: 2 };
const severityOf = ({ pins: own }: Gathered<Pin>): Severity =>
  own.reduce<Severity>((worst, { finding }) => {
    return WORST[finding.severity] < WORST[worst] ? finding.severity : worst;
  }, 'note');
const isNow = ({ pins: own }: Gathered<Pin>): boolean =>
  art.finding !== undefined && own.some(({ finding }) => finding.key === art.finding);
const titleOf = ({ pins: own }: Gathered<Pin>): string =>
  own.length === 1 ? own[0].finding.message : `${own.length} findings here: click to come closer`;

/** Those of one place cannot be parted: they are turned to one after the other. */
function open({ pins: own }: Gathered<Pin>): void {
  const xs = own.map(({ x }) => x);
  const ys = own.map(({ y }) => y);
  const [minX, maxX, minY, maxY] = [
    xs.reduce((a, b) => Math.min(a, b)),
    xs.reduce((a, b) => Math.max(a, b)),
    ys.reduce((a, b) => Math.min(a, b)),
    ys.reduce((a, b) => Math.max(a, b)),
  ];
  if (own.length > 1 && Math.max(maxX - minX, maxY - minY) > 0.01)
    return emit('closer', { minX, minY, maxX, maxY });
  const now = own.findIndex(({ finding }) => finding.key === art.finding);
  art.finding = own[(now + 1) % own.length].finding.key;
  emit('finding');
}
</script>

<template>
  <button
    v-for="one in shown"
    :key="`${one.pins[0].n} ${one.pins.length}`"
    class="pin"
    :class="[severityOf(one), { many: one.pins.length > 1, now: isNow(one) }]"
    :title="titleOf(one)"
    :aria-label="one.pins.length === 1 ? `${one.pins[0].n}: ${titleOf(one)}` : titleOf(one)"
    :style="{ left: `${at.x + one.x * at.scale}px`, top: `${at.y + one.y * at.scale}px` }"
    @pointerdown.stop
    @click="open(one)"
  >
    {{ one.pins.length === 1 ? one.pins[0].n : `×${one.pins.length}` }}
  </button>
</template>

<style scoped>
.pin {
  position: absolute;
  display: grid;
  place-items: center;
  min-width: 24px;
  height: 24px;
  padding: 0 3px;
  font: 700 12px/1 var(--numbers);
  color: #fff;
  background: var(--quince-text);
  border: 1.5px solid var(--card);
  border-radius: 99px;
  transform: translate(-50%, -50%);
}
.pin.note {
  background: var(--bilberry);
}
.pin.stop {
  background: var(--currant);
}
.pin.many {
  border-style: double;
  border-width: 3px;
}
.pin.now {
  z-index: 1;
  outline: 3px solid var(--damson);
}
</style>
