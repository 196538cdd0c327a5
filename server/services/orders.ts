import { and, eq, getTableColumns, isNull, max, or, sql } from 'drizzle-orm';
import type { Piece, TextSource } from '../../core/artwork/choices';
import { LYING_STRAIGHT, pieceOfFile } from '../../core/artwork/choices';
import type { Again, PanelsAgain } from '../../core/films/again';
import type { Choices } from '../../core/plan/choices';
import type { Sharing } from '../../core/plan/sharing';
import { DEFAULT_CHOICES } from '../../core/plan/choices';
import type { Changed, Order } from '../../contracts/api';
import { choicesSchema } from '../../contracts/choices';
import type { Edit } from '../../contracts/edits';
import { applyEdits, editsBetween } from '../../contracts/edits';
import type { Db, Tx } from '../db/connect';
import { perDatabase } from '../db/perDatabase';
import { orders, people, revisions } from '../db/schema';
import type { Hub } from '../events/hub';
import type { ByWhom } from '../people/who';
import { notFound, Trouble } from '../problem';
import type { PlanTask, MadePlan } from '../work/planningTasks';
import type { ReadingServices } from './readings';
import { artworksFor, takeFile } from './readings';
import type { Watch } from '../work/pool';
import { choicesOf } from './choicesOf';
import { onlyOnce } from './onlyOnce';
import { guestsChanged, sharingOf } from './sharing';
import { loadShop } from './shop';
import { movesFor, trailOf } from './trail';

export interface OrderServices extends ReadingServices, ByWhom {
  readonly hub: Hub;
}

const FIRST_NUMBER = 2041;

export interface OrderDetails {
  readonly name?: string;
  readonly due?: string | null;
  readonly choices?: Choices;
}

/** Keeps the file as it came, reads it, and starts an order with it. @throws Trouble when it cannot be read */
export async function startOrder(
  services: OrderServices,
  fileName: string,
  bytes: Buffer,
  details: OrderDetails = {},
  watch?: Watch,
): Promise<Order> {
  const source = await takeFile(services, fileName, bytes, watch);
  const { hash, name, ...reading } = source;
  return beginOrder(services, pieceOfFile(hash, name, reading), details);
}

/** Starts an order with typed text. */
export async function startTextOrder(services: OrderServices, source: TextSource): Promise<Order> {
  const name = source.text.split('\n')[0].trim().slice(0, 60) || 'Text';
  return beginOrder(services, { ...LYING_STRAIGHT, id: 'p1', name, source });
}

async function beginOrder(services: OrderServices, piece: Piece, details: OrderDetails = {}): Promise<Order> {
  const { artwork, ...rest } = details.choices ?? DEFAULT_CHOICES;
  const choices = { ...rest, artwork: { ...artwork, pieces: [piece] } };
  return addOrder(services, {
    // a dot in typed text is no ending
    name: details.name ?? (piece.source.kind === 'file' ? nameFrom(piece.source.name) : piece.name),
    due: details.due ?? null,
    fileName: piece.source.kind === 'file' ? piece.source.name : '',
    fileHash: piece.source.kind === 'file' ? piece.source.hash : null,
    choices,
  });
}

/** Puts an order beside the others, by the next number. */
export async function addOrder(
  services: OrderServices,
  values: Omit<typeof orders.$inferInsert, 'number'>,
): Promise<Order> {
  const { db, who, key } = services;
  const [id] = await db.transaction((tx) =>
    onlyOnce(tx, 'order', { who, key }, async () => {
      await tx.execute(sql`select pg_advisory_xact_lock(731002)`);
      const [{ last }] = await tx.select({ last: max(orders.number) }).from(orders);
      const [row] = await tx
        .insert(orders)
        .values({ ...values, number: (last ?? FIRST_NUMBER - 1) + 1 })
        .returning({ id: orders.id });
      await tx.insert(revisions).values({ orderId: row.id, n: 0, choices: values.choices, madeBy: who });
      return [row.id];
    }),
  );
  return afterChange(services, id);
}

/** What changes come to has to be choices still. @throws Trouble 400 that names the field */
export function parseChoices(value: unknown): Choices {
  const parsed = choicesSchema.safeParse(value);
  if (parsed.success) return parsed.data as Choices;
  const [{ path, message }] = parsed.error.issues;
  throw new Trouble(400, 'bad-input', `${path.join('.') || 'the change'}: ${message}.`);
}

const nameFrom = (fileName: string): string =>
  fileName
    .replace(/\.[^.]*$/, '')
    .replace(/[-_]+/g, ' ')
    .trim()
    .slice(0, 120) || 'Untitled';

// a picture is of hundreds of kilobytes, and nobody asks for it with the rest
const { thumbnail: _picture, summary: _summary, ...orderColumns } = getTableColumns(orders);

