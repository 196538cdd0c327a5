/** Answers get lost: what is asked for again is made once, and what was done is not said to have failed. */
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { pino } from 'pino';
import type { Order } from '../../contracts/api';
import type { Cut } from '../../contracts/cuts';
import { KEY_HEADER } from '../../contracts/api';
import { seedShop } from '../../demo/seed';
import type { Db } from '../db/connect';
import { freshDatabase } from '../db/freshDatabase.testing';
import { madeOnce } from '../db/schema';
import { openHub } from '../events/hub';
import type { RunningServer } from '../open';
import { openServer } from '../open';
import type { SignedIn } from '../people/signIn.testing';
import { signIn } from '../people/signIn.testing';
import { forgetOld } from './onlyOnce';

let url: string;
let server: RunningServer;
let lead: SignedIn;
beforeAll(async () => {
  url = await freshDatabase('jampan_once');
  server = await openServer({ databaseUrl: url });
  await seedShop(server.services, { curlew: { host: '127.0.0.1', port: 9 } });
  lead = await signIn(server);
}, 60_000);
afterAll(() => server.close());

const SVG = `<svg xmlns="http://www.w3.org/2000/svg" width="90mm" height="60mm" viewBox="0 0 90 60"><path d="M5 5h60v40h-60z" fill="#4b1f4a"/></svg>`;
const start = async (key: string, who = lead): Promise<Order> =>
  (
    await who.agent
      .post('/api/orders')
      .set(KEY_HEADER, key)
      .attach('file', Buffer.from(SVG), 'knot.svg')
      .expect(200)
  ).body as Order;

test('an order that is begun again by the same name is the same order, also at the same moment', async () => {
  const first = await start('a');
  expect((await start('a')).id).toBe(first.id);
  expect((await start('b')).id).not.toBe(first.id);
  const four = await Promise.all(['c', 'c', 'c', 'c'].map((key) => start(key)));
  expect(new Set(four.map(({ id }) => id)).size).toBe(1);
  // names are each person's own
  expect((await start('a', await signIn(server, 'prep'))).id).not.toBe(first.id);
});

test('an order that is queued again by the same name is queued once, and by another it is refused', async () => {
  const { id, revision } = await start('to be queued');
  const queue = (key: string) =>
    lead.agent.post(`/api/orders/${id}/queue`).set(KEY_HEADER, key).send({ revision, hold: true });
  const cuts = (await queue('one').expect(200)).body as Cut[];
  expect(cuts).toHaveLength(1);
  expect(((await queue('one').expect(200)).body as Cut[]).map((cut) => cut.id)).toEqual([cuts[0].id]);
  expect((await queue('two').expect(409)).body.code).toBe('already-queued');
});

test('requests that nobody sends again are forgotten', async () => {
  const { db } = server.services;
  await db.update(madeOnce).set({ madeAt: new Date(Date.now() - 2 * 86_400_000) });
  await start('new');
  await forgetOld(db);
  expect(await db.$count(madeOnce)).toBe(1);
});

test('what was done is not said to have failed because nobody could be told', async () => {
  const away = Object.assign(new Error('terminating connection'), { code: '57P01' });
  const gone = { execute: () => Promise.reject(away) } as unknown as Db;
  const hub = await openHub(url, gone, pino({ level: 'silent' }));
  await expect(hub.tell({ kind: 'shop' })).resolves.toBeUndefined();
  await hub.close();
});
