/** One of an order's strips or sheets at a time: of the picked film, the one that was picked among its own. */
import type { Ref } from 'vue';
import { computed, ref } from 'vue';
import type { Film } from '../../../core/films/film';

export function useOneOf<T extends { readonly id: string; readonly film: Film }>(
  all: () => readonly T[],
  film: Ref<string | undefined>,
) {
  const picked = ref<string>();
  const shown = computed<T | undefined>(() => {
    const own = film.value ? all().filter((one) => one.film.id === film.value) : all();
    return own.find(({ id }) => id === picked.value) ?? own[0] ?? all()[0];
  });
  const choices = computed(() =>
    all().map(({ id, film: { name, colour } }, i) => ({ id, name: `${i + 1} ${name}`, colour })),
  );
  function pick(id: string): void {
    picked.value = id;
    film.value = all().find((one) => one.id === id)?.film.id;
  }
  return { shown, choices, pick };
}
