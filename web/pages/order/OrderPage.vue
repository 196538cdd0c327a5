<script setup lang="ts">
import { addressOf } from '../../../contracts/address';
import { Contrast, Printer, Ruler } from '@lucide/vue';
import { useEventListener } from '@vueuse/core';
import Dialog from 'primevue/dialog';
import { computed, onBeforeUnmount, ref, watch } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import ProblemNote from '../../parts/ProblemNote.vue';
import { useArtwork } from '../../stores/artwork';
import { atWhichCutter } from '../../parts/atWhichCutter';
import { useOrder } from '../../stores/order';
import type { CutPart } from '../../stores/order';
import { useStage } from '../../stores/stage';
import FaceStage from './FaceStage.vue';
import type { FaceView } from './FaceStage.vue';
import AsCutStage from './AsCutStage.vue';
import ClashNote from './ClashNote.vue';
import RunCard from './RunCard.vue';
import type { SectionName } from './RunCard.vue';
import StripsStage from './StripsStage.vue';
import { useUnits } from '../../stores/units';

const VIEWS: readonly (readonly [FaceView | 'as-cut', string])[] = [
  ['face', 'Face'],
  ['apart', 'Films apart'],
  ['cut-lines', 'Cut lines'],
  ['as-cut', 'As cut'],
];
const SHORTCUTS: readonly (readonly [string, string])[] = [
  ['Ctrl Z', 'undo the last choice'],
  ['Ctrl Shift Z', 'redo it'],
  ['[  ]', 'film before, film after'],
  ['Shift [  Shift ]', 'cut this film earlier, later'],
  ['1 … 4', 'Face, Films apart, Cut lines, As cut'],
  ['P  Shift P', 'next finding, finding before'],
  ['M', 'measure between two points'],
  ['Arrows', 'move the stage that has the focus'],
  ['+  −', 'zoom in and out'],
  ['0', 'show everything'],
  ['Ctrl Enter', 'queue the cuts'],
  ['?', 'this sheet'],
];

const store = useOrder();
const art = useArtwork();
const look = useStage();
const units = useUnits();
const route = useRoute();
const router = useRouter();
const view = ref<FaceView | 'as-cut'>('face');
const section = ref<SectionName>(route.query.open === 'artwork' ? 'artwork' : 'films');
const film = ref<string>();
const pointer = ref<{ x: number; y: number }>();
const help = ref(false);

watch(
  () => Number(route.params.id),
  (id) => {
    look.again = undefined;
    if (Number.isFinite(id) && route.name === 'order') void store.open(id);
  },
  { immediate: true },
);
watch(
  () => store.order?.name,
  (name) => (document.title = name ? `${name} · Jam Pan` : 'Jam Pan'),
);

const filmIds = computed(() => store.plan?.films.map((one) => one.film.id) ?? []);
const savedText = computed(() => {
  if (store.saving === 'waiting') return 'Not saved yet: the server is away';
  if (store.saving === 'saving') return 'Saving …';
  const at = store.order ? new Date(store.order.savedAt) : new Date();
  return `Saved ${at.toTimeString().slice(0, 5)}`;
});

/** Pieces are picked on the sign as a whole. */
watch(
  () => look.again,
  (picking) => picking && showWhole(),
);
function showWhole(): void {
  if (view.value === 'apart' || view.value === 'as-cut') view.value = 'face';
}

/** What the worker is at, while it is. */
const workText = computed(() => {
  if (store.halted) return 'Not planned';
  if (store.planning)
    return store.planned === undefined ? 'Planning …' : `Planning ${Math.round(100 * store.planned)} %`;
  if (store.checking === undefined) return '';
  return store.checking > 0 ? `Checking ${Math.round(100 * store.checking)} %` : 'Checking …';
});

/** Films that lie on one another where the pointer is, while what lies beneath is shown. */
const pile = ref<readonly string[]>([]);
watch(pointer, async (at) => {
  const asked = look.showsHidden && view.value === 'face' && at ? await store.pile(at.x, at.y) : [];
  if (pointer.value === at) pile.value = asked;
});

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

