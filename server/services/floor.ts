/** The floor: which cut is where and in which order, what waits on the shelf, and all machines at once. */
import { and, asc, eq, inArray, sql } from 'drizzle-orm';
import type { Cut } from '../../contracts/cuts';
import { UNBEGUN, WAITING } from '../../contracts/cuts';
import type { FewestSwaps, FloorNow } from '../../contracts/floor';
import { isInLane, isUnbegun, laneCutOf, wantedOf } from '../../contracts/floor';
import { laneRefusal } from '../../core/floor/refusal';
import type { Db, Tx } from '../db/connect';
import { cutActs, cuts, cutters } from '../db/schema';
import { notFound, Trouble } from '../problem';
import type { CutServices } from './cuts';
import { getCut, listCuts, lockQueue, move, promoteNext, resumeCut, stopCut } from './cuts';
import { remake } from './remake';
import { changeSettings, settingsOf } from './settings';
import { loadShop } from './shop';

export async function floorNow(db: Db): Promise<FloorNow> {
  const [{ paused }, rows] = await Promise.all([
    settingsOf(db),
    db.select({ cutter: cutters.id, loaded: cutters.loaded }).from(cutters).orderBy(asc(cutters.id)),
  ]);
  return {
    paused,
    loaded: rows.flatMap(({ cutter, loaded }) => (loaded ? [{ cutter, ...loaded }] : [])),
  };
}

/** Puts a cut that waits onto the shelf. */
export async function holdCut(services: CutServices, id: number): Promise<Cut> {
  const cut = await move(services, id, WAITING, 'held', 'held');
  await promoteNext(services, cut.cutterId);
  return cut;
}

/** Sends a cut from the shelf to its cutter, behind all that waits there. */
export async function releaseCut(services: CutServices, id: number): Promise<Cut> {
  const { state, cutterId } = await getCut(services.db, id);
  if (state !== 'held') throw new Trouble(409, 'not-now', 'This cut is not on the shelf any more.');
  await place(services, [id], cutterId, null, 'released');
  return getCut(services.db, id);
}

/**
 * Puts a cut that waits, or lies on the shelf, elsewhere: before another one in its lane or behind all, or on another cutter,
 * for which it is made anew with all that was queued of its film with it.
 * @throws Trouble when that cutter does not take it, with why
 */
export async function moveCut(
  services: CutServices,
  id: number,
  { cutter: to, before }: { readonly cutter: string; readonly before: number | null },
): Promise<Cut> {
  const { db } = services;
  const cut = await getCut(db, id);
  if (!isUnbegun(cut)) throw new Trouble(409, 'not-now', 'Only a cut that waits can be moved.');
  if (cut.cutterId === to) await place(services, [id], to, before);
  else {
    await refuseLane(db, cut, to);
    const moved = await remake(services, cut, to);
    await place(services, moved, to, before);
    await promoteNext(services, cut.cutterId);
  }
  return getCut(db, id);
}

async function refuseLane(db: Db, cut: Cut, to: string): Promise<void> {
  const shop = await loadShop(db);
  const cutter = [...shop.cutters, ...shop.retired].find(({ id }) => id === to);
  if (!cutter) throw notFound('cutter');
  const refusal = laneRefusal(wantedOf(cut), cutter);
  if (refusal) throw new Trouble(422, 'lane-refuses', refusal);
}

/** Puts cuts before all others of a lane. */
export async function placeFirst(
  services: CutServices,
  ids: readonly number[],
  cutterId: string,
): Promise<void> {
  const [first] = await laneIds(services.db, cutterId);
  await place(services, ids, cutterId, first ?? null);
}

const inLane = (cutterId: string) => and(eq(cuts.cutterId, cutterId), inArray(cuts.state, [...WAITING]));

/** Puts cuts into a lane, before another one or behind all. */
async function place(
  services: CutServices,
  ids: readonly number[],
  cutterId: string,
  before: number | null,
  act: 'moved' | 'released' = 'moved',
): Promise<void> {
  const { db, who } = services;
  await db.transaction(async (tx) => {
    await lockQueue(tx, cutterId);
    const placed = await tx
      .update(cuts)
      // one that asks for its film already goes on asking where it is the first still: a press is not refused in between
      .set({
        state: sql`case when ${cuts.state} = 'held' then 'queued' else ${cuts.state} end`,
        problem: null,
      })
      // somebody may have had it begun, or put it at another cutter, meanwhile
      .where(and(inArray(cuts.id, [...ids]), eq(cuts.cutterId, cutterId), inArray(cuts.state, [...UNBEGUN])))
      .returning({ id: cuts.id });
    if (placed.length < ids.length)
      throw new Trouble(409, 'not-now', 'This cut was begun, moved or taken back a moment ago.');
    const others = (await laneIds(tx, cutterId)).filter((id) => !ids.includes(id));
    const at = before === null ? -1 : others.indexOf(before);
    await putInOrder(tx, cutterId, others.toSpliced(at < 0 ? others.length : at, 0, ...ids));
    await tx.insert(cutActs).values(ids.map((cutId) => ({ cutId, act, who })));
  });
  await tellLane(services, cutterId, ids);
}

