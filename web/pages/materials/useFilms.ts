/** The shop's films and what it keeps of them, as they are shown and changed: changes show at once, and none overtakes another. */
import { useEventListener } from '@vueuse/core';
import { onBeforeUnmount, onMounted, ref } from 'vue';
import type { ShopNow } from '../../../contracts/shop';
import type { Film } from '../../../core/films/film';
import type { FilmSize } from '../../../core/films/leftover';
import { ApiProblem, call } from '../../stores/api';
import { useEvents } from '../../stores/events';
import { useInTurn } from '../../stores/inTurn';

export function useFilms() {
  const films = ref<readonly Film[]>([]);
  /** Smallest rest of a sheet or of a cut that goes back on the rack. */
  const leastOffcut = ref<FilmSize>();
  const state = ref<'loading' | 'ready' | 'failed'>('loading');

  function show(shop: ShopNow): void {
    films.value = shop.films;
    leastOffcut.value = shop.leastOffcut;
    state.value = 'ready';
  }
  async function load(): Promise<void> {
    try {
      show(await call('GET /api/shop'));
    } catch (error) {
      if (!(error instanceof ApiProblem)) throw error;
      state.value = 'failed';
    }
  }
  const { problem, underWay, keep } = useInTurn<readonly Film[]>((now) => (films.value = now), load);
  /** Cuts use film up while the page is open: what is changed next starts from what is there. */
  async function follow(): Promise<void> {
    const shop = await call('GET /api/shop').catch(() => undefined);
    // what a person has changed meanwhile has its own answer
    if (shop && underWay.value === 0) show(shop);
  }
  let forget: (() => void) | undefined;
  onMounted(() => {
    const again = (): void => void follow();
    forget = useEvents().on((event) => event.kind === 'shop' && again(), again);
    void load();
  });
  onBeforeUnmount(() => forget?.());
  useEventListener(window, 'beforeunload', (event) => underWay.value > 0 && event.preventDefault());

  /** Shows a change at once: what is typed next starts from it. */
  function change(film: Film, what: Partial<Film>): Promise<void> {
    films.value = films.value.map((one) => (one.id === film.id ? { ...one, ...what } : one));
    return keep(() => call('PATCH /api/films/{film}', { params: { film: film.id }, body: what }));
  }
  function keepFrom(what: Partial<FilmSize>): Promise<void> {
    leastOffcut.value = { ...leastOffcut.value!, ...what };
    const body = { leastOffcut: leastOffcut.value };
    return keep(async () => (await call('PATCH /api/shop', { body })).films);
  }
  const bring = (csv: string): Promise<void> => keep(() => call('POST /api/films', { body: { csv } }));
  return { films, leastOffcut, state, problem, underWay, load, change, keepFrom, bring };
}
