import type { Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { pino } from 'pino';
import type { Logger } from 'pino';
import type { AppOptions } from './app';
import { createApp } from './app';
import { openDispatcher } from './cutters/dispatcher';
import { connect } from './db/connect';
import { endLostPages } from './events/lostPages';
import { openHub } from './events/hub';
import { countAttempts } from './people/attempts';
import { sessionsIn } from './people/session';
import type { CutServices } from './services/cuts';
import { keepHouse } from './services/housekeeping';
import { fillSummaries } from './services/orders';
import { openPool } from './work/pool';

export interface RunningServer {
  readonly url: string;
  readonly services: CutServices;
  readonly close: () => Promise<void>;
}

export interface ServerOptions extends AppOptions {
  readonly databaseUrl: string;
  readonly port?: number;
  /** The address that it listens at: this machine's own, if nothing else is said. */
  readonly listen?: string;
  readonly log?: Logger;
  /** That are to share the database, as far as that is known. */
  readonly servers?: number;
}

/** Starts one server process's worth of Jam Pan. */
export async function openServer({
  databaseUrl,
  port = 0,
  listen = '127.0.0.1',
  log = pino({ level: 'warn' }),
  servers,
  ...options
}: ServerOptions): Promise<RunningServer> {
  const { db, lines, close: closeDb } = await connect(databaseUrl, log, servers);
  const sessions = await sessionsIn(db, lines);
  const hub = await openHub(databaseUrl, db, log);
  const pool = openPool();
  const dispatcher = await openDispatcher(databaseUrl, { db, hub, pool, log });
  const services = { db, hub, pool, dispatch: dispatcher.dispatch, who: null };
  let isClosing = false;
  void fillSummaries(services).catch((error: unknown) => {
    // what is left is done at the next start
    if (!isClosing) log.warn({ err: error }, 'rows without a picture');
  });
  const attempts = countAttempts(lines);
  const app = createApp({ ...services, attempts, sessions: sessions.handler }, log, options);
  const stopKeeping = keepHouse(db, log);
  const stopEnding = endLostPages(services, log);
  const server = await new Promise<Server>((done) => {
    const listening = app.listen(port, listen, () => done(listening));
  });
  return {
    url: `http://${openedAt(listen)}:${(server.address() as AddressInfo).port}`,
    services,
    close: async () => {
      isClosing = true;
      stopEnding();
      stopKeeping();
      server.closeAllConnections();
      await new Promise((done) => server.close(done));
      await dispatcher.close();
      await pool.close();
      await hub.close();
      sessions.close();
      await closeDb();
    },
  };
}

/** Where it is opened on this machine: by loopback, unless it listens at one other address alone. */
const openedAt = (listen: string): string =>
  listen === '0.0.0.0' || listen === '::' ? '127.0.0.1' : listen.includes(':') ? `[${listen}]` : listen;
