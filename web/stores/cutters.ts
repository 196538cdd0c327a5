import { useIntervalFn } from '@vueuse/core';
import { defineStore } from 'pinia';
import { computed, onMounted, ref } from 'vue';
import type { Cut } from '../../contracts/cuts';
import type { CutterState } from '../../contracts/shop';
import { ApiProblem, call } from './api';
import { useListening } from './events';
import { oneAtATime } from './oneAtATime';

/** Machines are asked again this often while a page shows them, ms. */
const ASK_AGAIN_MS = 4000;

/** What the shop's cutters answer, and what is queued for them. */
export const useCutters = defineStore('cutters', () => {
  const states = ref<readonly CutterState[]>([]);
  const cuts = ref<readonly Cut[]>([]);
  /** Why machines, and why what is queued, could not be asked for: each until it could. */
  const problems = ref<Partial<Record<'machines' | 'cuts', ApiProblem>>>({});
  const problem = computed({
    get: () => problems.value.machines ?? problems.value.cuts,
    set: () => (problems.value = {}),
  });
  /** What is queued is known. */
  const ready = ref(false);

  async function fetched<T>(
    what: 'machines' | 'cuts',
    asked: Promise<T>,
    keep: (value: T) => void,
  ): Promise<void> {
    try {
      keep(await asked);
      problems.value = { ...problems.value, [what]: undefined };
    } catch (error) {
      if (!(error instanceof ApiProblem)) throw error;
      problems.value = { ...problems.value, [what]: error };
    }
  }
  const { ask: fetchCuts } = oneAtATime(() =>
    fetched('cuts', call('GET /api/cuts'), (open) => {
      cuts.value = open;
      ready.value = true;
    }),
  );
  /** A machine that is switched off takes seconds to be found so: what is queued does not wait for it. */
  const askMachines = (only?: string): Promise<void> =>
    fetched('machines', call('GET /api/cutters', { query: { only } }), (answers) => {
      const others = only === undefined ? [] : states.value.filter(({ id }) => id !== only);
      states.value = [...others, ...answers].sort((a, b) => (a.id < b.id ? -1 : 1));
    });

  /** Keeps up with the cuts and with all machines, or only one, as long as the component is there. */
  function follow(only?: () => string): void {
    const machines = oneAtATime(() => askMachines(only?.()));
    const all = (): void => {
      void machines.ask();
      void fetchCuts();
    };
    // what was known when another page went is old by now
    ready.value = false;
    useListening((event) => void (event.kind === 'cut' && all()), all);
    onMounted(all);
    useIntervalFn(() => {
      // a server that takes longer than that is not asked for more
      if (document.visibilityState === 'visible' && !machines.isBusy()) void machines.ask();
    }, ASK_AGAIN_MS);
  }

  return { states, cuts, problem, ready, fetchCuts, follow };
});
