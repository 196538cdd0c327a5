<script setup lang="ts">
/** All runs of a quantity in their order: how far it lay off, before it was corrected, and how sure that was. */
import { scaleLinear, scalePoint } from 'd3-scale';
import { computed } from 'vue';
import type { Calibration } from '../../../../contracts/calibrations';
import type { RunFound } from '../../../../core/calibration/run';
import { largest } from '../../../../core/geometry/lists';
import { useUnits } from '../../../stores/units';
import { foundIn, inUseOf } from './runs';
import { shortDate, sureText, valueNames, valueText } from './texts';
import { useMe } from '../../../stores/me';

const me = useMe();
const props = defineProps<{
  /** The newest first. */
  runs: readonly Calibration[];
  /** The one that is looked at. */
  now: number | undefined;
  /** Below this nothing is corrected. */
  least: number;
}>();
defineEmits<{ back: [run: Calibration] }>();
const units = useUnits();

const [WIDE, TALL, LEFT, FOOT] = [560, 190, 64, 24];
/** Runs that are shown at once. */
const MOST = 12;
interface Shown {
  readonly run: Calibration;
  readonly found: RunFound;
}
const shown = computed(() =>
  props.runs
    .flatMap((run): Shown[] => {
      const found = foundIn(run);
      return found ? [{ run, found }] : [];
    })
    .slice(0, MOST)
    .reverse(),
);
const offOf = ({ run, found }: Shown, k: number): number => run.before[k] - found.own[k].value;
const kind = computed(() => props.runs[0]?.setup.kind ?? 'sensor-pen');
const names = computed(() => valueNames(kind.value));
const reach = computed(
  () =>
    1.15 *
    largest([
      4 * props.least,
      ...shown.value.flatMap((one) =>
        one.found.own.map(({ sure }, k) => Math.abs(offOf(one, k)) + Math.min(sure, 10 * props.least)),
      ),
    ]),
);
const x = computed(() =>
  scalePoint(
    shown.value.map(({ run }) => run.id),
    [LEFT + 30, WIDE - 20],
  ).padding(0.4),
);
const y = computed(() => scaleLinear([-reach.value, reach.value], [TALL - FOOT, 8]));
const ticks = computed(() => y.value.ticks(5));
const tickText = (value: number): string => {
  if (kind.value === 'length')
    return `${value < 0 ? '−' : value > 0 ? '+' : ''}${(100 * Math.abs(value)).toFixed(2)} %`;
  if (kind.value === 'contrast')
    return `${value < 0 ? '−' : value > 0 ? '+' : ''}${(100 * Math.abs(value)).toFixed(0)} %`;
  return `${value < 0 ? '−' : value > 0 ? '+' : ''}${units.length(Math.abs(value), true)}`;
};
const state = ({ run }: Shown): string =>
  run.state === 'kept' ? 'kept' : run.state === 'dropped' ? 'dropped' : 'not decided';
const described = (one: Shown): string =>
  `${shortDate(one.run.startedAt)}, ${state(one)}: ${one.found.own
    .map(
      (own, k) =>
        `${names.value[k]} ${valueText(kind.value, own.value, units)} ${sureText(kind.value, own.sure, units)}`,
    )
    .join(', ')}${byWhom(one)}`;
/** Whoever kept it, or had it cut. */
function byWhom({ run: { keptBy, setUpBy } }: Shown): string {
  const name = keptBy ?? setUpBy;
  return name === null ? '' : `, by ${name}`;
}
const inUse = computed(() => inUseOf(props.runs));
</script>

