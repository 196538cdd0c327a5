import { join } from 'node:path';
import { drizzle } from 'drizzle-orm/node-postgres';
import type { NodePgDatabase } from 'drizzle-orm/node-postgres';
import { migrate } from 'drizzle-orm/node-postgres/migrator';
import pg from 'pg';
import type { Logger } from 'pino';
import { APP, linesOf } from './lines';
import * as schema from './schema';

export type Db = NodePgDatabase<typeof schema>;
/** A transaction on it. */
export type Tx = Parameters<Parameters<Db['transaction']>[0]>[0];

const CONNECT_MS = 5000;

const urgent = new WeakMap<Db, Db>();
/** A database by a connection of its own, for what must not wait behind everything else: leases and Stop. */
export const urgently = (db: Db): Db => urgent.get(db) ?? db;

/**
 * A pool on the shop's database, migrated. Two servers may start at once: one migrates, the other waits.
 * @param servers that are to share the database
 */
export async function connect(
  url: string,
  log: Logger,
  servers = 1,
): Promise<{ db: Db; lines: pg.Pool; close: () => Promise<void> }> {
  // a connection may break at any time, lent out or not: whoever uses it hears of it from the query
  const noteLoss = (error: Error): void => log.warn({ error: error.message }, 'lost a database connection');
  const poolOf = (max: number): pg.Pool => {
    const settings = { connectionString: url, connectionTimeoutMillis: CONNECT_MS, application_name: APP };
    const pool = new pg.Pool({ ...settings, max });
    pool.on('error', noteLoss);
    pool.on('connect', (client) => client.on('error', noteLoss));
    return pool;
  };
  const [pool, beside] = [poolOf(await linesOf(url, servers, log)), poolOf(1)];
  const client = await pool.connect();
  try {
    await client.query('select pg_advisory_lock(731001)');
    await migrate(drizzle(client), { migrationsFolder: join(process.cwd(), 'server/db/migrations') });
  } finally {
    await client.query('select pg_advisory_unlock(731001)');
    client.release();
  }
  const db = drizzle(pool, { schema });
  urgent.set(db, drizzle(beside, { schema }));
  return { db, lines: pool, close: async () => void (await Promise.all([pool.end(), beside.end()])) };
}
