<script setup lang="ts">
/** The finished sign, as seen from its front, to scale. */
import ProgressBar from 'primevue/progressbar';
import { largest } from '../../../core/geometry/lists';
import { computed, ref, watch } from 'vue';
import type { Again } from '../../../core/films/again';
import { saidOnce } from '../../../core/findings/together';
import type { Bounds } from '../../../core/geometry/bounds';
import { joinBounds } from '../../../core/geometry/bounds';
import { surfaceOnSign } from '../../../core/panels/surface';
import type { Free } from '../../stage/viewport';
import { freeAround } from '../../stage/viewport';
import StageCanvas from '../../stage/StageCanvas.vue';
import { useArtwork } from '../../stores/artwork';
import { useStage } from '../../stores/stage';
import { useOrder } from '../../stores/order';
import { useSeams } from '../../stores/seams';
import { useUnits } from '../../stores/units';
import type { ColourView } from '../../workers/packed';
import { drawFace } from './drawFace';
import { isArt, usePictures } from './print/pictures';
import MeasureOverlay from './artwork/MeasureOverlay.vue';
import FindingPins from './FindingPins.vue';
import AgainOverlay from './films/AgainOverlay.vue';
import MarkHandles from './films/MarkHandles.vue';
import PieceHandles from './artwork/PieceHandles.vue';
import PickOverlay from './panels/PickOverlay.vue';
import SeamsOverlay from './panels/SeamsOverlay.vue';
import SurfaceOverlay from './panels/SurfaceOverlay.vue';
import TrialOverlay from './artwork/TrialOverlay.vue';
import type { SectionName } from './runCardSections';

export type FaceView = 'face' | 'apart' | 'cut-lines';

const props = defineProps<{ view: FaceView; film: string | undefined; section: SectionName }>();
const emit = defineEmits<{
  point: [at: { x: number; y: number } | undefined];
  finding: [];
  again: [pieces: Again];
}>();
const store = useOrder();
const art = useArtwork();
const look = useStage();
const seams = useSeams();
const stage = ref<InstanceType<typeof StageCanvas>>();
const again = ref<InstanceType<typeof AgainOverlay>>();
const pick = ref<InstanceType<typeof PickOverlay>>();
const measure = ref<InstanceType<typeof MeasureOverlay>>();
const units = useUnits();

/** Films apart: each film's own sheet is moved down by this share of the sign's height. */
const APART = 1.12;
const APART_DOWN = 1.34;

const visible = computed(() => (store.plan?.colours ?? []).filter((colour) => colour.goesTo !== 'nothing'));
const groups = computed(() => {
  const films = new Map<string, ColourView[]>();
  for (const colour of visible.value) {
    const key = colour.goesTo === 'print' ? 'print' : (colour.film?.id ?? colour.colour);
    films.set(key, [...(films.get(key) ?? []), colour]);
  }
  // what is printed comes last: films are counted as they are cut
  const isPrint = ({ id }: { id: string }): number => Number(id === 'print');
  return [...films.entries()]
    .map(([id, colours]) => ({ id, colours }))
    .sort((a, b) => isPrint(a) - isPrint(b));
});
const sheet = computed(() => ({ width: store.plan?.width ?? 100, height: store.plan?.height ?? 100 }));
const columns = computed(() => {
  if (props.view !== 'apart') return 1;
  const { width, height } = sheet.value;
  // as many beside each other as leaves the whole about as wide as the stage
  return Math.max(
    1,
    Math.min(groups.value.length, Math.round(Math.sqrt((groups.value.length * height * 2.2) / width))),
  );
});
const placeOf = (index: number): { x: number; y: number } => ({
  x: (index % columns.value) * sheet.value.width * APART,
  y: Math.floor(index / columns.value) * sheet.value.height * APART_DOWN,
});
/** The surface is seen as a whole while panels are looked at. */
const around = computed<Bounds | undefined>(() => {
  const surface = props.section === 'panels' && props.view !== 'apart' && store.choices?.panels.surface;
  return surface ? surfaceOnSign(surface) : undefined;
});
const box = computed<Bounds>(() => {
  const { width, height } = sheet.value;
  if (around.value) return joinBounds(around.value, { minX: 0, minY: 0, maxX: width, maxY: height });
  const count = props.view === 'apart' ? Math.max(1, groups.value.length) : 1;
  const far = placeOf(count - 1);
  const right = largest(Array.from({ length: count }, (_, i) => placeOf(i).x));
  return { minX: 0, minY: 0, maxX: right + width, maxY: far.y + height };
});
/** Room for the handles of seams and for the ink beneath and beside the sign. */
const free = computed<Free>(() => {
  if (props.section !== 'panels') return freeAround(56);
  const hasLevel = (store.plan?.panelling?.seams.level.length ?? 0) > 0;
  return { top: 56, left: 64, bottom: 122, right: hasLevel ? 140 : 64 };
});
// bleed shows on sheets only
const pictures = usePictures(() => (store.plan?.printed?.art ?? []).filter(isArt));
const groundColour = computed(() => (look.darkGround ? '#2b2430' : '#fffdf7'));
const content = computed(() => [
  look.darkGround,
  look.showsHidden,
  look.again,
  store.plan,
  props.view,
  props.film,
  props.section,
  columns.value,
  pictures.size,
]);

