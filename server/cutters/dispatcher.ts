/** Takes cuts off the queue and feeds them, under a lease so that one cutter never listens to two servers. */
import { randomUUID } from 'node:crypto';
import type { SQL } from 'drizzle-orm';
import { and, eq, exists, inArray, like, lt, notExists, or, sql } from 'drizzle-orm';
import PgBoss from 'pg-boss';
import type { Logger } from 'pino';
import { recordSchema } from '../../contracts/api';
import type { CutRecord, Drawing } from '../../contracts/api';
import type { Db } from '../db/connect';
import { cuts, cutters, leases } from '../db/schema';
import type { Hub } from '../events/hub';
import { promoteNext } from '../services/cuts';
import { pack, unpack } from '../services/pack';
import type { StoredProgram } from '../work/tasks';
import type { WorkPool } from '../work/pool';
import { untilBack } from '../db/away';
import { checkFilm, feed, standingOf } from './feed';
import type { Standing } from '../../core/devicelang/answers';
import { toStrip } from '../../core/devicelang/axes';
import type { Cutter } from '../../core/layout/cutter';
import { takeLease } from './lease';
import type { Lease } from './lease';
import type { CutterLink } from './link';
import { LinkLost, openLink } from './link';
import type { Place } from './whereabouts';
import { placeOf } from './whereabouts';

const QUEUE = 'cut';
const HANDS = 4;
const SAVE_EVERY_MS = 700;
const TELL_EVERY_MS = 120;
const LOOK_AFTER_MS = 2500;
/** Somebody may just be asking the cutter what is in it; that does not take long. */
const LEASE_PATIENCE_MS = 8000;
/** A cut that no server has taken up after this long was lost with the server that should have. */
const UNHEARD_SECONDS = 30;

export interface Dispatcher {
  readonly dispatch: (cutId: number) => Promise<void>;
  readonly close: () => Promise<void>;
}

interface Services {
  readonly db: Db;
  readonly hub: Hub;
  readonly pool: WorkPool;
  readonly log: Logger;
  readonly isClosing: () => boolean;
}

export async function openDispatcher(url: string, given: Omit<Services, 'isClosing'>): Promise<Dispatcher> {
  const { db, hub, log } = given;
  let closing = false;
  const services: Services = { ...given, isClosing: () => closing };
  const holder = randomUUID();
  const boss = new PgBoss({ connectionString: url, schema: 'queue', max: 3 });
  boss.on('error', (error) => log.error({ error: error.message }, 'queue'));
  await boss.start();
  await boss.createQueue(QUEUE);
  const stopping = new Set<number>();
  const unlisten = hub.on((event) => {
    if (event.kind === 'stop') stopping.add(event.cutId);
  });
  const run = async ([job]: PgBoss.Job<{ cutId: number }>[]): Promise<void> => {
    stopping.delete(job.data.cutId);
    await runCut(services, holder, job.data.cutId, () => closing || stopping.has(job.data.cutId));
  };
  for (let i = 0; i < HANDS; i++) await boss.work(QUEUE, { batchSize: 1, pollingIntervalSeconds: 0.5 }, run);
  const lookout = setInterval(() => {
    lookAfterCuts(services).catch((error: unknown) =>
      log.warn({ error: String(error) }, 'looking after cuts'),
    );
  }, LOOK_AFTER_MS);
  return {
    dispatch: async (cutId) => {
      await boss.send(QUEUE, { cutId }, { retryLimit: 0, expireInHours: 12 });
    },
    close: async () => {
      closing = true;
      clearInterval(lookout);
      unlisten();
      await boss.stop({ graceful: true, timeout: 5000 });
      await db
        .delete(leases)
        .where(like(leases.holder, `${holder}%`))
        .catch(() => {}); // they run out by themselves
    },
  };
}

type CutRow = typeof cuts.$inferSelect;

async function runCut(
  services: Services,
  holder: string,
  cutId: number,
  asked: () => boolean,
): Promise<void> {
  const { db, log } = services;
  const [cut] = await db.select().from(cuts).where(eq(cuts.id, cutId));
  if (!cut || cut.state !== 'checking') return; // taken back meanwhile, or already under way elsewhere
  const lease = await takeLease(db, cut.cutterId, `${holder} ${randomUUID()}`, LEASE_PATIENCE_MS);
  if (!lease) {
    const problem = 'Another server is using this cutter. Press again in a moment.';
    await settle(services, cut, { state: 'wants-film', problem }, eq(cuts.state, 'checking'));
    return;
  }
  try {
    await cutUnderLease(services, cut, lease, asked);
  } catch (error) {
    if (!(error instanceof LinkLost)) log.error({ error: String(error), cutId }, 'cut failed');
    await afterFailure(services, cut.id, lease, error);
  } finally {
    await lease.release().catch(() => {}); // runs out by itself
  }
  await promoteNext(services, cut.cutterId);
}

