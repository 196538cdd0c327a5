/** What became of film and time over some weeks, kept up with while it is looked at. */
import { useLocalStorage } from '@vueuse/core';
import { computed, ref, watch } from 'vue';
import type { Usage } from '../../../contracts/usage';
import { ApiProblem, call } from '../../stores/api';
import { useListening } from '../../stores/events';
import { oneAtATime } from '../../stores/oneAtATime';
import type { SpanName } from './spans';
import { SPANS, todayHere, weeksOf } from './spans';

export function useUsage() {
  const kept = useLocalStorage<string>('jam-pan-usage-span', 'four weeks');
  const span = computed<SpanName>({
    get: () => SPANS.find((one) => one === kept.value) ?? 'four weeks',
    set: (name) => {
      kept.value = name;
      back.value = 0;
    },
  });
  /** Spans before the present one. */
  const back = ref(0);
  const weeks = computed(() => weeksOf(span.value, todayHere(), back.value));
  const query = computed(() => ({
    from: weeks.value.from,
    to: weeks.value.to,
    zone: Intl.DateTimeFormat().resolvedOptions().timeZone,
  }));

  const usage = ref<Usage>();
  const problem = ref<ApiProblem>();
  const { ask: look } = oneAtATime(async () => {
    const asked = query.value;
    try {
      const now = await call('GET /api/usage', { query: asked });
      if (asked === query.value) usage.value = now;
      problem.value = undefined;
    } catch (error) {
      if (!(error instanceof ApiProblem)) throw error;
      problem.value = error;
    }
  });
  watch(query, look, { immediate: true });
  // film is booked when a cut is over, and then the shop has changed
  useListening((event) => void (event.kind === 'shop' && look()), look);
  return { span, back, weeks, query, usage, problem, look };
}
