/** A start changes nothing that a shop has set: the demo is laid out in an empty database, once. */
import { afterAll, afterEach, beforeAll, expect, test } from '@jest/globals';
import { asc } from 'drizzle-orm';
import { CURLEW_SPEC } from '../cutter-sim/machines';
import type { RunningSim } from '../cutter-sim/serve';
import { linksTo, serveSim } from '../cutter-sim/serve';
import { seedDemo } from '../demo/seed';
import type { Link } from './db/link';
import { EMPTY, freshDatabase } from './db/freshDatabase.testing';
import { cutters, films, orders, people, recipes, settings } from './db/schema';
import type { RunningServer } from './open';
import { openServer } from './open';
import { openLink } from './cutters/links/open';

let sim: RunningSim;
let databaseUrl: string;
let server: RunningServer;
beforeAll(async () => {
  databaseUrl = await freshDatabase('jampan_seed_once', EMPTY);
  sim = await serveSim({ spec: CURLEW_SPEC, timeFactor: 30 });
});
afterAll(() => sim.close());
afterEach(() => server.close());

/** Starts as `npm start` does. */
async function start(simulators: object = linksTo({ curlew: sim })): Promise<boolean> {
  process.env.SIMULATORS = JSON.stringify(simulators);
  server = await openServer({ databaseUrl });
  return seedDemo(server.services);
}
const linkTo = async (id: string): Promise<Link> =>
  (await server.services.db.select().from(cutters)).find((one) => one.id === id)!.link;

test('an empty database gets the demo, its machines by the names of their simulators', async () => {
  expect(await start()).toBe(true);
  const { db } = server.services;
  expect(await linkTo('curlew')).toEqual({ by: 'simulator', name: 'curlew' });
  expect((await db.select().from(settings))[0].printerLink).toBe('simulator:printer');
  expect(await db.$count(orders)).toBeGreaterThan(4);
  // what runs says where it is
  const line = await openLink(await linkTo('curlew'));
  await line.send('OI;');
  expect(await line.answer()).toMatch(/\w/);
  line.close();
  await expect(openLink(await linkTo('heron'))).rejects.toThrow(/no simulator “heron” runs/);
}, 60_000);

test('after that, what was changed, cleared and removed stays so, wherever the simulators are now', async () => {
  expect(await start()).toBe(false);
  const { db } = server.services;
  const own: Link = { by: 'tcp', host: '10.1.2.3', port: 9100 };
  await db.update(cutters).set({ link: own });
  await db.update(settings).set({ printerLink: 'http://10.1.2.4:8080' });
  await db.delete(recipes);
  await db.execute('truncate orders cascade');
  await db.delete(people);
  await db.delete(films);
  await server.close();

  expect(await start({})).toBe(false);
  const again = server.services.db;
  for (const { link } of await again.select().from(cutters).orderBy(asc(cutters.id)))
    expect(link).toEqual(own);
  expect((await again.select().from(settings))[0].printerLink).toBe('http://10.1.2.4:8080');
  for (const table of [recipes, orders, people, films]) expect(await again.$count(table)).toBe(0);
}, 60_000);

test('a database of a shop that was never asked about the demo is left as it is', async () => {
  databaseUrl = await freshDatabase('jampan_seed_never', EMPTY);
  server = await openServer({ databaseUrl });
  await server.services.db.insert(people).values({ name: 'Own', role: 'lead', password: 'x' });
  expect(await seedDemo(server.services)).toBe(false);
  expect(await server.services.db.$count(films)).toBe(0);
}, 60_000);
