/** LISTEN that comes back: a connection of its own to the database, made again for as long as it takes. */
import type { Logger } from 'pino';
import pg from 'pg';
import { backOff } from '../db/away';
import { APP_EVENTS } from '../db/lines';

export interface Listening {
  readonly close: () => Promise<void>;
}

interface Ears {
  readonly hear: (payload: string) => void;
  /** The connection is there again after it was lost: what was said meanwhile went unheard. */
  readonly backAgain: () => void;
}

/** Resolves once it listens for the first time; after that it never stops trying until it is closed. */
export async function listenForever(
  url: string,
  channel: string,
  log: Logger,
  { hear, backAgain }: Ears,
): Promise<Listening> {
  let closed = false;
  let current: pg.Client | undefined;

  /** One connection, from its start to its loss. */
  const open = async (lost: () => void): Promise<void> => {
    const client = new pg.Client({
      connectionString: url,
      keepAlive: true,
      connectionTimeoutMillis: 5000,
      application_name: APP_EVENTS,
    });
    let gone = false;
    const end = (): void => {
      if (gone) return;
      gone = true;
      client.removeAllListeners('notification');
      if (current === client) current = undefined;
      client.end().catch(() => {});
      lost();
    };
    client.on('notification', ({ payload }) => hear(payload ?? ''));
    client.on('error', end);
    client.on('end', end);
    try {
      await client.connect();
      await client.query(`listen ${channel}`);
      current = client;
    } catch (error) {
      gone = true;
      client.end().catch(() => {});
      throw error;
    }
  };

  const lost = (): void => {
    if (closed) return;
    log.warn('lost the event connection');
    void again();
  };
  const again = async (): Promise<void> => {
    const wait = backOff(200, 5000);
    for (;;) {
      await wait();
      if (closed) return;
      try {
        await open(lost);
        if (closed) return void current?.end().catch(() => {});
        return backAgain();
      } catch (error) {
        log.debug({ error: String(error) }, 'no event connection yet');
      }
    }
  };

  await open(lost);
  return {
    close: async () => {
      closed = true;
      await current?.end().catch(() => {});
    },
  };
}
