/** Everybody who works here, for the lead. */
import { onMounted, ref } from 'vue';
import type { People, Person, Role } from '../../../contracts/people';
import { ApiProblem, call } from '../../stores/api';
import { useListening } from '../../stores/events';
import { oneAtATime } from '../../stores/oneAtATime';

export function usePeople() {
  const people = ref<readonly Person[]>([]);
  const state = ref<'loading' | 'ready' | 'failed'>('loading');
  /** A password that was made just now: shown this once. */
  const made = ref<People['made']>(null);
  const problem = ref<ApiProblem>();

  function show(now: People): void {
    people.value = now.people;
    state.value = 'ready';
  }
  const { ask: look } = oneAtATime(async () => {
    try {
      show(await call('GET /api/people'));
    } catch (error) {
      if (!(error instanceof ApiProblem)) throw error;
      if (state.value !== 'loading') return;
      state.value = 'failed';
      problem.value = error;
    }
  });
  async function keep(work: () => Promise<People>): Promise<boolean> {
    problem.value = undefined;
    try {
      const now = await work();
      // one that was made before is shown until it is passed on
      made.value = now.made ?? made.value;
      show(now);
      return true;
    } catch (error) {
      if (!(error instanceof ApiProblem)) throw error;
      problem.value = error;
      await look();
      return false;
    }
  }
  onMounted(look);
  useListening((event) => void (event.kind === 'people' && look()), look);
  return {
    people,
    state,
    made,
    problem,
    add: (name: string, role: Role) => keep(() => call('POST /api/people', { body: { name, role } })),
    change: ({ id }: Person, body: { name?: string; role?: Role }) =>
      keep(() => call('PATCH /api/people/{id}', { params: { id }, body })),
    say: ({ id }: Person, word: 'reset' | 'remove' | 'bring-back') =>
      keep(() => call(`POST /api/people/{id}/${word}`, { params: { id } })),
  };
}
