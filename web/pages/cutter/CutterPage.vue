<script setup lang="ts">
/** For the tablet beside one machine: what to do now, what the knife is doing, what comes next. */
import { Moon, Sun } from '@lucide/vue';
import { computed, onBeforeUnmount, onMounted, ref, shallowRef, watch } from 'vue';
import { useRoute } from 'vue-router';
import type { Cut, Drawing, ShopEvent } from '../../../contracts/api';
import type { Bounds } from '../../../core/geometry/bounds';
import type { Shop } from '../../../core/plan/plan';
import { pathOfLine } from '../../stage/paths';
import StageCanvas from '../../stage/StageCanvas.vue';
import { ApiProblem, call } from '../../stores/api';
import { useEvents } from '../../stores/events';
import { duration, useUnits } from '../../stores/units';
import ProblemNote from '../../parts/ProblemNote.vue';

const NIGHT_KEY = 'jam-pan-night';
const route = useRoute();
const units = useUnits();
const events = useEvents();
const cuts = ref<Cut[]>([]);
const justDone = ref<Cut>();
const shop = shallowRef<Shop>();
const state = ref<'loading' | 'ready' | 'failed'>('loading');
const problem = ref<ApiProblem>();
const busy = ref(false);
const night = ref(localStorage.getItem(NIGHT_KEY) === 'yes');
const head = ref<{ x: number; y: number; down: boolean }>();
const live = ref({ cutId: 0, linesDone: 0, secondsDone: 0 });
const lines = shallowRef<{ id: number; paths: Path2D[]; design: Path2D }>();
watch(night, (now) => localStorage.setItem(NIGHT_KEY, now ? 'yes' : 'no'));

const cutterId = computed(() => String(route.params.id));
const cutter = computed(() => shop.value?.cutters.find((c) => c.id === cutterId.value));
const mine = computed(() => cuts.value.filter((cut) => cut.cutterId === cutterId.value));
const now = computed(() => mine.value.find((cut) => cut.state !== 'queued') ?? mine.value[0]);
/** All cuts of the order that is on the machine, done ones too, as its steps. */
const steps = ref<Cut[]>([]);
const linesDone = computed(() =>
  now.value?.id === live.value.cutId
    ? Math.max(live.value.linesDone, now.value.linesDone)
    : (now.value?.linesDone ?? 0),
);
const secondsDone = computed(() =>
  now.value?.id === live.value.cutId
    ? Math.max(live.value.secondsDone, now.value.secondsDone)
    : (now.value?.secondsDone ?? 0),
);
const share = computed(() =>
  now.value && now.value.seconds > 0 ? secondsDone.value / now.value.seconds : 0,
);

const sentence = computed(() => {
  const cut = now.value;
  if (!cut)
    return {
      big: 'Nothing to do here',
      small: 'Cuts that are queued for this machine show up by themselves.',
    };
  const { film } = cut;
  const left = duration(cut.seconds - secondsDone.value);
  switch (cut.state) {
    case 'wants-film':
      return {
        big: `Load ${film.name}`,
        small: `${film.code} on a ${units.length(cut.rollWidth)} roll, ${cut.mirrored ? 'backing up: it is cut mirrored' : 'face up'}. It takes ${units.run(cut.length)}.`,
      };
    case 'checking':
      return { big: 'Asking the machine for its film', small: 'One moment.' };
    case 'cutting':
      return {
        big: `Cutting line ${Math.min(linesDone.value + 1, cut.lines)} of ${cut.lines}`,
        small: `${left} left on this film. Nothing to do until then.`,
      };
    case 'stopping':
      return {
        big: 'Stopping after this line',
        small: 'The knife finishes the lines that are already in the machine.',
      };
    case 'stopped':
      return {
        big: 'Stopped',
        small: 'Go on at the next line if the film has not moved; else start this film again.',
      };
    default:
      return { big: 'Waiting', small: 'Another cut has the machine.' };
  }
});

async function refresh(): Promise<void> {
  try {
    shop.value ??= await call<Shop>('GET', '/api/shop');
    const before = now.value;
    cuts.value = await call<Cut[]>('GET', '/api/cuts');
    state.value = 'ready';
    const orderId = now.value?.orderId ?? before?.orderId;
    steps.value = orderId ? await call<Cut[]>('GET', `/api/cuts?order=${orderId}`) : [];
    if (before && before.id !== now.value?.id)
      justDone.value = steps.value.find((c) => c.id === before.id && c.state === 'done');
  } catch (error) {
    if (!(error instanceof ApiProblem)) throw error;
    if (state.value === 'loading') state.value = 'failed';
    problem.value = error;
  }
}

