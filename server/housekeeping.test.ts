/** What grows stays within limits, and what a shop wants to keep is kept. */
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { eq, inArray, sql } from 'drizzle-orm';
import { readFileSync } from 'node:fs';
import type { Order, TakenPicture } from '../contracts/api';
import type { Cut, Repeats } from '../contracts/cuts';
import type { Kept } from '../contracts/usage';
import { seedShop } from '../demo/seed';
import { freshDatabase } from './db/freshDatabase.testing';
import { cuts, files, readings } from './db/schema';
import type { RunningServer } from './open';
import { openServer } from './open';
import type { SignedIn } from './people/signIn.testing';
import { signIn } from './people/signIn.testing';
import { clearAway } from './services/housekeeping';

let server: RunningServer;
let lead: SignedIn;
const db = () => server.services.db;
const api = () => lead.agent;

beforeAll(async () => {
  server = await openServer({ databaseUrl: await freshDatabase('jampan_house'), filesPerMinute: 1000 });
  const nowhere = { host: '127.0.0.1', port: 9 };
  await seedShop(server.services, { curlew: nowhere, heron: nowhere });
  lead = await signIn(server);
}, 60_000);
afterAll(() => server.close(), 30_000);

const drawing = (k: number): Buffer =>
  Buffer.from(
    `<svg xmlns="http://www.w3.org/2000/svg" width="90mm" height="60mm"><path fill="#4b1f4a" d="M9 9h${50 + k}v30h-40z"/></svg>`,
  );
const order = async (k: number): Promise<Order> =>
  (await api().post('/api/orders').attach('file', drawing(k), `d${k}.svg`).expect(200)).body as Order;
const file = async (k: number): Promise<string> =>
  (
    (await api().post('/api/files').attach('file', drawing(k), `d${k}.svg`).expect(200)).body as {
      hash: string;
    }
  ).hash;
const kept = async (): Promise<Kept> => (await api().get('/api/kept').expect(200)).body as Kept;
const monthsAgo = (months: number) => sql`now() - make_interval(months => ${months})`;

test('what files read as stays within its limit: what was asked for last is kept, the rest is read anew', async () => {
  const all = [await order(1), await order(2), await order(3)];
  const sources = all.map(({ choices }) => choices.artwork.pieces[0].source);
  const read = (k: number) =>
    api()
      .get('/api/readings')
      .query({ source: JSON.stringify(sources[k]) })
      .expect(200);
  await db()
    .update(readings)
    .set({ usedAt: monthsAgo(1) });
  await read(1);
  const { bytes } = (
    await db()
      .select({ bytes: sql<number>`max(octet_length(data))` })
      .from(readings)
  )[0];
  await clearAway(db(), bytes);
  const left = await db().select({ usedAt: readings.usedAt }).from(readings);
  expect(left).toHaveLength(1);
  expect(Date.now() - left[0].usedAt.getTime()).toBeLessThan(60_000);
  for (const k of [0, 1, 2]) await read(k);
  expect(await db().$count(readings)).toBeGreaterThanOrEqual(3);
});

test('what an idle tablet looks at is not written down', async () => {
  const { choices } = await order(4);
  const [{ source }] = choices.artwork.pieces;
  await db().delete(readings);
  const tablet = await signIn(server);
  await tablet.agent.post('/api/session/tablet').send({ cutter: 'curlew' }).expect(200);
  await tablet.agent.post('/api/session/away').expect(200);
  const ask = () => tablet.agent.get('/api/readings').query({ source: JSON.stringify(source) });
  await ask().expect(200);
  expect(await db().$count(readings)).toBe(0);
});

test('files that nobody made an order of go after a month; those of an order, a revision, or a wall stay', async () => {
  const used = (await order(5)).choices.artwork.pieces[0].source as unknown as { hash: string };
  const [unused, again] = [await file(6), await file(7)];
  const picture = readFileSync('demo/art/tide-stamp.png');
  const wall = (
    (await api().post('/api/pictures').attach('file', picture, 'wall.png').expect(200)).body as TakenPicture
  ).file;
  const walled = await order(8);
  await api()
    .patch(`/api/orders/${walled.id}/choices`)
    .send({
      base: 0,
      edits: [
        {
          path: ['panels', 'surface'],
          was: null,
          is: {
            width: 900,
            height: 600,
            x: 0,
            y: 0,
            keepOuts: [],
            picture: {
              file: wall,
              width: 10,
              height: 10,
              from: { x: 0, y: 0 },
              to: { x: 9, y: 0 },
              apart: 900,
              at: { x: 0, y: 0 },
            },
          },
        },
      ],
    })
    .expect(200);
  await api().post(`/api/orders/${walled.id}/undo`).expect(200);
  const there = async (): Promise<string[]> =>
    (await db().select({ hash: files.hash }).from(files)).map(({ hash }) => hash);
  await clearAway(db());
  expect(await there()).toEqual(expect.arrayContaining([used.hash, unused, again]));
  await db()
    .update(files)
    .set({ createdAt: monthsAgo(2) });
  await file(7);
  await clearAway(db());
  const left = await there();
  expect(left).toContain(used.hash);
  expect(left).toContain(again);
  // undone, redo leads to it still
  expect(left).toContain(wall);
  expect(left).not.toContain(unused);
  // what was seen in an order is not looked for again
  const [row] = await db().select().from(files).where(eq(files.hash, used.hash));
  expect(row.isInOrder).toBe(true);
});

test('programs and records of cuts are kept as long as the shop says, and their facts for ever', async () => {
  const first = await order(9);
  const queued = (await api().post(`/api/orders/${first.id}/queue`).send({ revision: 0 }).expect(200))
    .body as Cut[];
  const ids = queued.map(({ id }) => id);
  await db().update(cuts).set({ state: 'done', endedAt: monthsAgo(7) }).where(inArray(cuts.id, ids)); // prettier-ignore
  await clearAway(db());
  const before = await kept();
  expect(before.cuts).toMatchObject({ count: ids.length, months: null });
  expect(before.cuts.bytes).toBeGreaterThan(100);
  expect(before.files).toBeGreaterThan(100);

  await api().patch('/api/shop').send({ keepCuts: 12 }).expect(200);
  await clearAway(db());
  expect((await kept()).cuts).toMatchObject({ count: ids.length, months: 12 });
  await api().patch('/api/shop').send({ keepCuts: 6 }).expect(200);
  await clearAway(db());
  expect((await kept()).cuts).toEqual({ count: 0, bytes: 0, months: 6 });

  // what hung on them says so
  const { body } = await api().get(`/api/cuts/${ids[0]}/drawing`).expect(404);
  expect(body).toMatchObject({ code: 'not-kept' });
  await api().post(`/api/cuts/${ids[0]}/again`).send({}).expect(404);
  const cut = (await api().get(`/api/cuts/${ids[0]}`).expect(200)).body as Cut;
  expect(cut.cutLength).toBe(queued[0].cutLength);
  const again = (await api().post(`/api/orders/${first.id}/repeat`).expect(200)).body as Order;
  const { differs } = (await api().get(`/api/orders/${again.id}/repeats`).expect(200)).body as Repeats;
  expect(differs).toEqual([expect.stringMatching(/not kept any more; its settings are the same\.$/)]);
  await api().patch('/api/shop').send({ keepCuts: null }).expect(200);
  await api().patch('/api/shop').send({ keepCuts: 0 }).expect(400);
});
