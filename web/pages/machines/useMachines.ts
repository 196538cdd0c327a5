/** The shop's cutters as records: shown and changed at once, one change after the other. */
import { ref } from 'vue';
import type { CutterChange, NewCutter, ShopNow } from '../../../contracts/shop';
import type { Cutter } from '../../../core/layout/cutter';
import { call } from '../../stores/api';
import { useShopNow } from '../../stores/shopNow';

export function useMachines() {
  /** In use first, each by its name. */
  const machines = ref<readonly Cutter[]>([]);
  const films = ref<ShopNow['films']>([]);
  const recipes = ref<ShopNow['recipes']>({});
  const stale = ref<ShopNow['stale']>([]);

  function show({ cutters, retired, ...shop }: ShopNow): void {
    const byName = (list: readonly Cutter[]): Cutter[] =>
      [...list].sort((a, b) => a.name.localeCompare(b.name));
    machines.value = [...byName(cutters), ...byName(retired)];
    films.value = shop.films;
    recipes.value = shop.recipes;
    stale.value = shop.stale;
  }
  const { state, problem, keep } = useShopNow(show, show);

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
  return { machines, films, recipes, stale, state, problem, change, retire, add };
}
