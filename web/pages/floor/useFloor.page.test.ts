import { expect, jest, test } from '@jest/globals';
import type { Cut } from '../../../contracts/cuts';
import type { FewestSwaps } from '../../../contracts/floor';
import type { Answer, Asked } from '../../inPage.testing';
import { inPage, Refused } from '../../inPage.testing';
import { useEvents } from '../../stores/events';
import { useFloor } from './useFloor';

jest.useFakeTimers({ doNotFake: ['setImmediate', 'queueMicrotask', 'nextTick'] });
const later = (ms = 10) => jest.advanceTimersByTimeAsync(ms);

const cutter = (id: string, widest: number) => ({
  id,
  name: id,
  kind: 'roll',
  widest,
  narrowest: 50,
  longest: 50_000,
  device: { tools: 1 },
});
const cut = (id: number, cutterId: string, more: Partial<Cut> = {}): Cut =>
  ({
    id,
    orderId: id,
    orderNumber: 2040 + id,
    orderName: `order ${id}`,
    orderDue: null,
    cutterId,
    state: 'queued',
    film: { id: 'damson', name: 'Damson', rolls: [] },
    recipe: { blade: '45°' },
    rollWidth: 610,
    length: 1000,
    roll: null,
    sheet: null,
    seconds: 60,
    secondsDone: 0,
    shares: [{ orderId: id }],
    ...more,
  }) as unknown as Cut;

/** @param said to what a person does */
async function floor(cuts: readonly Cut[], said: Answer = () => ({})) {
  const made = inPage(
    () => {
      useEvents().open();
      return useFloor();
    },
    (asked: Asked) => {
      if (asked.method === 'POST') return said(asked);
      if (asked.path === '/api/cuts') return cuts;
      if (asked.path === '/api/floor') return { paused: false, loaded: [] };
      if (asked.path === '/api/shop') return { cutters: [cutter('heron', 640), cutter('curlew', 1370)] };
      return [];
    },
  );
  await later();
  const did = () =>
    made
      .asked()
      .map((one, i) => [one, made.bodies()[i]] as const)
      .filter(([one]) => one.startsWith('POST'));
  return { ...made, did };
}

test('lanes stand widest first, each with its own cuts one after the other; what is held is on the shelf', async () => {
  const { it } = await floor([cut(1, 'curlew'), cut(2, 'curlew'), cut(3, 'heron'), cut(4, 'heron', { state: 'held' })]); // prettier-ignore
  expect(it.lanes.value.map(({ cutter: { id }, blocks }) => [id, blocks.map((one) => one.cut.id)])).toEqual([
    ['curlew', [1, 2]],
    ['heron', [3]],
  ]);
  const [first, second] = it.lanes.value[0].blocks;
  expect(second.start).toBeGreaterThanOrEqual(first.end);
  expect(it.shelf.value.map(({ id }) => id)).toEqual([4]);
});

test('a place earlier or later is told by the cut that is behind it; at either end nothing is asked', async () => {
  const all = [1, 2, 3].map((id) => cut(id, 'curlew'));
  const { it, did } = await floor(all);
  expect([await it.shift(all[0], -1), await it.shift(all[2], 1)]).toEqual([false, false]);
  expect(did()).toEqual([]);
  await it.shift(all[2], -1);
  await it.shift(all[0], 1);
  await it.shift(all[1], 1);
  expect(did()).toEqual([
    ['POST /api/cuts/3/move', { cutter: 'curlew', before: 2 }],
    ['POST /api/cuts/1/move', { cutter: 'curlew', before: 3 }],
    ['POST /api/cuts/2/move', { cutter: 'curlew', before: null }],
  ]);
});

test('what is under way shows how far it is as its machine tells it, and never less', async () => {
  const { it, tell } = await floor([cut(1, 'curlew', { state: 'cutting', secondsDone: 20 })]);
  const done = (): number => it.lanes.value[0].blocks[0].cut.secondsDone;
  const head = (secondsDone: number) => ({ cutId: 1, x: 0, y: 0, linesDone: 1, secondsDone });
  tell({ kind: 'heads', heads: [head(35)] as never });
  expect(done()).toBe(35);
  tell({ kind: 'heads', heads: [head(5)] as never });
  expect(done()).toBe(20);
});

test('what is refused is said, and what is there is asked for once more', async () => {
  const { it, asked } = await floor([cut(1, 'curlew')], () => {
    throw new Refused(409, { code: 'not-now', message: 'It was begun a moment ago.' });
  });
  const before = asked().length;
  expect(await it.hold(cut(1, 'curlew'))).toBe(false);
  expect(it.problem.value?.message).toBe('It was begun a moment ago.');
  expect(asked().slice(before)).toEqual(['POST /api/cuts/1/hold', 'GET /api/cuts']);
});

test('an order that is proposed is taken as it was proposed, and not proposed any more', async () => {
  const proposal = { cutter: 'curlew', ids: [2, 1], now: {}, then: {} };
  const { it, did } = await floor([cut(1, 'curlew'), cut(2, 'curlew')]);
  it.proposals.value = [proposal, { ...proposal, cutter: 'heron' }] as unknown as FewestSwaps;
  await it.accept(proposal as never);
  expect(did()).toEqual([['POST /api/cutters/curlew/lane', { ids: [2, 1] }]]);
  expect(it.proposals.value?.map((one) => one.cutter)).toEqual(['heron']);
});