/** With whether a step leads back and on, as long as one person alone has changed it, and who made it so. */
const oneOrder = perDatabase((db) =>
  db
    .select({
      ...orderColumns,
      canUndo: sql<boolean>`${revisions.parent} is not null`,
      canRedo: sql<boolean>`exists (select 1 from ${revisions} later
        where later.order_id = ${orders.id} and later.parent = ${orders.revision})`,
      isShared: sql<boolean>`exists (select 1 from ${revisions} made where made.order_id = ${orders.id} and made.n > 0
        and made.made_by is not null and made.made_by is distinct from ${sql.placeholder('who')}::int)`,
      savedBy: people.name,
    })
    .from(orders)
    .innerJoin(revisions, and(eq(revisions.orderId, orders.id), eq(revisions.n, orders.revision)))
    .leftJoin(people, eq(people.id, revisions.madeBy))
    .where(eq(orders.id, sql.placeholder('id')))
    .prepare('one-order'),
);

/** @param who whose undo and redo are looked up; missing: nobody asks for them */
export async function getOrder(db: Db, id: number, who?: number | null): Promise<Order> {
  const [order] = await oneOrder(db).execute({ id, who: who ?? null });
  if (!order) throw notFound('order');
  const moves =
    who !== undefined && order.isShared ? movesFor(await trailOf(db, id), order.revision, who) : undefined;
  return {
    id: order.id,
    number: order.number,
    name: order.name,
    due: order.due,
    fileName: order.fileName,
    choices: choicesOf(order) as Order['choices'],
    revision: order.revision,
    repeats: order.repeats,
    canUndo: moves ? moves.undo !== undefined : order.canUndo,
    canRedo: moves ? moves.redo !== undefined : order.canRedo,
    savedAt: order.changedAt.toISOString(),
    savedBy: order.savedBy,
  };
}

/** When an order was decided to be as it is: what is made of it bears this date. */
export async function decidedAt(db: Db, { id, revision }: Pick<Order, 'id' | 'revision'>): Promise<Date> {
  const [row] = await db
    .select({ madeAt: revisions.madeAt })
    .from(revisions)
    .where(and(eq(revisions.orderId, id), eq(revisions.n, revision)));
  if (!row) throw notFound('order');
  return row.madeAt;
}

export type OrderRecord = typeof orders.$inferSelect;

export async function nameOrder(
  { db, hub, who }: OrderServices,
  id: number,
  details: { name?: string; due?: string | null },
): Promise<Order> {
  const changed = await db
    .update(orders)
    .set({ ...details, changedAt: new Date() })
    .where(eq(orders.id, id))
    .returning({ id: orders.id });
  if (changed.length === 0) throw notFound('order');
  await hub.tell({ kind: 'order', orderId: id });
  return getOrder(db, id, who);
}

/**
 * Lays changes over the newest choices. Two people who change different fields both keep theirs; of two who change the
 * same one the earlier stays, and the later is told, with both values.
 * @param base the revision they were made on
 */
export async function changeChoices(
  services: OrderServices,
  id: number,
  base: number,
  edits: readonly Edit[],
): Promise<Changed> {
  const { revision, clashes, guests } = await services.db.transaction(async (tx) => {
    const [order] = await tx.select().from(orders).where(eq(orders.id, id)).for('update');
    if (!order) throw notFound('order');
    const before = choicesOf(order);
    const { value, clashes } = applyEdits(before, edits);
    const choices = parseChoices(value);
    const made = editsBetween(before, choices);
    if (made.length > 0) await addRevision(tx, order, choices, { edits: made, madeBy: services.who });
    return { revision: order.revision, clashes, guests: guestsChanged(before, choices) };
  });
  const { choices, ...order } = await afterChange(services, id, guests);
  // who changed it last knows the rest already
  return { ...order, clashes, ...(revision === base && clashes.length === 0 ? {} : { choices }) };
}

/** What a revision says of itself. */
interface Made {
  readonly edits: readonly Edit[];
  readonly madeBy: number | null;
  /** The one that it takes back. */
  readonly undoes?: number;
}

export async function addRevision(
  tx: Pick<Db, 'select' | 'insert' | 'update'>,
  order: OrderRecord,
  choices: Choices,
  made: Made,
): Promise<number> {
  const own = eq(revisions.orderId, order.id);
  const [{ last }] = await tx
    .select({ last: max(revisions.n) })
    .from(revisions)
    .where(own);
  const n = (last ?? 0) + 1;
  await tx.insert(revisions).values({ ...made, orderId: order.id, n, parent: order.revision });
  await tx.update(orders).set({ revision: n, choices, changedAt: new Date() }).where(eq(orders.id, order.id));
  return n;
}

