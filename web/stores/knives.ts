import { defineStore } from 'pinia';
import { onMounted, ref } from 'vue';
import type { Knife } from '../../contracts/calibrations';
import { ApiProblem, call } from './api';
import { useListening } from './events';
import { oneAtATime } from './oneAtATime';

/** The shop's knives: which is in which cutter, which lie in the drawer. */
export const useKnives = defineStore('knives', () => {
  const knives = ref<readonly Knife[]>([]);
  const ready = ref(false);
  const problem = ref<ApiProblem>();

  async function shown(asked: Promise<Knife[]>): Promise<void> {
    try {
      knives.value = await asked;
      [ready.value, problem.value] = [true, undefined];
    } catch (error) {
      if (!(error instanceof ApiProblem)) throw error;
      problem.value = error;
    }
  }
  const { ask: load } = oneAtATime(() => shown(call('GET /api/knives')));
  /** Keeps up with them as long as the component is there. */
  function follow(): void {
    const again = (): void => void load();
    useListening(({ kind }) => void (['shop', 'cut', 'calibration'].includes(kind) && load()), again);
    onMounted(again);
  }
  return {
    knives,
    ready,
    problem,
    follow,
    putIn: (cutter: string, which: { blade: string } | { knife: number }): Promise<void> =>
      shown(call('POST /api/cutters/{cutter}/knife', { params: { cutter }, body: which })),
    throwAway: (id: number): Promise<void> => shown(call('POST /api/knives/{id}/throw', { params: { id } })),
  };
});
