<script setup lang="ts">
/** All cutters with what they cut now and next, on one time axis; below, what waits on the shelf. */
import { useElementSize, useEventListener } from '@vueuse/core';
import { computed, nextTick, ref, useTemplateRef } from 'vue';
import type { Cut } from '../../../contracts/cuts';
import type { Join } from '../../../contracts/floor';
import { isUnbegun } from '../../../contracts/floor';
import { SWAP_SECONDS } from '../../../core/floor/lane';
import ChoiceField from '../../parts/ChoiceField.vue';
import { clock } from '../../parts/clock';
import ProblemNote from '../../parts/ProblemNote.vue';
import { useKnives } from '../../stores/knives';
import { useMe } from '../../stores/me';
import { duration } from '../../stores/units';
import CutCard from './CutCard.vue';
import OutdatedNotes from './OutdatedNotes.vue';
import FewestSwapsNote from './FewestSwapsNote.vue';
import FloorAsks from './FloorAsks.vue';
import JoinsNote from './JoinsNote.vue';
import FloorShelf from './FloorShelf.vue';
import LaneHead from './LaneHead.vue';
import LaneTrack from './LaneTrack.vue';
import type { Target } from './useDragging';
import { useDragging } from './useDragging';
import { useFloor } from './useFloor';
import { SPAN_OPTIONS, useTimeAxis } from './useTimeAxis';

const me = useMe();
const floor = useFloor();
useKnives().follow();
const { lanes, shelf, now, problem, proposals, joins } = floor;
const outdated = computed(() => floor.outdated.all.value);
/** Cuts that would be cut otherwise by now. */
const old = computed(() => new Set(outdated.value.flatMap(({ cuts }) => cuts.map(({ id }) => id))));
const told = ref('');
const CHANGES_TAKE = Object.entries(SWAP_SECONDS)
  .map(([swap, seconds]) => `${duration(seconds)} for ${swap}`)
  .join(', ');

const track = useTemplateRef('track');
const { width } = useElementSize(track);
const { span, blocks: all, end, length, x, ticks, told: times } = useTimeAxis(lanes, now, width);

const summary = computed(() => {
  const swaps = all.value.reduce((sum, { swaps: { length } }) => sum + length, 0);
  const late = all.value.filter(({ isLate }) => isLate).length;
  const many = (count: number, one: string): string => `${count} ${one}${count === 1 ? '' : 's'}`;
  return [
    many(lanes.value.length, 'cutter'),
    ...(all.value.length > 0
      ? [`last cut ends ${clock(new Date(now.value.getTime() + 1000 * end.value))}`, many(swaps, 'change')]
      : ['nothing to cut']),
    ...(late > 0 ? [`${late} late`] : []),
  ].join(' · ');
});

const pickedId = ref<number>();
const cutNow = (id: number | undefined): Cut | undefined =>
  all.value.find(({ cut }) => cut.id === id)?.cut ?? shelf.value.find((cut) => cut.id === id);
const picked = computed(() => cutNow(pickedId.value));
const cutters = computed(() => lanes.value.map(({ cutter }) => cutter));
const nameOf = (id: string): string => cutters.value.find((one) => one.id === id)?.name ?? id;

async function put(cut: Cut, target: Target): Promise<void> {
  if (target === 'shelf') {
    if (cut.state !== 'held') await floor.hold(cut);
    return;
  }
  const cutter = cutters.value.find(({ id }) => id === target.lane)!;
  const why = floor.refusal(cut, cutter);
  if (why) return void (told.value = why);
  if (await floor.move(cut, target.lane, target.before)) told.value = `Put at ${cutter.name}.`;
}
const { dragged, press } = useDragging((cut, target) => void put(cut, target));
const refused = computed(() => {
  const { cut, target } = dragged.value ?? {};
  if (!cut || !target || target === 'shelf') return undefined;
  const cutter = cutters.value.find(({ id }) => id === target.lane);
  return cutter && floor.refusal(cut, cutter);
});
const gapIn = (lane: string): number | null | undefined => {
  const target = dragged.value?.target;
  return target && target !== 'shelf' && target.lane === lane && !refused.value ? target.before : undefined;
};

/** What lies on one strip is picked, as it is one thing to look after now. */
async function join(one: Join): Promise<void> {
  const made = await floor.join(one);
  if (!made) return;
  pickedId.value = made.id;
  told.value = `Joined on one strip: ${made.shares.map(({ orderNumber }) => `#${orderNumber}`).join(', ')}.`;
}

