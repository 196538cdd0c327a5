/** What of each film the queue and orders want, kept up with as long as the component is there. */
import { useDebounceFn } from '@vueuse/core';
import { computed, onMounted, shallowRef } from 'vue';
import type { FilmWanted } from '../../contracts/usage';
import { call } from './api';
import { useListening } from './events';
import { oneAtATime } from './oneAtATime';

const SETTLED_MS = 400;

export function useWanted() {
  const rows = shallowRef<readonly FilmWanted[]>();
  const { ask: look } = oneAtATime(async () => {
    rows.value = await call('GET /api/films/wanted').catch(() => rows.value);
  });
  onMounted(look);
  // orders are told of with every change that anybody makes of any
  const soon = useDebounceFn(look, SETTLED_MS);
  useListening((event) => void (['cut', 'order'].includes(event.kind) && soon()), look);
  const wanted = computed(() => new Map((rows.value ?? []).map((row) => [row.film, row])));
  /** undefined: it is not known yet. */
  return { rows, wanted };
}