async function cutUnderLease(
  services: Services,
  cut: CutRow,
  lease: Lease,
  asked: () => boolean,
): Promise<void> {
  const { db } = services;
  const [cutter] = await db.select().from(cutters).where(eq(cutters.id, cut.cutterId));
  const tell = (to: Partial<CutRow>): Promise<void> => settle(services, cut, to, isHolder(db, lease));
  const link = await openLink(cutter.link);
  try {
    const isFresh = cut.linesDone === 0 && cut.linesSent === 0;
    const wrong = isFresh
      ? await checkFilm(link, cut.film, cut.rollWidth, cutter.data, cut.length)
      : undefined;
    if (wrong) return await tell({ state: 'wants-film', problem: wrong });
    const program = unpack<StoredProgram>(cut.program);
    const standing = await standingOf(link);
    const from = whereToGoOn(cut, program, standing);
    if (!from) return await tell(lostPlace(cut, cutter.data.name));
    await tell({
      state: 'cutting',
      problem: null,
      linesDone: from.line,
      headFrom: { x: standing.x, y: standing.y, ...from },
    });
    const linesDone = await feedWithProgress(services, cut, cutter.data, link, program, from, lease, asked);
    const secondsDone = linesDone > 0 ? program.doneAt[linesDone - 1] : 0;
    if (linesDone < program.lines.length) {
      const problem = `Stopped after line ${linesDone} of ${program.lines.length}.`;
      return await tell({
        state: 'stopped',
        linesDone,
        linesSent: linesDone,
        secondsDone,
        problem,
      });
    }
    const record = await recordOf(services, cut, cutter, program);
    await tell({
      state: 'done',
      linesDone,
      secondsDone,
      problem: null,
      endedAt: new Date(),
      ...record,
    });
  } finally {
    link.close();
  }
}

/** The next line; where lines were sent and nobody heard of them again, the place at which the head stands. */
function whereToGoOn(cut: CutRow, program: StoredProgram, head: Standing): Place | undefined {
  if (cut.linesSent <= cut.linesDone) return { line: cut.linesDone, point: 0 };
  return placeOf(program, cut.linesDone, cut.linesSent, head, cut.headFrom);
}

/** Rather not cut than cut twice: what is in doubt counts as cut, and a person is told to look. */
function lostPlace({ linesDone, linesSent }: CutRow, name: string): Partial<CutRow> {
  const which = linesSent - linesDone === 1 ? `line ${linesSent}` : `lines ${linesDone + 1} to ${linesSent}`;
  return {
    state: 'stopped',
    linesDone: linesSent,
    problem: `${name}'s head is not where the cut left it, so nobody can tell whether ${which} ${linesSent - linesDone === 1 ? 'is' : 'are'} cut. Look at the film: go on behind them and cut what is missing again, or start again on fresh film.`,
  };
}

/** Only who has the cutter may say what becomes of its cut: a feeder that was away too long has lost it. */
const isHolder = (db: Db, { holder }: Lease): SQL =>
  exists(
    db
      .select({ id: leases.cutterId })
      .from(leases)
      .where(and(eq(leases.cutterId, cuts.cutterId), eq(leases.holder, holder))),
  );

/** Stop is a state of the cut: a feeder looks for it this often, whether or not it hears of it. */
const LOOK_FOR_STOP_MS = 400;

async function feedWithProgress(
  services: Services,
  cut: CutRow,
  cutter: Parameters<typeof feed>[2],
  link: CutterLink,
  program: StoredProgram,
  from: Place,
  lease: Lease,
  asked: () => boolean,
): Promise<number> {
  const { db, hub } = services;
  let told = 0;
  let saved = 0;
  let done = from.line;
  let stopped = false;
  const secondsOf = (lines: number): number => (lines > 0 ? program.doneAt[lines - 1] : 0);
  // never backwards: an older write may arrive late
  const save = (linesDone: number): Promise<unknown> =>
    db
      .update(cuts)
      .set({ linesDone, secondsDone: secondsOf(linesDone) })
      .where(and(eq(cuts.id, cut.id), lt(cuts.linesDone, linesDone)));
  const lookout = setInterval(() => {
    db.select({ state: cuts.state })
      .from(cuts)
      .where(eq(cuts.id, cut.id))
      .then(([row]) => (stopped ||= row?.state === 'stopping'))
      .catch(() => {}); // away: the lease runs out if it stays so
  }, LOOK_FOR_STOP_MS);
  const isToStop = (): boolean => stopped || asked() || !lease.held();
  try {
    return await feed(link, program, cutter, cut.cuttable, from, {
      shouldStop: isToStop,
      announce: async (linesSent) => {
        const mine = and(eq(cuts.id, cut.id), isHolder(db, lease));
        const note = () =>
          db.update(cuts).set({ linesSent, linesDone: done }).where(mine).returning({ id: cuts.id });
        // taken over: whatever is sent now would be cut twice
        if ((await untilBack(note, isToStop)).length === 0) stopped = true;
      },
      progress: (head, linesDone) => {
        done = linesDone;
        const now = Date.now();
        if (now - told >= TELL_EVERY_MS) {
          told = now;
          const event = {
            kind: 'head' as const,
            cutId: cut.id,
            ...head,
            linesDone,
            secondsDone: secondsOf(linesDone),
          };
          void hub.tell(event).catch(() => {});
        }
        if (now - saved >= SAVE_EVERY_MS) {
          saved = now;
          void save(linesDone).catch(() => {});
        }
      },
    });
  } catch (error) {
    await untilBack(() => save(done), services.isClosing);
    throw error;
  } finally {
    clearInterval(lookout);
  }
}

