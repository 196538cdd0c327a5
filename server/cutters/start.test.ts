/** Several servers that start at the same moment on one database. */
import { afterAll, expect, test } from '@jest/globals';
import { pino } from 'pino';
import { connect } from '../db/connect';
import { EMPTY, freshDatabase } from '../db/freshDatabase.testing';
import { openHub } from '../events/hub';
import { openPool } from '../work/pool';
import { openDispatcher } from './dispatcher';

const SERVERS = 6;
const ROUNDS = 8;
const log = pino({ level: 'silent' });
const pool = openPool(1);
afterAll(() => pool.close());

/** What of a server waits for the database when it starts. @returns how it is closed */
async function start(databaseUrl: string): Promise<() => Promise<void>> {
  const { db, close } = await connect(databaseUrl, log);
  const hub = await openHub(databaseUrl, db, log);
  const dispatcher = await openDispatcher(databaseUrl, { db, hub, pool, log });
  await dispatcher.dispatch({ cutId: 0 }); // no such cut: the queue takes it all the same
  return async () => {
    await dispatcher.close();
    await hub.close();
    await close();
  };
}

test('servers that start at once on an empty database lay it out once, and every one can queue', async () => {
  for (let round = 0; round < ROUNDS; round++) {
    const databaseUrl = await freshDatabase('jampan_start', EMPTY);
    const started = await Promise.allSettled(Array.from({ length: SERVERS }, () => start(databaseUrl)));
    for (const one of started) if (one.status === 'fulfilled') await one.value();
    expect(started.flatMap((one) => (one.status === 'rejected' ? [String(one.reason)] : []))).toEqual([]);
  }
}, 60_000);
