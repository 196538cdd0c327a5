<script lang="ts">
export type SectionName = 'artwork' | 'films' | 'layout' | 'cut' | 'cutter';
</script>

<script setup lang="ts">
/** The whole job in the order people work: one section open at a time, each with its answer in a line. */
import { computed } from 'vue';
import type { Finding } from '../../../core/findings/finding';
import DatePicker from 'primevue/datepicker';
import { saidOnce } from '../../../core/findings/together';
import { atWhichCutter } from '../../parts/atWhichCutter';
import DraftField from '../../parts/DraftField.vue';
import { useOrder } from '../../stores/order';
import { duration, useUnits } from '../../stores/units';
import ArtworkSection from './ArtworkSection.vue';
import CutSection from './CutSection.vue';
import CutterSection from './CutterSection.vue';
import FilmsSection from './FilmsSection.vue';
import LayoutSection from './LayoutSection.vue';

const section = defineModel<SectionName>('section', { required: true });
const film = defineModel<string | undefined>('film');
const emit = defineEmits<{ queue: []; reorder: [colours: string[]]; recut: [film: string] }>();
const store = useOrder();
const units = useUnits();

const homeOf = ({ stage }: Finding): SectionName => stage ?? 'artwork';

const plan = computed(() => store.plan);
const count = (n: number, one: string, many = `${one}s`): string => `${n} ${n === 1 ? one : many}`;
const sections = computed<readonly { name: SectionName; title: string; answer: string }[]>(() => {
  const p = plan.value;
  const copies = store.choices?.layout.copies ?? 1;
  return [
    {
      name: 'artwork',
      title: 'Artwork',
      answer: p ? `${units.number(p.width)} × ${units.length(p.height)}` : '',
    },
    {
      name: 'films',
      title: 'Films',
      answer: p
        ? count(new Set(p.colours.filter((c) => c.goesTo === 'film').map((c) => c.film?.id)).size, 'film')
        : '',
    },
    {
      name: 'layout',
      title: 'Layout',
      answer: p ? `${count(copies, 'copy', 'copies')} · ${Math.round(usedShare.value * 100)} % used` : '',
    },
    {
      name: 'cut',
      title: 'Cut settings',
      answer: p ? count(new Set(p.strips.map((s) => s.film.id)).size, 'recipe') : '',
    },
    {
      name: 'cutter',
      title: 'Cutter',
      answer: p?.cutter ? `${p.cutter.name} ${units.length(p.cutter.widest)}` : '',
    },
  ];
});
const usedShare = computed(() => {
  const strips = plan.value?.strips ?? [];
  const area = strips.reduce((sum, s) => sum + s.length * s.rollWidth, 0);
  return area > 0 ? strips.reduce((sum, s) => sum + s.used * s.length * s.rollWidth, 0) / area : 0;
});
function stateOf(name: SectionName): 'good' | 'check' | 'stop' | 'none' {
  if (!plan.value) return 'none';
  const own = plan.value.findings.filter((finding) => homeOf(finding) === name);
  if (own.some((f) => f.severity === 'stop')) return 'stop';
  return own.some((f) => f.severity === 'check') ? 'check' : 'good';
}
const STATE_WORD = {
  good: 'all clear',
  check: 'to check',
  stop: 'keeps the order from the cutter',
  none: '',
} as const;
const ownFindings = (name: SectionName): Finding[] =>
  plan.value?.findings.filter((f) => homeOf(f) === name) ?? [];
const stops = computed(() => plan.value?.findings.filter((f) => f.severity === 'stop').length ?? 0);
const checks = computed(() => plan.value?.findings.filter((f) => f.severity === 'check').length ?? 0);
const due = computed(() => (store.order?.due ? new Date(`${store.order.due}T12:00:00`) : null));
/** The day as it is where the person sits. */
function setDue(to: unknown): void {
  if (to !== null && !(to instanceof Date)) return; // half typed
  void store.setDue(to && [to.getFullYear(), two(to.getMonth() + 1), two(to.getDate())].join('-'));
}
const two = (n: number): string => String(n).padStart(2, '0');
const canQueue = computed(
  () =>
    plan.value !== undefined &&
    stops.value === 0 &&
    plan.value.strips.length > 0 &&
    store.openCuts.length === 0 &&
    store.saving === 'saved' &&
    !store.planning &&
    !store.halted,
);
</script>