function hear(event: ShopEvent): void {
  if (event.kind === 'head') {
    if (event.cutId !== now.value?.id) return;
    head.value = event;
    live.value = event;
  } else if (event.kind === 'cut' && event.cutterId === cutterId.value) void refresh();
}

watch(
  () => now.value?.id,
  async (id) => {
    head.value = undefined;
    if (id === undefined) return void (lines.value = undefined);
    const drawing = await call<Drawing>('GET', `/api/cuts/${id}/drawing`).catch(() => undefined);
    if (!drawing || now.value?.id !== id) return;
    const design = new Path2D();
    for (const ring of drawing.design) design.addPath(pathOfLine(ring, true));
    lines.value = { id, design, paths: drawing.lines.map((line) => pathOfLine(line, false)) };
  },
);

async function ask(path: string, body?: unknown): Promise<void> {
  if (!now.value || busy.value) return;
  busy.value = true;
  problem.value = undefined;
  try {
    await call('POST', `/api/cuts/${now.value.id}/${path}`, body);
  } catch (error) {
    if (!(error instanceof ApiProblem)) throw error;
    problem.value = error;
  } finally {
    busy.value = false;
    await refresh();
  }
}

const box = computed<Bounds>(() => ({
  minX: 0,
  minY: 0,
  maxX: now.value?.length ?? 400,
  maxY: now.value?.rollWidth ?? 300,
}));
const content = computed(() => [lines.value, linesDone.value, head.value, night.value, now.value?.state]);

function* draw(context: CanvasRenderingContext2D, scale: number): Generator<void> {
  const cut = now.value;
  if (!cut) return;
  const color = (name: string): string =>
    getComputedStyle(document.querySelector('.cutter-page')!).getPropertyValue(name);
  context.fillStyle = color('--card');
  context.strokeStyle = color('--rule');
  context.lineWidth = 1 / scale;
  context.fillRect(0, 0, cut.length, cut.rollWidth);
  context.strokeRect(0, 0, cut.length, cut.rollWidth);
  context.fillStyle = color('--rule-soft');
  context.fillRect(0, 0, cut.length, cut.rollerMargin);
  context.fillRect(0, cut.rollWidth - cut.rollerMargin, cut.length, cut.rollerMargin);
  context.translate(0, cut.rollerMargin);
  if (lines.value?.id === cut.id) {
    context.globalAlpha = 0.28;
    context.fillStyle = cut.film.colour;
    context.fill(lines.value.design);
    context.globalAlpha = 1;
    for (const [i, path] of lines.value.paths.entries()) {
      const done = i < linesDone.value;
      context.lineWidth = (done ? 2.4 : 1) / scale;
      context.strokeStyle = done ? color('--gooseberry') : color('--ink-soft');
      context.stroke(path);
      yield;
    }
  }
  if (head.value && cut.state !== 'wants-film') {
    const { x, y, down } = head.value;
    const r = 9 / scale;
    context.strokeStyle = color('--currant');
    context.lineWidth = 2 / scale;
    context.beginPath();
    context.arc(x, y, r, 0, 7);
    context.moveTo(x - 2 * r, y);
    context.lineTo(x + 2 * r, y);
    context.moveTo(x, y - 2 * r);
    context.lineTo(x, y + 2 * r);
    context.stroke();
    if (down) {
      context.fillStyle = color('--currant');
      context.beginPath();
      context.arc(x, y, r / 2.5, 0, 7);
      context.fill();
    }
  }
}

let forget: (() => void) | undefined;
onMounted(() => {
  forget = events.on(hear, () => void refresh());
  void refresh();
});
onBeforeUnmount(() => forget?.());
const isPast = (cut: Cut): boolean => cut.state === 'done';
</script>

