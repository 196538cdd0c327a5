<script setup lang="ts">
/** For the tablet beside one machine: what to do now, what the knife is doing, what comes next. */
import { ChevronLeft } from '@lucide/vue';
import { useLocalStorage } from '@vueuse/core';
import { computed, ref, shallowRef, watch } from 'vue';
import { useRoute } from 'vue-router';
import type { Cut } from '../../../contracts/cuts';
import { isInLane } from '../../../contracts/floor';
import type { Spot } from '../../../core/geometry/spot';
import type { Shop } from '../../../core/plan/shop';
import { useCutters } from '../../stores/cutters';
import { useMe } from '../../stores/me';
import { ONE_OR_NOUGHT } from '../../stores/remembered';
import { useOutdated } from '../../stores/outdated';
import { useShopNow } from '../../stores/shopNow';
import { useUnits } from '../../stores/units';
import OutdatedNote from '../../parts/OutdatedNote.vue';
import ProblemNote from '../../parts/ProblemNote.vue';
import { answersOf } from '../cutters/asks';
import ByHand from './ByHand.vue';
import CutAgain from './CutAgain.vue';
import GoOnAt from './GoOnAt.vue';
import FilmNow from './FilmNow.vue';
import FilmSlipped from './FilmSlipped.vue';
import CutNumbers from './CutNumbers.vue';
import CutSteps from './CutSteps.vue';
import PageLooks from './PageLooks.vue';
import SheetCode from './SheetCode.vue';
import WhatNow from './WhatNow.vue';
import { nudgedText } from './nudgedText';
import { sentenceFor } from './sentence';
import { useMachine } from './useMachine';

const NIGHT_KEY = 'jam-pan-night';
const route = useRoute();
const units = useUnits();
const me = useMe();
const machines = useCutters();
const cutterId = computed(() => String(route.params.id));
const { now, ofOrder, justDone, head, linesDone, secondsDone, lines, busy, problem, say, resume, onNewFilm } =
  useMachine(cutterId);
const shop = shallowRef<Shop>();
const take = (is: Shop): void => void (shop.value = is);
useShopNow(take, take);
/** Asked before it begins: it is of an earlier state of its order, or of the shop. */
const outdated = useOutdated(() => (now.value ? [now.value] : []));
const asked = computed(() =>
  outdated.all.value.find(({ cuts }) => cuts.some(({ id }) => id === now.value?.id)),
);
watch(problem, (met) => void (met?.code === 'outdated' && outdated.askAgain()));
/** What a press here met, or why nothing is known. */
const trouble = computed(() => problem.value ?? machines.problem);
const night = useLocalStorage(NIGHT_KEY, false, ONE_OR_NOUGHT);

const cutter = computed(() => shop.value?.cutters.find((c) => c.id === cutterId.value));
const filmNow = computed(() => shop.value?.films.find(({ id }) => id === now.value?.film.id));
/** It lies flat: there is no roll behind it. */
const isFlat = ({ sheet }: Cut): boolean => cutter.value?.kind === 'flatbed' || sheet !== null;
/** Marks of a sheet are taken by hand: as a person chose, and where there is no sensor. */
const wantsHand = ref(false);
const byHand = computed(
  () =>
    Boolean(now.value?.sheet) && (wantsHand.value || (cutter.value !== undefined && !cutter.value.sensor)),
);
/** What the machine itself answers. */
const own = computed(() => machines.states.find(({ id }) => id === cutterId.value));
/** Cut when it was ordered once before, it is no step any more. */
const isOfToday = ({ state, endedAt }: Cut): boolean =>
  state !== 'done' || endedAt === null || Date.now() - Date.parse(endedAt) < A_SHIFT_MS;
const A_SHIFT_MS = 16 * 3_600_000;
/** Those of the order that this machine makes, as its steps. */
const steps = computed(() =>
  ofOrder.value.filter(
    (cut) => cut.state !== 'cancelled' && cut.cutterId === cutterId.value && isOfToday(cut),
  ),
);
/** Of whose order the steps are: what is here, or what was cut last. */
const whose = computed(() => now.value ?? (steps.value.length > 0 ? justDone.value : undefined));
const behind = computed(
  () =>
    machines.cuts.filter(
      (cut) => cut.cutterId === cutterId.value && isInLane(cut) && cut.orderId !== now.value?.orderId,
    ).length,
);
const share = computed(() =>
  now.value && now.value.seconds > 0 ? secondsDone.value / now.value.seconds : 0,
);
const sentence = computed(() =>
  sentenceFor(
    now.value,
    secondsDone.value,
    linesDone.value,
    units,
    cutter.value?.device.sendsForce === false,
  ),
);

