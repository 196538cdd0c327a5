/** Cuts of several orders that wait for one film: joined on one strip, and taken apart again. */
import { and, eq, inArray, sql } from 'drizzle-orm';
import type { Order } from '../../contracts/api';
import type { Cut, SharingNow } from '../../contracts/cuts';
import { isSpoilt, OPEN_STATES, UNBEGUN } from '../../contracts/cuts';
import type { Join } from '../../contracts/floor';
import { isJoinable, joinableOf } from '../../contracts/floor';
import { groupsToJoin, hostOf, isWorthJoining, ordersOf, stripsWorth } from '../../core/floor/joining';
import type { Choices } from '../../core/plan/choices';
import type { Db, Tx } from '../db/connect';
import { cutActs, cuts, cutShares, orders } from '../db/schema';
import { Trouble } from '../problem';
import type { CutServices } from './cuts';
import { getCut, listCuts, lockQueue, promoteNext } from './cuts';
import { getOrder, reviseIn } from './orders';
import type { ToQueue, Whose } from './queue';
import { ALONE } from './queue';
import type { Row } from './remake';
import { endInto, madeFor, makeInto, putBeside, refuseChanged, refuseOthers } from './remake';
import { sharingAsIf } from './sharing';

/** Groups that are looked at in one go: each is planned. */
const MOST_GROUPS = 8;

/** What can be joined with fewer strips and no more film. */
export async function joinsNow(services: CutServices): Promise<Join[]> {
  const whole = await wholeCuts(services.db);
  const groups = groupsToJoin(whole.map(joinableOf)).slice(0, MOST_GROUPS);
  const found = await Promise.all(
    groups.map((group) =>
      planJoin(
        services,
        group.map(({ cut }) => cut),
      ).catch(notJoined),
    ),
  );
  return found.flatMap((one) => (one ? [offerOf(one)] : []));
}

/** It cannot be cut together, and nobody asked for just this. */
function notJoined(error: unknown): undefined {
  if (!(error instanceof Trouble) || error.status === 503) throw error;
}

/** Cuts that wait and are all there is of their film in their orders: nothing cut again, no printed sheet. */
async function wholeCuts(db: Db): Promise<Cut[]> {
  const [waiting, rows] = await Promise.all([
    listCuts(db),
    db
      .select({ id: cuts.id, asked: cuts.asked })
      .from(cuts)
      .where(inArray(cuts.state, [...OPEN_STATES])),
  ]);
  const again = new Set(rows.flatMap(({ id, asked }) => (asked && isSpoilt(asked) ? [id] : [])));
  return waiting.filter((cut) => isJoinable(cut) && !again.has(cut.id));
}

/** How cuts are joined: planned, and not done yet. */
interface Joining extends Pick<Join, 'now' | 'then'> {
  readonly joined: readonly Cut[];
  /** All that are on the strip then, by id. */
  readonly all: readonly number[];
  readonly host: Order;
  readonly choices: Choices;
  readonly sharing: SharingNow;
  readonly made: readonly ToQueue[];
}

/** @throws Trouble when they cannot be cut together, or it is not worth it, with why */
export const tryJoin = async (services: CutServices, ids: readonly number[]): Promise<Join> =>
  offerOf(await planJoin(services, await groupOf(services.db, ids)));

function offerOf({ joined, host, now, then }: Joining): Join {
  const [{ cutterId, film }] = joined;
  const others = joined.flatMap(({ shares }) => shares.map(({ orderNumber }) => orderNumber));
  return {
    cuts: joined.map(({ id }) => id),
    cutter: cutterId,
    film: film.name,
    colour: film.colour,
    orders: [...new Set([host.number, ...others])],
    now,
    then,
  };
}

