/** Before all browser tests: the demo shop is read and planned once, and every file of tests begins with a copy of it. */
import { expect } from '@playwright/test';
import pg from 'pg';
import { EMPTY, freshDatabase } from '../server/db/freshDatabase.testing';
import { ended, SEEDED, startShop } from './shop';

export default async function seedOnce(): Promise<void> {
  const databaseUrl = await freshDatabase(SEEDED, EMPTY);
  const { child } = await startShop(databaseUrl);
  const client = new pg.Client(databaseUrl);
  await client.connect();
  // rows get their pictures after it is ready
  const bare = async (): Promise<unknown> =>
    (await client.query('select count(*)::int from orders where summary is null')).rows[0].count;
  await expect.poll(bare, { timeout: 120_000 }).toBe(0);
  await ended(child);
  // nothing is copied while somebody is in it
  await client.query('select pg_terminate_backend(pid) from pg_stat_activity where datname = current_database() and pid <> pg_backend_pid()'); // prettier-ignore
  await client.end();
}
