<script setup lang="ts">
/** What the blade left, laid over the design, film by film. */
import { computed, ref, shallowRef, watch } from 'vue';
import type { Cut } from '../../../contracts/cuts';
import type { Bounds } from '../../../core/geometry/bounds';
import { pathOfLine } from '../../stage/paths';
import StageCanvas from '../../stage/StageCanvas.vue';
import { ApiProblem, call } from '../../stores/api';
import AsCutNote from '../../parts/AsCutNote.vue';
import CutActs from '../../parts/CutActs.vue';
import { useOrder } from '../../stores/order';

const film = defineModel<string | undefined>('film');
/** The number of a cut that is shown first, be it the newest of its strip or not. */
const props = defineProps<{ sought?: number }>();
const emit = defineEmits<{ point: [at: { x: number; y: number } | undefined] }>();
const store = useOrder();
const stage = ref<InstanceType<typeof StageCanvas>>();
const done = computed(() => store.cuts.filter((cut) => cut.state === 'done' && cut.deviation !== null));
/** Films that were cut by machines that keep no record. */
const unrecorded = computed(() => [
  ...new Set(
    store.cuts.flatMap(({ state, deviation, recordWanted, film: own }) =>
      state === 'done' && deviation === null && !recordWanted ? [own.name] : [],
    ),
  ),
]);
/** Films whose record the machine has still, and did not give when it was asked. */
const wanted = computed(() => [
  ...new Set(store.cuts.flatMap(({ recordWanted, film: own }) => (recordWanted ? [own.name] : []))),
]);
/** The newest cut of each strip, and the one that was looked for. */
const latest = computed(() => {
  const newest = [...new Map(done.value.map((cut) => [cut.strip, cut])).values()];
  const asked = done.value.find(({ id }) => id === props.sought);
  return asked && !newest.includes(asked) ? [...newest, asked] : newest;
});
const picked = ref<string>();
const isSought = ref(props.sought !== undefined);
const cut = computed(() => {
  const asked = isSought.value ? latest.value.find(({ id }) => id === props.sought) : undefined;
  if (asked) return asked;
  const own = latest.value.filter((c) => c.film.id === film.value);
  return own.find((c) => c.strip === picked.value) ?? own[0] ?? latest.value[0];
});
function pick({ id, strip, film: own }: Cut): void {
  isSought.value = id === props.sought;
  picked.value = strip;
  film.value = own.id;
}
const nameOf = ({ strip, film: own }: Cut): string => {
  const all = latest.value.filter((c) => c.film.id === own.id);
  return all.length === 1 ? own.name : `${own.name}, ${all.findIndex((c) => c.strip === strip) + 1}`;
};
const loaded = shallowRef<{
  id: number;
  design: Path2D[];
  cut: Path2D[];
  faint: Path2D[];
  beside: Path2D[];
  shallow: boolean;
}>();
const failed = ref('');

watch(
  () => cut.value?.id,
  async (id) => {
    if (id === undefined) return void (loaded.value = undefined);
    failed.value = '';
    try {
      const [drawing, record] = await Promise.all([
        call('GET /api/cuts/{id}/drawing', { params: { id } }),
        call('GET /api/cuts/{id}/record', { params: { id } }),
      ]);
      if (cut.value?.id !== id) return;
      const design = new Path2D();
      for (const ring of drawing.design) design.addPath(pathOfLine(ring, true));
      const lines = record.lines.map(({ points, line }, i) => ({
        part: line === -1 ? 'beside' : drawing.parts[line ?? i],
        path: pathOfLine(points, false),
      }));
      const of = (isIn: (part: string) => boolean): Path2D[] =>
        lines.filter(({ part }) => isIn(part)).map(({ path }) => path);
      loaded.value = {
        id,
        design: [design],
        cut: of((part) => part === 'art'),
        faint: of((part) => part !== 'art' && part !== 'beside'),
        beside: of((part) => part === 'beside'),
        shallow: record.lines.some((line) => line.depth !== 'clean'),
      };
    } catch (error) {
      if (!(error instanceof ApiProblem)) throw error;
      failed.value = error.message;
    }
  },
  { immediate: true },
);

const box = computed<Bounds>(() => ({
  minX: 0,
  minY: 0,
  maxX: cut.value?.length ?? 100,
  maxY: cut.value?.cuttable ?? 100,
}));

const NOT_YET =
  'The machine did not give its record when the cut ended. It is asked again until something else is cut there.';
