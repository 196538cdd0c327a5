/** What waits and would be cut otherwise by now: told, replaced, or kept; nothing of it begins unasked. */
import { afterAll, beforeAll, beforeEach, describe, expect, test } from '@jest/globals';
import { readFileSync } from 'node:fs';
import { eq } from 'drizzle-orm';
import type { Order } from '../contracts/api';
import type { Cut, CutActed, Outdated } from '../contracts/cuts';
import { editsBetween } from '../contracts/edits';
import type { Choices } from '../core/plan/choices';
import { seedShop } from '../demo/seed';
import { freshDatabase } from './db/freshDatabase.testing';
import { cuts } from './db/schema';
import type { RunningServer } from './open';
import { openServer } from './open';
import type { SignedIn } from './people/signIn.testing';
import { signIn } from './people/signIn.testing';

const WREN = readFileSync('demo/art/marsh-wren.svg');
let server: RunningServer;
let lead: SignedIn;
let order: Order;

beforeAll(async () => {
  server = await openServer({ databaseUrl: await freshDatabase('jampan_outdated'), filesPerMinute: 1000 });
  const nowhere = { host: '127.0.0.1', port: 9 };
  await seedShop(server.services, { curlew: nowhere, heron: nowhere });
  lead = await signIn(server);
}, 60_000);
afterAll(() => server.close(), 30_000);

beforeEach(async () => {
  await db().update(cuts).set({ state: 'cancelled' });
  await recipe('damson', 80);
  order = await newOrder();
});

const api = () => lead.agent;
const db = () => server.services.db;
const newOrder = async (): Promise<Order> =>
  (await api().post('/api/orders').attach('file', WREN, 'wren.svg').expect(200)).body as Order;
async function change(of: Order, to: (usual: Choices) => Partial<Choices>): Promise<Order> {
  const choices = { ...of.choices, ...to(of.choices as Choices) } as Order['choices'];
  const body = { base: of.revision, edits: editsBetween(of.choices, choices) };
  const { revision } = (await api().patch(`/api/orders/${of.id}/choices`).send(body).expect(200))
    .body as Order;
  return { ...of, choices, revision };
}
const larger = (of: Order): Promise<Order> =>
  change(of, ({ artwork }) => ({ artwork: { ...artwork, width: 300 } }));
const queue = async ({ id, revision }: Order, also: object = {}): Promise<Cut[]> =>
  (
    await api()
      .post(`/api/orders/${id}/queue`)
      .send({ revision, ...also })
      .expect(200)
  ).body as Cut[];
const outdated = async ({ id }: Order): Promise<Outdated[]> =>
  (await api().get(`/api/orders/${id}/outdated`).expect(200)).body as Outdated[];
const answer = (word: 'replace' | 'keep', { order: { id }, now }: Outdated) =>
  api().post(`/api/orders/${id}/${word}-queued`).send({ now });
const recipe = (film: string, force: number) =>
  api().patch(`/api/cutters/curlew/recipes/${film}/kiss`).send({ force }).expect(200);
const cutsOf = async ({ id }: Order): Promise<Cut[]> =>
  (await api().get(`/api/cuts?order=${id}`).expect(200)).body as Cut[];
const bytesOf = async (id: number): Promise<Buffer> =>
  (await db().select({ program: cuts.program }).from(cuts).where(eq(cuts.id, id)))[0].program;
const setState = (id: number, state: string) => db().update(cuts).set({ state }).where(eq(cuts.id, id));

