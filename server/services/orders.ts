import { and, desc, eq, gt, isNull, max, sql } from 'drizzle-orm';
import type { Piece, TextSource } from '../../core/artwork/choices';
import { LYING_STRAIGHT, pieceOfFile } from '../../core/artwork/choices';
import type { Again } from '../../core/films/again';
import type { Choices } from '../../core/plan/plan';
import { DEFAULT_CHOICES } from '../../core/plan/plan';
import type { ApplyPage, Order, OrderRow } from '../../contracts/api';
import { upgradeChoices } from '../../contracts/choices';
import type { Db } from '../db/connect';
import { cuts, orders, revisions } from '../db/schema';
import type { Hub } from '../events/hub';
import { notFound, Trouble } from '../problem';
import type { PlanTask, MadePlan } from '../work/tasks';
import type { PaperKind } from '../files/papers';
import type { ReadingServices } from './readings';
import { artworksFor, takeFile } from './readings';
import type { Watch } from '../work/pool';
import { loadShop } from './shop';

export interface OrderServices extends ReadingServices {
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
  const { db } = services;
  const { artwork, ...rest } = details.choices ?? DEFAULT_CHOICES;
  const choices = { ...rest, artwork: { ...artwork, pieces: [piece] } };
  const id = await db.transaction(async (tx) => {
    await tx.execute(sql`select pg_advisory_xact_lock(731002)`);
    const [{ last }] = await tx.select({ last: max(orders.number) }).from(orders);
    const [row] = await tx
      .insert(orders)
      .values({
        number: (last ?? FIRST_NUMBER - 1) + 1,
        name: details.name ?? nameFrom(piece.source.kind === 'file' ? piece.source.name : piece.name),
        due: details.due ?? null,
        fileName: piece.source.kind === 'file' ? piece.source.name : '',
        fileHash: piece.source.kind === 'file' ? piece.source.hash : null,
      })
      .returning({ id: orders.id });
    await tx.insert(revisions).values({ orderId: row.id, n: 0, choices });
    return row.id;
  });
  return afterChange(services, id);
}

const nameFrom = (fileName: string): string =>
  fileName
    .replace(/\.[^.]*$/, '')
    .replace(/[-_]+/g, ' ')
    .trim()
    .slice(0, 120) || 'Untitled';

export async function listOrders(db: Db): Promise<OrderRow[]> {
  const rows = await db.select().from(orders).orderBy(desc(orders.changedAt), desc(orders.id)).limit(500);
  const states = await db.select({ orderId: cuts.orderId, state: cuts.state }).from(cuts);
  const byOrder = new Map<number, string[]>();
  for (const { orderId, state } of states) byOrder.set(orderId, [...(byOrder.get(orderId) ?? []), state]);
  return rows.map((row) => ({
    id: row.id,
    number: row.number,
    name: row.name,
    due: row.due,
    fileName: row.fileName,
    summary: row.summary,
    state: stateOf(byOrder.get(row.id) ?? []),
    changedAt: row.changedAt.toISOString(),
  }));
}

function stateOf(states: readonly string[]): OrderRow['state'] {
  const live = states.filter((state) => state !== 'cancelled');
  if (live.length === 0) return 'open';
  if (live.every((state) => state === 'done')) return 'cut';
  return live.some((state) => state !== 'queued' && state !== 'done') ? 'cutting' : 'queued';
}

export async function getOrder(db: Db, id: number): Promise<Order> {
  const [row] = await db
    .select({ order: orders, revision: revisions })
    .from(orders)
    .innerJoin(revisions, and(eq(revisions.orderId, orders.id), eq(revisions.n, orders.revision)))
    .where(eq(orders.id, id));
  if (!row) throw notFound('order');
  const [{ last }] = await db
    .select({ last: max(revisions.n) })
    .from(revisions)
    .where(eq(revisions.orderId, id));
  const { order, revision } = row;
  return {
    id: order.id,
    number: order.number,
    name: order.name,
    due: order.due,
    fileName: order.fileName,
    choices: choicesOf(revision.choices, order) as Order['choices'],
    revision: order.revision,
    canUndo: order.revision > 0,
    canRedo: order.revision < (last ?? 0),
    savedAt: order.changedAt.toISOString(),
  };
}

/** The stored choices, brought up to date. */
const choicesOf = (stored: Choices, order: { fileHash: string | null; fileName: string }): Choices =>
  upgradeChoices(stored, { hash: order.fileHash ?? '', name: order.fileName });

export async function nameOrder(
  { db, hub }: OrderServices,
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
  return getOrder(db, id);
}

/**
 * Lays a change over the newest choices. Two people who change different sections both keep their change; of two
 * who change the same one the later counts, and the earlier is one undo away.
 */