/** The last one of the same film here, if that was nudged and its recipe does not have it. */
const nudgedBefore = computed(() => {
  const before = steps.value.findLast(
    ({ state, film }) => state === 'done' && film.id === now.value?.film.id,
  );
  return before && before.nudgesKept !== true && nudgedText(before) ? before : undefined;
});

/** A stopped cut of which some is on the film; one that says nothing cannot be asked where its head is. */
const canHaveSlipped = computed(
  () =>
    now.value?.state === 'stopped' && now.value.linesDone > 0 && !now.value.isReckoned && me.may('operator'),
);
const hasSlipped = ref(false);
/** The corner that the head is put over next, mm on the strip. */
const corner = shallowRef<Spot>();
async function slippedDone(): Promise<void> {
  hasSlipped.value = false;
  corner.value = undefined;
  await machines.fetchCuts();
}

/** The cut of which something is cut again. */
const spoilt = shallowRef<Cut>();
async function againDone(): Promise<void> {
  spoilt.value = undefined;
  await machines.fetchCuts();
}

/** What a person is wanted for. */
const asks = computed(() =>
  now.value?.state === 'wants-film' || now.value?.state === 'stopped' ? sentence.value.big : undefined,
);

/** A sheet waits here, or might be brought to an idle machine that reads its marks. */
const takesSheets = computed(() =>
  now.value
    ? machines.cuts.some((cut) => cut.cutterId === cutterId.value && cut.sheet !== null)
    : Boolean(cutter.value?.sensor),
);

/** Reading a sheet's marks takes a while too. */
const canStop = ({ state, sheet }: Cut): boolean =>
  state === 'cutting' || state === 'stopping' || (state === 'checking' && sheet !== null);
</script>

