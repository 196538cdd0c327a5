/** Several orders on one film: offered, joined, cut, found, and cut again, on a real PostgreSQL and a simulated cutter. */
import { afterAll, beforeAll, beforeEach, describe, expect, test } from '@jest/globals';
import { readFileSync } from 'node:fs';
import type { Cut, CutState, SharingNow } from '../contracts/cuts';
import type { Order, OrderList } from '../contracts/api';
import type { ApplyPage } from '../contracts/bench';
import { editsBetween } from '../contracts/edits';
import { CURLEW_SPEC } from '../cutter-sim/machines';
import type { RunningSim } from '../cutter-sim/serve';
import { serveSim } from '../cutter-sim/serve';
import { seedShop } from '../demo/seed';
import { freshDatabase } from './db/freshDatabase.testing';
import type { RunningServer } from './open';
import { openServer } from './open';
import type { SignedIn } from './people/signIn.testing';
import { signIn } from './people/signIn.testing';

const ROLL = { name: 'roll', width: 610, length: 22_000, toughness: 60 };
const WREN = readFileSync('demo/art/marsh-wren.svg');

/** The lead, logged in at each server. */
let leads: Readonly<Record<string, SignedIn>>;
const at = (url: string) => leads[url].agent;
let server: RunningServer;
/** Another server on the same database. */
let second: RunningServer;
let sim: RunningSim;

beforeAll(async () => {
  const databaseUrl = await freshDatabase('jampan_sharing');
  [server, second, sim] = await Promise.all([
    openServer({ databaseUrl, filesPerMinute: 1000 }),
    openServer({ databaseUrl, filesPerMinute: 1000 }),
    serveSim({ spec: CURLEW_SPEC, timeFactor: 60, film: ROLL }),
  ]);
  await seedShop(server.services, { curlew: { host: '127.0.0.1', port: sim.port, panel: sim.panel } });
  leads = { [server.url]: await signIn(server), [second.url]: await signIn(second) };
}, 60_000);

afterAll(async () => {
  await Promise.all([server.close(), second.close()]);
  await sim.close();
}, 30_000);

const api = () => at(server.url);
const get = async <T>(path: string): Promise<T> => (await api().get(path).expect(200)).body as T;
const orderNow = (id: number): Promise<Order> => get(`/api/orders/${id}`);
const sharingNow = (id: number): Promise<SharingNow> => get(`/api/orders/${id}/sharing`);

async function change(
  id: number,
  choose: (usual: Order['choices']) => Partial<Order['choices']>,
): Promise<Order> {
  const { choices, revision } = await orderNow(id);
  const edits = editsBetween(choices, { ...choices, ...choose(choices) });
  await api().patch(`/api/orders/${id}/choices`).send({ base: revision, edits }).expect(200);
  return orderNow(id);
}
/** What an order takes along on its Damson. */
const takeAlong = (id: number, ...guests: number[]): Promise<Order> =>
  change(id, ({ layout }) => ({ layout: { ...layout, guests: { damson: guests } } }));

/** An order of small birds, of which only Damson is cut unless all is. */
async function newOrder(name: string, { all = false, due = null as string | null } = {}): Promise<Order> {
  const { body } = await api().post('/api/orders').attach('file', WREN, `${name}.svg`).expect(200);
  const { id } = body as Order;
  await api().patch(`/api/orders/${id}`).send({ name, due }).expect(200);
  return change(id, ({ artwork, films }) => ({
    artwork: { ...artwork, width: 200 },
    films: { ...films, film: { '#4b1f4a': 'damson' }, off: all ? [] : ['#2e6f7e', '#e2a21b'] },
  }));
}
async function until<T>(look: () => Promise<T>, good: (value: T) => boolean): Promise<T> {
  for (const end = Date.now() + 40_000; ;) {
    const value = await look();
    if (good(value)) return value;
    if (Date.now() > end) throw new Error(`still ${JSON.stringify(value).slice(-500)}`);
    await new Promise((done) => setTimeout(done, 60));
  }
}
const cutIn = (id: number, state: CutState): Promise<Cut> =>
  until(
    () => get<Cut>(`/api/cuts/${id}`),
    (cut) => cut.state === state,
  );
const rowOf = async (id: number) =>
  (await get<OrderList>('/api/orders?limit=500')).rows.find((row) => row.id === id)!;
const queue = async ({ id, revision }: Order, body: object = {}, url = server.url) =>
  at(url)
    .post(`/api/orders/${id}/queue`)
    .send({ revision, ...body });
async function cutToItsEnd({ id }: Cut): Promise<Cut> {
  await cutIn(id, 'wants-film');
  await api().post(`/api/cuts/${id}/loaded`).expect(200);
  return cutIn(id, 'done');
}

