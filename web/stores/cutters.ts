import { defineStore } from 'pinia';
import { onBeforeUnmount, onMounted, ref } from 'vue';
import type { Cut, CutterState } from '../../contracts/api';
import { ApiProblem, call } from './api';
import { useEvents } from './events';

/** Machines are asked again this often while a page shows them, ms. */
const ASK_AGAIN_MS = 4000;

/** What the shop's cutters answer, and what is queued for them. */
export const useCutters = defineStore('cutters', () => {
  const states = ref<readonly CutterState[]>([]);
  const cuts = ref<readonly Cut[]>([]);
  const problem = ref<ApiProblem>();
  const ready = ref(false);

  async function ask(): Promise<void> {
    try {
      [states.value, cuts.value] = await Promise.all([
        call<CutterState[]>('GET', '/api/cutters'),
        call<Cut[]>('GET', '/api/cuts'),
      ]);
      problem.value = undefined;
      ready.value = true;
    } catch (error) {
      if (!(error instanceof ApiProblem)) throw error;
      problem.value = error;
    }
  }

  /** Keeps asking as long as the component is there. */
  function follow(): void {
    const events = useEvents();
    let forget: (() => void) | undefined;
    let timer: ReturnType<typeof setInterval> | undefined;
    onMounted(() => {
      forget = events.on(
        (event) => void (event.kind === 'cut' && ask()),
        () => void ask(),
      );
      timer = setInterval(() => void (document.visibilityState === 'visible' && ask()), ASK_AGAIN_MS);
      void ask();
    });
    onBeforeUnmount(() => {
      forget?.();
      clearInterval(timer);
    });
  }

  return { states, cuts, problem, ready, follow };
});
