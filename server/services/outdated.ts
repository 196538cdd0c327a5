/**
 * Cuts that wait, beside what they would be if they were queued now: their order may have been changed since, another one on their
 * film, or the shop.
 */
import { createHash } from 'node:crypto';
import { and, asc, eq, inArray, isNull, sql } from 'drizzle-orm';
import { LRUCache } from 'lru-cache';
import type { Order } from '../../contracts/api';
import type { Cut, Drawing, Outdated, QueuedPart } from '../../contracts/cuts';
import { isSpoilt, UNBEGUN } from '../../contracts/cuts';
import { editsBetween, isSame } from '../../contracts/edits';
import { isUnbegun } from '../../contracts/floor';
import type { TakenMarks } from '../../contracts/print';
import { smallest } from '../../core/geometry/lists';
import { stripDiffers } from '../../core/plan/differs';
import type { Db, Tx } from '../db/connect';
import { perDatabase } from '../db/perDatabase';
import { cutActs, cuts, cutShares, orders } from '../db/schema';
import { Trouble } from '../problem';
import type { StoredProgram } from '../work/makeCuts';
import { choicesAt } from './choicesAt';
import { cutAs, cutterNames } from './cutAs';
import type { CutServices } from './cuts';
import { filmLoaded, getCut, listCuts, lockQueue, promoteNext } from './cuts';
import { isWhole } from './housekeeping';
import { madeFrom } from './madeFrom';
import { getOrder, planInputs } from './orders';
import { unpack } from './pack';
import type { ToQueue } from './queue';
import { ALONE, cutsAsked, isOwn } from './queue';
import { endInto, goingTo, madeFor, makeOver, ordersOn, putBeside, refuseOthers, renumber } from './remake';
import { sharingOf } from './sharing';
import { loadShop } from './shop';

const columns = {
  id: cuts.id,
  orderId: cuts.orderId,
  revision: cuts.revision,
  state: cuts.state,
  strip: cuts.strip,
  film: cuts.film,
  sheet: cuts.sheet,
  cutterId: cuts.cutterId,
  asked: cuts.asked,
  isPutHere: cuts.isPutHere,
  madeFrom: cuts.madeFrom,
  keptOver: cuts.keptOver,
  /** Its bytes are not those that were queued any more. */
  isOther: sql<boolean>`${cuts.slip} is not null or ${cuts.onNewFilm} is not null or ${cuts.sheet} is not null`,
  isWhole: isWhole.mapWith(Boolean),
  /** What was queued with it, in one transaction. */
  queued: sql<string>`extract(epoch from ${cuts.queuedAt})::text`,
  /** It made room for what its order became. */
  isReplaced: sql<boolean>`exists (select 1 from ${cutActs} a where a.cut_id = cuts.id and a.act = 'replaced')`,
};
type Row = Awaited<ReturnType<typeof rowsOf>>[number];

/** All that was ever queued of an order, but for what is just the same once more. */
const rowsOf = (db: Pick<Db, 'select'>, orderId: number) =>
  db
    .select(columns)
    .from(cuts)
    .where(and(eq(cuts.orderId, orderId), isNull(cuts.againOf)))
    .orderBy(asc(cuts.rank), asc(cuts.id));

/** What was queued in one moment and is planned at once. */
interface Batch {
  readonly order: Order;
  readonly asked: QueuedPart;
  /** One of it that somebody put at another cutter, with all of its film. */
  readonly put?: Row;
  /** Those that were not taken back. */
  readonly rows: readonly Row[];
  /** Whether a strip that was not queued with it belongs to it. */
  readonly isNew: (cut: ToQueue) => boolean;
}

const isWaiting = (row: Row): boolean => isUnbegun(row as Pick<Cut, 'state'>);
const isLive = (row: Row): boolean => row.state !== 'cancelled';

/** Those of which something waits. */
function batchesOf(order: Order, rows: readonly Row[]): Batch[] {
  const by = new Map<string, Row[]>();
  for (const row of rows) {
    const { queued, film, sheet, isPutHere } = row;
    const key = `${queued}${isPutHere ? ` ${film.id} ${sheet !== null}` : ''}`;
    by.set(key, [...(by.get(key) ?? []), row]);
  }
  return [...by.values()].flatMap((all) => {
    const live = all.filter(isLive);
    if (!live.some(isWaiting)) return [];
    const [first] = live;
    const asked = first.asked ?? {};
    const known = new Set(all.filter((row) => isLive(row) || !row.isReplaced).map(({ strip }) => strip));
    const elsewhere = new Set(
      rows.filter((row) => !all.includes(row) && isLive(row)).map(({ film }) => film.id),
    );
    const isNew = ({ strip, film }: ToQueue): boolean =>
      !known.has(strip) && (isSpoilt(asked) || first.isPutHere || !elsewhere.has(film.id));
    return [{ order, asked, rows: live, isNew, ...(first.isPutHere && { put: first }) }];
  });
}

