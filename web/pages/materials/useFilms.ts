/** The shop's films and what it keeps of them, as they are shown and changed: changes show at once, and none overtakes another. */
import { useEventListener } from '@vueuse/core';
import { ref, shallowRef } from 'vue';
import type { Film } from '../../../core/films/film';
import type { FilmSize } from '../../../core/films/leftover';
import type { Cutter } from '../../../core/layout/cutter';
import { call } from '../../stores/api';
import { useShopNow } from '../../stores/shopNow';

export function useFilms() {
  const films = ref<readonly Film[]>([]);
  const cutters = shallowRef<readonly Cutter[]>([]);
  /** Smallest rest of a sheet or of a cut that goes back on the rack. */
  const leastOffcut = ref<FilmSize>();

  const { state, problem, underWay, keep, again } = useShopNow<readonly Film[]>(
    (shop) => {
      films.value = shop.films;
      cutters.value = shop.cutters;
      leastOffcut.value = shop.leastOffcut;
    },
    (now) => (films.value = now),
  );
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
  return { films, cutters, leastOffcut, state, problem, underWay, again, change, keepFrom, bring };
}
