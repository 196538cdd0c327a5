/** Who has a cutter, against a real database. */
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { eq, sql } from 'drizzle-orm';
import pino from 'pino';
import type { Db } from '../db/connect';
import { connect } from '../db/connect';
import { freshDatabase } from '../db/freshDatabase.testing';
import { leases } from '../db/schema';
import { LEASE_MS, takeLease } from './lease';

const log = pino({ level: 'silent' });
let db: Db;
let close: () => Promise<void>;

beforeAll(async () => {
  ({ db, close } = await connect(await freshDatabase('jampan_leases'), log));
});
afterAll(() => close());

const ends = async (cutterId: string): Promise<number> => {
  const [row] = await db.select().from(leases).where(eq(leases.cutterId, cutterId));
  return row?.expiresAt ?? 0;
};

async function until(isSo: () => Promise<boolean> | boolean): Promise<void> {
  for (
    const latest = Date.now() + LEASE_MS;
    !(await isSo());
    await new Promise((done) => setTimeout(done, 50))
  )
    if (Date.now() > latest) throw new Error('it did not come to that');
}

test('all that are held are renewed, without those that were given back or that another one took', async () => {
  const [curlew, heron, dunlin] = await Promise.all(['curlew', 'heron', 'dunlin'].map((id) => takeLease(db, id, `own ${id}`))); // prettier-ignore
  const [first, second] = [await ends('curlew'), await ends('heron')];
  await dunlin!.release();
  // what it took to be lost is taken over by another server
  await db
    .update(leases)
    .set({ holder: 'other', expiresAt: sql`${leases.expiresAt} + 60000` })
    .where(eq(leases.cutterId, 'heron'));
  await until(async () => (await ends('curlew')) > first);
  await until(() => !heron!.held());
  expect([curlew!.held(), await ends('heron'), await ends('dunlin'), dunlin!.held()]).toEqual([true, second + 60_000, 0, false]); // prettier-ignore
  expect(await takeLease(db, 'heron', 'own heron again')).toBeUndefined();
  await heron!.release();
  expect(await ends('heron')).toBe(second + 60_000);
  await curlew!.release();
  expect(await ends('curlew')).toBe(0);
});

test('one that was given back is anybody’s at once, and is renewed for whoever has it then', async () => {
  const first = (await takeLease(db, 'curlew', 'first'))!;
  await first.release();
  const next = (await takeLease(db, 'curlew', 'next'))!;
  const then = await ends('curlew');
  await until(async () => (await ends('curlew')) > then);
  expect([first.held(), next.held()]).toEqual([false, true]);
  await next.release();
});

test('who waits has it as soon as it has run out', async () => {
  const gone = (await takeLease(db, 'curlew', 'gone'))!;
  const waiting = takeLease(db, 'curlew', 'waiting', LEASE_MS);
  await db.update(leases).set({ expiresAt: 1 }).where(eq(leases.cutterId, 'curlew'));
  const has = await waiting;
  expect(has?.held()).toBe(true);
  await until(() => !gone.held());
  await has!.release();
  await gone.release();
});