<template>
  <div class="cutter-page" :class="{ 'by-night': night }">
    <aside aria-label="Steps">
      <div class="name">
        <h1>{{ cutter?.name ?? cutterId }}</h1>
        <button class="round" :aria-label="night ? 'Light colours' : 'Dark colours'" @click="night = !night">
          <Sun v-if="night" :size="20" /><Moon v-else :size="20" />
        </button>
      </div>
      <p v-if="now" class="soft">
        <router-link :to="{ name: 'order', params: { id: now.orderId } }">{{ now.orderName }}</router-link> ·
        <span class="number">#{{ now.orderNumber }}</span>
      </p>
      <ol>
        <li
          v-for="cut in steps.filter((c) => c.state !== 'cancelled')"
          :key="cut.id"
          :class="{ now: cut.id === now?.id, past: isPast(cut) }"
        >
          <span class="mark number">{{ isPast(cut) ? '✓' : cut.position }}</span>
          <span class="swatch" :style="{ '--film': cut.film.colour }"></span>
          <span class="step">
            <strong>{{ cut.film.name }}{{ cut.mirrored ? ', mirrored' : '' }}</strong>
            <small
              >{{ units.run(cut.length) }} · {{ cut.recipe.force }} g · {{ duration(cut.seconds)
              }}<template v-if="cut.deviation !== null">
                · within {{ cut.deviation.toFixed(3) }} mm</template
              ></small
            >
          </span>
        </li>
      </ol>
      <p v-if="mine.filter((c) => c.orderId !== now?.orderId).length" class="soft">
        {{ mine.filter((c) => c.orderId !== now?.orderId).length }} more cuts wait behind this order.
      </p>
      <div class="acts">
        <button
          v-if="now && (now.state === 'cutting' || now.state === 'stopping')"
          class="big stop"
          :disabled="now.state === 'stopping' || busy"
          @click="ask('stop')"
        >
          Stop
        </button>
        <button
          v-if="now && (now.state === 'wants-film' || now.state === 'stopped')"
          class="big"
          :disabled="busy"
          @click="ask('cancel')"
        >
          Leave this film out
        </button>
      </div>
    </aside>
    <section class="middle" aria-label="Now">
      <div class="say" aria-live="polite">
        <div>
          <h2>{{ state === 'loading' ? 'Asking the server' : sentence.big }}</h2>
          <p>{{ state === 'loading' ? 'One moment.' : sentence.small }}</p>
        </div>
        <button v-if="now?.state === 'wants-film'" class="big main" :disabled="busy" @click="ask('loaded')">
          {{ now.film.name }} is loaded
        </button>
        <div v-if="now?.state === 'stopped'" class="two">
          <button class="big main" :disabled="busy" @click="ask('resume', { from: 'next-line' })">
            Go on
          </button>
          <button class="big" :disabled="busy" @click="ask('resume', { from: 'start' })">
            Start this film again
          </button>
        </div>
        <router-link v-if="!now && state === 'ready'" class="button" to="/orders">To the orders</router-link>
      </div>
      <ProblemNote v-if="now?.problem" class="problem" :message="now.problem" @close="now.problem = null" />
      <ProblemNote
        v-else-if="problem"
        class="problem"
        :message="problem.message"
        @close="problem = undefined"
      />
      <progress
        v-if="now && (now.state === 'cutting' || now.state === 'stopping')"
        :value="share"
        :aria-label="`${Math.round(share * 100)} % cut`"
      ></progress>
      <StageCanvas
        v-if="now"
        class="film"
        label="The film in the machine"
        :box="box"
        :draw="draw"
        :content="content"
        :room="26"
      />
      <div v-else class="film"></div>
    </section>
    <aside class="numbers" aria-label="This cut">
      <template v-if="now">
        <h3>This cut</h3>
        <dl>
          <dt>Force</dt>
          <dd class="number">{{ now.recipe.force }} g</dd>
          <dt>Speed</dt>
          <dd class="number">{{ now.recipe.speed }} cm/s</dd>
          <dt>Blade</dt>
          <dd class="number">{{ now.recipe.blade }}</dd>
          <dt>Blade offset</dt>
          <dd class="number">{{ now.recipe.bladeOffset.toFixed(2) }} mm</dd>
          <dt>Overcut</dt>
          <dd class="number">{{ now.recipe.overcut.toFixed(1) }} mm</dd>
        </dl>
        <h3>On the film</h3>
        <dl>
          <dt>Roll</dt>
          <dd class="number">{{ units.length(now.rollWidth) }}</dd>
          <dt>Knife reaches</dt>
          <dd class="number">{{ units.length(now.cuttable) }}</dd>
          <dt>Copies</dt>
          <dd class="number">{{ now.copies }}</dd>
          <dt>Cut so far</dt>
          <dd class="number">{{ ((now.cutLength * share) / 1000).toFixed(2) }} m</dd>
          <dt>To go</dt>
          <dd class="number">{{ ((now.cutLength * (1 - share)) / 1000).toFixed(2) }} m</dd>
          <dt>Head</dt>
          <dd class="number">
            {{ head ? `${units.number(head.x)}, ${units.number(head.y)}` : 'not moving' }}
          </dd>
        </dl>
      </template>
      <template v-if="justDone">
        <h3>{{ justDone.film.name }} is done</h3>
        <p v-if="justDone.deviation !== null">
          The blade kept within <b class="number">{{ justDone.deviation.toFixed(3) }} mm</b> of the design.
        </p>
        <router-link :to="{ name: 'order', params: { id: justDone.orderId } }">See it as cut</router-link>
      </template>
    </aside>
  </div>