const laneIds = async (tx: Pick<Db, 'select'>, cutterId: string): Promise<number[]> =>
  (
    await tx.select({ id: cuts.id }).from(cuts).where(inLane(cutterId)).orderBy(asc(cuts.rank), asc(cuts.id))
  ).map(({ id }) => id);

/** The places that they have among all cuts, given out in another order; who asked for film and is not the first any more does not. */
async function putInOrder(tx: Tx, cutterId: string, ids: readonly number[]): Promise<void> {
  const rows = await tx
    .select({ id: cuts.id, rank: cuts.rank, state: cuts.state })
    .from(cuts)
    .where(inLane(cutterId));
  const ranks = rows.map(({ rank }) => rank).sort((a, b) => a - b);
  for (const [i, id] of ids.entries()) {
    const isFirst = i === 0;
    const asks = rows.some((row) => row.id === id && row.state === 'wants-film');
    const state = asks && isFirst ? 'wants-film' : 'queued';
    // equal ones of earlier versions are told apart from now on
    const rank = Math.max(ranks[i], i === 0 ? -Infinity : ranks[i - 1] + LEAST_APART);
    ranks[i] = rank;
    await tx.update(cuts).set({ rank, state }).where(eq(cuts.id, id));
  }
}
const LEAST_APART = 1e-6;

/** @throws Trouble when something of the lane was begun, added or taken back meanwhile */
export async function orderLane(
  services: CutServices,
  cutterId: string,
  ids: readonly number[],
): Promise<Cut[]> {
  const { db, who } = services;
  await db.transaction(async (tx) => {
    await lockQueue(tx, cutterId);
    const now = await laneIds(tx, cutterId);
    if (now.length !== ids.length || now.some((id) => !ids.includes(id)))
      throw new Trouble(
        409,
        'lane-changed',
        'Something was queued, begun or taken back here a moment ago. Look once more, then put it in order.',
      );
    await putInOrder(tx, cutterId, ids);
    const moved = ids.filter((id, i) => now[i] !== id);
    if (moved.length > 0)
      await tx.insert(cutActs).values(moved.map((cutId) => ({ cutId, act: 'moved', who }) as const));
  });
  await tellLane(services, cutterId, ids.slice(0, 1));
  return listCuts(db);
}

/** @param ids those that somebody moved */
async function tellLane(services: CutServices, cutterId: string, ids: readonly number[]): Promise<void> {
  await promoteNext(services, cutterId);
  const { orderId } = await getCut(services.db, ids[0]);
  for (const cutId of ids) await services.hub.tell({ kind: 'cut', cutId, orderId, cutterId });
}

/** Orders of lanes with fewer changes; lanes that cannot be better are left out. */
export async function fewestSwapsNow({ db, pool }: Pick<CutServices, 'db' | 'pool'>): Promise<FewestSwaps> {
  const [open, { loaded }] = await Promise.all([listCuts(db), floorNow(db)]);
  const now = new Date();
  const lanes = [...new Set(open.map(({ cutterId }) => cutterId))].map((cutter) => ({
    cutter,
    loaded: loaded.find((one) => one.cutter === cutter),
    cuts: open.filter((cut) => cut.cutterId === cutter && isInLane(cut)).map((cut) => laneCutOf(cut, now)),
  }));
  return pool.run('fewestSwapsOf', { lanes });
}

/** Stops all machines; nothing begins until they go on. */
export async function pauseAll(services: CutServices): Promise<FloorNow> {
  const { db, hub } = services;
  await changeSettings(db, { paused: true });
  const running = await db
    .select({ id: cuts.id })
    .from(cuts)
    .where(inArray(cuts.state, ['checking', 'cutting']));
  for (const { id } of running) await stopCut(services, id, true).catch(overAlready);
  await hub.tell({ kind: 'floor' });
  return floorNow(db);
}

/** Goes on with all that was stopped with the others. */
export async function goOnAll(services: CutServices): Promise<FloorNow> {
  const { db, hub } = services;
  await changeSettings(db, { paused: false });
  await goOnPaused(services);
  await hub.tell({ kind: 'floor' });
  return floorNow(db);
}

/** Goes on with what was paused and has come to its stop; what is stopping still is gone on with when this is done again. */
export async function goOnPaused(services: CutServices): Promise<void> {
  const { db } = services;
  const isPaused = and(eq(cuts.paused, true), eq(cuts.state, 'stopped'));
  const paused = await db.select({ id: cuts.id }).from(cuts).where(isPaused);
  if (paused.length === 0 || (await settingsOf(db)).paused) return;
  for (const { id } of paused) await resumeCut(services, id, 'next-line').catch(overAlready);
}

/** It came to its end, or somebody else has stopped it, in the meantime. */
function overAlready(error: unknown): undefined {
  if (!(error instanceof Trouble)) throw error;
}
