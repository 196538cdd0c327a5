/** Changes that show at once and go out one after the other: none overtakes another, and the last answer holds all of them. */
import { ref } from 'vue';
import { ApiProblem } from './api';

/**
 * @param show takes what is kept now, once nothing else is under way
 * @param reload shows again what is kept, after something was refused
 */
export function useInTurn<T>(show: (now: T) => void, reload: () => Promise<void>) {
  const problem = ref<ApiProblem>();
  /** Calls that are not answered yet. */
  const underWay = ref(0);
  let sent: Promise<void> = Promise.resolve();
  function keep(work: () => Promise<T>): Promise<void> {
    problem.value = undefined;
    underWay.value++;
    sent = sent.then(async () => {
      try {
        const now = await work();
        if (underWay.value === 1) show(now);
      } catch (error) {
        if (!(error instanceof ApiProblem)) throw error;
        problem.value = error;
        await reload();
      } finally {
        underWay.value--;
      }
    });
    return sent;
  }
  return { problem, underWay, keep };
}
