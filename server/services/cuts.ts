import { and, asc, desc, eq, exists, inArray, sql } from 'drizzle-orm';
import type {
  Cut,
  CutAct,
  CutActed,
  CutState,
  QueuedPart,
  ResumeFrom,
  SharingNow,
} from '../../contracts/cuts';
import { OPEN_STATES, UNBEGUN } from '../../contracts/cuts';
import type { TakenMarks } from '../../contracts/print';
import type { Db } from '../db/connect';
import { cutActs, cuts, cutShares, orders, people } from '../db/schema';
import { notFound, Trouble } from '../problem';
import type { OrderServices } from './orders';
import { getOrder, planToCut } from './orders';
import type { Order } from '../../contracts/api';
import type { MadeCut, StoredProgram } from '../work/makeCuts';
import type { MadePlan } from '../work/tasks';
import { pack, unpack } from './pack';
import { settingsOf } from './settings';
import { sharingOf } from './sharing';
import { loadShop } from './shop';

/** What a cutter is wanted for. */
export type Job = { readonly cutId: number } | { readonly calibrationId: number };

export interface CutServices extends OrderServices {
  /** Hands a cut, or a calibration, to whichever server process is free to feed its cutter. */
  readonly dispatch: (job: Job) => Promise<void>;
}

/** States in which a cut has its cutter to itself. */
const ACTIVE: readonly CutState[] = ['wants-film', 'checking', 'cutting', 'stopping', 'stopped'];

/** What was shown of an order when it was queued: its revision, and the versions of the shop and of what it shares. */
export interface Shown {
  readonly revision: number;
  readonly shop?: string;
  readonly sharing?: string;
}

/** Freezes the order's plan as it stands into one cut a strip, in cutting order. */
export async function queueOrder(
  services: CutServices,
  orderId: number,
  shown: Shown,
  asked: QueuedPart = {},
  hold = false,
): Promise<Cut[]> {
  await putInQueue(services, orderId, shown, asked, hold);
  return listCuts(services.db, { orderId });
}

/** @returns the cuts that were made */
export async function putInQueue(
  services: CutServices,
  orderId: number,
  { revision, shop, sharing: shownSharing }: Shown,
  asked: QueuedPart,
  hold = false,
): Promise<readonly number[]> {
  const { db, hub, who } = services;
  const order = await getOrder(db, orderId);
  if (order.revision !== revision) {
    throw new Trouble(
      409,
      'changed',
      'Somebody changed this order a moment ago. Look at it once more, then queue it.',
    );
  }
  if (shop !== undefined && shop !== (await loadShop(db)).version) {
    throw new Trouble(
      409,
      'shop-changed',
      'A film, a recipe or a cutter was changed a moment ago. Look at the order once more, then queue it.',
    );
  }
  const isAlone = isOwn(asked);
  const sharing = isAlone ? ALONE : await sharingOf(db, order);
  if (!isAlone && shownSharing !== undefined && shownSharing !== sharing.version) throw sharingChanged();
  const wanted = await cutsAsked(services, order, sharing, asked);
  const madeIds = await db.transaction(async (tx) => {
    // one order is queued once at a time, however often and from wherever the button is pressed; those it shares film with too
    const together = [orderId, ...sharing.guests.map(({ id }) => id)];
    await tx.select().from(orders).where(inArray(orders.id, together)).orderBy(orders.id).for('update');
    if (!isAlone && (await sharingOf(tx, order)).version !== sharing.version) throw sharingChanged();
    const onFilms = wanted.map(({ film }) => film.id);
    await refuseTwice(tx, orderId, asked);
    if (!isSpoilt(asked)) await refuseQueued(tx, { ...order, films: onFilms });
    for (const guest of sharing.guests)
      await refuseQueued(tx, { ...guest, films: guest.films.filter((film) => onFilms.includes(film)) });
    const made = await tx
      .insert(cuts)
      .values(
        wanted.map((cut, i) => ({
          ...rowOf(cut),
          orderId,
          revision,
          asked,
          position: i + 1,
          of: wanted.length,
          state: hold ? 'held' : 'queued',
        })),
      )
      .returning({ id: cuts.id });
    const ids = made.map(({ id }) => id);
    // behind all that was queued before
    await tx.update(cuts).set({ rank: cuts.id }).where(inArray(cuts.id, ids));
    const act = hold ? 'held' : 'queued';
    await tx.insert(cutActs).values(ids.map((cutId) => ({ cutId, act, who }) as const));
    const whose = new Map(sharing.guests.map((guest) => [guest.number, guest]));
    await tx.insert(cutShares).values(
      wanted.flatMap(({ shares }, i) =>
        shares.map(({ order: number, ...share }) => {
          const guest = number === undefined ? undefined : whose.get(number);
          return {
            ...share,
            cutId: made[i].id,
            orderId: guest?.id ?? orderId,
            revision: guest?.revision ?? revision,
          };
        }),
      ),
    );
    return ids;
  });
  for (const cutterId of new Set(wanted.map((cut) => cut.cutterId))) await promoteNext(services, cutterId);
  for (const id of [orderId, ...sharing.guests.map((guest) => guest.id)])
    await hub.tell({ kind: 'order', orderId: id });
  return madeIds;
}