async function joinAll(cut: Cut): Promise<void> {
  const group = floor.groupOf(cut);
  if (group.length > 0) await floor.tryJoin(group);
  else told.value = `No other order waits for ${cut.film.name} here.`;
}

/** To the next lane up or down that there is; it may refuse. */
async function changeLane(cut: Cut, by: -1 | 1): Promise<void> {
  const at = cutters.value.findIndex(({ id }) => id === cut.cutterId);
  const to = cutters.value[at + by];
  if (to) await put(cut, { lane: to.id, before: null });
}
const KEYS: Readonly<Record<string, (cut: Cut) => Promise<unknown>>> = {
  ArrowLeft: (cut) => floor.shift(cut, -1),
  ArrowRight: (cut) => floor.shift(cut, 1),
  ArrowUp: (cut) => changeLane(cut, -1),
  ArrowDown: (cut) => changeLane(cut, 1),
  j: (cut) => joinAll(cut),
  h: (cut) => (cut.state === 'held' ? floor.release(cut) : floor.hold(cut)),
};
/** One key after the other, each once what the one before did is seen: however fast a hand is, none is lost. */
let acting: Promise<unknown> = Promise.resolve();
function onKey(cut: Cut, event: KeyboardEvent): void {
  const act = KEYS[event.key];
  if (!act || event.ctrlKey || event.metaKey || event.altKey) return;
  if (event.key !== 'h' && !me.may('operator')) return;
  event.preventDefault();
  pickedId.value = cut.id;
  acting = acting.then(() => actOn(cut.id, act));
}
async function actOn(id: number, act: (cut: Cut) => Promise<unknown>): Promise<void> {
  const cut = cutNow(id);
  if (!cut || !isUnbegun(cut)) return;
  await act(cut);
  await nextTick();
  // it is another element in another lane
  document.querySelector<HTMLElement>(`[data-cut="${id}"]`)?.focus();
}
// one that was moved may have lost the focus on the way: the next key is for it still
useEventListener('keydown', (event) => {
  if (picked.value && event.target === document.body) onKey(picked.value, event);
});
const mayDrag = (cut: Cut, event: PointerEvent): void => void (me.may('operator') && press(cut, event));
</script>

<template>
  <div class="floor">
    <header>
      <h1>Floor</h1>
      <span class="soft" role="status">{{ floor.ready.value ? summary : 'Asking the server' }}</span>
      <label class="seen"
        >Seen
        <ChoiceField
          label="How much time is seen at once"
          :value="span"
          :options="SPAN_OPTIONS"
          @change="span = $event"
      /></label>
      <template v-if="me.may('operator')">
        <button class="button" @click="floor.lookForFewer()">Fewest swaps</button>
        <button class="button" @click="floor.lookForJoins()">Join cuts</button>
        <button v-if="!floor.floor.value.paused" class="button" @click="floor.pause()">Pause all</button>
      </template>
    </header>
    <div v-if="floor.floor.value.paused" class="paused" role="status">
      <strong>All machines are paused.</strong> Nothing begins until they go on.
      <button v-if="me.may('operator')" class="button main" @click="floor.goOn()">Go on</button>
    </div>
    <ProblemNote
      v-if="problem"
      :message="problem.message"
      :ways-out="problem.waysOut"
      @close="problem = undefined"
    />
    <OutdatedNotes v-if="outdated.length > 0" :outdated="floor.outdated" />
    <FewestSwapsNote
      v-if="proposals"
      :proposals="proposals"
      :name-of="nameOf"
      @accept="floor.accept"
      @close="proposals = undefined"
    />

    <JoinsNote v-if="joins" :joins="joins" :name-of="nameOf" @accept="join" @close="joins = undefined" />

    <div class="lanes">
      <div class="heads">
        <div class="corner"></div>
        <LaneHead v-for="lane in lanes" :key="lane.cutter.id" :lane="lane" class="lane" />
      </div>
      <div ref="track" class="scroll">
        <div class="time" :style="{ width: `${length}px` }">
          <div class="axis" aria-hidden="true">
            <span
              v-for="tick in times"
              :key="tick.getTime()"
              class="number"
              :style="{ left: `${x(tick)}px` }"
              >{{ clock(tick) }}</span
            >
          </div>
          <i
            v-for="tick in ticks"
            :key="tick.getTime()"
            class="tick"
            :style="{ left: `${x(tick)}px` }"
            aria-hidden="true"
          ></i>
          <LaneTrack
            v-for="lane in lanes"
            :key="lane.cutter.id"
            class="lane"
            :class="{
              refuses: refused && dragged?.target !== 'shelf' && dragged?.target?.lane === lane.cutter.id,
            }"
            :data-lane="lane.cutter.id"
            :lane="lane"
            :x="x"
            :now="now"
            :picked="pickedId"
            :old="old"
            :gap="gapIn(lane.cutter.id)"
            @press="mayDrag"
            @pick="pickedId = $event.id"
            @key="onKey"
          />
          <i class="now" :style="{ left: `${x(now)}px` }" aria-hidden="true"></i>
        </div>
      </div>
    </div>

    <CutCard
      v-if="picked"
      :cut="picked"
      :cutters="cutters"
      :refusal="floor.refusal"
      :group="floor.groupOf(picked)"
      @join="floor.tryJoin($event)"
      @part="floor.part(picked)"
      @shift="floor.shift(picked, $event)"
      @to="put(picked, { lane: $event, before: null })"
      @hold="floor.hold(picked)"
      @release="floor.release(picked)"
      @take-back="floor.takeBack(picked)"
      @close="pickedId = undefined"
    />
    <FloorAsks v-if="!floor.floor.value.paused" :lanes="lanes" @loaded="floor.loaded" />
    <p class="told" role="status">{{ told }}</p>
    <FloorShelf
      :cuts="shelf"
      :picked="pickedId"
      :old="old"
      :is-target="dragged?.target === 'shelf'"
      @press="mayDrag"
      @pick="pickedId = $event.id"
      @key="onKey"
    />
    <p class="soft keys">
      On a cut: <kbd>←</kbd> <kbd>→</kbd> earlier and later, <kbd>↑</kbd> <kbd>↓</kbd> another cutter,
      <kbd>h</kbd> to the shelf and back, <kbd>j</kbd> joined with all of its film. A change is reckoned with
      {{ CHANGES_TAKE }}.
    </p>
    <div v-if="dragged" class="ghost" :style="{ left: `${dragged.x + 12}px`, top: `${dragged.y + 10}px` }">
      <strong>{{ dragged.cut.orderName }}</strong>
      <span v-if="refused" class="why">{{ refused }}</span>
    </div>
  </div>
