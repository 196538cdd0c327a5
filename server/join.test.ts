/** Cuts of several orders that wait for one film: joined on one strip, moved, begun, and taken apart again. */
import { afterAll, beforeAll, beforeEach, expect, test } from '@jest/globals';
import { inArray } from 'drizzle-orm';
import type { Order } from '../contracts/api';
import type { Cut, CutActed } from '../contracts/cuts';
import { editsBetween } from '../contracts/edits';
import type { Join } from '../contracts/floor';
import type { AtCurlew } from './atCurlew.testing';
import { atCurlew } from './atCurlew.testing';
import { cuts } from './db/schema';

let shop: AtCurlew;
beforeAll(async () => void (shop = await atCurlew('jampan_join')), 60_000);
afterAll(() => shop.close(), 30_000);
const nothingOpen = () => shop.server.services.db.update(cuts).set({ state: 'cancelled' });
beforeEach(async () => void (await nothingOpen()));

/** A small bird in Damson: two of them lie beside each other on a roll. */
const small = (all = false): Promise<Order> =>
  shop.order(1, ({ artwork, films }) => ({
    artwork: { ...artwork, width: 200 },
    ...(all ? { films: { ...films, off: [] } } : {}),
  }));
const open = (): Promise<Cut[]> => shop.get<Cut[]>('/api/cuts');
const inDamson = async (): Promise<Cut[]> => (await open()).filter(({ film }) => film.id === 'damson');
const join = (ids: readonly number[]) => shop.api().post('/api/floor/joins').send({ cuts: ids });
const idsOf = (all: readonly Cut[]): number[] => all.map(({ id }) => id);
const rowsOf = (ids: readonly number[]) =>
  shop.server.services.db
    .select({ program: cuts.program, art: cuts.art, asked: cuts.asked })
    .from(cuts)
    .where(inArray(cuts.id, [...ids]))
    .orderBy(cuts.id);
const ordersOn = ({ shares }: Cut): number[] => shares.map(({ orderId }) => orderId);

async function twoWaiting(): Promise<{ orders: [Order, Order]; waiting: Cut[] }> {
  const orders: [Order, Order] = [await small(), await small()];
  for (const order of orders) await shop.queue(order);
  return { orders, waiting: await inDamson() };
}

test('two orders of one film are offered, and lie on one strip that takes less of it', async () => {
  const { orders, waiting } = await twoWaiting();
  const [a, b] = orders;
  const [offer] = await shop.get<Join[]>('/api/floor/joins');
  expect(offer).toMatchObject({ cutter: 'curlew', film: 'Damson', orders: [a.number, b.number] });
  expect([offer.now.strips, offer.then.strips]).toEqual([2, 1]);
  expect(offer.now.length).toBeCloseTo(waiting[0].length + waiting[1].length, 6);
  expect(offer.then.length).toBeLessThan(0.6 * offer.now.length);
  const before = await rowsOf(idsOf(waiting));
  const [joined] = (await join(offer.cuts).expect(200)).body as Cut[];
  expect([joined.id, joined.state, joined.length]).toEqual([waiting[0].id, 'wants-film', offer.then.length]);
  expect(ordersOn(joined)).toEqual([a.id, b.id]);
  expect(idsOf(await open())).toEqual([joined.id]);
  // whichever way they lie, what stays on the signs is the same
  const [{ art }] = await rowsOf([joined.id]);
  expect(art).toBeCloseTo(before[0].art + before[1].art, 3);

  // both orders have it, each says so, and who did it is known
  for (const { id } of orders)
    expect((await shop.get<Cut[]>(`/api/cuts?order=${id}`)).filter(({ state }) => state !== 'cancelled')).toEqual([expect.objectContaining({ id: joined.id })]); // prettier-ignore
  expect((await shop.get<Order>(`/api/orders/${a.id}`)).choices.layout.guests).toEqual({ damson: [b.id] });
  const acts = async (id: number): Promise<(string | null)[]> =>
    (await shop.get<CutActed[]>(`/api/cuts/${id}/acts`)).map(({ act, what, who }) => [act, what, who].filter(Boolean).join(' ')); // prettier-ignore
  expect((await acts(joined.id)).at(-1)).toBe(`joined with cut ${waiting[1].id} lead`);
  expect((await acts(waiting[1].id)).at(-1)).toBe(`joined into cut ${joined.id} lead`);
  expect(await shop.get<Join[]>('/api/floor/joins')).toEqual([]);

  // and it is cut as any other
  await shop.say(joined.id, 'loaded').expect(200);
  const done = await shop.inState(joined.id, 'done');
  expect([done.linesDone, done.deviation! < 0.3]).toEqual([joined.lines, true]);
}, 90_000);

test('taken apart, each order has the very bytes that it had', async () => {
  const { orders, waiting } = await twoWaiting();
  const before = await rowsOf(idsOf(waiting));
  const [joined] = (await join(idsOf(waiting)).expect(200)).body as Cut[];
  const parted = (await shop.say(joined.id, 'part').expect(200)).body as Cut[];
  expect(parted.map(ordersOn)).toEqual(orders.map(({ id }) => [id]));
  expect(parted.map(({ state }) => state)).toEqual(['wants-film', 'queued']);
  const after = await rowsOf(idsOf(parted));
  expect(after.map(({ program }) => program.equals(before[0].program))).toEqual([true, true]);
  expect(after[1].asked).toEqual({ films: ['damson'] });
  expect((await shop.get<Order>(`/api/orders/${orders[0].id}`)).choices.layout.guests).toEqual({});
  await shop.say(joined.id, 'part').expect(409);
  // the two may be joined once more
  expect(await shop.get<Join[]>('/api/floor/joins')).toHaveLength(1);
});