<template>
  <section class="tried" aria-label="Tried before">
    <h3>Tried before</h3>
    <p v-if="shown.length === 0" class="soft">
      Nothing was found yet. Every run is kept here, also those that are dropped.
    </p>
    <template v-else>
      <div class="key">
        <span v-for="(name, k) in names" :key="name" :class="`k${k}`"
          ><i aria-hidden="true"></i>{{ name }}</span
        >
        <span class="soft">how far off it was, before it was corrected · green: left as it is</span>
      </div>
      <svg :viewBox="`0 0 ${WIDE} ${TALL}`" role="img" :aria-label="`${shown.length} runs`">
        <rect class="inside" :x="LEFT" :width="WIDE - LEFT" :y="y(least)" :height="y(-least) - y(least)" />
        <g v-for="tick in ticks" :key="tick">
          <line class="grid" :x1="LEFT" :x2="WIDE" :y1="y(tick)" :y2="y(tick)" />
          <text class="tick" :x="LEFT - 6" :y="y(tick) + 4" text-anchor="end">{{ tickText(tick) }}</text>
        </g>
        <g
          v-for="one in shown"
          :key="one.run.id"
          :class="{ now: one.run.id === now, dropped: one.run.state === 'dropped' }"
        >
          <title>{{ described(one) }}</title>
          <g
            v-for="(own, k) in one.found.own"
            :key="k"
            :class="`k${k}`"
            :transform="`translate(${x(one.run.id)! + (k - (one.found.own.length - 1) / 2) * 14} 0)`"
          >
            <line
              :y1="y(Math.min(reach, offOf(one, k) + own.sure))"
              :y2="y(Math.max(-reach, offOf(one, k) - own.sure))"
            />
            <rect v-if="k === 1" x="-4.5" :y="y(offOf(one, k)) - 4.5" width="9" height="9" />
            <circle v-else r="5" :cy="y(offOf(one, k))" />
          </g>
          <text class="tick" :x="x(one.run.id)" :y="TALL - 6" text-anchor="middle">
            {{ one.run.id === now ? 'now' : shortDate(one.run.startedAt) }}
          </text>
        </g>
      </svg>
      <ul class="runs">
        <li v-for="one in [...shown].reverse()" :key="one.run.id">
          <span>{{ described(one) }}</span>
          <em v-if="one.run.id === inUse?.id">in use</em>
          <button
            v-else-if="one.run.after && one.run.state !== 'measuring'"
            class="button slim"
            :disabled="!me.may('lead')"
            :aria-label="`Go back to the run of ${shortDate(one.run.startedAt)}, number ${one.run.id}`"
            @click="$emit('back', one.run)"
          >
            Go back to it
          </button>
        </li>
      </ul>
    </template>
  </section>
</template>

<style scoped>
.tried {
  padding: 12px 14px;
  background: var(--card);
  border: var(--line) solid var(--rule);
  border-radius: var(--radius-label);
}
h3 {
  font-size: 16px;
}
p {
  margin: 4px 0 0;
}
.key {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 16px;
  font-size: 13px;
}
.key i {
  display: inline-block;
  width: 10px;
  height: 10px;
  margin-right: 5px;
  background: var(--bilberry);
  border-radius: 50%;
}
.key .k1 i {
  background: var(--quince);
  border-radius: 0;
}
svg {
  display: block;
  width: 100%;
  max-width: 640px;
}
.inside {
  fill: var(--gooseberry-soft);
}
.grid {
  stroke: var(--rule-soft);
}
.tick {
  font: 12px var(--text);
  fill: var(--ink-soft);
}
.k0 circle {
  fill: var(--bilberry);
}
.k1 rect {
  fill: var(--quince);
}
.k0 line {
  stroke: var(--bilberry);
}
.k1 line {
  stroke: var(--quince);
}
.now circle,
.now rect {
  fill: var(--card);
  stroke-width: 2;
}
.now circle {
  stroke: var(--bilberry);
}
.now rect {
  stroke: var(--quince);
}
.now text {
  font-weight: 700;
  fill: var(--ink);
}
.dropped circle,
.dropped rect,
.dropped line {
  opacity: 0.4;
}
.runs {
  display: grid;
  gap: 2px;
  max-height: 148px;
  margin: 6px 0 0;
  padding: 0;
  overflow-y: auto;
  font-size: 13.5px;
  list-style: none;
}
li {
  display: flex;
  gap: 10px;
  align-items: center;
  justify-content: space-between;
  min-height: 30px;
}
em {
  font-style: normal;
  font-weight: 650;
  color: var(--gooseberry-text);
}
</style>
