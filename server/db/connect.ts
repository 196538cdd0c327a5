import { join } from 'node:path';
import { drizzle } from 'drizzle-orm/node-postgres';
import type { NodePgDatabase } from 'drizzle-orm/node-postgres';
import { migrate } from 'drizzle-orm/node-postgres/migrator';
import pg from 'pg';
import type { Logger } from 'pino';
import * as schema from './schema';

export type Db = NodePgDatabase<typeof schema>;
/** A transaction on it. */
export type Tx = Parameters<Parameters<Db['transaction']>[0]>[0];

const CONNECT_MS = 5000;
/** At once, of one server: with more on few cores everybody waits longer, by `bench/floor.ts`. */
const MOST_LINES = 8;

/** A pool on the shop's database, migrated. Two servers may start at once: one migrates, the other waits. */
export async function connect(
  url: string,
  log: Logger,
): Promise<{ db: Db; lines: pg.Pool; close: () => Promise<void> }> {
  const pool = new pg.Pool({ connectionString: url, max: MOST_LINES, connectionTimeoutMillis: CONNECT_MS });
  // a connection may break at any time, lent out or not: whoever uses it hears of it from the query
  const noteLoss = (error: Error): void => log.warn({ error: error.message }, 'lost a database connection');
  pool.on('error', noteLoss);
  pool.on('connect', (client) => client.on('error', noteLoss));
  const client = await pool.connect();
  try {
    await client.query('select pg_advisory_lock(731001)');
    await migrate(drizzle(client), { migrationsFolder: join(process.cwd(), 'server/db/migrations') });
  } finally {
    await client.query('select pg_advisory_unlock(731001)');
    client.release();
  }
  return { db: drizzle(pool, { schema }), lines: pool, close: () => pool.end() };
}