/** Other choices in the place of an order's own, in somebody's transaction. @returns its revision then */
export async function reviseIn(tx: Tx, id: number, choices: Choices, madeBy: number | null): Promise<number> {
  const [order] = await tx.select().from(orders).where(eq(orders.id, id)).for('update');
  if (!order) throw notFound('order');
  const edits = editsBetween(choicesOf(order), choices);
  return edits.length === 0 ? order.revision : addRevision(tx, order, choices, { edits, madeBy });
}

/** @param others orders for which it has changed something too */
export async function afterChange(
  services: OrderServices,
  id: number,
  others: readonly number[] = [],
): Promise<Order> {
  const { db, hub, who } = services;
  const order = await getOrder(db, id, who);
  for (const orderId of [id, ...others]) await hub.tell({ kind: 'order', orderId });
  void refreshSummary(services, order).catch(() => {});
  return order;
}

/** While changes follow one another this fast, only the last is worth a picture. */
const SETTLED_MS = 300;

/** Pictures of rows are made one after another, of all orders: what people wait for has the other threads. */
const inTurn = perDatabase(() => {
  let last: Promise<unknown> = Promise.resolve();
  return (work: () => Promise<void>): Promise<void> => {
    const mine = last.then(work);
    last = mine.catch(() => {});
    return mine;
  };
});

/** The row in the list follows the choices; a later change has its own refresh, so only the newest is kept. */
async function refreshSummary(services: OrderServices, order: Order): Promise<void> {
  await new Promise((done) => setTimeout(done, SETTLED_MS));
  await inTurn(services.db)(() => summarise(services, order));
}

async function summarise(services: OrderServices, order: Order): Promise<void> {
  const { db, pool, hub } = services;
  // changed again while it waited
  if ((await getOrder(db, order.id)).revision !== order.revision) return;
  const { summary, thumbnail } = await pool
    .onBehalfOf(null)
    .run('summarise', await planTask(services, order));
  await db
    .update(orders)
    .set({ summary: { ...summary, revision: order.revision }, thumbnail: Buffer.from(thumbnail) })
    .where(and(eq(orders.id, order.id), eq(orders.revision, order.revision)));
  await hub.tell({ kind: 'order', orderId: order.id });
}

/**
 * Orders whose first plan was never finished, because the server ended, or whose summary is of an earlier version, get their
 * row's picture now, one by one.
 */
export async function fillSummaries(services: OrderServices): Promise<void> {
  const isOld = sql`jsonb_path_exists(${orders.summary}, '$.films[*] ? (!exists(@.mm))')`;
  const bare = await services.db
    .select({ id: orders.id })
    .from(orders)
    .where(or(isNull(orders.summary), isOld));
  for (const { id } of bare) await refreshSummary(services, await getOrder(services.db, id)).catch(() => {});
}

export async function thumbnailOf(db: Db, id: number): Promise<Buffer> {
  const [row] = await db.select({ thumbnail: orders.thumbnail }).from(orders).where(eq(orders.id, id));
  if (!row?.thumbnail || row.thumbnail.length === 0) throw notFound('picture');
  return row.thumbnail;
}

/** All that an order's plan hangs on, pieces by their sources. @param sharing what it shares with others: nothing, when it is planned by itself */
export async function planInputs(
  { db }: OrderServices,
  order: Order,
  sharing?: Sharing,
): Promise<Omit<PlanTask, 'artworks'>> {
  const choices = order.choices as Choices;
  const [shop, shared] = await Promise.all([
    loadShop(db),
    sharing ?? sharingOf(db, { id: order.id, choices }),
  ]);
  return { choices, shop: { ...shop, sharing: shared }, orderNumber: order.number };
}

/** The same with what the pieces read as, guests' too. */
export async function withArtworks<T extends Omit<PlanTask, 'artworks'>>(
  services: OrderServices,
  inputs: T,
): Promise<T & Pick<PlanTask, 'artworks'>> {
  const guests = inputs.shop.sharing?.guests ?? [];
  const drawn = [inputs.choices, ...guests.map(({ choices }) => choices)];
  const artworks = await Promise.all(drawn.map(({ artwork }) => artworksFor(services, artwork)));
  return { ...inputs, artworks: new Map(artworks.flatMap((one) => [...one])) };
}

/** An order as it is planned. */
export const planTask = async (services: OrderServices, order: Order, sharing?: Sharing): Promise<PlanTask> =>
  withArtworks(services, await planInputs(services, order, sharing));

/** The plan of an order as it would be cut now. @param sharing what it shares with others */
export async function planToCut(
  services: OrderServices,
  order: Order,
  sharing: Sharing,
  again?: Again | PanelsAgain,
): Promise<MadePlan> {
  return services.pool.run('make', { ...(await planTask(services, order, sharing)), again });
}