/** Some of it is cut again, whatever else of the order is in the queue. */
export const isSpoilt = ({ again, panels, sheets }: QueuedPart): boolean =>
  [again, panels, sheets].some((part) => part !== undefined);

/** An order is not queued as a whole while some of it is in the queue, and nothing spoilt is cut again twice at once. */
async function refuseTwice(tx: Pick<Db, 'select'>, orderId: number, asked: QueuedPart): Promise<void> {
  const open = await tx
    .select({ isSame: sql<boolean>`coalesce(${cuts.asked} = ${JSON.stringify(asked)}::jsonb, false)` })
    .from(cuts)
    .where(and(eq(cuts.orderId, orderId), inArray(cuts.state, [...OPEN_STATES])));
  if (isSpoilt(asked)) {
    if (open.some(({ isSame }) => isSame))
      throw new Trouble(409, 'already-again', 'That is in the queue to be cut again already.');
  } else if (open.length > 0 && asked.films === undefined)
    throw new Trouble(
      409,
      'already-queued',
      'This order is already in the queue. Finish or cancel those cuts first.',
    );
}

/** Only the order's own: shapes, panels and sheets that are spoilt are cut again by themselves. */
export const isOwn = (asked: QueuedPart): boolean => asked.own === true || isSpoilt(asked);

/** What is asked for of an order, with its bytes. @throws Trouble when it cannot be cut as it stands */
export async function cutsAsked(
  services: CutServices,
  order: Order,
  sharing: SharingNow,
  { films, again, panels, sheets }: QueuedPart,
): Promise<readonly MadeCut[]> {
  const plan = await planToCut(services, order, sharing, again ?? (panels && { panels }));
  const stop = plan.findings.find((finding) => finding.severity === 'stop');
  if (stop) throw new Trouble(422, stop.code, stop.message, stop.waysOut);
  const wanted = plan.cuts.filter(
    ({ film, sheet }) =>
      (!films || films.includes(film.id)) && (!sheets || (sheet && sheets.includes(sheet.number))),
  );
  if (wanted.length === 0) throw nothingToCut(plan);
  return wanted;
}

/** A made cut as it is stored. */
export const rowOf = ({ shares: _shares, design, ...cut }: MadeCut) => ({
  ...cut,
  lines: cut.program.lines.length,
  program: pack(cut.program),
  drawing: pack(cut.drawing),
  design: design ? pack(design) : null,
});

/** An order by itself. */
export const ALONE: SharingNow = { guests: [], away: {}, refused: [], version: '' };

const sharingChanged = (): Trouble =>
  new Trouble(
    409,
    'sharing-changed',
    'An order on the same film was changed a moment ago. Look at the film once more, then queue it.',
  );

function nothingToCut({ findings }: MadePlan): Trouble {
  const elsewhere = findings.find(({ code }) => code === 'cut-with');
  return elsewhere
    ? new Trouble(422, elsewhere.code, elsewhere.message, elsewhere.waysOut)
    : new Trouble(422, 'nothing', 'There is nothing to cut in this order.');
}

/** An order's film is not queued by itself and with another's at once. */
async function refuseQueued(
  tx: Pick<Db, 'select'>,
  { id, number, films }: Pick<SharingNow['guests'][number], 'id' | 'number' | 'films'>,
): Promise<void> {
  const open = await tx
    .select({ film: sql<string>`${cuts.film}->>'name'` })
    .from(cuts)
    .innerJoin(cutShares, eq(cutShares.cutId, cuts.id))
    .where(
      and(
        eq(cutShares.orderId, id),
        inArray(cuts.state, [...OPEN_STATES]),
        inArray(sql`${cuts.film}->>'id'`, [...films]),
      ),
    );
  if (open.length > 0)
    throw new Trouble(
      409,
      'guest-queued',
      `${open[0].film} of #${number} is in the queue already. Finish or cancel that cut first.`,
    );
}

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
  writtenWith: sql<
    Cut['writtenWith']
  >`coalesce(${cuts.writtenWith}, jsonb_build_object('kiss', jsonb_build_object('force', ${cuts.recipe}->'force', 'speed', ${cuts.recipe}->'speed')))`,
  nudges: cuts.nudges,
  nudgesKept: cuts.nudgesKept,
  seconds: cuts.seconds,
  cutLength: cuts.cutLength,
  lines: cuts.lines,
  linesDone: cuts.linesDone,
  linesSent: cuts.linesSent,
  isReckoned: cuts.isReckoned,
  isSlipped: sql<boolean>`${cuts.slip} is not null`,
  secondsDone: cuts.secondsDone,
  problem: cuts.problem,
  endedAt: sql<string | null>`to_char(${cuts.endedAt} at time zone 'utc', 'YYYY-MM-DD"T"HH24:MI:SS.MS"Z"')`,
  deviation: cuts.deviation,
  deviationAt: cuts.deviationAt,
  howItWas: cuts.howItWas,
};

