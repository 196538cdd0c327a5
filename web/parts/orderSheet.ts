/** A sheet of one order for the bench or the wall: fetched with the order, and ticked off as the work goes on. */
import { useLocalStorage } from '@vueuse/core';
import { computed, shallowRef } from 'vue';
import { useRoute } from 'vue-router';
import type { Order } from '../../contracts/api';
import { ApiProblem, call } from '../stores/api';

/** @param word what is done with the order here: it stands in the window's title */
export function useOrderSheet<T>(word: string, fetchSheet: (id: number) => Promise<T>) {
  const id = Number(useRoute().params.id);
  const order = shallowRef<Order>();
  const sheet = shallowRef<T>();
  const problem = shallowRef('');
  /** Counts what was asked for: an answer that was overtaken is dropped. */
  let asked = 0;

  async function load(): Promise<void> {
    const mine = ++asked;
    problem.value = '';
    try {
      const [now, made] = await Promise.all([
        order.value ?? call('GET /api/orders/{id}', { params: { id } }),
        fetchSheet(id),
      ]);
      if (mine !== asked) return;
      order.value = now;
      sheet.value = made;
      document.title = `${word} ${now.name} · Jam Pan`;
    } catch (error) {
      if (!(error instanceof ApiProblem)) throw error;
      if (mine === asked) problem.value = error.message;
    }
  }

  /** What has been done is remembered on this tablet, for as long as the order stays as it is. */
  function useTicks<K extends string | number>(key: string) {
    const done = useLocalStorage<readonly K[]>(() => `jam-pan-${key}-${id}-${order.value?.revision}`, []);
    const tick = (one: K): void => {
      done.value = done.value.includes(one) ? done.value.filter((k) => k !== one) : [...done.value, one];
    };
    return { done: computed(() => new Set(done.value)), tick };
  }
  return { id, order, sheet, problem, load, useTicks };
}
