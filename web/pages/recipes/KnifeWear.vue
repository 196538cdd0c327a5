<script setup lang="ts">
/** How the force of a film creeps up with what its knife has cut, and when the knife is done for. */
import { scaleLinear } from 'd3-scale';
import { computed } from 'vue';
import type { Calibration, Knife } from '../../../contracts/calibrations';
import type { WearPoint } from '../../../core/calibration/wear';
import { wearOf } from '../../../core/calibration/wear';
import { foundIn } from '../machines/calibrations/runs';
import { largest } from '../../../core/geometry/lists';
import { useMe } from '../../stores/me';

const me = useMe();
const props = defineProps<{
  knife: Knife;
  /** Trial grids of one film on its cutter, the newest first. */
  grids: readonly Calibration[];
}>();
defineEmits<{ raise: [grid: number] }>();

const own = computed(() =>
  props.grids.filter(({ knife, state }) => knife?.id === props.knife.id && state === 'kept').reverse(),
);
const points = computed(() =>
  own.value.flatMap((run): WearPoint[] => {
    const force = foundIn(run)?.force;
    return force
      ? [
          {
            metres: run.knife!.metres,
            force: force.clean.value,
            sure: (force.clean.to - force.clean.from) / 2,
          },
        ]
      : [];
  }),
);
const wear = computed(() => wearOf(points.value, props.knife.metres));
const [WIDE, TALL, LEFT, FOOT] = [300, 190, 40, 34];
const x = computed(() =>
  scaleLinear(
    [0, 1.1 * largest([1, props.knife.metres, Math.min(wear.value?.until?.at ?? 0, 4 * props.knife.metres)])],
    [LEFT, WIDE - 8],
  ),
);
const y = computed(() =>
  scaleLinear(
    [0, 1.15 * largest([80, ...points.value.map(({ force, sure }) => force + sure), wear.value?.limit ?? 0])],
    [TALL - FOOT, 8],
  ),
);
const last = computed(() => own.value.at(-1));
/** The newest grid found more force than was set before: what else is cut with this knife wants more too. */
const raised = computed(() => {
  const { after, before, id } = last.value ?? {};
  return after && before && before[0] > 0 && after[0] > before[0]
    ? { id: id!, by: after[0] / before[0] - 1 }
    : undefined;
});
</script>

<template>
  <div v-if="points.length === 0" class="soft none">
    No trial grid was kept with this knife yet: each tells how dull it is.
  </div>
  <template v-else>
    <svg
      :viewBox="`0 0 ${WIDE} ${TALL}`"
      role="img"
      :aria-label="`Force for a clean cut after ${points.map(({ metres, force }) => `${metres.toFixed(1)} m: ${Math.round(force)} g`).join(', ')}`"
    >
      <g v-for="tick in y.ticks(4)" :key="tick">
        <line class="grid" :x1="LEFT" :x2="WIDE - 8" :y1="y(tick)" :y2="y(tick)" />
        <text :x="LEFT - 5" :y="y(tick) + 4" text-anchor="end">{{ tick }}</text>
      </g>
      <text v-for="tick in x.ticks(4)" :key="tick" :x="x(tick)" :y="TALL - FOOT + 15" text-anchor="middle">
        {{ tick }}
      </text>
      <text :x="(LEFT + WIDE) / 2" :y="TALL - 4" text-anchor="middle">metres cut</text>
      <text :x="LEFT + 4" y="14">g for a clean cut</text>
      <template v-if="wear">
        <line
          v-if="wear.perMetre > 0"
          class="creep"
          :x1="x(0)"
          :y1="y(wear.whenNew)"
          :x2="x(x.domain()[1])"
          :y2="y(wear.whenNew + wear.perMetre * x.domain()[1])"
        />
        <line class="limit" :x1="LEFT" :x2="WIDE - 8" :y1="y(wear.limit)" :y2="y(wear.limit)" />
      </template>
      <g v-for="(point, i) in points" :key="i">
        <line
          class="sure"
          :x1="x(point.metres)"
          :x2="x(point.metres)"
          :y1="y(point.force - point.sure)"
          :y2="y(point.force + point.sure)"
        />
        <circle :cx="x(point.metres)" :cy="y(point.force)" r="4.5" />
      </g>
    </svg>
    <p v-if="wear?.isWorn" class="note worn" role="alert">
      <b>Put a new knife in.</b> It wants twice the force that it wanted new.
    </p>
    <div v-else-if="wear?.until" class="row">
      <span>New knife at about</span>
      <b class="number">{{ wear.until.at.toFixed(wear.until.at < 10 ? 1 : 0) }} m</b>
      <small class="soft"
        >({{ wear.until.from.toFixed(wear.until.from < 10 ? 1 : 0) }} to
        {{ wear.until.to.toFixed(0) }})</small
      >
    </div>
    <div v-if="raised" class="note">
      <p>
        <b v-if="wear && wear.crept >= 1">Force has crept up by {{ Math.round(wear.crept) }} g.</b> The last
        grid found {{ Math.round(100 * raised.by) }} % more than was set. What else this knife cuts wants as
        much more.
      </p>
      <button class="button slim" :disabled="!me.may('lead')" @click="$emit('raise', raised.id)">
        Raise the other recipes alike
      </button>
    </div>
  </template>
</template>

<style scoped>
.none {
  font-size: 14px;
}
svg {
  width: 100%;
  max-width: 340px;
}
text {
  font: 11.5px var(--text);
  fill: var(--ink-soft);
}
.grid {
  stroke: var(--rule-soft);
}
.creep {
  stroke: var(--damson);
  stroke-width: 1.6;
}
.limit {
  stroke: var(--currant);
  stroke-dasharray: 5 4;
}
.sure {
  stroke: var(--damson);
}
circle {
  fill: var(--damson);
}
.row {
  display: flex;
  gap: 8px;
  align-items: baseline;
  font-size: 14px;
}
.note {
  display: grid;
  gap: 7px;
  justify-items: start;
  margin: 0;
  padding: 10px 12px;
  font-size: 14px;
  background: var(--quince-soft);
  border: var(--line) solid var(--quince);
  border-radius: var(--radius-card);
}
.note p {
  margin: 0;
}
.worn {
  display: block;
  background: var(--currant-soft);
  border-color: var(--currant);
}
</style>