</template>

<style scoped>
.floor {
  display: grid;
  align-content: start;
  gap: 12px;
  padding: 14px 16px 20px;
}
header {
  display: flex;
  gap: 12px;
  align-items: center;
}
h1 {
  font-size: 24px;
}
.seen {
  display: flex;
  gap: 8px;
  align-items: center;
  margin-left: auto;
  font-size: 14px;
}
.paused {
  display: flex;
  gap: 10px;
  align-items: center;
}
.paused {
  padding: 8px 14px;
  background: var(--currant-soft);
  border: var(--line) solid var(--currant);
  border-radius: var(--radius-label);
}
.paused .button {
  margin-left: auto;
}
.lanes {
  display: grid;
  grid-template-columns: 232px minmax(0, 1fr);
  overflow: hidden;
  background: var(--card);
  border: var(--line) solid var(--ink);
  border-radius: var(--radius-label);
}
.corner {
  height: 30px;
}
.lane {
  height: 92px;
  border-top: var(--line) solid var(--rule-soft);
}
.lane.refuses {
  background: var(--currant-soft);
}
.scroll {
  overflow-x: auto;
}
.time {
  position: relative;
}
.axis {
  position: relative;
  height: 30px;
}
.axis span {
  position: absolute;
  top: 7px;
  font-size: 12.5px;
  color: var(--ink-soft);
  transform: translateX(-50%);
}
.tick,
.now {
  position: absolute;
  top: 28px;
  bottom: 0;
  width: 0;
  border-left: 1px dotted var(--rule);
  pointer-events: none;
}
.now {
  border-left: 2px solid var(--currant);
}
.now::before {
  content: '';
  position: absolute;
  top: -5px;
  left: -6px;
  width: 10px;
  height: 10px;
  background: var(--currant);
  border-radius: 50%;
}
.told {
  min-height: 0;
  margin: 0;
}
.told:empty {
  display: none;
}
.keys {
  margin: 0;
  font-size: 13.5px;
}
.ghost {
  position: fixed;
  z-index: 30;
  display: grid;
  max-width: 300px;
  padding: 6px 12px;
  background: var(--card);
  border: var(--line) solid var(--ink);
  border-radius: var(--radius-card);
  pointer-events: none;
}
.why {
  font-size: 13.5px;
  color: var(--currant);
}
</style>
