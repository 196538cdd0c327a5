/** A record that a machine did not give when its cut ended is fetched later, unless something else was cut there since. */
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { createServer } from 'node:http';
import type { Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { eq } from 'drizzle-orm';
import type { AtCurlew } from '../atCurlew.testing';
import { atCurlew } from '../atCurlew.testing';
import { cutters } from '../db/schema';

let shop: AtCurlew;
/** The machine's panel, by a line that can be broken. */
let panel: Server;
let isBroken = false;

beforeAll(async () => {
  shop = await atCurlew('jampan_record_later');
  panel = createServer((request, response) => {
    if (isBroken) return void request.destroy();
    void fetch(new URL(request.url!, shop.sim.panel)).then(async (given) => response.end(await given.text()));
  });
  await new Promise<void>((done) => panel.listen(0, '127.0.0.1', done));
  const { db } = shop.server.services;
  const [{ link }] = await db.select().from(cutters).where(eq(cutters.id, 'curlew'));
  const at = `http://127.0.0.1:${(panel.address() as AddressInfo).port}`;
  await db
    .update(cutters)
    .set({ link: { ...link, panel: at } })
    .where(eq(cutters.id, 'curlew'));
}, 60_000);
afterAll(async () => {
  await shop.close();
  panel.close();
}, 30_000);

test('fetched once the machine gives it', async () => {
  isBroken = true;
  const cut = await shop.begin(1);
  const done = await shop.inState(cut.id, 'done');
  expect([done.recordWanted, done.deviation]).toEqual([true, null]);
  await shop.api().get(`/api/cuts/${cut.id}/record`).expect(404);
  isBroken = false;
  const later = await shop.until(cut.id, ({ recordWanted }) => !recordWanted);
  expect(later.deviation).toBeLessThan(0.1);
  expect(later.asCut).toMatchObject({ missing: [], twice: [] });
  await shop.api().get(`/api/cuts/${cut.id}/record`).expect(200);
}, 60_000);

test('what was drawn over by the next cut is not taken for it', async () => {
  isBroken = true;
  const first = await shop.begin(1);
  await shop.inState(first.id, 'done');
  const second = await shop.begin(2);
  await shop.inState(second.id, 'done');
  isBroken = false;
  const later = await shop.until(second.id, ({ recordWanted }) => !recordWanted);
  expect(later.deviation).toBeLessThan(0.1);
  const before = await shop.getCut(first.id);
  expect([before.recordWanted, before.deviation]).toEqual([false, null]);
}, 60_000);
