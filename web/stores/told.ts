import { ref } from 'vue';
import { ApiProblem } from './api';

/** Work that may be refused; why is told in a sentence beside where it was asked for. */
export function useTold() {
  const problem = ref('');
  async function tell(work: () => Promise<void>): Promise<void> {
    problem.value = '';
    try {
      await work();
    } catch (error) {
      if (!(error instanceof ApiProblem)) throw error;
      problem.value = error.message;
    }
  }
  return { problem, tell };
}