let host: Order;
let guest: Order;
beforeEach(async () => {
  for (const { id } of await get<Cut[]>('/api/cuts')) await api().post(`/api/cuts/${id}/cancel`);
  // what other tests left is not offered
  for (const { id } of (await get<OrderList>('/api/orders?limit=500')).rows)
    await api().post(`/api/orders/${id}/put-away`).expect(200);
  [host, guest] = [
    await newOrder('host', { due: '2027-03-10' }),
    await newOrder('guest', { due: '2027-03-12' }),
  ];
});

describe('orders that want the same film', () => {
  test('are offered, those due about then first; who shares it already, was cut, or is put away is not', async () => {
    const far = await newOrder('far', { due: '2027-05-01' });
    const near = await newOrder('near', { due: '2027-03-09' });
    const undated = await newOrder('undated');
    const away = await newOrder('away');
    await api().post(`/api/orders/${away.id}/put-away`).expect(200);
    for (const { id } of [guest, far, near, undated])
      await until(
        () => rowOf(id),
        ({ summary }) => summary?.films.map((film) => film.id).join() === 'damson',
      );
    const offered = async (): Promise<number[]> =>
      (await get<{ id: number }[]>(`/api/orders/${host.id}/wanting?film=damson`)).map(({ id }) => id);
    expect(await offered()).toEqual([near, guest, far, undated].map(({ id }) => id));
    await takeAlong(host.id, guest.id);
    await takeAlong(far.id, near.id);
    expect(await offered()).toEqual([undated.id]);
    expect((await queue(undated)).status).toBe(200);
    expect(await offered()).toEqual([]);
    expect(await get(`/api/orders/${host.id}/wanting?film=quince`)).toEqual([]);
  });

  test('a guest is told who cuts its film, and its host what it takes along', async () => {
    await takeAlong(host.id, guest.id);
    expect(await sharingNow(host.id)).toMatchObject({
      guests: [{ id: guest.id, number: guest.number, films: ['damson'], cut: [], revision: guest.revision }],
      away: {},
      refused: [],
    });
    expect((await sharingNow(guest.id)).away).toEqual({
      damson: { id: host.id, number: host.number, name: 'host' },
    });
  });

  test('undo lets it go again, and so does putting its host away; a guest that is put away is named', async () => {
    await takeAlong(host.id, guest.id);
    await api().post(`/api/orders/${host.id}/undo`).expect(200);
    expect((await sharingNow(guest.id)).away).toEqual({});
    await api().post(`/api/orders/${host.id}/redo`).expect(200);
    await api().post(`/api/orders/${host.id}/put-away`).expect(200);
    expect((await sharingNow(guest.id)).away).toEqual({});
    await api().post(`/api/orders/${host.id}/bring-back`).expect(200);
    await api().post(`/api/orders/${guest.id}/put-away`).expect(200);
    expect(await sharingNow(host.id)).toMatchObject({
      guests: [],
      refused: [{ film: 'damson', order: { id: guest.id } }],
    });
  });

  test('two that take one another along, and a chain of them: each is cut once', async () => {
    const third = await newOrder('third');
    await takeAlong(host.id, guest.id);
    await takeAlong(guest.id, host.id, third.id);
    const [a, b, c] = await Promise.all([host, guest, third].map(({ id }) => sharingNow(id)));
    expect(a.guests.map(({ id }) => id)).toEqual([guest.id]);
    expect(Object.keys(b.away)).toEqual(['damson']);
    expect([b.guests, c.away]).toEqual([[], {}]);
    expect(b.refused.map(({ order }) => order.id)).toEqual([host.id, third.id]);
  });
});

