/**
 * Events that reach every open page, whichever server process it talks to: NOTIFY on one side, LISTEN and
 * server-sent events on the other.
 */
import { createChannel } from 'better-sse';
import { sql } from 'drizzle-orm';
import type { Logger } from 'pino';
import { eventSchema } from '../../contracts/api';
import type { HeadNow, ShopEvent } from '../../contracts/api';
import { isDatabaseAway } from '../db/away';
import type { Db } from '../db/connect';
import { tellHeads } from './headsTold';
import { listenForever } from './listen';

const CHANNEL = 'jam_pan';

/** For streams of events: these are JSON on one line already, not written anew for every page. */
export const AS_WRITTEN = { serializer: String, sanitizer: String } as const;

/** A page that hears of the shop. */
export interface OpenPage {
  /** Its log-in. */
  readonly sid: string;
  readonly end: () => void;
}

export interface Hub {
  readonly tell: (event: ShopEvent) => Promise<void>;
  /** Told soon, with those of other machines. */
  readonly tellHead: (head: HeadNow) => void;
  readonly on: (listener: (event: ShopEvent) => void) => () => void;
  /** Of what is written once for all: see `AS_WRITTEN`. */
  readonly pages: ReturnType<typeof createChannel<object, OpenPage>>;
  readonly close: () => Promise<void>;
}

export async function openHub(url: string, db: Db, log: Logger): Promise<Hub> {
  const pages = createChannel<object, OpenPage>();
  const listeners = new Set<(event: ShopEvent) => void>();

  const pass = (event: ShopEvent): void => {
    pages.broadcast(JSON.stringify(event), 'shop');
    for (const listener of listeners) listener(event);
  };
  const listening = await listenForever(url, CHANNEL, log, {
    hear: (payload) => {
      const event = eventOf(payload);
      if (event) pass(event);
    },
    backAgain: () => pass({ kind: 'missed' }),
  });

  const tell = async (event: ShopEvent): Promise<void> => {
    try {
      await db.execute(sql`select pg_notify(${CHANNEL}, ${JSON.stringify(event)})`);
    } catch (error) {
      // what is told was done: pages ask again once the database is back
      if (!isDatabaseAway(error)) throw error;
      log.warn({ event: event.kind }, 'nobody was told');
    }
  };
  const heads = tellHeads((moved) => tell({ kind: 'heads', heads: moved }));

  return {
    tell,
    tellHead: heads.note,
    on: (listener) => {
      listeners.add(listener);
      return () => listeners.delete(listener);
    },
    pages,
    close: () => {
      heads.close();
      return listening.close();
    },
  };
}

/** Anybody with the database's password can notify: what is no event of ours is passed over. */
function eventOf(payload: string): ShopEvent | undefined {
  try {
    return eventSchema.safeParse(JSON.parse(payload)).data;
  } catch {
    return undefined;
  }
}