const sharingFor = (db: Db, { order, asked }: Batch) => (isOwn(asked) ? ALONE : sharingOf(db, order));

/** What it would be if it were queued now. @throws Trouble when the order cannot be cut as it stands */
async function madeNow(services: CutServices, batch: Batch): Promise<readonly ToQueue[]> {
  const { order, asked, put, rows, isNew } = batch;
  const sharing = await sharingFor(services.db, batch);
  const made = put
    ? await madeFor(services, order, put, asked, put.cutterId, sharing)
    : await cutsAsked(services, order, sharing, asked);
  const strips = new Set(rows.map(({ strip }) => strip));
  return made.filter((cut) => strips.has(cut.strip) || isNew(cut));
}

/** A batch beside what it would be now. */
interface Compared extends Pick<Outdated, 'cuts' | 'more' | 'begun'> {
  /** What it would be now. */
  readonly token: string;
}

const SAME: Compared = { cuts: [], more: [], begun: [], token: '' };

/** What was compared lately: for the same inputs nothing is planned twice. */
const compared = perDatabase(() => new LRUCache<string, Promise<Compared>>({ max: 500 }));

/** Planned only when something that its plan hangs on is another. */
async function compare(services: CutServices, batch: Batch): Promise<Compared> {
  const { order, put, rows } = batch;
  const there = put ? goingTo(order, put, put.cutterId) : order;
  const from = madeFrom(await planInputs(services, there, await sharingFor(services.db, batch)));
  if (rows.every((row) => !isWaiting(row) || row.madeFrom === from(row.film.id))) return SAME;
  const about = rows.map((row) => [row.id, isWaiting(row), row.madeFrom, from(row.film.id)]);
  const key = JSON.stringify([about, from('')]);
  const known = compared(services.db);
  const found = known.get(key) ?? comparedAnew(services, batch);
  known.set(key, found);
  found.catch(() => known.delete(key));
  return found;
}

async function comparedAnew(services: CutServices, batch: Batch): Promise<Compared> {
  const { db } = services;
  const made = await madeNow(services, batch).catch(cannotBe);
  const waiting = batch.rows.filter(isWaiting);
  if (made instanceof Trouble) {
    const says = [made.message];
    return {
      ...SAME,
      cuts: waiting.map(({ id, film }) => ({ id, film: film.name, says })),
      token: made.code,
    };
  }
  const nameOf = cutterNames(await loadShop(db));
  const now = new Map(made.map((cut) => [cut.strip, cut]));
  const was = await asQueued(db, batch.rows);
  const differing = (rows: readonly Row[]) =>
    rows.flatMap(({ id, film, strip }) => {
      const says = differs(was.get(id)!, now.get(strip), nameOf);
      return says.length > 0 ? [{ id, film: film.name, says }] : [];
    });
  return {
    cuts: differing(waiting),
    begun: differing(batch.rows.filter((row) => !isWaiting(row) && !row.isOther && row.isWhole)),
    more: made.filter(batch.isNew).map(({ film }) => film.name),
    token: tokenOf(made),
  };
}

/** It cannot be cut as it stands, with why; that nobody could plan it just now is another matter. */
function cannotBe(error: unknown): Trouble {
  if (error instanceof Trouble && error.status < 500) return error;
  throw error;
}

/** In sentences; none: the same bytes go to the same cutter. */
function differs(
  was: Queued,
  now: ToQueue | undefined,
  nameOf: (cutter: string) => string,
): readonly string[] {
  if (!now) return [`${was.film.name} is not cut any more.`];
  const before = cutAs(was, unpack<StoredProgram>(was.program), nameOf(was.cutterId));
  const says = stripDiffers(before, cutAs(now, now.program, nameOf(now.cutterId)));
  return says.length > 0 && isPrintedOtherwise(was, now)
    ? [
        ...says,
        `Sheet ${was.sheet!.number} may be printed otherwise too: replaced, it fits only what is printed anew.`,
      ]
    : says;
}

/** Its marks lie elsewhere, or what is cut around is another. */
const isPrintedOtherwise = ({ sheet, drawing }: Queued, now: ToQueue): boolean =>
  sheet !== null && !isSame([sheet, unpack<Drawing>(drawing).design], [now.sheet, now.drawing.design]);

type Queued = Awaited<ReturnType<typeof asQueued>> extends ReadonlyMap<number, infer T> ? T : never;

