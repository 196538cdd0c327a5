/** Cuts as they are shown, and moved on from state to state. */
import type { Placeholder, SQL } from 'drizzle-orm';
import type { PgUpdateSetSource } from 'drizzle-orm/pg-core';
import { and, asc, desc, eq, exists, inArray, sql } from 'drizzle-orm';
import type { Cut, CutAct, CutActed, CutState, ResumeFrom } from '../../contracts/cuts';
import { OPEN_STATES, UNBEGUN } from '../../contracts/cuts';
import type { TakenMarks } from '../../contracts/print';
import type { Db, Tx } from '../db/connect';
import { urgently } from '../db/connect';
import { perDatabase } from '../db/perDatabase';
import { cutActs, cuts, cutShares, orders, people } from '../db/schema';
import { notFound, Trouble } from '../problem';
import type { StoredProgram } from '../work/makeCuts';
import type { OrderServices } from './orders';
import { unpack } from './pack';
import { settingsOf } from './settings';
import { bookSpoilt } from './stock';

/** What a cutter is wanted for. */
export type Job = { readonly cutId: number } | { readonly calibrationId: number };

export interface CutServices extends OrderServices {
  /** Hands a cut, or a calibration, to whichever server process is free to feed its cutter. */
  readonly dispatch: (job: Job) => Promise<void>;
}

/** States in which a cut has its cutter to itself. */
const ACTIVE: readonly CutState[] = ['wants-film', 'checking', 'cutting', 'stopping', 'stopped'];

/** Until the transaction is over nobody else says which cut is next at a cutter. */
export const lockQueue = (tx: Pick<Db, 'execute'>, cutterId: string): Promise<unknown> =>
  tx.execute(sql`select pg_advisory_xact_lock(731003, hashtext(${cutterId}))`);

/** When nothing has the cutter, the first cut of its lane asks for its film. */
export async function promoteNext(
  { db, hub }: Pick<CutServices, 'db' | 'hub'>,
  cutterId: string,
): Promise<void> {
  const promoted = await db.transaction(async (tx) => {
    await lockQueue(tx, cutterId);
    const busy = await tx
      .select({ id: cuts.id })
      .from(cuts)
      .where(and(eq(cuts.cutterId, cutterId), inArray(cuts.state, [...ACTIVE])));
    if (busy.length > 0) return undefined;
    const [next] = await tx
      .select({ id: cuts.id, orderId: cuts.orderId })
      .from(cuts)
      .where(and(eq(cuts.cutterId, cutterId), eq(cuts.state, 'queued')))
      .orderBy(asc(cuts.rank), asc(cuts.id))
      .limit(1);
    if (next) await tx.update(cuts).set({ state: 'wants-film' }).where(eq(cuts.id, next.id));
    return next;
  });
  if (promoted) await hub.tell({ kind: 'cut', cutId: promoted.id, orderId: promoted.orderId, cutterId });
}

const columns = {
  id: cuts.id,
  orderId: cuts.orderId,
  revision: cuts.revision,
  orderNumber: orders.number,
  orderName: orders.name,
  orderDue: orders.due,
  cutterId: cuts.cutterId,
  strip: cuts.strip,
  film: cuts.film,
  state: cuts.state,
  position: cuts.position,
  of: cuts.of,
  mirrored: cuts.mirrored,
  copies: cuts.copies,
  rollWidth: cuts.rollWidth,
  roll: cuts.roll,
  needsSecondTool: cuts.needsSecondTool,
  cuttable: cuts.cuttable,
  edges: cuts.edges,
  length: cuts.length,
  shares: sql<
    Cut['shares']
  >`(select json_agg(json_build_object('orderId', s.order_id, 'orderNumber', o.number,
    'orderName', o.name, 'copies', s.copies, 'share', s.share) order by s.order_id <> ${cuts.orderId}, s.order_id)
    from ${cutShares} s join ${orders} o on o.id = s.order_id where s.cut_id = ${cuts.id})`,
  sheet: cuts.sheet,
  reading: cuts.reading,
  offcuts: cuts.offcuts,
  recipe: cuts.recipe,
  writtenWith: cuts.writtenWith,
  nudges: cuts.nudges,
  nudgesKept: cuts.nudgesKept,
  seconds: cuts.seconds,
  cutLength: cuts.cutLength,
  lines: cuts.lines,
  linesDone: cuts.linesDone,
  linesSent: cuts.linesSent,
  isReckoned: cuts.isReckoned,
  onNewFilm: cuts.onNewFilm,
  secondsDone: cuts.secondsDone,
  problem: cuts.problem,
  inDoubt: sql<
    number | null
  >`case when (${cuts.headFrom} ->> 'isAsked')::boolean then ${cuts.linesDone} + 1 end`,
  endedAt: sql<string | null>`to_char(${cuts.endedAt} at time zone 'utc', 'YYYY-MM-DD"T"HH24:MI:SS.MS"Z"')`,
  recordWanted: cuts.recordWanted,
  asCut: cuts.asCut,
  deviation: cuts.deviation,
  deviationAt: cuts.deviationAt,
  howItWas: cuts.howItWas,
};

