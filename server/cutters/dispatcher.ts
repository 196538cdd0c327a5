/** Takes cuts off the queue and feeds them, under a lease so that one cutter never listens to two servers. */
import { randomUUID } from 'node:crypto';
import { and, eq, inArray, lt, notExists, or, sql } from 'drizzle-orm';
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
import { checkFilm, feed } from './feed';
import { takeLease } from './lease';
import type { Lease } from './lease';
import type { CutterLink } from './link';
import { LinkLost, openLink } from './link';

const QUEUE = 'cut';
const HANDS = 4;
const SAVE_EVERY_MS = 700;
const TELL_EVERY_MS = 120;
const LOOK_AFTER_MS = 2500;
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
}

export async function openDispatcher(url: string, services: Services): Promise<Dispatcher> {
  const { db, hub, log } = services;
  const holder = randomUUID();
  const boss = new PgBoss({ connectionString: url, schema: 'queue', max: 3 });
  boss.on('error', (error) => log.error({ error: error.message }, 'queue'));
  await boss.start();
  await boss.createQueue(QUEUE);
  const stopping = new Set<number>();
  const unlisten = hub.on((event) => {
    if (event.kind === 'stop') stopping.add(event.cutId);
  });
  let closing = false;
  const run = async ([job]: PgBoss.Job<{ cutId: number }>[]): Promise<void> => {
    stopping.delete(job.data.cutId);
    await runCut(services, holder, job.data.cutId, () => closing || stopping.has(job.data.cutId));
  };
  for (let i = 0; i < HANDS; i++) await boss.work(QUEUE, { batchSize: 1, pollingIntervalSeconds: 0.5 }, run);
  const lookout = setInterval(() => {
    stopForsaken(services).catch((error: unknown) =>
      log.error({ error: String(error) }, 'looking after cuts'),
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
      await db.delete(leases).where(eq(leases.holder, holder));
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
  const lease = await takeLease(db, cut.cutterId, holder);
  if (!lease) {
    await settle(services, cut, {
      state: 'wants-film',
      problem: 'Another server is using this cutter. Press again in a moment.',
    });
    return;
  }
  try {
    await cutUnderLease(services, cut, lease, asked);
  } catch (error) {
    if (!(error instanceof LinkLost)) log.error({ error: String(error), cutId }, 'cut failed');
    await afterFailure(services, cut.id, error);
  } finally {
    await lease.release();
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
  const link = await openLink(cutter.link);
  try {
    const resumed = cut.linesDone > 0;
    const wrong = resumed
      ? undefined
      : await checkFilm(link, cut.film, cut.rollWidth, cutter.data, cut.length);
    if (wrong) return await settle(services, cut, { state: 'wants-film', problem: wrong });
    await settle(services, cut, { state: 'cutting', problem: null });
    const program = unpack<StoredProgram>(cut.program);
    const linesDone = await feedWithProgress(
      services,
      cut,
      cutter.data,
      link,
      program,
      () => asked() || !lease.held(),
    );
    const secondsDone = linesDone > 0 ? program.doneAt[linesDone - 1] : 0;
    if (linesDone < program.lines.length) {
      const problem = `Stopped after line ${linesDone} of ${program.lines.length}.`;
      return await settle(services, cut, { state: 'stopped', linesDone, secondsDone, problem });
    }
    const record = await recordOf(services, cut, cutter.link.panel, program);
    await settle(services, cut, {
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

async function feedWithProgress(
  { db, hub }: Services,
  cut: CutRow,
  cutter: Parameters<typeof feed>[2],
  link: CutterLink,
  program: StoredProgram,
  shouldStop: () => boolean,
): Promise<number> {
  let told = 0;
  let saved = 0;
  let done = cut.linesDone;
  const secondsOf = (lines: number): number => (lines > 0 ? program.doneAt[lines - 1] : 0);
  // never backwards: an older write may arrive late
  const save = (linesDone: number): Promise<unknown> =>
    db
      .update(cuts)
      .set({ linesDone, secondsDone: secondsOf(linesDone) })
      .where(and(eq(cuts.id, cut.id), lt(cuts.linesDone, linesDone)));
  try {
    return await feed(link, program, cutter, cut.cuttable, cut.linesDone, {
      shouldStop,
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
    await save(done);
    throw error;
  }
}

async function settle({ db, hub }: Services, cut: CutRow, to: Partial<CutRow>): Promise<void> {
  await db.update(cuts).set(to).where(eq(cuts.id, cut.id));
  await hub.tell({ kind: 'cut', cutId: cut.id, orderId: cut.orderId, cutterId: cut.cutterId });
}

/** Before the first line nothing is spoilt: the film is asked for again. Later, a person decides how to go on. */
async function afterFailure(services: Services, cutId: number, error: unknown): Promise<void> {
  const [cut] = await services.db.select().from(cuts).where(eq(cuts.id, cutId));
  const [cutter] = await services.db.select().from(cutters).where(eq(cutters.id, cut.cutterId));
  const why = error instanceof LinkLost ? error.message : 'something went wrong inside Jam Pan';
  const { name } = cutter.data;
  if (cut.state === 'checking' && cut.linesDone === 0) {
    const problem = `${name} cannot be reached: ${why}. Look whether it is switched on and its cable is in, then press again.`;
    return settle(services, cut, { state: 'wants-film', problem });
  }
  const problem = `Stopped after line ${cut.linesDone} of ${cut.lines}: ${why}. Look at ${name} and its film, then go on or start again.`;
  return settle(services, cut, { state: 'stopped', problem });
}

/** The knife's way as a simulated cutter recorded it, set against the design. Real cutters keep none. */
async function recordOf(
  { pool, log }: Services,
  cut: CutRow,
  panel: string | undefined,
  program: StoredProgram,
): Promise<Partial<CutRow>> {
  if (!panel) return {};
  try {
    const response = await fetch(new URL('/record', panel), { signal: AbortSignal.timeout(10_000) });
    const raw = recordSchema.parse(await response.json());
    const record = onStrip(raw, cut.cuttable);
    const drawing = unpack<Drawing>(cut.drawing);
    if (record.lines.length !== program.lines.length) return { record: pack(record) };
    const { largest, at } = await pool.run('compare', { record, drawing });
    return { record: pack(record), deviation: largest, deviationAt: { x: at[0], y: at[1] } };
  } catch (error) {
    log.warn({ error: String(error), cutId: cut.id }, 'no record of the cut');
    return {};
  }
}

/** The cutter records on its own axes; the strip counts from the other edge. */
const onStrip = (record: CutRecord, cuttable: number): CutRecord => ({
  lines: record.lines.map((line) => ({
    ...line,
    points: line.points.map((v, i) => (i % 2 === 0 ? v : cuttable - v)),
  })),
});

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
  const forsaken = await db
    .select()
    .from(cuts)
    .where(
      and(
        or(inArray(cuts.state, ['cutting', 'stopping']), and(eq(cuts.state, 'checking'), waitedLong)),
        notExists(alive),
      ),
    );
  for (const cut of forsaken) {
    if (cut.state === 'checking' && cut.linesDone === 0) {
      await settle(services, cut, {
        state: 'wants-film',
        problem: 'Nothing happened after the film was loaded. Press again.',
      });
      continue;
    }
    const problem = `The server that fed this cut went away after line ${cut.linesDone} of ${cut.lines}. Look at the film, then go on or start again.`;
    await settle(services, cut, { state: 'stopped', problem });
  }
}