export async function listCuts(db: Db, of: { orderId?: number } = {}): Promise<Cut[]> {
  const rows = await db
    .select(columns)
    .from(cuts)
    .innerJoin(orders, eq(orders.id, cuts.orderId))
    .where(of.orderId === undefined ? inArray(cuts.state, [...OPEN_STATES]) : isOf(db, of.orderId))
    .orderBy(asc(cuts.rank), asc(cuts.id))
    .limit(500);
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
const isOf = (db: Db, orderId: number) =>
  exists(
    db
      .select({ id: cutShares.cutId })
      .from(cutShares)
      .where(and(eq(cutShares.cutId, cuts.id), eq(cutShares.orderId, orderId))),
  );

export async function getCut(db: Db, id: number): Promise<Cut> {
  const [row] = await db
    .select(columns)
    .from(cuts)
    .innerJoin(orders, eq(orders.id, cuts.orderId))
    .where(eq(cuts.id, id));
  if (!row) throw notFound('cut');
  return row as Cut;
}

/** The stored bytes of a cut: `program` and `drawing` always, `record` once it was cut on a cutter that keeps one. */
export async function getCutFile(db: Db, id: number, which: 'drawing' | 'record'): Promise<Buffer> {
  const [row] = await db.select({ bytes: cuts[which] }).from(cuts).where(eq(cuts.id, id));
  if (!row) throw notFound('cut');
  if (!row.bytes)
    throw new Trouble(404, 'not-cut-yet', 'There is no record of this cut: it has not been cut to its end.');
  return row.bytes;
}

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

/** Moves a cut on only from a state in which that makes sense, so that of two presses one counts. */
export async function move(
  services: Pick<CutServices, 'db' | 'hub' | 'who'>,
  id: number,
  from: readonly CutState[],
  to: CutState,
  act: CutAct,
  also: Partial<typeof cuts.$inferInsert> = {},
  what?: string,
): Promise<Cut> {
  const moved = await services.db.transaction(async (tx) => {
    const rows = await tx
      .update(cuts)
      .set({ state: to, problem: null, movedAt: sql`now()`, ...also })
      .where(and(eq(cuts.id, id), inArray(cuts.state, [...from])))
      .returning({ id: cuts.id });
    if (rows.length > 0) await tx.insert(cutActs).values({ cutId: id, act, what, who: services.who });
    return rows.length > 0;
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

async function refusePaused(db: Db): Promise<void> {
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
  const cut = await move(services, id, ['wants-film'], 'checking', 'loaded', { taken: taken ?? null });
  await services.dispatch({ cutId: id });
  return cut;
}

/** @param paused with all others, and gone on with together with them */
export async function stopCut(services: CutServices, id: number, paused = false): Promise<Cut> {
  const act = paused ? 'paused' : 'stopped';
  const cut = await move(services, id, ['cutting', 'checking'], 'stopping', act, { paused });
  await services.hub.tell({ kind: 'stop', cutId: id });
  return cut;
}

/** Goes on at the first line that is not known to be cut, at one that a person found, or from the start on fresh film. */
export async function resumeCut(services: CutServices, id: number, from: ResumeFrom): Promise<Cut> {
  await refusePaused(services.db);
  const on = { paused: false };
  const cut = await (from === 'next-line'
    ? move(services, id, ['stopped'], 'checking', 'resumed', on)
    : from === 'start'
      ? move(services, id, ['stopped'], 'checking', 'begun-anew', { ...on, ...behind(0), slip: null })
      : move(services, id, ['stopped'], 'checking', 'resumed', {
          ...on,
          ...(await foundLine(services.db, id, from)),
        }));
  await services.dispatch({ cutId: id });
  return cut;
}

const behind = (lines: number, secondsDone = 0) => ({
  linesDone: lines,
  linesSent: lines,
  headFrom: null,
  secondsDone,
});

/** Goes on at a line that somebody found by looking at the film. @param line from 1 */
async function foundLine(db: Db, id: number, line: number) {
  const [row] = await db.select({ program: cuts.program }).from(cuts).where(eq(cuts.id, id));
  if (!row) throw notFound('cut');
  const { lines, doneAt } = unpack<StoredProgram>(row.program);
  if (line > lines.length) throw new Trouble(422, 'no-such-line', `This cut has ${lines.length} lines.`);
  return behind(line - 1, line > 1 ? doneAt[line - 2] : 0);
}

export async function cancelCut(services: CutServices, id: number): Promise<Cut> {
  const open = [...UNBEGUN, 'stopped'] as const;
  const cut = await move(services, id, open, 'cancelled', 'cancelled', { endedAt: new Date() });
  await promoteNext(services, cut.cutterId);
  return cut;
}
