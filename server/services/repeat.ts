/** Orders that come once more: the same choices, and what would be cut otherwise than it was. */
import { and, asc, eq } from 'drizzle-orm';
import type { Order } from '../../contracts/api';
import type { Repeats } from '../../contracts/cuts';
import { isSpoilt } from '../../contracts/cuts';
import type { Choices } from '../../core/plan/choices';
import { differences } from '../../core/plan/differs';
import type { Db } from '../db/connect';
import { cuts, orders } from '../db/schema';
import { notFound } from '../problem';
import type { StoredProgram } from '../work/makeCuts';
import { choicesOf } from './choicesOf';
import { cutAs, cutterNames } from './cutAs';
import type { OrderServices } from './orders';
import { addOrder, getOrder, planToCut } from './orders';
import { unpack } from './pack';
import { ALONE } from './queue';
import { loadShop } from './shop';

/** Starts an order with another one's graphics and choices, by itself on its films. */
export async function repeatOrder(services: OrderServices, id: number): Promise<Order> {
  const [row] = await services.db.select().from(orders).where(eq(orders.id, id));
  if (!row) throw notFound('order');
  const { name, fileName, fileHash } = row;
  const all = choicesOf(row);
  const choices: Choices = { ...all, layout: { ...all.layout, guests: {} } };
  return addOrder(services, { name, fileName, fileHash, choices, repeats: row.id });
}

/** @returns null: the order repeats none */
export async function repeatsOf(services: OrderServices, id: number): Promise<Repeats | null> {
  const { db } = services;
  const order = await getOrder(db, id);
  if (order.repeats === null) return null;
  const [{ number, name }, was, shop] = await Promise.all([
    getOrder(db, order.repeats),
    lastCuts(db, order.repeats),
    loadShop(db),
  ]);
  const about = { order: { id: order.repeats, number, name } };
  if (was.length === 0) return { ...about, cutAt: null, differs: [] };
  const nameOf = cutterNames(shop);
  const plan = await planToCut(services, order, ALONE);
  const now = plan.cuts
    .filter(({ sheet }) => !sheet)
    .map((cut) => cutAs(cut, cut.program, nameOf(cut.cutterId)));
  const before = was.map((row) => {
    const program = row.program.length > 0 ? unpack<StoredProgram>(row.program) : undefined;
    return cutAs(row, program, nameOf(row.cutterId));
  });
  const cutAt = was.reduce((last, { endedAt }) => (endedAt && endedAt > last ? endedAt : last), new Date(0));
  return { ...about, cutAt: cutAt.toISOString(), differs: differences(before, now) };
}

type CutRow = typeof cuts.$inferSelect;

/** What was cut last of each strip, as it was queued whole; printed sheets are another matter each time. */
async function lastCuts(db: Db, orderId: number): Promise<CutRow[]> {
  const rows = await db
    .select()
    .from(cuts)
    .where(and(eq(cuts.orderId, orderId), eq(cuts.state, 'done')))
    .orderBy(asc(cuts.id));
  const whole = rows.filter(({ asked, sheet }) => !sheet && !isSpoilt(asked ?? {}));
  return [...new Map(whole.map((row) => [row.strip, row])).values()];
}
