/** A cut's bytes are one cutter's: for another one its film is planned anew, with the same choices. */
import { and, asc, eq, inArray, ne, sql } from 'drizzle-orm';
import type { Order } from '../../contracts/api';
import type { Cut, CutAct, QueuedPart, SharingNow } from '../../contracts/cuts';
import { isUnbegun } from '../../contracts/floor';
import type { Db, Tx } from '../db/connect';
import { cutActs, cuts, cutShares, orders } from '../db/schema';
import { Trouble } from '../problem';
import type { CutServices } from './cuts';
import { lockQueue } from './cuts';
import type { ToQueue, Whose } from './queue';
import { ALONE, cutsAsked, rowOf, sharesIn } from './queue';
import { sharingOf } from './sharing';
import { getOrder } from './orders';

export type Row = typeof cuts.$inferSelect;

/**
 * All that was queued of a cut's film with it goes along.
 * @returns the cuts that are made for the other cutter, in their order
 * @throws Trouble when some of it is cut already, the order is another by now, or that cutter cannot cut it
 */
export async function remake(services: CutServices, cut: Cut, to: string): Promise<readonly number[]> {
  const { db, who } = services;
  // some strips of several may have nothing of others on them: these go along all the same
  const strips = (await queuedWith(db, cut)).map(({ id }) => id);
  await refuseChanged(db, strips);
  const [order, on] = await Promise.all([getOrder(db, cut.orderId), ordersOn(db, strips)]);
  const sharing = on.length > 1 ? await sharingOf(db, order) : ALONE;
  const [{ asked }] = await db.select({ asked: cuts.asked }).from(cuts).where(eq(cuts.id, cut.id));
  const made = await madeFor(services, order, cut, asked ?? {}, to, sharing);
  const whose = { host: order, guests: sharing.guests };
  refuseOthers(on, made, whose);
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
    const ids = await makeInto(tx, rows, made, whose);
    const left = rows.slice(made.length).map(({ id }) => id);
    await endInto(tx, left, { act: 'cancelled', who });
    await tx
      .update(cuts)
      .set({ isPutHere: true })
      .where(inArray(cuts.id, [...ids]));
    await renumber(tx, cut.id);
    return ids;
  });
}

/** “2 of 3” among all that was queued in the same moment. */
export async function renumber(tx: Tx, id: number): Promise<void> {
  await tx.execute(sql`update ${cuts} set position = n.position, "of" = n."of" from (
    select c.id, row_number() over (order by c.position, c.id) as position, count(*) over () as "of" from ${cuts} c
    where (c.order_id, c.queued_at) = (select q.order_id, q.queued_at from ${cuts} q where q.id = ${id})
      and c.state <> 'cancelled') n where n.id = ${cuts.id}`);
}

/** Cuts of a cut's film, as an order is planned for one cutter. */
export async function madeFor(
  services: CutServices,
  order: Order,
  { film, sheet }: Pick<Cut, 'film' | 'sheet'>,
  asked: QueuedPart,
  to: string,
  sharing: SharingNow,
): Promise<readonly ToQueue[]> {
  const there = goingTo(order, { film, sheet }, to);
  const made = await cutsAsked(services, there, sharing, { ...asked, films: [film.id] });
  return made.filter((one) => Boolean(one.sheet) === Boolean(sheet));
}

/** An order as it would be if a cut's film, or its sheets, went to another cutter. */
export function goingTo(order: Order, { film, sheet }: Pick<Cut, 'film' | 'sheet'>, to: string): Order {
  const { cutter } = order.choices;
  const there = sheet ? { ...cutter, order: to } : { ...cutter, film: { ...cutter.film, [film.id]: to } };
  return { ...order, choices: { ...order.choices, cutter: there } };
}

/** What was queued of the same film in the same moment, which is one transaction's. */
const queuedWith = (db: Pick<Db, 'select'>, { id, orderId, film }: Cut): Promise<Row[]> =>
  db
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