export async function changeChoices(
  services: OrderServices,
  id: number,
  change: Partial<Choices>,
): Promise<Order> {
  const { db } = services;
  await db.transaction(async (tx) => {
    const [order] = await tx.select().from(orders).where(eq(orders.id, id)).for('update');
    if (!order) throw notFound('order');
    const [now] = await tx
      .select()
      .from(revisions)
      .where(and(eq(revisions.orderId, id), eq(revisions.n, order.revision)));
    await tx.delete(revisions).where(and(eq(revisions.orderId, id), gt(revisions.n, order.revision)));
    await tx.insert(revisions).values({
      orderId: id,
      n: order.revision + 1,
      choices: { ...choicesOf(now.choices, order), ...change },
    });
    await tx
      .update(orders)
      .set({ revision: order.revision + 1, changedAt: new Date() })
      .where(eq(orders.id, id));
  });
  return afterChange(services, id);
}

/** Moves along the list of revisions. At either end nothing happens. */
export async function step(services: OrderServices, id: number, by: -1 | 1): Promise<Order> {
  await services.db.transaction(async (tx) => {
    const [order] = await tx.select().from(orders).where(eq(orders.id, id)).for('update');
    if (!order) throw notFound('order');
    const target = order.revision + by;
    const [there] = await tx
      .select({ n: revisions.n })
      .from(revisions)
      .where(and(eq(revisions.orderId, id), eq(revisions.n, target)));
    if (there)
      await tx.update(orders).set({ revision: target, changedAt: new Date() }).where(eq(orders.id, id));
  });
  return afterChange(services, id);
}

async function afterChange(services: OrderServices, id: number): Promise<Order> {
  const { db, hub } = services;
  const order = await getOrder(db, id);
  await hub.tell({ kind: 'order', orderId: id });
  void refreshSummary(services, order).catch(() => {});
  return order;
}

/** While changes follow one another this fast, only the last is worth a picture. */
const SETTLED_MS = 300;

/** The row in the list follows the choices; a later change has its own refresh, so only the newest is kept. */
async function refreshSummary(services: OrderServices, order: Order): Promise<void> {
  const { db, pool, hub } = services;
  await new Promise((done) => setTimeout(done, SETTLED_MS));
  if ((await getOrder(db, order.id)).revision !== order.revision) return;
  const { summary, thumbnail } = await pool.run('summarise', await planTask(services, order));
  await db
    .update(orders)
    .set({ summary: { ...summary, revision: order.revision }, thumbnail: Buffer.from(thumbnail) })
    .where(and(eq(orders.id, order.id), eq(orders.revision, order.revision)));
  await hub.tell({ kind: 'order', orderId: order.id });
}

/** Orders whose first plan was never finished, because the server ended, get their row's picture now, one by one. */
export async function fillSummaries(services: OrderServices): Promise<void> {
  const bare = await services.db.select({ id: orders.id }).from(orders).where(isNull(orders.summary));
  for (const { id } of bare) await refreshSummary(services, await getOrder(services.db, id)).catch(() => {});
}

export async function thumbnailOf(db: Db, id: number): Promise<Buffer> {
  const [row] = await db.select({ thumbnail: orders.thumbnail }).from(orders).where(eq(orders.id, id));
  if (!row?.thumbnail || row.thumbnail.length === 0) throw notFound('picture');
  return row.thumbnail;
}

async function planTask(services: OrderServices, order: Order): Promise<PlanTask> {
  const choices = order.choices as Choices;
  const [shop, artworks] = await Promise.all([loadShop(services.db), artworksFor(services, choices.artwork)]);
  return { artworks, choices, shop };
}

export async function stripFile(
  services: OrderServices,
  id: number,
  stripId: string,
  kind: 'plt' | 'svg',
): Promise<Uint8Array> {
  const order = await getOrder(services.db, id);
  const bytes = await services.pool.run('download', { ...(await planTask(services, order)), stripId, kind });
  if (!bytes) {
    throw new Trouble(
      404,
      'no-such-strip',
      'This strip is not cut in this order as it stands. Look under Films and Layout.',
    );
  }
  return bytes;
}

/** @param address where the order opens in a browser */
export async function paperOf(
  services: OrderServices,
  id: number,
  kind: PaperKind,
  address: string,
): Promise<Uint8Array> {
  const order = await getOrder(services.db, id);
  const { number, name, due } = order;
  const task = await planTask(services, order);
  return services.pool.run('print', { ...task, kind, order: { number, name, due, address } });
}

/** What the bench needs to weed and apply an order. */
export async function applyingOf(services: OrderServices, id: number): Promise<ApplyPage> {
  return services.pool.run('apply', await planTask(services, await getOrder(services.db, id)));
}

/** The plan of an order as it would be cut now. */
export async function planToCut(services: OrderServices, order: Order, again?: Again): Promise<MadePlan> {
  return services.pool.run('make', { ...(await planTask(services, order)), again });
}

/** Cuts of an order that are neither done nor taken back. */
export const OPEN_STATES = ['queued', 'wants-film', 'checking', 'cutting', 'stopping', 'stopped'] as const;
