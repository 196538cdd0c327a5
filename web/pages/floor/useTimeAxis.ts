/** The time axis that all lanes share: how much of it is seen at once, and where a moment lies on it. */
import { useLocalStorage } from '@vueuse/core';
import { scaleTime } from 'd3-scale';
import type { Ref } from 'vue';
import { computed } from 'vue';
import { isWaiting } from '../../../contracts/floor';
import { largest } from '../../../core/geometry/lists';
import type { Lane } from './useFloor';

/** Minutes that are seen at once; 0: all there is. */
const SPANS = [0, 15, 60, 240] as const;
export const SPAN_OPTIONS = SPANS.map((value) => ({
  value: value as number,
  label: value === 0 ? 'all of it' : value < 60 ? `${value} min` : `${value / 60} h`,
}));
/** s that are seen at the least, and of the past. */
const [LEAST_S, PAST_S] = [15 * 60, 30];
/** Room behind the last cut. */
const BEHIND = 1.04;
const PER_TICK_PX = 110;
const LABEL_PX = 48;

/** @param width px that are seen */
export function useTimeAxis(lanes: Ref<readonly Lane[]>, now: Ref<Date>, width: Ref<number>) {
  const span = useLocalStorage<number>('jam-pan-floor-span', 0);
  const blocks = computed(() => lanes.value.flatMap((lane) => lane.blocks));
  /** s from now until the last cut is done. */
  const end = computed(() => largest(blocks.value.map((block) => block.end), 0)); // prettier-ignore
  const past = computed(() => {
    const begun = blocks.value.filter(({ cut }) => !isWaiting(cut)).map(({ cut }) => cut.secondsDone);
    return largest(begun, 0) + PAST_S;
  });
  const whole = computed(() => Math.max(LEAST_S, end.value * BEHIND) + past.value);
  /** px of the whole axis */
  const length = computed(() =>
    span.value === 0 ? width.value : Math.max(width.value, (width.value * whole.value) / (60 * span.value)),
  );
  const x = computed(() => {
    const at = now.value.getTime();
    return scaleTime()
      .domain([new Date(at - 1000 * past.value), new Date(at + 1000 * (whole.value - past.value))])
      .range([0, length.value]);
  });
  const ticks = computed(() => x.value.ticks(Math.max(2, Math.floor(length.value / PER_TICK_PX))));
  /** Those with room for their time. */
  const told = computed(() =>
    ticks.value.filter(
      (tick) => x.value(tick) >= LABEL_PX / 2 && x.value(tick) <= length.value - LABEL_PX / 2,
    ),
  );
  return { span, blocks, end, length, x, ticks, told };
}
