import type { Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { pino } from 'pino';
import type { Logger } from 'pino';
import type { AppOptions } from './app';
import { createApp } from './app';
import { openDispatcher } from './cutters/dispatcher';
import { connect } from './db/connect';
import { openHub } from './events/hub';
import type { CutServices } from './services/cuts';
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
  readonly log?: Logger;
}

/** Starts one server process's worth of Jam Pan, on loopback. */
export async function openServer({
  databaseUrl,
  port = 0,
  log = pino({ level: 'warn' }),
  ...options
}: ServerOptions): Promise<RunningServer> {
  const { db, close: closeDb } = await connect(databaseUrl, log);
  const hub = await openHub(databaseUrl, db, log);
  const pool = openPool();
  const dispatcher = await openDispatcher(databaseUrl, { db, hub, pool, log });
  const services: CutServices = { db, hub, pool, dispatch: dispatcher.dispatch };
  void fillSummaries(services).catch((error: unknown) => log.warn({ err: error }, 'rows without a picture'));
  const app = createApp(services, log, options);
  const server = await new Promise<Server>((done) => {
    const listening = app.listen(port, '127.0.0.1', () => done(listening));
  });
  return {
    url: `http://127.0.0.1:${(server.address() as AddressInfo).port}`,
    services,
    close: async () => {
      server.closeAllConnections();
      await new Promise((done) => server.close(done));
      await dispatcher.close();
      await pool.close();
      await hub.close();
      await closeDb();
    },
  };
}