describe('what is told', () => {
  test('nothing, when nothing was changed, or nothing that is cut', async () => {
    await queue(order);
    expect(await outdated(order)).toEqual([]);
    await api().patch(`/api/orders/${order.id}`).send({ name: 'another', due: '2026-12-24' }).expect(200);
    await change(order, () => ({ cut: { recipes: { heron: { damson: { force: 90 } } } } }));
    await api().patch('/api/films/damson').send({ price: 12 }).expect(200);
    expect(await outdated(order)).toEqual([]);
  });

  test('the order was changed: which part of it, strip by strip; changed back, nothing', async () => {
    const all = await queue(order);
    const was = order;
    order = await larger(order);
    const [told] = await outdated(order);
    expect(told.changed).toEqual(['artwork']);
    expect(told.cuts.map(({ id }) => id)).toEqual(all.map(({ id }) => id));
    expect(told.cuts[0].says.join()).toMatch(/takes .* instead of/);
    await change(order, () => was.choices as Choices);
    expect(await outdated(order)).toEqual([]);
  });

  test('a recipe was: only its cut, and nothing of the order', async () => {
    await queue(order);
    await recipe('damson', 120);
    const told = await outdated(order);
    expect(told).toMatchObject([{ changed: [], others: [], begun: [], more: [] }]);
    expect(told[0].cuts.map(({ film, says }) => [film, says])).toEqual([
      ['Damson', ['Damson is cut with 120 g instead of 80 g.']],
    ]);
  });

  test('the blade offset was', async () => {
    await queue(order);
    const to = (bladeOffset: number) =>
      api().patch('/api/cutters/curlew/recipes/damson/kiss').send({ bladeOffset }).expect(200);
    const { recipe } = (await cutsOf(order)).find(({ film }) => film.id === 'damson')!;
    await to(recipe.bladeOffset + 0.05);
    expect((await outdated(order))[0].cuts.map(({ film }) => film)).toEqual(['Damson']);
    await to(recipe.bladeOffset);
    expect(await outdated(order)).toEqual([]);
  });

  test.each([
    ['margins', { margins: { far: 25, near: 25, lead: 30, tail: 30 } }],
    ['how far it reaches', { widest: 300 }],
  ])("a cutter's %s were", async (_, to) => {
    await queue(order);
    const shop = (await api().get('/api/shop').expect(200)).body as { cutters: { id: string }[] };
    const before = shop.cutters.find(({ id }) => id === 'curlew')!;
    await api().patch('/api/cutters/curlew').send(to).expect(200);
    expect((await outdated(order))[0]?.cuts.length).toBeGreaterThan(0);
    const back = Object.fromEntries(Object.keys(to).map((key) => [key, before[key as 'id']]));
    await api().patch('/api/cutters/curlew').send(back).expect(200);
    expect(await outdated(order)).toEqual([]);
  });

  test("a film's rolls were", async () => {
    await queue(order);
    const films = (await api().get('/api/shop').expect(200)).body.films as { id: string; rolls: object[] }[];
    const { rolls } = films.find(({ id }) => id === 'damson')!;
    await api()
      .patch('/api/films/damson')
      .send({ rolls: [{ width: 455, lengthLeft: 9000 }] })
      .expect(200);
    expect((await outdated(order))[0].cuts[0].says.join()).toMatch(/film 455.0 mm wide instead of/);
    await api().patch('/api/films/damson').send({ rolls }).expect(200);
    expect(await outdated(order)).toEqual([]);
  });

  test('what was put at another cutter by hand, left out, or is just the same once more is not', async () => {
    const [first, second, third] = await queue(order);
    await api().post(`/api/cuts/${first.id}/move`).send({ cutter: 'heron', before: null }).expect(200);
    await api().post(`/api/cuts/${second.id}/cancel`).expect(200);
    expect(await outdated(order)).toEqual([]);
    await recipe(third.film.id, 140);
    const [told] = await outdated(order);
    expect(told.cuts.map(({ id }) => id)).toEqual([third.id]);
    await recipe(third.film.id, 80);
  });

  test('an order that cannot be cut as it stands says so of all that waits', async () => {
    const all = await queue(order);
    await change(order, ({ artwork }) => ({ artwork: { ...artwork, width: 90_000 } }));
    const [told] = await outdated(order);
    expect(told.cuts).toHaveLength(all.length);
    await answer('replace', told).expect(422);
    await answer('keep', told).expect(200);
    expect(await outdated(order)).toEqual([]);
  });
});

describe('at the cutter', () => {
  test('an outdated cut does not begin until somebody says which', async () => {
    const [first] = await queue(order);
    await recipe(first.film.id, 120);
    const refused = await api().post(`/api/cuts/${first.id}/loaded`).expect(409);
    expect(refused.body).toMatchObject({ code: 'outdated' });
    expect(refused.body.message).toContain('120 g instead of');
    const [told] = await outdated(order);
    await answer('keep', told).expect(200);
    const begun = (await api().post(`/api/cuts/${first.id}/loaded`).expect(200)).body as Cut;
    expect(begun.recipe.force).toBe(first.recipe.force);
    await recipe(first.film.id, 80);
  });
});