/** Orders that have something on cuts, by id. */
export async function ordersOn(db: Pick<Db, 'selectDistinct'>, ids: readonly number[]): Promise<number[]> {
  const rows = await db
    .selectDistinct({ id: cutShares.orderId })
    .from(cutShares)
    .where(inArray(cutShares.cutId, [...ids]));
  return rows.map(({ id }) => id);
}

/** Rows made over one by one; what is more than they are is put beside the first. */
export async function makeInto(
  tx: Tx,
  rows: readonly Row[],
  made: readonly ToQueue[],
  whose: Whose,
): Promise<readonly number[]> {
  const ids: number[] = [];
  for (const [i, one] of made.entries())
    ids.push(
      await (i < rows.length ? makeOver(tx, rows[i], one, whose) : putBeside(tx, rows[0], one, whose)),
    );
  return ids;
}

/** A row made over: the cut keeps its number and its place. */
export async function makeOver(
  tx: Tx,
  { id, state }: Pick<Row, 'id' | 'state'>,
  made: ToQueue,
  whose: Whose,
): Promise<number> {
  await tx
    .update(cuts)
    .set({ ...madeAnew(made, state), revision: whose.host.revision })
    .where(eq(cuts.id, id));
  await tx.delete(cutShares).where(eq(cutShares.cutId, id));
  await tx.insert(cutShares).values(sharesIn(id, made, whose));
  return id;
}

/** One more cut at the place of another. */
export async function putBeside(
  tx: Tx,
  row: Row,
  made: ToQueue,
  whose: Whose,
  also: Partial<Pick<Row, 'asked' | 'position' | 'of' | 'isPutHere'>> = {},
): Promise<number> {
  const { id: _id, program: _program, ...like } = row;
  const { id: orderId, revision } = whose.host;
  // to the microsecond: by this it is known what was queued together
  const queuedAt = sql`(select q.queued_at from cuts q where q.id = ${row.id})`;
  const [{ id }] = await tx
    .insert(cuts)
    .values({ ...like, ...madeAnew(made, row.state), ...also, orderId, revision, queuedAt })
    .returning({ id: cuts.id });
  await tx.insert(cutShares).values(sharesIn(id, made, whose));
  return id;
}

/** It asks for its film when its turn comes. */
const madeAnew = (made: ToQueue, state: string) => ({
  ...rowOf(made),
  sheet: made.sheet ?? null,
  state: state === 'held' ? 'held' : 'queued',
  problem: null,
});

/** Takes cuts back that are made into others. */
export async function endInto(
  tx: Tx,
  ids: readonly number[],
  act: { readonly act: CutAct; readonly what?: string; readonly who: number | null },
): Promise<void> {
  if (ids.length === 0) return;
  await tx
    .update(cuts)
    .set({ state: 'cancelled', endedAt: sql`now()` })
    .where(inArray(cuts.id, [...ids]));
  await tx.insert(cutActs).values(ids.map((cutId) => ({ cutId, ...act })));
}

/** @throws Trouble when an order that is on one of the cuts is another by now */
export async function refuseChanged(db: Pick<Db, 'select'>, ids: readonly number[]): Promise<void> {
  const [changed] = await db
    .select({ number: orders.number })
    .from(cutShares)
    .innerJoin(orders, eq(orders.id, cutShares.orderId))
    .where(and(inArray(cutShares.cutId, [...ids]), ne(orders.revision, cutShares.revision)))
    .limit(1);
  if (changed)
    throw new Trouble(409, 'changed', `#${changed.number} was changed since it was queued.`, [
      'Replace the queued cuts in its order first',
      'Take it back in its order, and queue it anew',
    ]);
}

/** @throws Trouble unless just the orders that were on cuts are on what is made of them */
export function refuseOthers(was: readonly number[], made: readonly ToQueue[], whose: Whose): void {
  const is = new Set(made.flatMap((one) => sharesIn(0, one, whose)).map(({ orderId }) => orderId));
  if (is.size !== was.length || was.some((id) => !is.has(id)))
    throw new Trouble(409, 'others', 'Not all orders that are on it would be cut there.', [
      'Take it back in its order, and queue it anew',
    ]);
}
