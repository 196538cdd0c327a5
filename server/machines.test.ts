/** The shop's cutters as records, on a real PostgreSQL: added, changed, retired, and asked over their links. */
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { createServer } from 'node:net';
import type { AddressInfo } from 'node:net';
import type { Order } from '../contracts/api';
import type { Cut } from '../contracts/cuts';
import type { LinkTest, ShopNow } from '../contracts/shop';
import { editsBetween } from '../contracts/edits';
import { PLOVER_SPEC } from '../cutter-sim/machines';
import type { RunningSim } from '../cutter-sim/serve';
import { serveSim } from '../cutter-sim/serve';
import { seedShop } from '../demo/seed';
import { freshDatabase } from './db/freshDatabase.testing';
import type { RunningServer } from './open';
import { openServer } from './open';
import type { SignedIn } from './people/signIn.testing';
import { signIn } from './people/signIn.testing';

let lead: SignedIn;
let server: RunningServer;
let sim: RunningSim;

beforeAll(async () => {
  const databaseUrl = await freshDatabase('jampan_machines');
  [server, sim] = await Promise.all([
    openServer({ databaseUrl, filesPerMinute: 1000 }),
    serveSim({ spec: PLOVER_SPEC, timeFactor: 60 }),
  ]);
  await seedShop(server.services, { plover: { host: '127.0.0.1', port: sim.port, panel: sim.panel } });
  lead = await signIn(server);
}, 60_000);
afterAll(async () => {
  await server.close();
  await sim.close();
}, 30_000);

const api = () => lead.agent;
const shopNow = async (): Promise<ShopNow> => (await api().get('/api/shop').expect(200)).body as ShopNow;
const plover = async () => (await shopNow()).cutters.find(({ id }) => id === 'plover')!;

/** A square that Plover is to cut, queued. */
async function queued(): Promise<Cut> {
  const art = Buffer.from('<svg xmlns="http://www.w3.org/2000/svg" width="40mm" height="30mm" viewBox="0 0 40 30"><path fill="#2e6f7e" d="M0 0H40V30H0Z"/></svg>'); // prettier-ignore
  const { body } = await api().post('/api/orders').attach('file', art, 'square.svg').expect(200);
  const { id, choices, revision } = body as Order;
  const next = {
    ...choices,
    cutter: { ...choices.cutter, order: 'plover' },
    films: { ...choices.films, film: { '#2e6f7e': 'print-white' } },
  };
  const change = { base: revision, edits: editsBetween(choices, next) };
  const changed = await api().patch(`/api/orders/${id}/choices`).send(change).expect(200);
  const { body: cuts } = await api()
    .post(`/api/orders/${id}/queue`)
    .send({ revision: (changed.body as Order).revision })
    .expect(200);
  return (cuts as Cut[])[0];
}
const change = (what: object, id = 'plover') => api().patch(`/api/cutters/${id}`).send(what);