describe('replacing', () => {
  test('each at its place, with the bytes of an order that was queued just now', async () => {
    const all = await queue(order);
    order = await larger(order);
    const [told] = await outdated(order);
    const now = (await answer('replace', told).expect(200)).body as Cut[];
    expect(now.map(({ id, position, of }) => [id, position, of])).toEqual(
      all.map(({ id, position, of }) => [id, position, of]),
    );
    expect(now.map(({ revision }) => revision)).toEqual(now.map(() => order.revision));
    expect(now[0].state).toBe('wants-film');
    expect(await outdated(order)).toEqual([]);
    const replaced = await Promise.all(now.map(({ id }) => bytesOf(id)));
    for (const { id } of now) await setState(id, 'cancelled');
    const anew = await queue(order);
    const fresh = anew.filter(({ state }) => state !== 'cancelled');
    const bytes = await Promise.all(fresh.map(({ id }) => bytesOf(id)));
    expect(bytes.map((one, i) => one.equals(replaced[i]))).toEqual(bytes.map(() => true));
    const acts = (await api().get(`/api/cuts/${now[0].id}/acts`)).body as CutActed[];
    expect(acts.map(({ act }) => act)).toEqual(['queued', 'replaced']);
  });

  test('what is begun stays, and is named', async () => {
    const [first, ...others] = await queue(order);
    await setState(first.id, 'done');
    order = await larger(order);
    const [told] = await outdated(order);
    expect(told.begun.map(({ id }) => id)).toEqual([first.id]);
    expect(told.cuts.map(({ id }) => id)).toEqual(others.map(({ id }) => id));
    await answer('replace', told).expect(200);
    const now = await cutsOf(order);
    expect(now.map(({ id, revision }) => [id, revision])).toEqual([
      [first.id, first.revision],
      ...others.map(({ id }) => [id, order.revision]),
    ]);
  });

  test('films that go are taken back, films that come are put beside; and back again', async () => {
    const all = await queue(order);
    const gone = all.find(({ film }) => film.id === 'damson')!;
    const was = order;
    order = await change(order, ({ films }) => ({ films: { ...films, off: ['#4b1f4a'] } }));
    const [told] = await outdated(order);
    expect(told.cuts.map(({ says }) => says.join())).toContain(`${gone.film.name} is not cut any more.`);
    await answer('replace', told).expect(200);
    expect((await cutsOf(order)).find(({ id }) => id === gone.id)?.state).toBe('cancelled');
    expect(await outdated(order)).toEqual([]);
    order = await change(order, () => ({ films: was.choices.films as Choices['films'] }));
    const [again] = await outdated(order);
    expect(again).toMatchObject({ cuts: [], more: [gone.film.name] });
    await answer('replace', again).expect(200);
    const open = (await cutsOf(order)).filter(({ state }) => state !== 'cancelled');
    expect(open.map(({ film }) => film.id).sort()).toEqual(all.map(({ film }) => film.id).sort());
    expect(await outdated(order)).toEqual([]);
  });

  test('only what was seen is replaced, or kept; begun meanwhile, it stays', async () => {
    const [first] = await queue(order);
    await recipe(first.film.id, 120);
    const [told] = await outdated(order);
    await recipe(first.film.id, 130);
    await answer('replace', told).expect(409);
    await answer('keep', told).expect(409);
    const [now] = await outdated(order);
    await setState(first.id, 'cutting');
    await answer('replace', now).expect(409);
    expect((await cutsOf(order))[0].recipe.force).toBe(first.recipe.force);
    await recipe(first.film.id, 80);
  });

  test('what was kept is asked again once it would be cut in yet another way', async () => {
    await queue(order);
    await recipe('damson', 120);
    await answer('keep', (await outdated(order))[0]).expect(200);
    expect(await outdated(order)).toEqual([]);
    await recipe('damson', 130);
    expect((await outdated(order))[0].cuts).toHaveLength(1);
  });

  test('a shape that is cut again by itself is replaced by itself', async () => {
    for (const { id } of await queue(order)) await setState(id, 'done');
    const again = { film: 'damson', at: [{ x: 100, y: 60 }] };
    const spoilt = (await queue(order, { again })).filter(({ state }) => state !== 'done');
    expect(spoilt).toHaveLength(1);
    await recipe('damson', 120);
    const [told] = await outdated(order);
    expect([told.cuts.map(({ id }) => id), told.more, told.begun]).toEqual([[spoilt[0].id], [], []]);
    await answer('replace', told).expect(200);
    const open = (await cutsOf(order)).filter(({ state }) => state !== 'done');
    expect(open.map(({ id, recipe, lines }) => [id, recipe.force, lines])).toEqual([
      [spoilt[0].id, 120, spoilt[0].lines],
    ]);
  });

  test("another order's change on the same film is told in both", async () => {
    const guest = await newOrder();
    order = await change(order, ({ layout }) => ({ layout: { ...layout, guests: { damson: [guest.id] } } }));
    await queue(order);
    expect(await outdated(guest)).toEqual([]);
    await larger(guest);
    for (const one of [order, guest]) {
      const [told] = await outdated(one);
      expect(told).toMatchObject({ order: { id: order.id }, changed: [], others: [guest.number] });
    }
    await answer('replace', (await outdated(guest))[0]).expect(200);
    expect(await outdated(order)).toEqual([]);
  });
});
