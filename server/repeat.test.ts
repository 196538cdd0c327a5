/** Orders that come once more: the same bytes when nothing in the shop changed, what differs when it did. */
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { readFileSync } from 'node:fs';
import { eq } from 'drizzle-orm';
import type { Order } from '../contracts/api';
import type { Cut, Repeats } from '../contracts/cuts';
import { editsBetween } from '../contracts/edits';
import { seedShop } from '../demo/seed';
import { freshDatabase } from './db/freshDatabase.testing';
import { cuts } from './db/schema';
import type { RunningServer } from './open';
import { openServer } from './open';
import type { SignedIn } from './people/signIn.testing';
import { signIn } from './people/signIn.testing';

let server: RunningServer;
let lead: SignedIn;
let order: Order;

beforeAll(async () => {
  server = await openServer({ databaseUrl: await freshDatabase('jampan_repeat') });
  const nowhere = { host: '127.0.0.1', port: 9 };
  await seedShop(server.services, { curlew: nowhere, heron: nowhere });
  lead = await signIn(server);
  const file = readFileSync('demo/art/marsh-wren.svg');
  order = (await api().post('/api/orders').attach('file', file, 'wren.svg').expect(200)).body as Order;
  order = await changed(order, { layout: { ...order.choices.layout, copies: 2 } });
}, 60_000);
afterAll(() => server.close(), 30_000);

const api = () => lead.agent;
async function changed(of: Order, to: Partial<Order['choices']>): Promise<Order> {
  const choices = { ...of.choices, ...to };
  const change = { base: of.revision, edits: editsBetween(of.choices, choices) };
  const { body } = await api().patch(`/api/orders/${of.id}/choices`).send(change).expect(200);
  return { ...of, choices, revision: body.revision };
}
const repeat = async (id: number): Promise<Order> =>
  (await api().post(`/api/orders/${id}/repeat`).expect(200)).body as Order;
const repeatsOf = async (id: number): Promise<Repeats | null> =>
  (await api().get(`/api/orders/${id}/repeats`).expect(200)).body as Repeats | null;
const queue = async ({ id, revision }: Order): Promise<Cut[]> =>
  (await api().post(`/api/orders/${id}/queue`).send({ revision }).expect(200)).body as Cut[];
const programsOf = async (id: number) =>
  (await server.services.db.select().from(cuts).where(eq(cuts.orderId, id)).orderBy(cuts.position)).map(
    ({ program }) => program,
  );

test('one that was never cut says so; one that repeats none says nothing', async () => {
  expect(await repeatsOf(order.id)).toBeNull();
  const again = await repeat(order.id);
  expect([again.name, again.number, again.repeats, again.due]).toEqual([
    order.name,
    order.number + 1,
    order.id,
    null,
  ]);
  expect(again.choices).toEqual(order.choices);
  expect(await repeatsOf(again.id)).toMatchObject({
    order: { number: order.number },
    cutAt: null,
    differs: [],
  });
});

test('nothing changed: the same bytes; a recipe, a cutter or the order itself did: that is told', async () => {
  await queue(order);
  const at = new Date('2026-11-03T10:00:00Z');
  await server.services.db.update(cuts).set({ state: 'done', endedAt: at }).where(eq(cuts.orderId, order.id));
  const again = await repeat(order.id);
  expect(await repeatsOf(again.id)).toMatchObject({ cutAt: at.toISOString(), differs: [] });
  const made = await queue(again);
  const [before, now] = await Promise.all([order.id, again.id].map(programsOf));
  expect(now).toHaveLength(made.length);
  expect(now.map((program, i) => program.equals(before[i]))).toEqual(before.map(() => true));

  await api().patch('/api/cutters/curlew/recipes/damson/kiss').send({ force: 95 }).expect(200);
  const told = (await repeatsOf(again.id))!.differs;
  expect(told).toEqual(['Damson is cut with 95 g instead of 80 g.']);
  const elsewhere = await changed(again, { cutter: { order: 'heron', film: {} } });
  const all = (await repeatsOf(elsewhere.id))!.differs;
  expect(all).toHaveLength(3);
  for (const one of all) expect(one).toContain('goes to Heron instead of Curlew');
}, 60_000);

test('what was cut with another order is cut by itself, and nobody repeats what is not there', async () => {
  await api().post('/api/orders/99999/repeat').expect(404);
  const guest = await repeat(order.id);
  const host = await changed(order, {
    layout: { ...order.choices.layout, guests: { damson: [guest.id] } },
  });
  expect((await repeat(host.id)).choices.layout.guests).toEqual({});
});
