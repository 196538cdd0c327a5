/** The shop's cutters as records: shown and changed at once, one change after the other. */
import { onBeforeUnmount, onMounted, ref } from 'vue';
import type { CutterChange, NewCutter, ShopNow } from '../../../contracts/shop';
import type { Cutter } from '../../../core/layout/cutter';
import { ApiProblem, call } from '../../stores/api';
import { useEvents } from '../../stores/events';
import { useInTurn } from '../../stores/inTurn';

export function useMachines() {
  /** In use first, each by its name. */
  const machines = ref<readonly Cutter[]>([]);
  const state = ref<'loading' | 'ready' | 'failed'>('loading');

  function show({ cutters, retired }: ShopNow): void {
    const byName = (list: readonly Cutter[]): Cutter[] =>
      [...list].sort((a, b) => a.name.localeCompare(b.name));
    machines.value = [...byName(cutters), ...byName(retired)];
    state.value = 'ready';
  }
  async function load(): Promise<void> {
    try {
      show(await call('GET /api/shop'));
    } catch (error) {
      if (!(error instanceof ApiProblem)) throw error;
      if (state.value === 'loading') state.value = 'failed';
    }
  }
  const { problem, underWay, keep } = useInTurn(show, load);
  let forget: (() => void) | undefined;
  onMounted(() => {
    const again = (): void => void (underWay.value === 0 && load());
    forget = useEvents().on((event) => event.kind === 'shop' && again(), again);
    void load();
  });
  onBeforeUnmount(() => forget?.());

  function change({ id }: Cutter, what: CutterChange): Promise<void> {
    machines.value = machines.value.map((one) => (one.id === id ? { ...one, ...what } : one));
    return keep(() => call('PATCH /api/cutters/{cutter}', { params: { cutter: id }, body: what }));
  }
  const retire = ({ id, isRetired }: Cutter): Promise<void> =>
    keep(() =>
      call(`POST /api/cutters/{cutter}/${isRetired ? 'bring-back' : 'retire'}`, { params: { cutter: id } }),
    );
  /** @returns its id; undefined: it could not be added */
  async function add(cutter: NewCutter): Promise<string | undefined> {
    const before = new Set(machines.value.map(({ id }) => id));
    await keep(() => call('POST /api/cutters', { body: cutter }));
    return machines.value.find(({ id }) => !before.has(id))?.id;
  }
  return { machines, state, problem, change, retire, add };
}
