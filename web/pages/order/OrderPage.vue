<script setup lang="ts">
import Dialog from 'primevue/dialog';
import { computed, onBeforeUnmount, ref, watch } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import ProblemNote from '../../parts/ProblemNote.vue';
import { useArtwork } from '../../stores/artwork';
import { atWhichCutter } from '../../parts/atWhichCutter';
import { useOrder } from '../../stores/order';
import type { CutPart } from '../../stores/order';
import { useSeams } from '../../stores/seams';
import { useStage } from '../../stores/stage';
import FaceStage from './FaceStage.vue';
import AsCutStage from './AsCutStage.vue';
import ClashNote from './ClashNote.vue';
import { SHORTCUTS, useOrderKeys } from './orderKeys';
import RunCard from './RunCard.vue';
import type { SectionName } from './runCardSections';
import StageBar from './StageBar.vue';
import StageFoot from './StageFoot.vue';
import FilmStage from './film/FilmStage.vue';
import PlayStage from './play/PlayStage.vue';
import SheetStage from './print/SheetStage.vue';
import StripsStage from './StripsStage.vue';
import type { View } from './views';
import { isShown } from './views';

const store = useOrder();
const art = useArtwork();
const look = useStage();
const seams = useSeams();
const route = useRoute();
const router = useRouter();
/** A cut that somebody looked for by its number. */
const sought = Number(route.query.cut) || undefined;
const view = ref<View>(sought === undefined ? 'face' : 'as-cut');
const section = ref<SectionName>(route.query.open === 'artwork' ? 'artwork' : 'films');
const film = ref<string>();
const pointer = ref<{ x: number; y: number }>();
const help = ref(false);

watch(
  () => Number(route.params.id),
  (id) => {
    look.again = look.lineFor = seams.picking = undefined;
    if (Number.isFinite(id) && route.name === 'order') void store.open(id);
  },
  { immediate: true },
);
watch(
  () => store.order?.name,
  (name) => (document.title = name ? `${name} · Jam Pan` : 'Jam Pan'),
);

/** Beneath the face of the sign; an order that is all printed has none. */
const showsStrips = computed(() => {
  if (view.value === 'on-film' || view.value === 'sheet' || view.value === 'play') return false;
  return !store.plan?.printed || store.plan.strips.length > 0;
});
const filmIds = computed(() => store.plan?.films.map((one) => one.film.id) ?? []);
/** Pieces are picked on the sign as a whole. */
watch(
  () => look.again ?? seams.picking,
  (picking) => picking && showWhole(),
);
/** What is picked for panels is picked while they are looked at. */
watch(section, () => (look.lineFor = seams.picking = undefined));
watch(
  () => look.lineFor,
  (line) => line !== undefined && (view.value = 'sheet'),
);
/** A view that has nothing to show any more gives way. */
watch(
  () => isShown(view.value, store.plan),
  (shown) => shown || (view.value = 'face'),
);
/** Marks and lines are chosen on the sheet. */
watch(
  () => section.value === 'print' && store.plan?.printed !== undefined,
  (choosing) => choosing && (view.value = 'sheet'),
);
function showWhole(): void {
  if (view.value !== 'face' && view.value !== 'cut-lines') view.value = 'face';
}

function nextFilm(by: 1 | -1): void {
  const ids = filmIds.value;
  if (ids.length === 0) return;
  const now = film.value ? ids.indexOf(film.value) : by === 1 ? -1 : 0;
  film.value = ids[(now + by + ids.length) % ids.length];
}

/** Moves all colours of a film one film earlier or later. */
function moveFilm(by: 1 | -1): void {
  const order = [...(store.plan?.films ?? [])];
  const from = order.findIndex((one) => one.film.id === film.value);
  if (from < 0 || from + by < 0 || from + by >= order.length) return;
  [order[from], order[from + by]] = [order[from + by], order[from]];
  reorder(order.flatMap(({ colours }) => colours));
}

function reorder(colours: readonly string[]): void {
  if (!store.choices) return;
  const rest = (store.plan?.colours ?? []).map((c) => c.colour).filter((c) => !colours.includes(c));
  store.change({ films: { ...store.choices.films, order: [...colours, ...rest] } });
}

async function queue(part?: CutPart): Promise<void> {
  const cuts = await store.queue(part);
  if (cuts?.length) await router.push(atWhichCutter(cuts));
}

