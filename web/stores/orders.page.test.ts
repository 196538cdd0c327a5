import { expect, jest, test } from '@jest/globals';
import type { OrderRow } from '../../contracts/api';
import { inPage, Refused, settled } from '../inPage.testing';
import { useEvents } from './events';
import { useOrders } from './orders';

jest.useFakeTimers({ doNotFake: ['setImmediate', 'queueMicrotask', 'nextTick'] });

const row = (id: number): OrderRow => ({ id, name: `order ${id}` }) as OrderRow;
const list = (ids: readonly number[], all = ids.length) => ({
  rows: ids.map(row),
  counts: { all },
  cuts: [],
});
function page(answer: (path: string) => unknown) {
  return inPage(
    () => {
      useEvents().open();
      return useOrders();
    },
    ({ path }) => answer(path),
  );
}

test('an answer that was long on its way is not shown over a later one', async () => {
  const waiting: ((value: unknown) => void)[] = [];
  const { it } = page(() => new Promise((done) => waiting.push(done)));
  const [first, second] = [it.refresh(), it.refresh()];
  waiting[1](list([2]));
  await second;
  waiting[0](list([1]));
  await first;
  expect(it.rows.map(({ id }) => id)).toEqual([2]);
});

test('what is typed is looked for once it stands still', async () => {
  const { it, asked } = page(() => list([]));
  for (const text of ['r', 'ra', 'race']) {
    it.search = text;
    await settled();
  }
  await jest.advanceTimersByTimeAsync(500);
  expect(asked()).toHaveLength(1);
  expect(asked()[0]).toContain('search=race');
});

test('more of it is fetched while there is more, and not twice', async () => {
  let all: number[] = Array.from({ length: 60 }, (_, k) => k + 1);
  const { it, asked } = page(() => list(all, 100));
  await it.refresh();
  expect(it.hasMore).toBe(true);
  all = Array.from({ length: 100 }, (_, k) => k + 1);
  it.more();
  it.more();
  await settled();
  expect(asked().filter((path) => path.includes('limit=120'))).toHaveLength(1);
  expect([it.rows.length, it.hasMore]).toEqual([100, false]);
});

test('what is put away can be taken back at once; what is refused is said', async () => {
  const { it, asked } = page((path) => {
    if (path.includes('/8/')) throw new Refused(409, { code: 'in-queue', message: 'It is in the queue.' });
    return list([7]);
  });
  await it.putAway(row(8));
  expect([it.putAwayLast, it.problem?.message]).toEqual([undefined, 'It is in the queue.']);
  await it.putAway(row(7));
  expect([it.putAwayLast?.id, it.problem]).toEqual([7, undefined]);
  await it.bringBack(row(7));
  expect(it.putAwayLast).toBeUndefined();
  expect(asked().filter((path) => path.startsWith('POST'))).toEqual([
    'POST /api/orders/8/put-away',
    'POST /api/orders/7/put-away',
    'POST /api/orders/7/bring-back',
  ]);
});

test('a list that cannot be fetched at first says so; once it is there it stays', async () => {
  let isAway = true;
  const { it, tell } = page(() => {
    if (isAway) throw new Error('away');
    return list([7]);
  });
  await it.refresh();
  expect(it.state).toBe('failed');
  isAway = false;
  await it.refresh();
  isAway = true;
  tell({ kind: 'order', orderId: 7 });
  await jest.advanceTimersByTimeAsync(500);
  expect([it.state, it.rows.length]).toEqual(['ready', 1]);
});