const those = (db: Db, which: SQL) =>
  db
    .select(columns)
    .from(cuts)
    .innerJoin(orders, eq(orders.id, cuts.orderId))
    .where(which)
    .orderBy(asc(cuts.rank), asc(cuts.id))
    .limit(500);
const openCuts = perDatabase((db) => those(db, inArray(cuts.state, [...OPEN_STATES])).prepare('open-cuts'));
const cutsOfOrder = perDatabase((db) =>
  those(db, isOf(db, sql.placeholder('orderId'))).prepare('cuts-of-order'),
);
const oneCut = perDatabase((db) => those(db, eq(cuts.id, sql.placeholder('id'))).prepare('one-cut'));

export async function listCuts(db: Db, { orderId }: { orderId?: number } = {}): Promise<Cut[]> {
  const rows = await (orderId === undefined ? openCuts(db).execute() : cutsOfOrder(db).execute({ orderId }));
  return rows as Cut[];
}

/** All cuts of the order that was cut last at a cutter. */
export async function lastCutsAt(db: Db, cutterId: string): Promise<Cut[]> {
  const [last] = await db
    .select({ orderId: cuts.orderId })
    .from(cuts)
    .where(and(eq(cuts.cutterId, cutterId), eq(cuts.state, 'done')))
    .orderBy(desc(cuts.endedAt))
    .limit(1);
  return last ? listCuts(db, last) : [];
}

/** Something of the order lies on its strip. */
const isOf = (db: Db, orderId: Placeholder): SQL =>
  exists(
    db
      .select({ id: cutShares.cutId })
      .from(cutShares)
      .where(and(eq(cutShares.cutId, cuts.id), eq(cutShares.orderId, orderId))),
  );

export async function getCut(db: Db, id: number): Promise<Cut> {
  const [row] = await oneCut(db).execute({ id });
  if (!row) throw notFound('cut');
  return row as Cut;
}

/** The stored bytes of a cut: `program` and `drawing` always, `record` once it was cut on a cutter that keeps one. */
export async function getCutFile(db: Db, id: number, which: 'drawing' | 'record'): Promise<Buffer> {
  const [row] = await db
    .select({ bytes: cuts[which], isEmptied: sql<boolean>`octet_length(${cuts.program}) = 0` })
    .from(cuts)
    .where(eq(cuts.id, id));
  if (!row) throw notFound('cut');
  if (row.isEmptied) throw notKept();
  if (!row.bytes)
    throw new Trouble(404, 'not-cut-yet', 'There is no record of this cut: it has not been cut to its end.');
  return row.bytes;
}

/** Its program and record are gone, as the shop keeps them only so long. */
export const notKept = (): Trouble =>
  new Trouble(
    404,
    'not-kept',
    'This cut was so long ago that its program and record are not kept any more.',
    ['Cut the piece again from its order'],
  );

/** What people did with a cut, in order. */
export async function actsOf(db: Db, id: number): Promise<CutActed[]> {
  const rows = await db
    .select({ act: cutActs.act, what: cutActs.what, who: people.name, at: cutActs.at })
    .from(cutActs)
    .leftJoin(people, eq(people.id, cutActs.who))
    .where(eq(cutActs.cutId, id))
    .orderBy(asc(cutActs.id));
  return rows.map(({ at, ...row }) => ({ ...row, at: at.toISOString() }));
}

/** What else happens when a cut is moved on. */
interface Moving {
  /** Set in its row too. */
  readonly also?: PgUpdateSetSource<typeof cuts>;
  /** What of it is written down with who did it. */
  readonly what?: string;
  /** Done before, in the same step, with its row held. */
  readonly before?: (tx: Tx, id: number) => Promise<void>;
}

/** Moves a cut on only from a state in which that makes sense, so that of two presses one counts. */
export async function move(
  services: Pick<CutServices, 'db' | 'hub' | 'who'>,
  id: number,
  from: readonly CutState[],
  to: CutState,
  act: CutAct,
  { also, what, before }: Moving = {},
): Promise<Cut> {
  const moved = await services.db.transaction(async (tx) => {
    const [held] = await tx.select({ state: cuts.state }).from(cuts).where(eq(cuts.id, id)).for('update');
    if (!held || !from.includes(held.state as CutState)) return false;
    await before?.(tx, id);
    await tx
      .update(cuts)
      .set({ state: to, problem: null, movedAt: sql`now()`, ...also })
      .where(eq(cuts.id, id));
    await tx.insert(cutActs).values({ cutId: id, act, what, who: services.who });
    return true;
  });
  const cut = await getCut(services.db, id);
  if (!moved)
    throw new Trouble(409, 'not-now', `This cut is ${PLAIN[cut.state]} now, so that cannot be done.`);
  await services.hub.tell({ kind: 'cut', cutId: id, orderId: cut.orderId, cutterId: cut.cutterId });
  return cut;
}

