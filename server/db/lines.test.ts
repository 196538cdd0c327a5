/** Connections are shared out between servers; what must not wait for one does not. */
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import pg from 'pg';
import { seedShop } from '../../demo/seed';
import { takeLease } from '../cutters/lease';
import type { RunningServer } from '../open';
import { openServer } from '../open';
import { changeRecipe, clearRecipe, recipeHistory } from '../services/recipes';
import { isDatabaseAway } from './away';
import type { Db } from './connect';
import { urgently } from './connect';
import { freshDatabase } from './freshDatabase.testing';
import { linesFor } from './lines';

let url: string;
let server: RunningServer;
let db: Db;
let lines: pg.Pool;
beforeAll(async () => {
  url = await freshDatabase('jampan_lines');
  server = await openServer({ databaseUrl: url });
  await seedShop(server.services, { curlew: { host: '127.0.0.1', port: 9 } });
  ({ db } = server.services);
  lines = (db as unknown as { $client: pg.Pool }).$client;
});
afterAll(() => server.close());

test('all servers fit into what the database allows; two are the least that one can work with', () => {
  const room = { most: 97, others: 0, running: 0 };
  expect(linesFor(room, 1)).toBe(8);
  expect(linesFor({ ...room, running: 7 }, 1)).toBe(8);
  for (const servers of [1, 2, 4, 8, 12])
    expect(servers * (4 + linesFor({ most: 90, others: 12, running: 0 }, servers))).toBeLessThanOrEqual(78);
  expect(linesFor({ most: 20, others: 10, running: 1 }, 1)).toBe(2);
});

test('without a free connection leases are renewed and Stop is heard', async () => {
  const taken = await Promise.all(Array.from({ length: lines.options.max }, () => lines.connect()));
  const begun = Date.now();
  const lease = await takeLease(urgently(db), 'curlew', 'somebody');
  expect(lease?.held()).toBe(true);
  await lease?.release();
  expect(Date.now() - begun).toBeLessThan(3000);
  for (const one of taken) one.release();
});

test('many recipes are changed at once, each from what it is then', async () => {
  const key = { cutterId: 'curlew', filmId: 'damson', kind: 'kiss' } as const;
  const before = await recipeHistory(db, key);
  const changes = Array.from({ length: 3 * lines.options.max }, (_, i) => ({ force: 60 + i }));
  await Promise.all(changes.map((change) => changeRecipe(server.services, key, change)));
  const after = await recipeHistory(db, key);
  expect(after.length - before.length).toBeGreaterThanOrEqual(changes.length);
  await expect(clearRecipe(server.services, { ...key, cutterId: 'nowhere' })).rejects.toMatchObject({
    status: 404,
  });
});

test('a database that has no connection left is away, and comes back', async () => {
  const { rows } = await lines.query<{ user: string }>('select current_user as user');
  const limited = `${rows[0].user}_limited`;
  await lines.query(`drop role if exists ${limited}`);
  await lines.query(`create role ${limited} login password 'x' connection limit 0`);
  const own = new URL(url);
  [own.username, own.password] = [limited, 'x'];
  const refused = await new pg.Client({ connectionString: own.href })
    .connect()
    .catch((error: unknown) => error);
  expect((refused as { code?: string }).code).toBe('53300');
  expect(isDatabaseAway(refused)).toBe(true);
  await lines.query(`drop role ${limited}`);
});