<template>
  <aside class="card" aria-label="Run card">
    <div class="head">
      <DraftField
        v-if="store.order"
        class="title"
        label="Name of the order"
        :value="store.order.name"
        :read="(name) => name.slice(0, 120) || undefined"
        @change="store.rename"
      />
      <p>
        <span class="number soft">#{{ store.order?.number }}</span>
        <DatePicker
          class="due"
          size="small"
          date-format="'due' D d M"
          placeholder="no due date"
          show-button-bar
          aria-label="Due"
          :model-value="due"
          @update:model-value="setDue"
        />
        <span v-if="stops" class="tag stop">{{ stops }} to mend</span>
        <span v-else-if="checks" class="tag check">{{ checks }} to check</span>
        <span v-else-if="plan" class="tag good">all clear</span>
      </p>
    </div>
    <div class="sections">
      <section v-for="(s, i) in sections" :key="s.name" :class="{ open: section === s.name }">
        <h2>
          <button :aria-expanded="section === s.name" @click="section = s.name">
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
            @recut="emit('recut', $event)"
          />
          <LayoutSection v-else-if="s.name === 'layout'" />
          <CutSection v-else-if="s.name === 'cut'" v-model:film="film" />
          <CutterSection v-else />
          <template v-if="s.name !== 'artwork'">
            <p
              v-for="({ finding, alsoFilms }, k) in saidOnce(ownFindings(s.name))"
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
    <div class="foot">
      <dl>
        <div>
          <dd class="number">{{ plan ? units.run(plan.totals.filmLength) : '–' }}</dd>
          <dt>film</dt>
        </div>
        <div>
          <dd class="number">{{ plan ? units.area(plan.totals.filmArea) : '–' }}</dd>
          <dt>area</dt>
        </div>
        <div>
          <dd class="number">{{ plan?.strips.length ? duration(plan.totals.seconds) : '–' }}</dd>
          <dt>at cutter</dt>
        </div>
        <div>
          <dd class="number">{{ plan ? plan.totals.swaps : '–' }}</dd>
          <dt>film swaps</dt>
        </div>
      </dl>
      <router-link v-if="store.openCuts.length" class="button main" :to="atWhichCutter(store.openCuts)">
        In the queue: go to the cutter
      </router-link>
      <button v-else class="button main" :disabled="!canQueue" @click="emit('queue')">
        Queue {{ plan?.strips.length ? count(plan.strips.length, 'cut') : '' }}
      </button>
    </div>
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
.head {
  padding: 10px 16px 10px;
  border-bottom: var(--line) solid var(--ink);
}
.due {
  width: 132px;
}
.due :deep(input) {
  width: 100%;
  padding: 1px 5px;
  margin-left: -6px;
  font-size: 14px;
  color: var(--ink-soft);
  background: none;
  border-color: transparent;
  box-shadow: none;
}
.due :deep(input:hover) {
  border-color: var(--rule);
}
.title {
  width: calc(100% + 12px);
  margin: 0 -6px;
  padding: 2px 5px;
  font: 700 22px/1.2 var(--heading);
  color: inherit;
  text-overflow: ellipsis;
  background: none;
  border: 1px solid transparent;
  border-radius: var(--radius-field);
  box-shadow: none;
}
.title:hover {
  border-color: var(--rule);
}
.head p {
  display: flex;
  gap: 12px;
  align-items: center;
  margin: 3px 0 0;
  font-size: 14px;
}
.head .tag {
  margin-left: auto;
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
.foot {
  padding: 10px 16px 14px;
  background: var(--paper);
  border-top: var(--line) solid var(--ink);
}
dl {
  display: flex;
  justify-content: space-between;
  margin: 0 0 10px;
}
dl div {
  display: flex;
  flex-direction: column;
}
dd {
  margin: 0;
  font-size: 16px;
  font-weight: 700;
}
dt {
  font-size: 12.5px;
  color: var(--ink-soft);
}
.foot .button {
  width: 100%;
}
</style>
