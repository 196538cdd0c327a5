import { expect, test } from '@jest/globals';
import type { SessionNow } from '../../contracts/people';
import { inPage, Refused, settled } from '../inPage.testing';
import { call } from './api';
import { useMe } from './me';

const session = (more: Partial<SessionNow>): SessionNow =>
  ({ me: null, tablet: null, hands: [], demo: [], ...more }) as unknown as SessionNow;
const LEAD = session({ me: { id: 1, name: 'Thrift', role: 'lead' } as SessionNow['me'] });
const TABLET = session({ tablet: 'curlew' as unknown as SessionNow['tablet'] });

/** @param answer to what asks for a person; the session is as given */
function page(first: SessionNow, answer: () => unknown) {
  let now = first;
  const made = inPage(useMe, ({ method, path }) => {
    if (path === '/api/session/here') return (now = LEAD);
    if (path === '/api/session') return method === 'POST' ? (now = LEAD) : now;
    return answer();
  });
  return { ...made, set: (to: SessionNow) => void (now = to) };
}

test('who may do what; at a tablet that nobody is at, whoever presses is asked then', async () => {
  const { it, set } = page(session({}), () => ({}));
  await it.refresh();
  expect([it.isIn, it.wasIn, it.may('prep')]).toEqual([false, false, false]);
  set(TABLET);
  await it.refresh();
  expect([it.isIn, it.may('operator')]).toEqual([true, true]);
  set(session({ me: { id: 2, name: 'Marram', role: 'prep' } as SessionNow['me'] }));
  await it.refresh();
  expect([it.may('prep'), it.may('operator')]).toEqual([true, false]);
});

test('what asks for a PIN waits for it, and is done then', async () => {
  let isKnown = false;
  const { it, asked } = page(TABLET, () => {
    if (!isKnown) throw new Refused(401, { code: 'pin-wanted', message: 'Who is it?' });
    return { done: true };
  });
  await it.refresh();
  const pressed = call('POST /api/floor/pause');
  await settled();
  expect(it.isPinWanted).toBe(true);
  isKnown = true;
  await it.comeHere(1, '4063');
  expect(await pressed).toEqual({ done: true });
  expect(it.isPinWanted).toBe(false);
  expect(asked().filter((one) => one === 'POST /api/floor/pause')).toHaveLength(2);
});

test('whoever gives no PIN after all has done nothing', async () => {
  const { it } = page(TABLET, () => {
    throw new Refused(401, { code: 'pin-wanted', message: 'Who is it?' });
  });
  await it.refresh();
  const pressed = call('POST /api/floor/pause');
  await settled();
  it.neverMind();
  await expect(pressed).rejects.toMatchObject({ code: 'pin-wanted' });
});

test('a log-in that ended: what was asked for is done once somebody is in again', async () => {
  let isIn = false;
  const { it, set } = page(LEAD, () => {
    if (!isIn) throw new Refused(401, { code: 'log-in', message: 'Log in.' });
    return [];
  });
  await it.refresh();
  set(session({}));
  const asked = call('GET /api/cuts');
  await settled();
  expect([it.isIn, it.wasIn]).toEqual([false, true]);
  isIn = true;
  await it.logIn('Thrift', 'thrift at the till');
  expect(await asked).toEqual([]);
});

test('while the server is away, nothing is known anew, and nobody is out', async () => {
  let isAway = false;
  const { it } = inPage(useMe, () => {
    if (isAway) throw new Error('away');
    return LEAD;
  });
  await it.refresh();
  isAway = true;
  await it.refresh();
  expect([it.isIn, it.me?.name]).toEqual([true, 'Thrift']);
});