async function planJoin(services: CutServices, joined: readonly Cut[]): Promise<Joining> {
  const { db } = services;
  const [{ film, cutterId }] = joined;
  const group = joined.map(joinableOf);
  const all = ordersOf(group);
  await refuseChanged(
    db,
    joined.map(({ id }) => id),
  );
  if ((await openOf(db, film.id, all)).length !== joined.length) throw changedMeanwhile();
  const host = await getOrder(db, hostOf(group));
  const others = all.filter((id) => id !== host.id);
  const choices = taking(host.choices as Choices, film.id, others);
  const as = { ...host, choices: choices as Order['choices'] };
  const sharing = await sharingAsIf(db, as);
  const made = await madeFor(services, as, { film, sheet: null }, {}, cutterId, sharing);
  refuseOthers(all, made, { host, guests: sharing.guests });
  const [now, then] = [stripsWorth(joined), stripsWorth(made)];
  if (!isWorthJoining(now, then))
    throw new Trouble(
      422,
      'no-room',
      `Together they are no fewer strips, or more film: ${metres(then)} instead of ${metres(now)}.`,
      ['Leave them as they are', `Pack #${host.number} closer under Layout, then queue it anew`],
    );
  return { joined, all, host, choices, sharing, made, now, then };
}

const metres = ({ length }: { readonly length: number }): string => `${(length / 1000).toFixed(2)} m`;

/** Choices with orders taken along on a film; nobody: it is cut by itself. */
function taking(choices: Choices, film: string, along: readonly number[]): Choices {
  const { [film]: before = [], ...others } = choices.layout.guests;
  const guests = along.length === 0 ? [] : [...new Set([...before, ...along])];
  return {
    ...choices,
    layout: { ...choices.layout, guests: guests.length === 0 ? others : { ...others, [film]: guests } },
  };
}

/** @throws Trouble when they are not all of one film that waits whole at one cutter */
async function groupOf(db: Db, ids: readonly number[]): Promise<Cut[]> {
  const whole = await wholeCuts(db);
  const asked = whole.filter(({ id }) => ids.includes(id));
  if (asked.length < new Set(ids).size)
    throw new Trouble(
      409,
      'not-now',
      'Only cuts that wait, whole, can be joined: no printed sheets, and nothing that is cut again.',
    );
  const groups = groupsToJoin(asked.map(joinableOf));
  if (groups.length !== 1 || groups[0].length !== asked.length)
    throw new Trouble(
      422,
      'not-alike',
      'Cuts that are joined are of one film, at one cutter, and of several orders, of which one at most has others along already.',
    );
  return asked;
}

/** @returns the cuts that they are now */
export async function joinCuts(services: CutServices, ids: readonly number[]): Promise<Cut[]> {
  const { db, who } = services;
  const { joined, all, host, choices, sharing, made } = await planJoin(services, await groupOf(db, ids));
  const [{ cutterId, film }] = joined;
  const now = await db.transaction(async (tx) => {
    const rows = await heldRows(tx, cutterId, film.id, all, ids);
    const revision = await revise(tx, host, choices, who);
    if ((await sharingAsIf(tx, { id: host.id, choices })).version !== sharing.version)
      throw changedMeanwhile();
    const whose: Whose = { host: { id: host.id, revision }, guests: sharing.guests };
    // the host's own cuts keep their numbers, the first of them its place
    const its = rows.filter((row) => row.orderId === host.id);
    const others = rows.filter((row) => row.orderId !== host.id);
    const kept = await makeInto(tx, its, made, whose);
    const left = [...its.slice(made.length), ...others].map(({ id }) => id);
    await endInto(tx, left, { act: 'joined', what: `into cut ${kept[0]}`, who });
    const what = `with ${others.map(({ id }) => `cut ${id}`).join(', ')}`;
    await tx.insert(cutActs).values(kept.map((cutId) => ({ cutId, act: 'joined', what, who }) as const));
    return kept;
  });
  return told(services, cutterId, all, now);
}

/**
 * Each order of a strip that waits is cut by itself again.
 * @returns the cuts that they are now
 */
