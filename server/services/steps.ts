/** Undo and redo. */
import { and, eq } from 'drizzle-orm';
import type { Stepped } from '../../contracts/api';
import type { Clash } from '../../contracts/edits';
import { applyEdits, editsBetween, undone } from '../../contracts/edits';
import type { Choices } from '../../core/plan/choices';
import type { Tx } from '../db/connect';
import { orders, revisions } from '../db/schema';
import { notFound } from '../problem';
import { choicesOf } from './choicesOf';
import type { OrderRecord, OrderServices } from './orders';
import { addRevision, afterChange, parseChoices } from './orders';
import { guestsChanged } from './sharing';
import { movesFor, trailOf } from './trail';

/**
 * Takes back what a person did last in an order, or does it again. What others did since stays: where they have changed the same,
 * theirs is left as it is and told. With nothing to take back nothing happens.
 */
export async function step(services: OrderServices, id: number, word: 'undo' | 'redo'): Promise<Stepped> {
  const { guests, clashes } = await services.db.transaction(async (tx) => {
    const [order] = await tx.select().from(orders).where(eq(orders.id, id)).for('update');
    if (!order) throw notFound('order');
    const move = movesFor(await trailOf(tx, id), order.revision, services.who)[word];
    if (!move) return { guests: [], clashes: [] };
    const before = choicesOf(order);
    const { choices, clashes } =
      'to' in move ? await goTo(tx, order, move.to) : await takeBack(tx, order, move.against, services.who);
    return { guests: guestsChanged(before, choicesOf({ ...order, choices })), clashes };
  });
  return { ...(await afterChange(services, id, guests)), clashes };
}

interface There {
  readonly choices: Choices;
  readonly clashes: readonly Clash[];
}

/** To a revision beside the present one: the one that it was made on, or one that was made on it. */
async function goTo(tx: Tx, order: OrderRecord, n: number): Promise<There> {
  const there = await revisionOf(tx, order.id, n);
  const now = await revisionOf(tx, order.id, order.revision);
  const choices = there.parent === now.n ? onTo(order, there) : backTo(order, now, there);
  await tx.update(orders).set({ revision: n, choices, changedAt: new Date() }).where(eq(orders.id, order.id));
  return { choices, clashes: [] };
}

type Revision = typeof revisions.$inferSelect;

const onTo = (order: OrderRecord, { edits, choices }: Revision): Choices =>
  edits ? applyEdits(choicesOf(order), edits).value : choices!;
const backTo = (order: OrderRecord, { edits }: Revision, there: Revision): Choices =>
  edits ? applyEdits(choicesOf(order), undone(edits)).value : there.choices!;

/** What others changed meanwhile stays over it. */
async function takeBack(tx: Tx, order: OrderRecord, n: number, who: number | null): Promise<There> {
  const { edits } = await revisionOf(tx, order.id, n);
  const before = choicesOf(order);
  const { value, clashes } = applyEdits(before, undone(edits ?? []));
  const choices = parseChoices(value);
  // though all of it may clash: the next step goes further back
  await addRevision(tx, order, choices, { edits: editsBetween(before, choices), madeBy: who, undoes: n });
  return { choices, clashes };
}

async function revisionOf(tx: Tx, orderId: number, n: number): Promise<Revision> {
  const which = and(eq(revisions.orderId, orderId), eq(revisions.n, n));
  const [row] = await tx.select().from(revisions).where(which);
  return row;
}