function* draw(context: CanvasRenderingContext2D, scale: number): Generator<void> {
  const { plan } = store;
  if (!plan) return;
  yield* drawFace(context, scale, {
    plan,
    groups: groups.value,
    apart: props.view === 'apart' ? placeOf : undefined,
    outlinesOnly: props.view === 'cut-lines',
    only: look.again ?? props.film,
    showsHidden: look.showsHidden,
    ground: groundColour.value,
    pictures,
  });
}

/** What the layout says stands over the sign; what the check-over says stands at its place and in the run card. */
const stops = computed(() =>
  saidOnce(store.plan?.findings.filter((f) => f.severity !== 'note' && f.key === undefined) ?? []),
);
const arranging = computed(() => props.section === 'artwork' && props.view !== 'apart');
/** Comes so close that what is gathered there comes apart. */
function closer({ minX, minY, maxX, maxY }: Bounds): void {
  const size = Math.max(maxX - minX, maxY - minY, 0.2);
  stage.value?.lookAt((minX + maxX) / 2, (minY + maxY) / 2, 320 / size);
}

/** A finding that is turned to is shown large enough to be judged. */
watch(
  () => art.finding,
  (key) => {
    const where = art.open.find((f) => f.key === key)?.where;
    if (!key || !where) return;
    const size = Math.max(where.maxX - where.minX, where.maxY - where.minY, sheet.value.width / 30, 10);
    stage.value?.lookAt((where.minX + where.maxX) / 2, (where.minY + where.maxY) / 2, 150 / size);
  },
);
async function tap(at: { x: number; y: number }, reach: number): Promise<void> {
  if (art.measuring) return void (await measure.value?.tap(at));
  if (look.again) return void (await again.value?.tap(at));
  if (seams.picking) return void (await pick.value?.tap(at));
  if (!arranging.value) return;
  art.selected = [];
  art.picked = await store.pick(at.x, at.y, reach);
}
function point(at: { x: number; y: number } | undefined): void {
  emit('point', at);
  if (art.measuring) measure.value?.point(at);
}
const pickedBox = computed(() => (arranging.value ? art.picked?.bounds : undefined));
</script>