/** What lies beside the lines. */
const BESIDE = '#33568f';
function* draw(context: CanvasRenderingContext2D, scale: number): Generator<void> {
  if (!loaded.value || !cut.value) return;
  context.fillStyle = '#fffdf7';
  context.fillRect(0, 0, cut.value.length, cut.value.cuttable);
  context.fillStyle = cut.value.film.colour;
  context.globalAlpha = 0.3;
  for (const path of loaded.value.design) {
    context.fill(path);
    yield;
  }
  context.globalAlpha = 1;
  context.lineWidth = 1.2 / scale;
  context.strokeStyle = '#8c8188';
  for (const path of loaded.value.faint) context.stroke(path);
  context.strokeStyle = BESIDE;
  context.setLineDash([5 / scale, 3 / scale]);
  for (const path of loaded.value.beside) context.stroke(path);
  context.setLineDash([]);
  context.strokeStyle = '#b3263a';
  for (const path of loaded.value.cut) {
    context.stroke(path);
    yield;
  }
}

function lookClosely(): void {
  const at = cut.value?.deviationAt;
  if (at) stage.value?.lookAt(at.x, at.y, 160);
}
</script>

<template>
  <div class="wrap">
    <div v-if="!cut && wanted.length > 0" class="none">
      <h2>The record is not here yet</h2>
      <p>{{ NOT_YET }}</p>
    </div>
    <div v-else-if="!cut && unrecorded.length > 0" class="none">
      <h2>Cut, without a record</h2>
      <p>
        {{ unrecorded.join(', ') }}: a real cutter keeps no record of its knife’s way, only a simulated one
        does. What was sent to it is under Cut lines; Play it goes through it line by line.
      </p>
    </div>
    <div v-else-if="!cut" class="none">
      <h2>Nothing of this order has been cut yet</h2>
      <p>Queue it. When a film is done, the knife's own way shows here over the design.</p>
    </div>
    <template v-else>
      <StageCanvas
        ref="stage"
        class="canvas"
        label="The cut as the blade left it"
        :box="box"
        :draw="draw"
        :content="loaded"
        :room="24"
        @point="emit('point', $event)"
      >
        <template #default="{ view: at }">
          <span
            v-if="cut.deviationAt && at.scale > 3"
            class="place"
            :style="{
              left: `${at.x + cut.deviationAt.x * at.scale}px`,
              top: `${at.y + cut.deviationAt.y * at.scale}px`,
            }"
          ></span>
        </template>
      </StageCanvas>
      <div class="card">
        <div class="films" role="group" aria-label="Film">
          <button v-for="c in latest" :key="c.id" :aria-pressed="c.id === cut.id" @click="pick(c)">
            <span class="swatch" :style="{ '--film': c.film.colour }"></span>{{ nameOf(c) }}
          </button>
        </div>
        <p v-if="failed" role="alert">{{ failed }}</p>
        <p v-else>
          Cut {{ cut.id }} lies at most <b class="number">{{ cut.deviation!.toFixed(3) }} mm</b> from the
          design.
          <button class="button" @click="lookClosely">Look there</button>
        </p>
        <p v-if="wanted.length > 0">{{ wanted.join(', ') }}: {{ NOT_YET }}</p>
        <p v-if="unrecorded.length > 0">Without a record: {{ unrecorded.join(', ') }}.</p>
        <AsCutNote v-if="!failed && cut.asCut" :said="cut.asCut" class="said" />
        <CutActs :key="cut.id" :cut="cut.id" />
      </div>
    </template>
  </div>
</template>

<style scoped>
.wrap {
  position: relative;
  min-height: 0;
}
.canvas {
  position: absolute;
  inset: 0;
}
.none {
  display: grid;
  place-content: center;
  justify-items: center;
  height: 100%;
  color: var(--ink-soft);
}
.card {
  position: absolute;
  right: 14px;
  bottom: 12px;
  padding: 10px 14px;
  background: var(--card);
  border: var(--line) solid var(--ink);
  border-radius: var(--radius-card);
}
.card p {
  display: flex;
  align-items: center;
  gap: 12px;
  margin: 8px 0 0;
}
.card .button {
  min-height: 28px;
  font-size: 13.5px;
}
.card p.said {
  max-width: 44ch;
  margin-top: 4px;
}
.films {
  display: flex;
  gap: 6px;
}
.films button {
  display: flex;
  align-items: center;
  gap: 6px;
  padding: 2px 9px 2px 4px;
  border: 1px solid var(--rule);
  border-radius: 99px;
  background: none;
}
.films button[aria-pressed='true'] {
  border-color: var(--damson);
  background: var(--damson-soft);
}
.films .swatch {
  width: 15px;
  height: 18px;
}
.place {
  position: absolute;
  width: 46px;
  height: 46px;
  border: 2px solid var(--bilberry);
  border-radius: 50%;
  transform: translate(-50%, -50%);
}
</style>