/** What became of a cut is never lost: while the database is away it is tried again. */
async function settle(
  services: Services,
  cut: CutRow,
  to: Partial<CutRow>,
  provided: SQL | undefined,
): Promise<void> {
  const { db, hub, isClosing } = services;
  await untilBack(
    () =>
      db
        .update(cuts)
        .set(to)
        .where(and(eq(cuts.id, cut.id), provided)),
    isClosing,
  );
  // pages that miss this ask again when their line is back
  await hub
    .tell({ kind: 'cut', cutId: cut.id, orderId: cut.orderId, cutterId: cut.cutterId })
    .catch(() => {});
}

/** Before the first line nothing is spoilt: the film is asked for again. Later, a person decides how to go on. */
async function afterFailure(services: Services, cutId: number, lease: Lease, error: unknown): Promise<void> {
  const { db, isClosing } = services;
  const [cut] = await untilBack(() => db.select().from(cuts).where(eq(cuts.id, cutId)), isClosing);
  const [cutter] = await db.select().from(cutters).where(eq(cutters.id, cut.cutterId));
  const why = error instanceof LinkLost ? error.message : 'something went wrong inside Jam Pan';
  const { name } = cutter.data;
  if (cut.state === 'checking' && cut.linesSent === 0) {
    const problem = `${name} cannot be reached: ${why}. Look whether it is switched on and its cable is in, then press again.`;
    return settle(services, cut, { state: 'wants-film', problem }, isHolder(db, lease));
  }
  const problem = `Stopped after line ${cut.linesDone} of ${cut.lines}: ${why}. Look at ${name} and its film, then go on or start again.`;
  return settle(services, cut, { state: 'stopped', problem }, isHolder(db, lease));
}

/** The knife's way as a simulated cutter recorded it, set against the design. Real cutters keep none. */
async function recordOf(
  { pool, log }: Services,
  cut: CutRow,
  { data: cutter, link: { panel } }: typeof cutters.$inferSelect,
  program: StoredProgram,
): Promise<Partial<CutRow>> {
  if (!panel) return {};
  try {
    const response = await fetch(new URL('/record', panel), { signal: AbortSignal.timeout(10_000) });
    const raw = recordSchema.parse(await response.json());
    const record = onStrip(raw, cutter, cut.cuttable);
    const drawing = unpack<Drawing>(cut.drawing);
    if (record.lines.length !== program.lines.length) return { record: pack(record) };
    const { largest, at } = await pool.run('compare', { record, drawing });
    return { record: pack(record), deviation: largest, deviationAt: { x: at[0], y: at[1] } };
  } catch (error) {
    log.warn({ error: String(error), cutId: cut.id }, 'no record of the cut');
    return {};
  }
}

/** The cutter records in mm on its own axes. */
function onStrip(record: CutRecord, { device }: Cutter, cuttable: number): CutRecord {
  const place = toStrip({ ...device, step: 1 }, cuttable);
  const moved = (points: readonly number[]): number[] =>
    points.flatMap((x, i) => (i % 2 === 0 ? place(x, points[i + 1]) : []));
  return { lines: record.lines.map((line) => ({ ...line, points: moved(line.points) })) };
}

/** What every server does again and again, so that no crash between two steps leaves anything standing. */
async function lookAfterCuts(services: Services): Promise<void> {
  await stopForsaken(services);
  const waiting = await services.db
    .selectDistinct({ cutterId: cuts.cutterId })
    .from(cuts)
    .where(eq(cuts.state, 'queued'));
  for (const { cutterId } of waiting) await promoteNext(services, cutterId);
}

/** Cuts whose server went away without a word: a person has to look before they go on. */
async function stopForsaken(services: Services): Promise<void> {
  const { db } = services;
  const alive = db
    .select({ id: leases.cutterId })
    .from(leases)
    .where(
      and(
        eq(leases.cutterId, cuts.cutterId),
        sql`${leases.expiresAt} > (extract(epoch from clock_timestamp()) * 1000)::bigint`,
      ),
    );
  const waitedLong = lt(cuts.movedAt, sql`now() - make_interval(secs => ${UNHEARD_SECONDS})`);
  const isForsaken = and(
    or(inArray(cuts.state, ['cutting', 'stopping']), and(eq(cuts.state, 'checking'), waitedLong)),
    notExists(alive),
  );
  for (const cut of await db.select().from(cuts).where(isForsaken)) {
    const problem =
      cut.linesSent === 0
        ? 'Nothing happened after the film was loaded. Press again.'
        : `The server that fed this cut went away after line ${cut.linesDone} of ${cut.lines}. Look at the film, then go on or start again.`;
    const state = cut.linesSent === 0 ? 'wants-film' : 'stopped';
    await settle(services, cut, { state, problem }, isForsaken);
  }
}
