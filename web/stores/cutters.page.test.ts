import { expect, jest, test } from '@jest/globals';
import type { Asked } from '../inPage.testing';
import { inPage, Refused } from '../inPage.testing';
import { useCutters } from './cutters';
import { useEvents } from './events';

jest.useFakeTimers({ doNotFake: ['setImmediate', 'queueMicrotask', 'nextTick'] });
const later = (ms = 10) => jest.advanceTimersByTimeAsync(ms);

const CUTS = [{ id: 1, cutterId: 'curlew' }];
const STATES = [{ id: 'heron' }, { id: 'curlew' }];
/** @param machines what is answered of machines */
function page(machines: (asked: Asked) => unknown, only?: string) {
  return inPage(
    () => {
      useEvents().open();
      const store = useCutters();
      store.follow(only === undefined ? undefined : () => only);
      return store;
    },
    (asked) => (asked.path.startsWith('/api/cutters') ? machines(asked) : CUTS),
  );
}
const machinesAsked = (asked: readonly string[]) => asked.filter((path) => path.includes('/api/cutters'));

test('what is queued does not wait for a machine that is switched off, which is asked no second time meanwhile', async () => {
  const { it, asked } = page(() => new Promise(() => {}));
  await later();
  expect([it.ready, it.cuts]).toEqual([true, CUTS]);
  await later(60_000);
  expect(machinesAsked(asked())).toHaveLength(1);
});

test('machines are asked again while the page is there, and not after it was left', async () => {
  const { it, asked, leave } = page(() => STATES);
  await later(9000);
  expect(machinesAsked(asked())).toHaveLength(3);
  expect(it.states.map(({ id }) => id)).toEqual(['curlew', 'heron']);
  leave();
  await later(60_000);
  expect(machinesAsked(asked())).toHaveLength(3);
});

test('of one machine only that is asked, and what is known of the others stays', async () => {
  const { it, asked } = page(({ path }) => (path.includes('only=curlew') ? [{ id: 'curlew', film: 'x' }] : STATES), 'curlew'); // prettier-ignore
  it.states = STATES as unknown as typeof it.states;
  await later();
  expect(machinesAsked(asked())).toEqual(['GET /api/cutters?only=curlew']);
  expect(it.states).toEqual([{ id: 'curlew', film: 'x' }, { id: 'heron' }]);
});

test('when something of a cut happens, or the line is back, both are asked for; what fails is said until it goes well', async () => {
  let isBroken = true;
  const { it, asked, tell, comeBack } = page(() => {
    if (isBroken) throw new Refused(503, { code: 'too-busy', message: 'Too much to do.' });
    return STATES;
  });
  await later();
  expect(it.problem?.message).toBe('Too much to do.');
  isBroken = false;
  const before = asked().length;
  tell({ kind: 'cut', cutId: 1, orderId: 2, cutterId: 'curlew' });
  await later();
  expect(asked().slice(before).sort()).toEqual(['GET /api/cuts', 'GET /api/cutters']);
  expect(it.problem).toBeUndefined();
  comeBack();
  await later();
  expect(asked().slice(before)).toHaveLength(4);
});
