/** Orders out of sight: brought back, or cleared for good by a person who means it. What a cut needs stays. */
import { and, eq, inArray, ne } from 'drizzle-orm';
import type { Db } from '../db/connect';
import { cuts, cutShares, files, orders, revisions } from '../db/schema';
import type { Hub } from '../events/hub';
import { notFound, Trouble } from '../problem';
import { choicesOf } from './choicesOf';
import { isForsaken } from './housekeeping';
import { OPEN_STATES } from '../../contracts/cuts';

interface PutAwayServices {
  readonly db: Db;
  readonly hub: Hub;
}

/** Puts an order out of sight, or brings it back. @throws Trouble while cuts of it are in the queue */
export async function putAway({ db, hub }: PutAwayServices, id: number, away: boolean): Promise<void> {
  const guests = await db.transaction(async (tx) => {
    const [order] = await tx.select().from(orders).where(eq(orders.id, id)).for('update');
    if (!order) throw notFound('order');
    const open = await tx
      .select({ id: cuts.id })
      .from(cuts)
      .innerJoin(cutShares, eq(cutShares.cutId, cuts.id))
      .where(and(eq(cutShares.orderId, id), inArray(cuts.state, [...OPEN_STATES])))
      .limit(1);
    if (away && open.length > 0)
      throw new Trouble(409, 'in-queue', 'This order is in the queue. Finish or cancel its cuts first.');
    const putAwayAt = away ? (order.putAwayAt ?? new Date()) : null;
    await tx.update(orders).set({ putAwayAt }).where(eq(orders.id, id));
    return Object.values(choicesOf(order).layout.guests).flat();
  });
  // those that were cut with it are cut by themselves, or with it again
  for (const orderId of [id, ...guests]) await hub.tell({ kind: 'order', orderId });
}

/** Takes an order that was put away out for good, and its files when no other order has them. */
export async function clearOrder({ db, hub }: PutAwayServices, id: number): Promise<void> {
  await db.transaction(async (tx) => {
    const [order] = await tx.select().from(orders).where(eq(orders.id, id)).for('update');
    if (!order) throw notFound('order');
    if (!order.putAwayAt)
      throw new Trouble(409, 'not-put-away', 'Put the order away first; then it can be cleared.');
    const wasCut = await tx
      .select({ id: cuts.id })
      .from(cuts)
      .innerJoin(cutShares, eq(cutShares.cutId, cuts.id))
      .where(and(eq(cutShares.orderId, id), ne(cuts.state, 'cancelled')))
      .limit(1);
    if (wasCut.length > 0)
      throw new Trouble(409, 'was-cut', 'Film was cut for this order: it stays on record, out of sight.');
    const own = await tx.select().from(revisions).where(eq(revisions.orderId, id));
    const hashes = hashesIn(JSON.stringify([order.fileHash, order.choices, own]));
    await tx.delete(cutShares).where(eq(cutShares.orderId, id));
    await tx.delete(cuts).where(eq(cuts.orderId, id));
    await tx.delete(revisions).where(eq(revisions.orderId, id));
    await tx.delete(orders).where(eq(orders.id, id));
    for (const hash of hashes) await tx.delete(files).where(isForsaken(hash));
  });
  await hub.tell({ kind: 'order', orderId: id });
}

const hashesIn = (text: string): ReadonlySet<string> => new Set(text.match(/\b[0-9a-f]{64}\b/g) ?? []);