export async function partCuts(services: CutServices, id: number): Promise<Cut[]> {
  const { db, who } = services;
  const { cutterId, film, orderId } = await getCut(db, id);
  const strips = (await wholeCuts(db)).filter(
    (cut) => cut.orderId === orderId && cut.film.id === film.id && cut.cutterId === cutterId,
  );
  const ids = strips.map((cut) => cut.id);
  const all = ordersOf(strips.map(joinableOf));
  if (!ids.includes(id) || all.length < 2)
    throw new Trouble(409, 'not-now', 'Only a strip of several orders that waits can be taken apart.');
  await refuseChanged(db, ids);
  const [host, ...guests] = await Promise.all(
    [orderId, ...all.filter((one) => one !== orderId)].map((one) => getOrder(db, one)),
  );
  const choices = taking(host.choices as Choices, film.id, []);
  const alone = (order: Order): Promise<readonly ToQueue[]> =>
    madeFor(services, order, { film, sheet: null }, {}, cutterId, ALONE);
  const [its, ...theirs] = await Promise.all(
    [{ ...host, choices: choices as Order['choices'] }, ...guests].map(alone),
  );
  const now = await db.transaction(async (tx) => {
    const rows = await heldRows(tx, cutterId, film.id, all, ids);
    const revision = await revise(tx, host, choices, who);
    const kept = await makeInto(tx, rows, its, { host: { id: host.id, revision }, guests: [] });
    await endInto(tx, rows.slice(its.length).map((row) => row.id), { act: 'parted', who }); // prettier-ignore
    const parted = await Promise.all(
      guests.flatMap((guest, k) =>
        theirs[k].map((made, i) =>
          putBeside(
            tx,
            rows[0],
            made,
            { host: guest, guests: [] },
            {
              asked: { films: [film.id] },
              isPutHere: true,
              position: i + 1,
              of: theirs[k].length,
            },
          ),
        ),
      ),
    );
    const both = [...kept, ...parted];
    await tx.insert(cutActs).values(both.map((cutId) => ({ cutId, act: 'parted', who }) as const));
    return both;
  });
  return told(services, cutterId, all, now);
}

/**
 * Cuts held until the transaction is over, in the order of their lane; nobody else begins, changes or queues their orders.
 * @throws Trouble when they are not all that is open of the film in these orders, or one does not wait any more
 */
async function heldRows(
  tx: Tx,
  cutterId: string,
  film: string,
  all: readonly number[],
  ids: readonly number[],
): Promise<readonly Row[]> {
  await lockQueue(tx, cutterId);
  await tx.select({ id: orders.id }).from(orders).where(inArray(orders.id, [...all])).orderBy(orders.id).for('update'); // prettier-ignore
  await refuseChanged(tx, ids);
  const open = await openOf(tx, film, all);
  if (open.length !== ids.length || open.some(({ id }) => !ids.includes(id))) throw changedMeanwhile();
  const rows = await tx
    .select()
    .from(cuts)
    .where(and(inArray(cuts.id, [...ids]), inArray(cuts.state, [...UNBEGUN]), eq(cuts.cutterId, cutterId)))
    .orderBy(cuts.rank, cuts.id)
    .for('update');
  if (rows.length !== ids.length) throw changedMeanwhile();
  return rows;
}

/** All that is in the queue of a film of some orders. */
const openOf = (db: Pick<Db, 'selectDistinct'>, film: string, all: readonly number[]) =>
  db
    .selectDistinct({ id: cuts.id })
    .from(cuts)
    .innerJoin(cutShares, eq(cutShares.cutId, cuts.id))
    .where(
      and(
        inArray(cutShares.orderId, [...all]),
        inArray(cuts.state, [...OPEN_STATES]),
        sql`${cuts.film}->>'id' = ${film}`,
      ),
    );

/** The host takes others along, or does so no more: what else of it waits is of that revision too, and the same. */
async function revise(
  tx: Tx,
  { id, revision: before }: Order,
  choices: Choices,
  who: number | null,
): Promise<number> {
  const revision = await reviseIn(tx, id, choices, who);
  const waiting = and(eq(cuts.orderId, id), eq(cuts.revision, before), inArray(cuts.state, [...UNBEGUN]));
  const carried = await tx.update(cuts).set({ revision }).where(waiting).returning({ id: cuts.id });
  await tx
    .update(cutShares)
    .set({ revision })
    .where(and(eq(cutShares.orderId, id), inArray(cutShares.cutId, carried.map((cut) => cut.id)))); // prettier-ignore
  return revision;
}

async function told(
  services: CutServices,
  cutterId: string,
  all: readonly number[],
  ids: readonly number[],
): Promise<Cut[]> {
  await promoteNext(services, cutterId);
  for (const orderId of all) await services.hub.tell({ kind: 'order', orderId });
  for (const cutId of ids) await services.hub.tell({ kind: 'cut', cutId, orderId: all[0], cutterId });
  return Promise.all(ids.map((id) => getCut(services.db, id)));
}

const changedMeanwhile = (): Trouble =>
  new Trouble(
    409,
    'not-now',
    'One of these was begun, changed or taken back a moment ago, or some of its film is queued besides. Look once more.',
  );