describe('a cutter’s record', () => {
  test('is changed, each thing by itself, and what could be no machine is told', async () => {
    await change({ widest: 330, thickest: 0.6 }).expect(200);
    await change({ name: 'Little Plover' }).expect(200);
    expect(await plover()).toMatchObject({ name: 'Little Plover', widest: 330, thickest: 0.6 });
    const { body } = await change({ narrowest: 400 }).expect(422);
    expect(body.message).toBe('The narrowest film (400.0 mm) is wider than the widest (330.0 mm).');
    await change({ widest: -1 }).expect(400);
    await change({ id: 'curlew' }).expect(400);
    await change({ widest: 320 }, 'nobody').expect(404);
    await change({ name: 'Plover', widest: 320, thickest: null }).expect(200);
    expect((await plover()).thickest).toBeNull();
  });

  test('two who change different things of it at once both do', async () => {
    await Promise.all(
      Array.from({ length: 10 }, (_, i) =>
        change(i % 2 ? { trackLength: 1400 + i } : { force: { least: 5, most: 200 + i } }).expect(200),
      ),
    );
    const { trackLength, force } = await plover();
    expect([trackLength > 1400, force.most >= 200]).toEqual([true, true]);
    await change({ trackLength: 1500, force: { least: 5, most: 210 } }).expect(200);
  });

  test('what a queued cut is made for is not changed under it, all else is', async () => {
    const cut = await queued();
    const { device } = await plover();
    // the same again, in another order of fields, is no change
    await change({ device: Object.fromEntries(Object.entries(device).reverse()) }).expect(200);
    const { body } = await change({ device: { ...device, feedReversed: !device.feedReversed } }).expect(409);
    expect(body).toMatchObject({ code: 'cuts-wait', message: '1 cut at Plover are made for it as it is.' });
    expect(body.waysOut).toHaveLength(2);
    await change({ reserve: 13 }).expect(200);
    await api().post('/api/cutters/plover/retire').expect(409);
    await api().post(`/api/cuts/${cut.id}/cancel`).expect(200);
    await change({ device: { ...device, feedReversed: !device.feedReversed } }).expect(200);
    await change({ device }).expect(200);
  });

  test('is added as most of its kind are, by a name of its own', async () => {
    const added = { name: 'Grebe', kind: 'roll', link: { by: 'tcp', host: '127.0.0.1', port: 9 } };
    await api().post('/api/cutters').send(added).expect(200);
    const { body } = await api().post('/api/cutters').send(added).expect(200);
    const ids = (body as ShopNow).cutters.map(({ id }) => id);
    expect(ids).toEqual(expect.arrayContaining(['grebe', 'grebe-2']));
    await api().post('/api/cutters').send({ ...added, link: { host: 'http://a/b', port: 9 } }).expect(400); // prettier-ignore
    await api()
      .post('/api/cutters')
      .send({ ...added, name: ' ' })
      .expect(400);
  });

  test('retired, nothing is planned for it; an order that picked it says who takes its place; brought back it is there again', async () => {
    const cut = await queued();
    await api().post(`/api/cuts/${cut.id}/cancel`).expect(200);
    await api().post('/api/cutters/plover/retire').expect(200);
    const { cutters, retired } = await shopNow();
    expect(cutters.map(({ id }) => id)).not.toContain('plover');
    expect(retired.map(({ id }) => id)).toEqual(['plover']);
    const again = await api().get(`/api/orders/${cut.orderId}`).expect(200);
    const { revision } = again.body as Order;
    const { body } = await api().post(`/api/orders/${cut.orderId}/queue`).send({ revision });
    const open = (body as Cut[]).filter(({ state }) => state !== 'cancelled');
    expect(open.map(({ cutterId }) => cutterId)).toEqual(['grebe']);
    await api().post('/api/cutters/plover/bring-back').expect(200);
    expect((await shopNow()).retired).toEqual([]);
  });
});

describe('a cutter’s link', () => {
  const ask = async (id = 'plover'): Promise<LinkTest> =>
    (await api().post(`/api/cutters/${id}/test`).expect(200)).body as LinkTest;
  const listenAt = (port: number, host = '127.0.0.1') =>
    api().patch('/api/cutters/plover/link').send({ by: 'tcp', host, port });

  test('answers, and says how soon and what is in the cutter', async () => {
    const { answers, ms, film, problem } = await ask();
    expect([answers, problem]).toEqual([true, null]);
    expect(ms).toBeGreaterThan(0);
    expect(film === null || film.width > 0).toBe(true);
    expect((await api().get('/api/cutters/plover/link').expect(200)).body).toEqual({
      by: 'tcp',
      host: '127.0.0.1',
      port: sim.port,
    });
  });

  test('where nothing listens, and where something listens and says nothing, it is told what to try', async () => {
    const silent = createServer(() => {});
    await new Promise<void>((done) => silent.listen(0, '127.0.0.1', done));
    await listenAt((silent.address() as AddressInfo).port).expect(200);
    const dumb = await ask();
    expect([dumb.answers, dumb.problem]).toEqual([false, 'the cutter does not answer']);
    expect(dumb.tries[0]).toMatch(/says nothing/);
    silent.close();
    await listenAt(1).expect(200);
    const closed = await ask();
    expect([closed.answers, closed.problem]).toEqual([false, 'the port is closed']);
    expect(closed.tries[0]).toBe(
      "Nothing listens at 127.0.0.1, port 1: look in Plover's own settings which port it takes",
    );
    await listenAt(sim.port).expect(200);
    expect((await ask()).answers).toBe(true);
  }, 30_000);

  test('takes no address that is none', async () => {
    await listenAt(70_000).expect(400);
    await listenAt(9100, 'plover/../x').expect(400);
    await listenAt(9100, '').expect(400);
  });
});