function onKey(event: KeyboardEvent): void {
  const typing =
    event.target instanceof HTMLElement && /^(INPUT|TEXTAREA|SELECT)$/.test(event.target.tagName);
  const control = event.ctrlKey || event.metaKey;
  const key = event.key.toLowerCase();
  if (control && key === 'z' && !typing) return act(event, event.shiftKey ? store.redo : store.undo);
  if (control && key === 'y' && !typing) return act(event, store.redo);
  if (control && key === 'enter') return act(event, () => queue());
  if (typing || control || event.altKey) return;
  if (event.key === '?') return act(event, () => (help.value = !help.value));
  if (event.code === 'BracketLeft') return act(event, () => (event.shiftKey ? moveFilm(-1) : nextFilm(-1)));
  if (event.code === 'BracketRight') return act(event, () => (event.shiftKey ? moveFilm(1) : nextFilm(1)));
  if (key === 'p') return act(event, () => nextFinding(event.shiftKey ? -1 : 1));
  if (key === 'm') return act(event, () => measure());
  if (event.key === 'Escape' && art.measuring) return act(event, () => (art.measuring = false));
  if (event.key === 'Escape' && look.again) return act(event, () => (look.again = undefined));
  const index = Number(event.key) - 1;
  if (VIEWS[index]) act(event, () => (view.value = VIEWS[index][0]));
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

function act(event: KeyboardEvent, what: () => unknown): void {
  event.preventDefault();
  void what();
}
useEventListener('keydown', onKey);
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
      @reorder="reorder"
      @recut="queue({ films: [$event] })"
    />
    <section class="work" aria-label="The sign and its films">
      <div class="bar">
        <div class="views" role="group" aria-label="View">
          <button
            v-for="[name, word] in VIEWS"
            :key="name"
            :aria-pressed="view === name"
            @click="view = name"
          >
            {{ word }}
          </button>
        </div>
        <button class="measure" title="Measure (M)" :aria-pressed="art.measuring" @click="measure">
          <Ruler :size="16" aria-hidden="true" />
          <span class="roomy">Measure <kbd aria-hidden="true">M</kbd></span>
        </button>
        <button
          class="measure"
          title="Dark ground"
          :aria-pressed="look.darkGround"
          @click="look.darkGround = !look.darkGround"
        >
          <Contrast :size="16" aria-hidden="true" /> <span class="roomy">Dark ground</span>
        </button>
        <span v-if="store.plan?.strips.length" class="papers">
          <Printer :size="16" aria-hidden="true" class="roomy" />
          <a
            v-if="store.order"
            :href="addressOf('GET /api/orders/{id}/run-card.pdf', { params: { id: store.order.id } })"
            target="_blank"
            >Run card</a
          >
          <router-link v-if="store.order" :to="{ name: 'applying', params: { id: store.order.id } }"
            >Weeding and applying</router-link
          >
        </span>
      </div>
      <ClashNote class="problem" />
      <ProblemNote
        v-if="store.problem"
        class="problem"
        :message="store.problem.message"
        :ways-out="store.problem.waysOut"
        @close="store.problem = undefined"
      />
      <AsCutStage v-if="view === 'as-cut'" v-model:film="film" class="face" @point="pointer = $event" />
      <FaceStage
        v-else
        class="face"
        :view="view"
        :film="film"
        :section="section"
        @point="pointer = $event"
        @finding="section = 'artwork'"
        @again="queue({ again: $event })"
      />
      <StripsStage v-model:film="film" class="strips" :view="view" @reorder="reorder" />
      <footer>
        <span class="number at">{{
          pointer ? `x ${units.number(pointer.x)}  y ${units.length(pointer.y)}` : ''
        }}</span>
        <span v-if="pile.length > 1" class="hint pile" role="status"
          >{{ pile.length }} films here: {{ pile.join(', ') }}</span
        >
        <span v-else class="hint roomy">drag to move · wheel to zoom</span>
        <span><kbd>[</kbd> <kbd>]</kbd> film</span>
        <span><kbd>?</kbd> keys</span>
        <span class="doing" role="status">{{ workText }}</span>
        <button v-if="store.planned !== undefined" class="small" @click="store.halt()">Stop planning</button>
        <button v-if="store.halted" class="small" @click="store.planNow()">Plan now</button>
        <span class="saved" role="status">{{ savedText }}</span>
        <button class="small" :disabled="!store.order?.canUndo" @click="store.undo()">
          Undo <kbd class="roomy">Ctrl Z</kbd>
        </button>
        <button class="small" :disabled="!store.order?.canRedo" @click="store.redo()">Redo</button>
      </footer>
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
.bar {
  grid-row: 1;
  display: flex;
  align-items: center;
  gap: 14px;
  padding: 11px 14px 0;
}
.views {
  display: flex;
  border: var(--line) solid var(--ink);
  border-radius: var(--radius-card);
  background: var(--card);
  overflow: hidden;
}
.views button {
  height: 29px;
  padding: 0 13px;
  border: 0;
  background: none;
  font-size: 14px;
  font-weight: 650;
}
.views button:focus-visible {
  outline-offset: -3px;
}
.views button[aria-pressed='true'] {
  background: var(--ink);
  color: var(--card);
}
.measure {
  display: flex;
  align-items: center;
  gap: 6px;
  height: 31px;
  padding: 0 10px;
  font-size: 14px;
  background: none;
  border: 0;
  border-radius: var(--radius-field);
}
.measure[aria-pressed='true'] {
  background: var(--damson);
  color: var(--card);
}
.papers {
  display: flex;
  align-items: center;
  gap: 9px;
  font-size: 14px;
}
/* one line each, whatever the width: what a narrow window has no room for gives way */
.bar,
footer {
  white-space: nowrap;
}
.problem {
  grid-row: 2;
  margin: 10px 14px 0;
}
.face {
  grid-row: 3;
}
.strips {
  grid-row: 4;
  border-top: var(--line) solid var(--ink);
}
footer {
  grid-row: 5;
  display: flex;
  align-items: center;
  gap: 20px;
  padding: 0 14px;
  font-size: 13px;
  color: var(--ink-soft);
  background: var(--card);
  border-top: 1px solid var(--rule);
}
.at {
  width: 15em;
  white-space: pre;
}
.doing {
  margin-left: auto;
}
.small {
  border: 0;
  background: none;
  padding: 2px 4px;
}
.small:disabled {
  opacity: 0.5;
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
@media (max-width: 1180px) {
  .roomy {
    display: none;
  }
  .bar {
    gap: 6px;
  }
  .views button {
    padding: 0 9px;
  }
  .at {
    width: 14em;
  }
  footer {
    gap: 12px;
  }
}
</style>
