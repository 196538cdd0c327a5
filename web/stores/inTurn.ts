/** What the server keeps, as a page shows and changes it: changes show at once and go out one after the other, and nothing older is shown over them. */
import { ref } from 'vue';
import { ApiProblem } from './api';

/**
 * @param load asks for what is kept
 * @param take shows what is kept
 * @param show shows the answer to a change, once nothing else is under way
 */
export function useInTurn<Kept, Answer = Kept>(
  load: () => Promise<Kept>,
  take: (kept: Kept) => void,
  show: (answer: Answer) => void,
) {
  const state = ref<'loading' | 'ready' | 'failed'>('loading');
  const problem = ref<ApiProblem>();
  /** Calls that are not answered yet. */
  const underWay = ref(0);
  let sent: Promise<void> = Promise.resolve();
  /** Changes so far: what was asked for before the last of them is old. */
  let changes = 0;
  /** Times it was asked: an answer that is overtaken by a later one is not shown over it. */
  let asked = 0;
  let isOld = false;

  /** Shows what is kept; while changes are under way, after the last of them. */
  async function again(): Promise<void> {
    isOld = underWay.value > 0;
    if (isOld) return;
    const before = changes;
    const turn = ++asked;
    try {
      const kept = await load();
      if (turn !== asked) return;
      if (before !== changes) return await again();
      take(kept);
      state.value = 'ready';
    } catch (error) {
      if (!(error instanceof ApiProblem)) throw error;
      if (state.value === 'loading') state.value = 'failed';
    }
  }
  function keep(work: () => Promise<Answer>): Promise<void> {
    problem.value = undefined;
    underWay.value++;
    changes++;
    sent = sent.then(async () => {
      try {
        const answer = await work();
        if (underWay.value === 1) show(answer);
      } catch (error) {
        if (!(error instanceof ApiProblem)) throw error;
        problem.value = error;
        isOld = true;
      } finally {
        underWay.value--;
      }
      if (isOld) await again();
    });
    return sent;
  }
  return { state, problem, underWay, keep, again };
}