const PLAIN: Readonly<Record<CutState, string>> = {
  held: 'on the shelf',
  queued: 'waiting in the queue',
  'wants-film': 'waiting for its film',
  checking: 'being checked against the cutter',
  cutting: 'being cut',
  stopping: 'stopping',
  stopped: 'stopped',
  done: 'done',
  cancelled: 'cancelled',
};

export async function refusePaused(db: Db): Promise<void> {
  const { paused } = await settingsOf(db);
  if (paused)
    throw new Trouble(
      409,
      'paused',
      'All machines are paused. Go on with them on the floor, then press again.',
    );
}

/** @param taken marks of a printed sheet that a person took; missing: the sensor reads them */
export async function filmLoaded(services: CutServices, id: number, taken?: TakenMarks): Promise<Cut> {
  if (taken) {
    const { sheet } = await getCut(services.db, id);
    if (!taken.every(({ mark }) => sheet?.marks[mark]))
      throw new Trouble(422, 'no-such-mark', 'One of these marks is not on the sheet of this cut.');
  }
  await refusePaused(services.db);
  const cut = await move(services, id, ['wants-film'], 'checking', 'loaded', {
    also: { taken: taken ?? null },
  });
  await services.dispatch({ cutId: id });
  return cut;
}

/** @param paused with all others, and gone on with together with them */
export async function stopCut(services: CutServices, id: number, paused = false): Promise<Cut> {
  const act = paused ? 'paused' : 'stopped';
  const prompt = { ...services, db: urgently(services.db) };
  const cut = await move(prompt, id, ['cutting', 'checking'], 'stopping', act, { also: { paused } });
  await services.hub.tell({ kind: 'stop', cutId: id });
  return cut;
}

/** Goes on at the first line that is not known to be cut, at one that a person found, or from the start on fresh film. */
export async function resumeCut(services: CutServices, id: number, from: ResumeFrom): Promise<Cut> {
  await refusePaused(services.db);
  const { also, before } = await goingOn(services.db, id, from);
  const act = from === 'start' ? 'begun-anew' : 'resumed';
  const cut = await move(services, id, ['stopped'], 'checking', act, {
    also: { paused: false, ...also },
    before,
  });
  if (from === 'start') await services.hub.tell({ kind: 'shop' });
  await services.dispatch({ cutId: id });
  return cut;
}

async function goingOn(db: Db, id: number, from: ResumeFrom): Promise<Moving> {
  switch (from) {
    case 'next-line':
      return {};
    case 'head':
      return { also: { headFrom: sql`${cuts.headFrom} - 'isAsked'` }, before: isAskedOf };
    case 'start':
      return { also: { ...FROM_THE_START, slip: null, onNewFilm: null }, before: bookSpoilt };
    default:
      return { also: await foundLine(db, id, from) };
  }
}

/** @throws Trouble 409 when it is not in doubt how far a line is cut */
async function isAskedOf(tx: Tx, id: number): Promise<void> {
  const [row] = await tx.select({ headFrom: cuts.headFrom }).from(cuts).where(eq(cuts.id, id));
  if (row?.headFrom?.isAsked) return;
  const message = 'Nothing is in doubt here: go on at the next line, or at one that you choose.';
  throw new Trouble(409, 'not-asked', message);
}

/** So many lines are cut, and nothing is in doubt. */
const behind = (lines: number, secondsDone = 0) => ({
  linesDone: lines,
  linesSent: lines,
  headFrom: null,
  secondsDone,
});
export const FROM_THE_START = { ...behind(0), turnBefore: null };

/**
 * Goes on at a line that the blade does not come to from the one before it.
 * @param line from 1
 * @throws Trouble 422 when there is none
 */
export function fromLine({ lines, doneAt }: StoredProgram, line: number) {
  if (line > lines.length) throw new Trouble(422, 'no-such-line', `This cut has ${lines.length} lines.`);
  return line > 1 ? { ...behind(line - 1, doneAt[line - 2]), turnBefore: line - 1 } : FROM_THE_START;
}

/** Goes on at a line that somebody found by looking at the film. @param line from 1 */
async function foundLine(db: Db, id: number, line: number) {
  const [row] = await db.select({ program: cuts.program }).from(cuts).where(eq(cuts.id, id));
  if (!row) throw notFound('cut');
  return fromLine(unpack<StoredProgram>(row.program), line);
}

export async function cancelCut(services: CutServices, id: number): Promise<Cut> {
  const open = [...UNBEGUN, 'stopped'] as const;
  const cut = await move(services, id, open, 'cancelled', 'cancelled', {
    also: { endedAt: new Date() },
    before: bookSpoilt,
  });
  await services.hub.tell({ kind: 'shop' });
  await promoteNext(services, cut.cutterId);
  return cut;
}
