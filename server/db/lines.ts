/** How many connections a server takes, so that all servers together have room in their database. */
import pg from 'pg';
import type { Logger } from 'pino';

/** What a server's connections are called: by these names servers that share a database see one another. */
export const [APP, APP_EVENTS] = ['jam-pan', 'jam-pan events'];

/** At once, of one server: with more on few cores everybody waits longer, by `bench/floor.ts`. */
const MOST_LINES = 8;
/** With fewer than these people wait for one another. */
const LEAST_LINES = 2;
/** Beside the pool: what is heard, what must not wait, and two for the queue. */
const BESIDE = 4;

export interface Room {
  /** Connections that the database has for everybody, those for its keeper left out. */
  readonly most: number;
  /** Of them, those of other programs. */
  readonly others: number;
  /** Servers that run already. */
  readonly running: number;
}

/** Connections for a server's pool. @param servers that are to run, as far as that is known */
export function linesFor({ most, others, running }: Room, servers: number): number {
  const share = Math.floor((most - others) / Math.max(running + 1, servers)) - BESIDE;
  return Math.min(MOST_LINES, Math.max(LEAST_LINES, share));
}

/** As {@link linesFor}, asked of the database itself; that they are fewer than usual is logged. */
export async function linesOf(connectionString: string, servers: number, log: Logger): Promise<number> {
  const client = new pg.Client({ connectionString, application_name: APP });
  await client.connect();
  try {
    const { rows } = await client.query<Room>(
      `select current_setting('max_connections')::int - current_setting('superuser_reserved_connections')::int as most,
              count(*) filter (where application_name not in ($1, $2))::int as others,
              count(*) filter (where application_name = $2)::int as running
         from pg_stat_activity where backend_type = 'client backend'`,
      [APP, APP_EVENTS],
    );
    const lines = linesFor(rows[0], servers);
    if (lines < MOST_LINES)
      log.warn({ ...rows[0], lines }, 'the database allows few connections: raise max_connections');
    return lines;
  } finally {
    await client.end();
  }
}