</template>

<style scoped>
.cutter-page {
  display: grid;
  grid-template-columns: 300px minmax(0, 1fr) 270px;
  height: 100%;
  color: var(--ink);
  background: var(--card);
}
aside {
  display: flex;
  flex-direction: column;
  gap: 10px;
  min-height: 0;
  padding: 14px 16px;
  overflow-y: auto;
}
aside p {
  margin: 0;
}
.name {
  display: flex;
  justify-content: space-between;
  align-items: center;
}
h1 {
  font-size: 24px;
}
.round {
  display: grid;
  place-items: center;
  width: 44px;
  height: 44px;
  border: 0;
  border-radius: 50%;
  background: none;
}
ol {
  display: grid;
  gap: 6px;
  margin: 0;
  padding: 0;
  list-style: none;
}
li {
  display: flex;
  align-items: center;
  gap: 10px;
  min-height: 52px;
  padding: 6px 10px;
  border-radius: var(--radius-card);
}
li.now {
  background: var(--damson-soft);
  outline: var(--line) solid var(--damson);
}
.mark {
  display: grid;
  place-items: center;
  flex: none;
  width: 25px;
  height: 25px;
  font-size: 13px;
  border: var(--line) solid var(--ink);
  border-radius: 50%;
}
.past .mark {
  background: var(--gooseberry);
  border-color: var(--gooseberry);
  color: var(--card);
}
.step {
  display: grid;
  line-height: 1.3;
}
.step small {
  font-size: 13px;
  color: var(--ink-soft);
}
.acts {
  display: grid;
  gap: 10px;
  margin-top: auto;
}
.big {
  min-height: 52px;
  padding: 0 22px;
  font-size: 17px;
  font-weight: 700;
  color: var(--ink);
  background: var(--card);
  border: var(--line) solid var(--ink);
  border-radius: var(--radius-label);
}
.big.main {
  color: var(--card);
  background: var(--damson);
  border-color: var(--damson);
}
.big.stop {
  color: #fffdf7;
  background: #b3263a;
  border-color: #b3263a;
}
.big:disabled {
  opacity: 0.55;
}
.middle {
  display: flex;
  flex-direction: column;
  min-height: 0;
  border: solid var(--ink);
  border-width: 0 var(--line);
  background: var(--bench);
}
.say {
  display: flex;
  align-items: center;
  justify-content: space-between;
  gap: 20px;
  min-height: 98px;
  padding: 14px 20px;
  background: var(--card);
  border-bottom: var(--line) solid var(--ink);
}
.say h2 {
  font-size: 29px;
}
.say p {
  margin: 5px 0 0;
  color: var(--ink-soft);
}
.two {
  display: flex;
  gap: 10px;
  flex-wrap: wrap;
}
.problem {
  margin: 12px 16px 0;
}
progress {
  width: 100%;
  height: 8px;
  appearance: none;
  border: 0;
  background: var(--rule-soft);
}
progress::-webkit-progress-bar {
  background: var(--rule-soft);
}
progress::-webkit-progress-value {
  background: var(--gooseberry);
}
.film {
  flex: 1;
  min-height: 0;
}
.numbers h3 {
  font-size: 17px;
  margin-top: 4px;
}
.numbers dl {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 7px 10px;
  margin: 0 0 12px;
}
.numbers dt {
  color: var(--ink-soft);
}
.numbers dd {
  margin: 0;
  font-weight: 700;
  text-align: right;
}
a {
  color: var(--damson);
}
</style>
