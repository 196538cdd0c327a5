import { afterEach, describe, expect, jest, test } from '@jest/globals';
import { ref } from 'vue';
import type { Cut, Outdated } from '../../contracts/cuts';
import type { Answer } from '../inPage.testing';
import { inPage, Refused, settled } from '../inPage.testing';
import { useEvents } from './events';
import { useOutdated } from './outdated';

const cut = (id: number, orderId: number, more: Partial<Cut> = {}): Cut =>
  ({ id, orderId, state: 'queued', shares: [{ orderId }], ...more }) as Cut;
const outdated = (id: number, cutId: number, now = 'now'): Outdated => ({
  order: { id, number: 2040 + id, name: 'x' },
  changed: [],
  others: [],
  cuts: [{ id: cutId, film: 'Damson', says: ['otherwise'] }],
  more: [],
  begun: [],
  now,
});

/** @param says what the server has for an order by now */
function page(first: readonly Cut[], says: (order: number) => readonly Outdated[], answer?: Answer) {
  const cuts = ref(first);
  const made = inPage(
    () => {
      useEvents().open();
      return useOutdated(() => cuts.value);
    },
    (asked) =>
      asked.method === 'GET' ? says(Number(/orders\/(\d+)/.exec(asked.path)![1])) : answer?.(asked),
  );
  return { ...made, cuts };
}
/** Time that changes have to settle. */
async function later(): Promise<void> {
  await jest.advanceTimersByTimeAsync(1000);
}

jest.useFakeTimers({ doNotFake: ['setImmediate', 'queueMicrotask', 'nextTick'] });
afterEach(() => void jest.clearAllTimers());

describe('what waits', () => {
  test('is asked for order by order, once each; what is begun is not', async () => {
    const all = [cut(1, 7), cut(2, 7), cut(3, 8), cut(4, 9, { state: 'done' })];
    const { it, asked } = page(all, (id) => (id === 7 ? [outdated(7, 1)] : []));
    await later();
    expect(asked()).toEqual(['GET /api/orders/7/outdated', 'GET /api/orders/8/outdated']);
    expect(it.all.value.map(({ order }) => order.id)).toEqual([7]);
  });

  test('is asked for again when its order, one on its film, or the shop is changed, however often at once', async () => {
    const { asked, tell, comeBack } = page([cut(1, 7, { shares: [7, 5].map((orderId) => ({ orderId })) as unknown as Cut['shares'] }), cut(2, 8)], () => []); // prettier-ignore
    await later();
    const before = asked().length;
    const since = (): string[] => asked().slice(before);
    tell({ kind: 'order', orderId: 5 });
    tell({ kind: 'order', orderId: 7 });
    tell({ kind: 'order', orderId: 99 });
    expect(since()).toEqual([]);
    await later();
    expect(since()).toEqual(['GET /api/orders/7/outdated']);
    tell({ kind: 'shop' });
    await later();
    expect(since().slice(1)).toEqual(['GET /api/orders/7/outdated', 'GET /api/orders/8/outdated']);
    comeBack();
    await later();
    expect(since()).toHaveLength(5);
  });

  test('and what comes to it is; what is gone is shown no more', async () => {
    const { it, cuts, asked } = page([cut(1, 7)], (id) => [outdated(id, id)]);
    await later();
    cuts.value = [cut(3, 8)];
    await later();
    expect(asked()).toEqual(['GET /api/orders/7/outdated', 'GET /api/orders/8/outdated']);
    expect(it.all.value.map(({ order }) => order.id)).toEqual([8]);
  });

  test('on the film of another order is told once', async () => {
    const both = [cut(1, 7), cut(2, 8)];
    const { it } = page(both, () => [outdated(7, 1)]);
    await later();
    expect(it.all.value).toHaveLength(1);
  });
});

describe('an answer', () => {
  test('says what was seen, and the question is gone', async () => {
    let now: readonly Outdated[] = [outdated(7, 1, 'seen')];
    const { it, asked, bodies } = page(
      [cut(1, 7)],
      () => now,
      () => ((now = []), []),
    );
    await later();
    await it.replace(it.all.value[0]);
    expect(asked().at(-1)).toBe('POST /api/orders/7/replace-queued');
    expect(bodies().at(-1)).toEqual({ now: 'seen' });
    await later();
    expect([it.all.value, it.problem.value]).toEqual([[], undefined]);
  });

  test('that is refused is said, and what it is by now is asked for', async () => {
    const { it, asked } = page(
      [cut(1, 7)],
      () => [outdated(7, 1)],
      () => {
        throw new Refused(409, { code: 'changed', message: 'Look once more.' });
      },
    );
    await later();
    await it.keep(it.all.value[0]);
    await settled();
    expect(it.problem.value?.message).toBe('Look once more.');
    await later();
    expect(asked().at(-1)).toBe('GET /api/orders/7/outdated');
    expect(it.all.value).toHaveLength(1);
  });
});
