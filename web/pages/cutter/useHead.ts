import { ref } from 'vue';
import { ApiProblem, call } from '../../stores/api';

/** The head of the machine that a cut is at, moved by hand. @param told hears what a press met */
export function useHead(cutId: () => number, told: (problem: ApiProblem) => void) {
  const head = ref<{ x: number; y: number }>();
  const busy = ref(false);
  async function ask<T>(work: () => Promise<T>): Promise<T | undefined> {
    if (busy.value) return undefined;
    busy.value = true;
    try {
      return await work();
    } catch (error) {
      if (!(error instanceof ApiProblem)) throw error;
      told(error);
      return undefined;
    } finally {
      busy.value = false;
    }
  }
  async function jog(dx: number, dy: number): Promise<void> {
    const params = { id: cutId() };
    const now = await ask(() => call('POST /api/cuts/{id}/jog', { params, body: { dx, dy } }));
    head.value = now ?? head.value;
  }
  async function goTo(x: number, y: number): Promise<void> {
    if (!head.value) await jog(0, 0);
    if (head.value) await jog(x - head.value.x, y - head.value.y);
  }
  /** Where it stands; undefined: it cannot be asked. */
  async function place(): Promise<{ x: number; y: number } | undefined> {
    if (!head.value) await jog(0, 0);
    return head.value;
  }
  return { head, busy, ask, jog, goTo, place };
}