<template>
  <div class="cutter-page" :class="{ 'by-night': night }">
    <aside aria-label="Steps">
      <div class="name">
        <router-link class="others" to="/cutters" aria-label="All machines"
          ><ChevronLeft :size="22"
        /></router-link>
        <h1>{{ cutter?.name ?? cutterId }}</h1>
      </div>
      <PageLooks v-model:night="night" :asks="asks" />
      <p v-if="whose" class="soft">
        <router-link :to="{ name: 'order', params: { id: whose.orderId } }">{{
          whose.orderName
        }}</router-link>
        ·
        <span class="number">#{{ whose.orderNumber }}</span>
        <template v-for="one in whose.shares.slice(1)" :key="one.orderId">
          · with
          <router-link :to="{ name: 'order', params: { id: one.orderId } }"
            ><span class="number">#{{ one.orderNumber }}</span> {{ one.orderName }}</router-link
          >
        </template>
      </p>
      <p v-if="own" class="soft">
        {{ answersOf(own, units) }}
        <a v-if="own.panel" :href="own.panel" target="_blank" rel="noopener">Front panel</a>
      </p>
      <CutSteps :steps="steps" :now="now?.id" :can-again="me.may('operator')" @again="spoilt = $event" />
      <SheetCode v-if="takesSheets && me.may('operator')" :cutter="cutterId" @problem="problem = $event" />
      <p v-if="behind" class="soft">
        {{ behind === 1 ? '1 more cut waits' : `${behind} more cuts wait` }} behind this order.
      </p>
      <button
        v-if="me.me && me.tablet === undefined && me.may('operator')"
        class="link"
        @click="me.becomeTablet(cutterId)"
      >
        Make this the tablet of {{ cutter?.name ?? cutterId }}
      </button>
      <div class="acts">
        <button
          v-if="now && canStop(now)"
          class="big stop"
          :disabled="now.state === 'stopping' || busy"
          @click="say('stop')"
        >
          Stop
        </button>
        <button
          v-if="now && (now.state === 'wants-film' || now.state === 'stopped')"
          class="big"
          :disabled="busy"
          @click="say('cancel')"
        >
          {{ now.sheet ? 'Leave this sheet out' : 'Leave this film out' }}
        </button>
      </div>
    </aside>
    <section class="middle" aria-label="Now">
      <WhatNow
        :ready="machines.ready"
        :sentence="sentence"
        :now="now"
        :busy="busy"
        :outdated="asked !== undefined"
        :has-sensor="Boolean(cutter?.sensor)"
        :by-hand="byHand"
        :can-have-slipped="canHaveSlipped"
        @loaded="say('loaded')"
        @resume="resume"
        @by-hand="wantsHand = !wantsHand"
        @slipped="hasSlipped = !hasSlipped"
      />
      <OutdatedNote
        v-if="asked && now?.state === 'wants-film'"
        large
        class="changed"
        :outdated="asked"
        :busy="busy || outdated.isBusy.value"
        :problem="outdated.problem.value?.message"
        @replace="outdated.replace(asked)"
        @keep="outdated.keep(asked)"
      />
      <ByHand
        v-else-if="now?.sheet && now.state === 'wants-film' && byHand && me.may('operator')"
        :key="now.id"
        :cut="now"
        @problem="problem = $event"
      />
      <ProblemNote
        v-if="trouble"
        class="problem"
        :message="trouble.message"
        @close="problem = machines.problem = undefined"
      />
      <ProblemNote
        v-else-if="now?.problem"
        class="problem"
        :message="now.problem"
        @close="now.problem = null"
      />
      <FilmSlipped
        v-if="now && lines && canHaveSlipped && hasSlipped"
        :key="now.id"
        :cut="now"
        :drawn="lines.made"
        @problem="problem = $event"
        @mark="corner = $event"
        @close="slippedDone"
      />
      <GoOnAt
        v-else-if="now?.state === 'stopped' && me.may('operator') && now.linesSent > 0"
        :key="`${now.id} ${now.linesDone}`"
        :cut="now"
        :film="filmNow"
        :busy="busy"
        @go-on="resume"
        @new-film="onNewFilm"
      />
      <progress
        v-if="now && (now.state === 'cutting' || now.state === 'stopping')"
        :value="share"
        :aria-label="`${Math.round(share * 100)} % cut`"
      ></progress>
      <CutAgain
        v-if="spoilt"
        :key="spoilt.id"
        class="film"
        :cut="spoilt"
        :is-flat="isFlat(spoilt)"
        @done="againDone"
        @problem="problem = $event"
      />
      <FilmNow
        v-else-if="now"
        class="film"
        :cut="now"
        :is-flat="isFlat(now)"
        :lines="lines"
        :head="head"
        :night="night"
        :corner="hasSlipped && canHaveSlipped ? corner : undefined"
      />
      <div v-else class="film"></div>
    </section>
    <CutNumbers
      class="numbers"
      :cutter="cutter"
      :cut="now"
      :just-done="justDone"
      :nudged-before="nudgedBefore"
      :share="share"
      :head="head"
      @answered="justDone = $event"
    />
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
.others {
  display: grid;
  place-items: center;
  width: 44px;
  height: 44px;
  margin-left: -12px;
}
.name h1 {
  flex: 1;
}
.acts {
  display: grid;
  gap: 10px;
  margin-top: auto;
}
.big.stop {
  color: #fffdf7;
  background: #b3263a;
  border-color: #b3263a;
}
.middle {
  display: flex;
  flex-direction: column;
  min-height: 0;
  overflow-y: auto;
  border: solid var(--ink);
  border-width: 0 var(--line);
  background: var(--bench);
}
.problem,
.changed {
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
/* where much is asked above the film, it is scrolled to: nothing is squeezed */
.middle > * {
  flex-shrink: 0;
}
.film {
  flex: 1 0 240px;
  min-height: 0;
}
a {
  color: var(--damson);
}
/* the tablet upright: what to do and the film over the whole width, steps and numbers beneath */
@media (orientation: portrait) and (max-width: 1000px) {
  .cutter-page {
    grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
    grid-template-rows: minmax(0, 1fr) auto;
  }
  .middle {
    grid-area: 1 / 1 / 2 / 3;
    border-width: 0 0 var(--line);
  }
  aside {
    max-height: 42vh;
  }
  .numbers {
    border-left: var(--line) solid var(--ink);
  }
}
</style>