test('a third one comes along; the strip goes to another machine, and to the shelf, as it is', async () => {
  const { orders, waiting } = await twoWaiting();
  const [joined] = (await join(idsOf(waiting)).expect(200)).body as Cut[];
  const third = await small();
  await shop.queue(third);
  const [, late] = await inDamson();
  const [three] = (await join([late.id, joined.id]).expect(200)).body as Cut[];
  // who has others along already stays the host
  expect([three.id, ordersOn(three)]).toEqual([joined.id, [...orders, third].map(({ id }) => id)]);
  const [{ program }] = await rowsOf([three.id]);
  const { body } = await shop.say(three.id, 'move', { cutter: 'heron', before: null }).expect(200);
  const there = body as Cut;
  expect([there.cutterId, ordersOn(there)]).toEqual(['heron', ordersOn(three)]);
  expect((await rowsOf([there.id]))[0].program.equals(program)).toBe(false);
  await shop.say(there.id, 'hold').expect(200);
  const parted = (await shop.say(there.id, 'part').expect(200)).body as Cut[];
  expect(parted.map(({ state, cutterId }) => `${state} ${cutterId}`)).toEqual(Array(3).fill('held heron'));
});

test('a strip of several that has one order alone goes to another machine with all the others of them', async () => {
  const wide = await shop.order(22, ({ artwork }) => ({ artwork: { ...artwork, width: 560 } }));
  const guest = await small();
  const more = await shop.order(22, ({ artwork }) => ({ artwork: { ...artwork, width: 560 } }));
  for (const order of [wide, more, guest]) await shop.queue(order);
  const waiting = await inDamson();
  const joined = (await join(idsOf(waiting)).expect(200)).body as Cut[];
  const alone = joined.find(({ shares }) => shares.length === 1)!;
  expect([joined.length, joined.some(({ shares }) => shares.length > 1)]).toEqual([2, true]);
  const art = async (all: readonly Cut[]): Promise<number> =>
    (await rowsOf(idsOf(all))).reduce((sum, row) => sum + row.art, 0);
  const before = await art(joined);
  await shop.say(alone.id, 'move', { cutter: 'heron', before: null }).expect(200);
  const there = await inDamson();
  expect(new Set(there.map(({ cutterId }) => cutterId))).toEqual(new Set(['heron']));
  expect(new Set(there.flatMap(ordersOn))).toEqual(new Set([wide, more, guest].map(({ id }) => id)));
  expect(await art(there)).toBeCloseTo(before, 3);
});

test('what else the host has in the queue can still be moved', async () => {
  const host = await small(true);
  const guest = await small();
  await shop.queue(host);
  await shop.queue(guest);
  await join(idsOf(await inDamson())).expect(200);
  const other = (await open()).find(({ film }) => film.id !== 'damson')!;
  expect(other.revision).toBe((await shop.get<Order>(`/api/orders/${host.id}`)).revision);
  await shop.say(other.id, 'move', { cutter: 'heron', before: null }).expect(200);
});

test('what does not lie on one strip, or not whole, is refused in a sentence, and nothing is changed', async () => {
  const { orders, waiting } = await twoWaiting();
  const refused = async (ids: readonly number[]) => {
    const { status, body } = await join(ids);
    return [status, (body as { code: string }).code];
  };
  const wide = (copies: number) =>
    shop.order(copies, ({ artwork }) => ({ artwork: { ...artwork, width: 560 } }));
  const stripsOf = async (order: Order): Promise<Cut[]> => {
    await shop.queue(order);
    return (await inDamson()).filter(({ orderId }) => orderId === order.id);
  };
  expect(await refused([waiting[0].id, 1_999_999_999])).toEqual([409, 'not-now']);
  // strips of one order alone
  const long = await wide(40);
  const strips = await stripsOf(long);
  expect(strips.length).toBeGreaterThan(1);
  expect(await refused(idsOf(strips))).toEqual([422, 'not-alike']);
  // one that leaves out some of its order's film, and two that are longer together than the machine draws film
  expect(await refused([waiting[0].id, strips[0].id])).toEqual([409, 'not-now']);
  const pair = [await stripsOf(await wide(22)), await stripsOf(await wide(22))].flat();
  expect(pair).toHaveLength(2);
  expect(await refused(idsOf(pair))).toEqual([422, 'no-room']);
  // an order that was changed since
  const { choices, revision } = orders[1];
  const edits = editsBetween(choices, { ...choices, layout: { ...choices.layout, copies: 2 } });
  await shop.api().patch(`/api/orders/${orders[1].id}/choices`).send({ base: revision, edits }).expect(200);
  expect(await refused(idsOf(waiting))).toEqual([409, 'changed']);
  expect(idsOf(await inDamson())).toEqual(expect.arrayContaining(idsOf(waiting)));
  expect((await shop.get<Order>(`/api/orders/${orders[0].id}`)).choices.layout.guests).toEqual({});
});

test('joined and begun at the same moment: whatever comes of it, each order is in the queue once', async () => {
  for (let round = 0; round < 6; round++) {
    const { orders, waiting } = await twoWaiting();
    await Promise.all([
      join(idsOf(waiting)),
      join(idsOf(waiting)),
      shop.say(waiting[round % 2].id, round < 3 ? 'loaded' : 'cancel'),
    ]);
    const now = await open();
    for (const { id } of orders) {
      const on = now.filter((cut) => ordersOn(cut).includes(id));
      expect(on.length).toBeLessThan(2);
      if (round < 3) expect(on).toHaveLength(1);
    }
    for (const { id } of now) await shop.say(id, 'stop');
    await nothingOpen();
  }
}, 90_000);
