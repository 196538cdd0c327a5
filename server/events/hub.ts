/**
 * Events that reach every open page, whichever server process it talks to: NOTIFY on one side, LISTEN and
 * server-sent events on the other.
 */
import { createChannel } from 'better-sse';
import { sql } from 'drizzle-orm';
import type { Logger } from 'pino';
import pg from 'pg';
import { eventSchema } from '../../contracts/api';
import type { ShopEvent } from '../../contracts/api';
import type { Db } from '../db/connect';

const CHANNEL = 'jam_pan';
const RECONNECT_MS = 1000;

export interface Hub {
  readonly tell: (event: ShopEvent) => Promise<void>;
  readonly on: (listener: (event: ShopEvent) => void) => () => void;
  readonly pages: ReturnType<typeof createChannel>;
  readonly close: () => Promise<void>;
}

export async function openHub(url: string, db: Db, log: Logger): Promise<Hub> {
  const pages = createChannel();
  const listeners = new Set<(event: ShopEvent) => void>();
  let client: pg.Client | undefined;
  let closed = false;

  const receive = (payload: string | undefined): void => {
    const parsed = eventSchema.safeParse(JSON.parse(payload ?? 'null'));
    if (!parsed.success) return;
    pages.broadcast(parsed.data, 'shop');
    for (const listener of listeners) listener(parsed.data);
  };

  const listen = async (): Promise<void> => {
    client = new pg.Client({ connectionString: url });
    client.on('notification', (message) => receive(message.payload));
    client.on('error', (error) => {
      log.warn({ error: error.message }, 'lost the event connection');
      client = undefined;
      if (!closed) setTimeout(() => void listen().catch(() => {}), RECONNECT_MS);
    });
    await client.connect();
    await client.query(`listen ${CHANNEL}`);
  };
  await listen();

  return {
    tell: async (event) =>
      void (await db.execute(sql`select pg_notify(${CHANNEL}, ${JSON.stringify(event)})`)),
    on: (listener) => {
      listeners.add(listener);
      return () => listeners.delete(listener);
    },
    pages,
    close: async () => {
      closed = true;
      await client?.end();
    },
  };
}