<template>
  <div class="wrap">
    <StageCanvas
      ref="stage"
      class="canvas"
      label="The finished sign"
      :box="box"
      :draw="draw"
      :content="content"
      :room="free"
      @point="point"
      @tap="tap"
    >
      <template #default="{ view: at, size: room }">
        <svg v-if="store.plan && view !== 'apart'" class="dims" width="100%" height="100%" aria-hidden="true">
          <g stroke="var(--ink-soft)" fill="none">
            <path
              :d="`M${at.x} ${at.y + sheet.height * at.scale + 26}v10M${at.x} ${at.y + sheet.height * at.scale + 31}H${at.x + sheet.width * at.scale}m0 -5v10`"
            />
            <path
              :d="`M${at.x - 36} ${at.y}h10M${at.x - 31} ${at.y}V${at.y + sheet.height * at.scale}m-5 0h10`"
            />
          </g>
        </svg>
        <template v-if="store.plan && view !== 'apart'">
          <span
            class="size number"
            :style="{
              left: `${at.x + (sheet.width * at.scale) / 2}px`,
              top: `${at.y + sheet.height * at.scale + 31}px`,
            }"
          >
            {{ units.length(sheet.width) }}
          </span>
          <span
            class="size number upright"
            :style="{ left: `${at.x - 31}px`, top: `${at.y + (sheet.height * at.scale) / 2}px` }"
          >
            {{ units.length(sheet.height) }}
          </span>
          <PieceHandles v-if="arranging && art.placed.length > 1 && !art.measuring" :at="at" />
          <div
            v-if="pickedBox"
            class="pickedbox"
            :style="{
              left: `${at.x + pickedBox.minX * at.scale}px`,
              top: `${at.y + pickedBox.minY * at.scale}px`,
              width: `${(pickedBox.maxX - pickedBox.minX) * at.scale}px`,
              height: `${(pickedBox.maxY - pickedBox.minY) * at.scale}px`,
            }"
          ></div>
          <MarkHandles v-if="section === 'films' && store.plan.markPlaces.length > 0" :at="at" />
          <AgainOverlay
            v-if="look.again"
            ref="again"
            :at="at"
            :film="look.again"
            @cut="$emit('again', $event)"
          />
          <SurfaceOverlay
            v-if="section === 'panels' && store.choices?.panels.surface"
            :at="at"
            :surface="store.choices.panels.surface"
          />
          <PickOverlay
            v-if="seams.picking"
            ref="pick"
            :key="seams.picking"
            :at="at"
            :picking="seams.picking"
          />
          <SeamsOverlay v-if="store.plan.panelling" :at="at" :editable="section === 'panels'" />
          <TrialOverlay v-if="arranging && art.trial" :at="at" />
          <FindingPins :at="at" :sheet="sheet" :window="room" @finding="emit('finding')" @closer="closer" />
          <MeasureOverlay v-if="art.measuring" ref="measure" :at="at" />
        </template>
        <template v-if="view === 'apart'">
          <span
            v-for="(group, i) in groups"
            :key="group.id"
            class="size"
            :style="{
              left: `${at.x + (placeOf(i).x + sheet.width / 2) * at.scale}px`,
              top: `${at.y + (placeOf(i).y + sheet.height * 1.17) * at.scale}px`,
            }"
          >
            {{
              group.id === 'print'
                ? 'Printed'
                : `${i + 1} · ${group.colours[0].film?.name ?? group.colours[0].colour}`
            }}
          </span>
        </template>
      </template>
    </StageCanvas>
    <div v-if="!store.plan" class="wait" role="status">
      <p>{{ store.halted ? 'This order is not planned: it was stopped.' : 'Laying out the films …' }}</p>
      <ProgressBar
        v-if="store.planned !== undefined"
        :value="Math.round(100 * store.planned)"
        aria-label="Planned so far"
      />
      <button v-if="store.planned !== undefined" class="button" @click="store.halt()">Stop planning</button>
      <button v-if="store.halted" class="button" @click="store.planNow()">Plan it now</button>
    </div>
    <ol v-if="stops.length" class="findings" aria-label="To look at">
      <li v-for="({ finding, alsoFilms }, i) in stops.slice(0, 3)" :key="i" :class="finding.severity">
        <div>
          <strong>{{ finding.message }}</strong>
          <span v-if="alsoFilms.length">The same for {{ alsoFilms.join(', ') }}.</span>
          <span v-if="finding.waysOut" class="ways">{{ finding.waysOut.join(' · ') }}</span>
        </div>
      </li>
    </ol>
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
.size {
  position: absolute;
  padding: 0 9px;
  font-size: 14px;
  font-weight: 620;
  white-space: nowrap;
  background: var(--bench);
  border-radius: 4px;
  transform: translate(-50%, -50%);
}
.upright {
  transform: translate(-50%, -50%) rotate(-90deg);
}
.pickedbox {
  position: absolute;
  border: 1.5px solid var(--damson);
  pointer-events: none !important;
}
.wait {
  position: absolute;
  inset: 0;
  display: grid;
  gap: 14px;
  place-content: center;
  justify-items: center;
  color: var(--ink-soft);
}
.wait p {
  margin: 0;
}
.wait .p-progressbar {
  width: 280px;
}
.findings {
  position: absolute;
  z-index: 3;
  top: 10px;
  right: 14px;
  display: grid;
  gap: 6px;
  max-width: min(420px, 80%);
  margin: 0;
  padding: 0;
  list-style: none;
}
.findings li {
  display: flex;
  gap: 10px;
  padding: 8px 12px;
  font-size: 14px;
  line-height: 1.3;
  background: var(--card);
  border: var(--line) solid var(--quince);
  border-radius: var(--radius-card);
}
.findings li.stop {
  border-color: var(--currant);
}
.findings div {
  display: grid;
  gap: 3px;
}
.ways {
  color: var(--ink-soft);
  font-size: 13px;
}
</style>
