<script setup lang="ts">
/** The whole job in the order people work: one section open at a time, each with its answer in a line. */
import { computed, nextTick, useTemplateRef, watch } from 'vue';
import { saidOnce } from '../../../core/findings/together';
import type { Spot } from '../../../core/geometry/spot';
import { useOrder } from '../../stores/order';
import ArtworkSection from './ArtworkSection.vue';
import CutSection from './CutSection.vue';
import CutterSection from './CutterSection.vue';
import FilmsSection from './FilmsSection.vue';
import LayoutSection from './LayoutSection.vue';
import PanelsSection from './PanelsSection.vue';
import PrintSection from './PrintSection.vue';
import RunCardFoot from './RunCardFoot.vue';
import RunCardHead from './RunCardHead.vue';
import type { SectionName } from './runCardSections';
import { STATE_WORD, useSections } from './runCardSections';

const section = defineModel<SectionName>('section', { required: true });
const film = defineModel<string | undefined>('film');
const emit = defineEmits<{
  queue: [];
  hold: [];
  reorder: [colours: string[]];
  recut: [film: string, own: boolean];
  panel: [number: number];
  sheet: [number: number];
}>();
const store = useOrder();
const plan = computed(() => store.plan);
const { sections, findingsOf, stateOf } = useSections();
/** What is opened begins where it can be seen: what was open above it has closed, and all of it has moved up. */
const all = useTemplateRef('all');
watch(section, async () => {
  await nextTick();
  all.value?.querySelector('.open h2')?.scrollIntoView({ block: 'nearest' });
});
/** Where a heading was pressed, px. */
let pressedAt: Spot = [0, 0];
/** Presses that a click without a pointer is of (UI Events, `detail` of a click). */
const BY_KEYS = 0;
/** px that a pointer moves over between press and release without having left. */
const STILL = 8;
/** A heading that moves away while a plan comes in, between press and release, is pressed all the same. */
function press({ currentTarget, pointerId, clientX, clientY }: PointerEvent): void {
  (currentTarget as Element).setPointerCapture(pointerId);
  pressedAt = [clientX, clientY];
}
/** What was pressed elsewhere, such as an option that lay over it, is no press of it. */
function release({ currentTarget, pointerId, clientX, clientY }: PointerEvent, name: SectionName): void {
  const isOwn = (currentTarget as Element).hasPointerCapture(pointerId);
  if (isOwn && Math.hypot(clientX - pressedAt[0], clientY - pressedAt[1]) <= STILL) section.value = name;
}
</script>

<template>
  <aside class="card" aria-label="Run card">
    <RunCardHead />
    <div ref="all" class="sections">
      <section v-for="(s, i) in sections" :key="s.name" :class="{ open: section === s.name }">
        <h2>
          <button
            :aria-expanded="section === s.name"
            @pointerdown="press"
            @pointerup="release($event, s.name)"
            @click="$event.detail === BY_KEYS && (section = s.name)"
          >
            <span class="step number">{{ i + 1 }}</span>
            <span class="name">{{ s.title }}</span>
            <span class="answer number">{{ s.answer }}</span>
            <span
              class="dot"
              :class="stateOf(s.name)"
              role="img"
              :aria-label="STATE_WORD[stateOf(s.name)]"
            ></span>
          </button>
        </h2>
        <div v-if="section === s.name && plan && store.choices" class="body">
          <ArtworkSection v-if="s.name === 'artwork'" />
          <FilmsSection
            v-else-if="s.name === 'films'"
            v-model:film="film"
            @reorder="emit('reorder', $event)"
            @recut="(id, own) => emit('recut', id, own)"
          />
          <PanelsSection v-else-if="s.name === 'panels'" @again="emit('panel', $event)" />
          <LayoutSection v-else-if="s.name === 'layout'" />
          <PrintSection v-else-if="s.name === 'print'" @again="emit('sheet', $event)" />
          <CutSection v-else-if="s.name === 'cut'" v-model:film="film" />
          <CutterSection v-else />
          <template v-if="s.name !== 'artwork'">
            <p
              v-for="({ finding, alsoFilms }, k) in saidOnce(findingsOf(s.name))"
              :key="k"
              class="finding"
              :class="finding.severity"
            >
              {{ finding.message }}
              <template v-if="alsoFilms.length">The same for {{ alsoFilms.join(', ') }}.</template>
            </p>
          </template>
        </div>
      </section>
    </div>
    <RunCardFoot @queue="emit('queue')" @hold="emit('hold')" />
  </aside>
</template>

<style scoped>
.card {
  display: grid;
  grid-template-rows: auto minmax(0, 1fr) auto;
  min-height: 0;
  background: var(--card);
  border-right: var(--line) solid var(--ink);
}
.sections {
  overflow-y: auto;
}
section:not(.fold) {
  border-bottom: 1px solid var(--rule);
}
section.open {
  background: var(--paper);
}
h2 {
  font-size: 16px;
}
h2 button {
  display: flex;
  align-items: center;
  gap: 9px;
  width: 100%;
  padding: 8px 14px 8px 16px;
  border: 0;
  background: none;
  text-align: left;
}
h2 button:focus-visible {
  outline-offset: -3px;
}
.step {
  display: grid;
  place-items: center;
  width: 22px;
  height: 22px;
  font-size: 13px;
  border: var(--line) solid var(--ink);
  border-radius: 50%;
}
.open .step {
  background: var(--damson);
  border-color: var(--damson);
  color: var(--card);
}
.name {
  flex: 1;
  font: 680 16px/1.3 var(--heading);
}
.answer {
  font-size: 13px;
  font-weight: 400;
  color: var(--ink-soft);
}
.dot {
  width: 10px;
  height: 10px;
  border-radius: 50%;
  background: var(--gooseberry);
}
.dot.check {
  background: var(--quince);
  border-radius: 2px;
  transform: rotate(45deg);
}
.dot.stop {
  background: var(--currant);
  border-radius: 2px;
}
.dot.none {
  background: none;
  border: 1px solid var(--rule);
}
.body {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 9px;
  padding: 2px 16px 14px;
}
.body :deep(.row) {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  justify-content: space-between;
  gap: 10px;
  min-height: 31px;
}
.body :deep(.small) {
  min-height: 28px;
  padding: 0 9px;
  gap: 5px;
  font-size: 13.5px;
}
.body :deep(.hint) {
  margin: 0;
  font-size: 13px;
  color: var(--ink-soft);
}
.finding {
  margin: 0;
  padding: 6px 10px;
  font-size: 13.5px;
  line-height: 1.35;
  background: var(--card);
  border-left: 3px solid var(--bilberry);
}
.finding.check {
  border-color: var(--quince);
}
.finding.stop {
  border-color: var(--currant);
}
</style>
