/** A cut's bytes are one cutter's: for another one its film is planned anew, with the same choices. */
import { and, asc, eq, inArray, sql } from 'drizzle-orm';
import type { Order } from '../../contracts/api';
import type { Cut, QueuedPart } from '../../contracts/cuts';
import { isUnbegun } from '../../contracts/floor';
import type { Tx } from '../db/connect';
import { cutActs, cuts, cutShares } from '../db/schema';
import { Trouble } from '../problem';
import type { MadeCut } from '../work/makeCuts';
import type { CutServices } from './cuts';
import { lockQueue } from './cuts';
import { ALONE, cutsAsked, rowOf } from './queue';
import { getOrder } from './orders';

type Row = typeof cuts.$inferSelect;

/**
 * All that was queued of a cut's film with it goes along.
 * @returns the cuts that are made for the other cutter, in their order
 * @throws Trouble when some of it is cut already, the order is another by now, or that cutter cannot cut it
 */
export async function remake(services: CutServices, cut: Cut, to: string): Promise<readonly number[]> {
  const { db, who } = services;
  if (cut.shares.length > 1)
    throw new Trouble(409, 'several-orders', 'It holds art of several orders, laid out for this cutter.', [
      `Pick the cutter in #${cut.orderNumber}, and queue it anew`,
    ]);
  const order = await getOrder(db, cut.orderId);
  if (order.revision !== cut.revision)
    throw new Trouble(409, 'changed', `#${order.number} was changed since it was queued.`, [
      'Take it back in its order, and queue it anew',
    ]);
  const [{ asked }] = await db.select({ asked: cuts.asked }).from(cuts).where(eq(cuts.id, cut.id));
  const made = await madeFor(services, order, cut, asked ?? {}, to);
  return db.transaction(async (tx) => {
    for (const cutter of [cut.cutterId, to].sort()) await lockQueue(tx, cutter);
    const rows = await queuedWith(tx, cut);
    if (rows.length === 0) throw new Trouble(409, 'not-now', 'This cut was taken back a moment ago.');
    if (!rows.every((row) => isUnbegun(row as Pick<Cut, 'state'>)))
      throw new Trouble(
        409,
        'begun',
        `Some of its ${cut.film.name} is cut already: the rest stays where it is.`,
      );
    const ids: number[] = [];
    for (const [i, one] of made.entries())
      ids.push(await store(tx, rows.at(i) ?? rows[0], one, i < rows.length));
    const left = rows.slice(made.length).map(({ id }) => id);
    if (left.length > 0) {
      await tx
        .update(cuts)
        .set({ state: 'cancelled', endedAt: sql`now()` })
        .where(inArray(cuts.id, left));
      await tx.insert(cutActs).values(left.map((cutId) => ({ cutId, act: 'cancelled', who }) as const));
    }
    await renumber(tx, cut.id);
    return ids;
  });
}

/** “2 of 3” among all that was queued in the same moment. */
async function renumber(tx: Tx, id: number): Promise<void> {
  await tx.execute(sql`update ${cuts} set position = n.position, "of" = n."of" from (
    select c.id, row_number() over (order by c.position, c.id) as position, count(*) over () as "of" from ${cuts} c
    where (c.order_id, c.queued_at) = (select q.order_id, q.queued_at from ${cuts} q where q.id = ${id})
      and c.state <> 'cancelled') n where n.id = ${cuts.id}`);
}

async function madeFor(
  services: CutServices,
  order: Order,
  { film, sheet }: Cut,
  asked: QueuedPart,
  to: string,
): Promise<readonly MadeCut[]> {
  const { cutter } = order.choices;
  const there = sheet ? { ...cutter, order: to } : { ...cutter, film: { ...cutter.film, [film.id]: to } };
  const choices = { ...order.choices, cutter: there };
  const made = await cutsAsked(services, { ...order, choices }, ALONE, { ...asked, films: [film.id] });
  return made.filter((one) => Boolean(one.sheet) === Boolean(sheet));
}

/** What was queued of the same film in the same moment, which is one transaction's. */
const queuedWith = (tx: Tx, { id, orderId, film }: Cut): Promise<Row[]> =>
  tx
    .select()
    .from(cuts)
    .where(
      and(
        eq(cuts.orderId, orderId),
        sql`${cuts.film}->>'id' = ${film.id}`,
        sql`${cuts.queuedAt} = (select q.queued_at from cuts q where q.id = ${id})`,
        sql`${cuts.state} <> 'cancelled'`,
      ),
    )
    .orderBy(asc(cuts.position))
    .for('update');

/** @param isThere whether a row is made over, or one more is put beside it */
async function store(tx: Tx, row: Row, made: MadeCut, isThere: boolean): Promise<number> {
  // it asks for its film when its turn comes there
  const state = row.state === 'held' ? 'held' : 'queued';
  const values = { ...rowOf(made), sheet: made.sheet ?? null, state, problem: null };
  const { id, program: _program, ...like } = row;
  const [{ id: cutId }] = isThere
    ? await tx.update(cuts).set(values).where(eq(cuts.id, id)).returning({ id: cuts.id })
    : await tx
        .insert(cuts)
        .values({ ...like, ...values })
        .returning({ id: cuts.id });
  await tx.delete(cutShares).where(eq(cutShares.cutId, cutId));
  const { orderId, revision } = row;
  await tx
    .insert(cutShares)
    .values(made.shares.map(({ copies, share }) => ({ cutId, orderId, revision, copies, share })));
  return cutId;
}