/** Turns to the next finding that has a place, in the run card and on the sign. */
function nextFinding(by: 1 | -1): void {
  const open = art.open.filter((f) => f.key !== undefined);
  if (open.length === 0) return;
  section.value = 'artwork';
  showWhole();
  const now = open.findIndex((f) => f.key === art.finding);
  art.finding = open[now < 0 ? (by === 1 ? 0 : open.length - 1) : (now + by + open.length) % open.length].key;
}
function measure(): void {
  art.measuring = !art.measuring;
  showWhole();
}

/** Leaves measuring, or the picking of pieces. */
function leave(): boolean {
  const picking = [look.again, look.lineFor, seams.picking].some((one) => one !== undefined);
  const was = art.measuring || picking;
  if (art.measuring) art.measuring = false;
  else look.again = look.lineFor = seams.picking = undefined;
  return was;
}
useOrderKeys({
  undo: () => store.undo(),
  redo: () => store.redo(),
  queue: () => queue(),
  help: () => (help.value = !help.value),
  nextFilm,
  moveFilm,
  nextFinding,
  measure,
  leave,
  show: (which) => isShown(which, store.plan) && (view.value = which),
});
onBeforeUnmount(() => {
  store.close();
  document.title = 'Jam Pan';
});
</script>

<template>
  <div v-if="store.problem && !store.order" class="gone">
    <h1>{{ store.problem.message }}</h1>
    <router-link class="button" to="/orders">Back to Orders</router-link>
  </div>
  <div v-else class="order">
    <RunCard
      v-model:section="section"
      v-model:film="film"
      @queue="queue()"
      @hold="queue({ hold: true })"
      @reorder="reorder"
      @recut="(id, own) => queue({ films: [id], own })"
      @panel="queue({ panels: [$event] })"
      @sheet="queue({ sheets: [$event] })"
    />
    <section class="work" aria-label="The sign and its films">
      <StageBar v-model:view="view" class="bar" @measure="measure" />
      <ClashNote class="problem" />
      <ProblemNote
        v-if="store.problem"
        class="problem"
        :message="store.problem.message"
        :ways-out="store.problem.waysOut"
        @close="store.problem = undefined"
      />
      <AsCutStage
        v-if="view === 'as-cut'"
        v-model:film="film"
        :sought="sought"
        class="face"
        @point="pointer = $event"
      />
      <FilmStage v-else-if="view === 'on-film'" v-model:film="film" class="whole" @point="pointer = $event" />
      <PlayStage v-else-if="view === 'play'" v-model:film="film" class="whole" @point="pointer = $event" />
      <SheetStage
        v-else-if="view === 'sheet' && store.plan?.printed"
        class="whole"
        @point="pointer = $event"
      />
      <FaceStage
        v-else
        class="face"
        :view="view === 'sheet' ? 'face' : view"
        :film="film"
        :section="section"
        @point="pointer = $event"
        @finding="section = 'artwork'"
        @again="queue({ again: $event })"
      />
      <StripsStage v-if="showsStrips" v-model:film="film" class="strips" :view="view" @reorder="reorder" />
      <StageFoot class="foot" :pointer="pointer" :view="view" />
    </section>
    <Dialog v-model:visible="help" modal header="Keys" :style="{ width: '30rem' }" dismissable-mask>
      <dl class="keys">
        <template v-for="[keys, does] in SHORTCUTS" :key="keys">
          <dt>
            <kbd>{{ keys }}</kbd>
          </dt>
          <dd>{{ does }}</dd>
        </template>
      </dl>
    </Dialog>
  </div>
</template>

<style scoped>
.order {
  display: grid;
  grid-template-columns: 342px minmax(0, 1fr);
  height: 100%;
}
.work {
  display: grid;
  grid-template-rows: auto auto minmax(0, 1fr) minmax(0, auto) 28px;
  grid-template-columns: minmax(0, 1fr);
  min-height: 0;
  background: var(--bench);
}
.problem {
  grid-row: 2;
  margin: 10px 14px 0;
}
.face {
  grid-row: 3;
}
.whole {
  grid-row: 3 / 5;
}
.strips {
  grid-row: 4;
  border-top: var(--line) solid var(--ink);
}
.gone {
  display: grid;
  place-content: center;
  justify-items: center;
  gap: 18px;
  height: 100%;
  padding: 20px;
}
.gone h1 {
  font-size: 20px;
  max-width: 36rem;
  text-align: center;
}
.keys {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 9px 18px;
  margin: 0;
}
.keys dd {
  margin: 0;
}
.bar {
  grid-row: 1;
}
.foot {
  grid-row: 5;
}
</style>
