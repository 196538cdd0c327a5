/** Cuts that wait and would be cut otherwise by now, and what becomes of them. */
import { computed, onBeforeUnmount, ref, shallowRef, watch } from 'vue';
import type { Cut, Outdated } from '../../contracts/cuts';
import { isUnbegun } from '../../contracts/floor';
import { ApiProblem, call } from './api';
import { useListening } from './events';
import { oneAtATime } from './oneAtATime';

/** While changes follow one another, only the last is worth a plan, ms. */
const SETTLED_MS = 900;

/** @param cuts those that are shown: of their orders it is asked, one after the other, again whenever something is changed */
export function useOutdated(cuts: () => readonly Cut[]) {
  const found = shallowRef<ReadonlyMap<number, readonly Outdated[]>>(new Map());
  const problem = ref<ApiProblem>();
  const isBusy = ref(false);
  const waiting = computed(() => cuts().filter(isUnbegun));
  const orders = computed(() => [...new Set(waiting.value.map(({ orderId }) => orderId))]);

  const wanted = new Set<number>();
  const { ask } = oneAtATime(async () => {
    for (const id of wanted) {
      wanted.delete(id);
      const answer = await call('GET /api/orders/{id}/outdated', { params: { id } }).catch(() => undefined);
      if (answer) found.value = new Map(found.value).set(id, answer);
    }
  });
  let timer: ReturnType<typeof setTimeout> | undefined;
  function askFor(ids: readonly number[], after = SETTLED_MS): void {
    for (const id of ids) wanted.add(id);
    clearTimeout(timer);
    timer = setTimeout(() => void ask(), after);
  }
  watch(
    orders,
    (ids, before = []) =>
      askFor(
        ids.filter((id) => !before.includes(id)),
        0,
      ),
    { immediate: true },
  );
  useListening(
    (event) => {
      if (event.kind === 'shop') askFor(orders.value);
      else if (event.kind === 'order' || event.kind === 'cut')
        askFor(
          waiting.value
            .filter(({ orderId, shares }) =>
              [orderId, ...shares.map((one) => one.orderId)].includes(event.orderId),
            )
            .map(({ orderId }) => orderId),
        );
    },
    () => askFor(orders.value, 0),
  );
  onBeforeUnmount(() => clearTimeout(timer));

  async function answer(word: 'replace' | 'keep', { order: { id }, now }: Outdated): Promise<void> {
    if (isBusy.value) return;
    isBusy.value = true;
    problem.value = undefined;
    try {
      await call(`POST /api/orders/{id}/${word}-queued`, { params: { id }, body: { now } });
      found.value = new Map(found.value).set(id, []);
    } catch (error) {
      if (!(error instanceof ApiProblem)) throw error;
      problem.value = error;
    } finally {
      isBusy.value = false;
      askFor([id], 0);
    }
  }
  return {
    /** By the orders that they were queued with. */
    all: computed(() => orders.value.flatMap((id) => found.value.get(id) ?? []).filter(isFirst)),
    problem,
    isBusy,
    replace: (one: Outdated) => answer('replace', one),
    keep: (one: Outdated) => answer('keep', one),
    askAgain: () => askFor(orders.value, 0),
  };
}

/** An order on the film of another is told with that too. */
const isFirst = ({ order }: Outdated, i: number, all: readonly Outdated[]): boolean =>
  all.findIndex((one) => one.order.id === order.id) === i;