describe('a strip of two orders', () => {
  test('is cut once; both find it, both are cut, and film is shared out', async () => {
    const joined = await takeAlong(host.id, guest.id);
    const { body, status } = await queue(joined, { sharing: (await sharingNow(host.id)).version });
    expect(status).toBe(200);
    const [cut] = body as Cut[];
    expect(cut.shares.map(({ orderId, copies }) => [orderId, copies])).toEqual([
      [host.id, 1],
      [guest.id, 1],
    ]);
    expect(cut.shares[0].share).toBeCloseTo(0.5, 6);
    expect(await get<Cut[]>(`/api/cuts?order=${guest.id}`)).toEqual([
      expect.objectContaining({ id: cut.id }),
    ]);
    expect((await rowOf(guest.id)).state).toBe((await rowOf(host.id)).state);
    // neither is put away under the knife
    await api().post(`/api/orders/${guest.id}/put-away`).expect(409);
    await cutToItsEnd(cut);
    for (const { id } of [host, guest]) expect((await rowOf(id)).state).toBe('cut');
    const damson = (await get<{ films: { id: string; rolls: { lengthLeft: number }[] }[] }>('/api/shop'))
      .films;
    expect(damson.find(({ id }) => id === 'damson')!.rolls[0].lengthLeft).toBeCloseTo(22_000 - cut.length, 6);
  });

  test('its guest has nothing else to cut, unless it is wanted by itself again', async () => {
    const joined = await takeAlong(host.id, guest.id);
    const refused = await queue(guest);
    expect([refused.status, refused.body.code]).toEqual([422, 'cut-with']);
    const [cut] = (await queue(joined)).body as Cut[];
    const twice = await queue(guest, { own: true });
    expect([twice.status, twice.body.code]).toEqual([409, 'guest-queued']);
    await cutToItsEnd(cut);
    const again = await queue(guest, { own: true, films: ['damson'] });
    expect(again.status).toBe(200);
    expect((again.body as Cut[]).at(-1)!.shares.map(({ orderId }) => orderId)).toEqual([guest.id]);
    const own = await queue(joined, { own: true, films: ['damson'] });
    expect((own.body as Cut[]).at(-1)!.shares.map(({ orderId }) => orderId)).toEqual([host.id]);
  });

  test('a guest that has other films is not cut until they are too', async () => {
    const both = await newOrder('both', { all: true });
    await until(
      () => rowOf(both.id),
      ({ summary }) => summary?.films.length === 3,
    );
    const [cut] = (await queue(await takeAlong(host.id, both.id))).body as Cut[];
    await cutToItsEnd(cut);
    expect((await rowOf(both.id)).state).toBe('open');
    const rest = (await queue(both)).body as Cut[];
    expect(rest.filter(({ state }) => state !== 'done').map(({ film }) => film.id)).toEqual(
      expect.not.arrayContaining(['damson']),
    );
  });

  test('is stopped from either order', async () => {
    const [cut] = (await queue(await takeAlong(host.id, guest.id))).body as Cut[];
    await cutIn(cut.id, 'wants-film');
    const [same] = await get<Cut[]>(`/api/cuts?order=${guest.id}`);
    await api().post(`/api/cuts/${same.id}/cancel`).expect(200);
    expect((await get<Cut[]>(`/api/cuts?order=${host.id}`))[0].state).toBe('cancelled');
    expect((await rowOf(guest.id)).state).toBe('open');
  });

  test('is not queued as it was shown when its guest has changed since, nor with a guest that is queued by itself', async () => {
    const joined = await takeAlong(host.id, guest.id);
    const { version } = await sharingNow(host.id);
    await change(guest.id, ({ artwork }) => ({ artwork: { ...artwork, width: 180 } }));
    const stale = await queue(joined, { sharing: version });
    expect([stale.status, stale.body.code]).toEqual([409, 'sharing-changed']);
    await takeAlong(host.id);
    expect((await queue(await orderNow(guest.id))).status).toBe(200);
    const late = await queue(await takeAlong(host.id, guest.id));
    expect([late.status, late.body.code]).toEqual([409, 'guest-queued']);
  });

  test('two servers queue it at once: it is cut once, with its guest or without, and never twice', async () => {
    for (let round = 0; round < 4; round++) {
      const [a, b] = [await newOrder('a'), await newOrder('b')];
      const joined = await takeAlong(a.id, b.id);
      // the guest's page was opened before, and the guest is queued by itself there
      await Promise.all([queue(joined), queue(b, { own: true }, second.url)]);
      const open = await get<Cut[]>('/api/cuts');
      const withGuest = open.filter(({ shares }) => shares.some(({ orderId }) => orderId === b.id));
      expect(withGuest).toHaveLength(1);
      for (const { id } of open) await api().post(`/api/cuts/${id}/cancel`).expect(200);
    }
  });

  test('of pieces: each order’s application sheet shows where its own lie on it', async () => {
    await change(host.id, ({ layout }) => ({ layout: { ...layout, pack: 'piece' as const } }));
    await takeAlong(host.id, guest.id);
    const sheets = await Promise.all(
      [host, guest].map(({ id }) => get<ApplyPage>(`/api/orders/${id}/application`)),
    );
    const [mine, theirs] = sheets.map(({ steps }) => steps[0].placing!);
    expect(mine.strips).toHaveLength(1);
    expect(mine.strips[0].others).toBe(theirs.strips[0].outline);
    expect(theirs.strips[0].others).toBe(mine.strips[0].outline);
    expect(theirs.sign.length).toBe(mine.sign.length);
    expect(sheets[1].steps[0].hints).toContainEqual(expect.stringContaining(`#${host.number}`));
    for (const { id } of [host, guest]) await api().get(`/api/orders/${id}/application.pdf`).expect(200);
    await api().get(`/api/orders/${host.id}/run-card.pdf`).expect(200);
  });
});