/** With all that is sent, as it was queued. */
async function asQueued(db: Db, rows: readonly Row[]) {
  const { id, strip, film, recipe, rollWidth, cuttable, length, mirrored, program, cutterId } = cuts;
  const { sheet, drawing } = cuts;
  const stored = await db
    .select({ id, strip, film, recipe, rollWidth, cuttable, length, mirrored, program, cutterId, sheet, drawing })
    .from(cuts)
    .where(inArray(cuts.id, rows.map((row) => row.id))); // prettier-ignore
  return new Map(stored.map((row) => [row.id, row]));
}

/** The same when they would be cut the same. */
function tokenOf(made: readonly ToQueue[]): string {
  const hash = createHash('sha256');
  for (const { strip, cutterId, recipe, rollWidth, program } of made) {
    hash.update(JSON.stringify([strip, cutterId, recipe, rollWidth, program.head, program.tail]));
    for (const line of program.lines) hash.update(line);
  }
  return hash.digest('base64url');
}

/** An order's batches that nobody said shall stay as they are. */
interface Asked {
  readonly order: Order;
  readonly batches: readonly (Batch & Compared)[];
}

async function askedOf(services: CutServices, id: number): Promise<Asked> {
  const [order, rows] = await Promise.all([getOrder(services.db, id), rowsOf(services.db, id)]);
  const all = await Promise.all(
    batchesOf(order, rows).map(async (batch) => ({ ...batch, ...(await compare(services, batch)) })),
  );
  const batches = all.filter(
    ({ rows: of, cuts: differ, more, token }) =>
      differ.length + more.length > 0 && of.some((row) => isWaiting(row) && row.keptOver !== token),
  );
  return { order, batches };
}

const nowOf = ({ batches }: Asked): string => batches.map(({ token }) => token).join('.');

/** What waits on an order's films and would be cut otherwise now, by the orders that it was queued with. */
export async function outdatedOf(services: CutServices, id: number): Promise<Outdated[]> {
  const hosts = await services.db
    .selectDistinct({ id: cuts.orderId })
    .from(cuts)
    .innerJoin(cutShares, eq(cutShares.cutId, cuts.id))
    .where(and(eq(cutShares.orderId, id), inArray(cuts.state, [...UNBEGUN])));
  const asked = await Promise.all(hosts.map((host) => askedOf(services, host.id)));
  return Promise.all(asked.filter(({ batches }) => batches.length > 0).map((one) => told(services.db, one)));
}

async function told(db: Db, asked: Asked): Promise<Outdated> {
  const { order, batches } = asked;
  const { id, number, name } = order;
  const waiting = batches.flatMap(({ rows }) => rows.filter(isWaiting));
  const oldest = smallest(waiting.map(({ revision }) => revision));
  return {
    order: { id, number, name },
    changed: await sectionsChanged(db, order, oldest),
    others: await othersChanged(db, id, waiting.map((row) => row.id)), // prettier-ignore
    cuts: batches.flatMap((batch) => batch.cuts),
    more: batches.flatMap(({ more }) => more),
    begun: batches.flatMap(({ begun }) => begun),
    now: nowOf(asked),
  };
}

async function sectionsChanged(db: Db, { id, choices, revision }: Order, since: number): Promise<string[]> {
  const then = revision === since ? choices : await choicesAt(db, id, since);
  return [...new Set(editsBetween(then ?? choices, choices).map(({ path: [section] }) => String(section)))];
}

async function othersChanged(db: Db, host: number, ids: readonly number[]): Promise<number[]> {
  const rows = await db
    .selectDistinct({ number: orders.number })
    .from(cutShares)
    .innerJoin(orders, eq(orders.id, cutShares.orderId))
    .where(
      and(
        inArray(cutShares.cutId, [...ids]),
        sql`${orders.id} <> ${host} and ${orders.revision} <> ${cutShares.revision}`,
      ),
    );
  return rows.map(({ number }) => number);
}

/** @throws Trouble when it is not what was seen any more */
async function seen(services: CutServices, id: number, now: string): Promise<Asked> {
  const asked = await askedOf(services, id);
  if (asked.batches.length > 0 && nowOf(asked) === now) return asked;
  throw changedMeanwhile();
}

/** Cuts that wait stay as they were queued, until they would be cut in yet another way. */
export async function keepQueued(services: CutServices, id: number, now: string): Promise<Cut[]> {
  const { db, who, hub } = services;
  const { batches } = await seen(services, id, now);
  await db.transaction(async (tx) => {
    for (const { rows, token } of batches) {
      const ids = rows.filter(isWaiting).map((row) => row.id);
      await tx.update(cuts).set({ keptOver: token }).where(inArray(cuts.id, ids));
      await tx.insert(cutActs).values(ids.map((cutId) => ({ cutId, act: 'kept', who }) as const));
    }
  });
  await hub.tell({ kind: 'order', orderId: id });
  return listCuts(db, { orderId: id });
}

/** Cuts that wait become what they would be now, each at its place; what is begun stays. */
export async function replaceQueued(services: CutServices, id: number, now: string): Promise<Cut[]> {
  const { db, hub } = services;
  const { order, batches } = await seen(services, id, now);
  const cutters = new Set<string>();
  for (const batch of batches) {
    const made = await madeNow(services, batch);
    if (tokenOf(made) !== batch.token) throw changedMeanwhile();
    for (const { cutterId } of [...batch.rows, ...made]) cutters.add(cutterId);
    await replaceBatch(services, batch, made);
  }
  for (const cutterId of cutters) await promoteNext(services, cutterId);
  await hub.tell({ kind: 'order', orderId: order.id });
  const all = await listCuts(db, { orderId: id });
  for (const { id: cutId, orderId, cutterId } of all.filter(isUnbegun))
    await hub.tell({ kind: 'cut', cutId, orderId, cutterId });
  return all;
}

async function replaceBatch(services: CutServices, batch: Batch, made: readonly ToQueue[]): Promise<void> {
  const { db, who } = services;
  const { order } = batch;
  const sharing = await sharingFor(db, batch);
  const whose = { host: order, guests: sharing.guests };
  const waiting = batch.rows.filter(isWaiting);
  const begun = new Set(batch.rows.filter((row) => !isWaiting(row)).map(({ strip }) => strip));
  const wanted = made.filter(({ strip }) => !begun.has(strip));
  await db.transaction(async (tx) => {
    const at = [...new Set([...waiting, ...wanted].map(({ cutterId }) => cutterId))].sort();
    for (const cutterId of at) await lockQueue(tx, cutterId);
    await refuseMoved(tx, order, sharing.guests);
    const ids = waiting.map((row) => row.id);
    const held = await tx.select().from(cuts).where(inArray(cuts.id, ids)).orderBy(cuts.id).for('update');
    if (!held.every((row) => isUnbegun(row as Pick<Cut, 'state'>))) throw changedMeanwhile();
    if (wanted.length > 0) refuseOthers(await ordersOn(tx, ids), wanted, whose);
    const place = held.find((row) => row.id === waiting[0].id)!;
    const kept: number[] = [];
    for (const one of wanted) {
      const row = waiting.find(({ strip }) => strip === one.strip);
      kept.push(await (row ? makeOver(tx, row, one, whose) : putBeside(tx, place, one, whose)));
    }
    await tx.update(cuts).set({ nudges: {}, keptOver: null }).where(inArray(cuts.id, kept));
    await endInto(tx, ids.filter((id) => !kept.includes(id)), { act: 'replaced', who }); // prettier-ignore
    await tx.insert(cutActs).values(kept.map((cutId) => ({ cutId, act: 'replaced', who }) as const));
    await renumber(tx, waiting[0].id);
  });
}

/** Holds orders. @throws Trouble when one is not as it was planned any more */
async function refuseMoved(
  tx: Tx,
  host: Order,
  guests: readonly Pick<Order, 'id' | 'revision'>[],
): Promise<void> {
  const all = [host, ...guests];
  const ids = all.map(({ id }) => id);
  const held = await tx
    .select({ id: orders.id, revision: orders.revision })
    .from(orders)
    .where(inArray(orders.id, ids))
    .orderBy(orders.id)
    .for('update');
  if (held.some(({ id, revision }) => all.find((one) => one.id === id)?.revision !== revision))
    throw changedMeanwhile();
}

const changedMeanwhile = (): Trouble =>
  new Trouble(409, 'changed', 'Something was changed, begun or taken back a moment ago. Look once more.');

/** The film is in: it begins, unless it would be cut otherwise by now and nobody said that it shall stay. */
export async function loadFilm(services: CutServices, id: number, taken?: TakenMarks): Promise<Cut> {
  const { orderId, state } = await getCut(services.db, id);
  const asked = state === 'wants-film' ? await askedOf(services, orderId) : undefined;
  const other = asked?.batches.flatMap((batch) => batch.cuts).find((cut) => cut.id === id);
  if (other)
    throw new Trouble(409, 'outdated', `Changed since this was queued: ${other.says.join(' ')}`, [
      'Replace the queued cuts',
      'Keep what is queued',
    ]);
  return filmLoaded(services, id, taken);
}
