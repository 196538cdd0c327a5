/** Takes cuts off the queue and has them cut; sees to it that none is forgotten. */
import { randomUUID } from 'node:crypto';
import { like, sql } from 'drizzle-orm';
import PgBoss from 'pg-boss';
import { leases } from '../db/schema';
import type { Job } from '../services/cuts';
import { lookAfterCuts } from './lookAfterCuts';
import { runCalibration } from './runCalibration';
import { runCut } from './runCut';
import type { Services } from './settle';

const QUEUE = 'cut';
const HANDS = 4;
/** A line to the database for each hand and one beside: a hand that waits for one when the queue is closed waits for ever. */
const LINES = HANDS + 1;
const LOOK_AFTER_MS = 2500;

export interface Dispatcher {
  readonly dispatch: (job: Job) => Promise<void>;
  readonly close: () => Promise<void>;
}

/** The queue, laid out in the database by whichever server comes first: two that do it at once lock each other out. */
async function openQueue(url: string, { db, log }: Pick<Services, 'db' | 'log'>): Promise<PgBoss> {
  const boss = new PgBoss({ connectionString: url, schema: 'queue', max: LINES, schedule: false });
  boss.on('error', (error) => log.error({ error: error.message }, 'queue'));
  await db.transaction(async (tx) => {
    await tx.execute(sql`select pg_advisory_xact_lock(731004)`);
    await boss.start();
    await boss.createQueue(QUEUE);
  });
  return boss;
}

const nameOf = (job: Job): string =>
  'cutId' in job ? `cut ${job.cutId}` : `calibration ${job.calibrationId}`;

export async function openDispatcher(url: string, given: Omit<Services, 'isClosing'>): Promise<Dispatcher> {
  const { db, hub, log } = given;
  let closing = false;
  const services: Services = { ...given, isClosing: () => closing };
  const holder = randomUUID();
  const boss = await openQueue(url, given);
  const stopping = new Set<string>();
  const unlisten = hub.on((event) => {
    if (event.kind === 'stop' || event.kind === 'stop-calibration') stopping.add(nameOf(event));
  });
  const run = async ([{ data: job }]: PgBoss.Job<Job>[]): Promise<void> => {
    stopping.delete(nameOf(job));
    const isToStop = (): boolean => closing || stopping.has(nameOf(job));
    if ('cutId' in job) await runCut(services, holder, job.cutId, isToStop);
    else await runCalibration(services, holder, job.calibrationId, isToStop);
  };
  const dispatch = async (job: Job): Promise<void> =>
    void (await boss.send(QUEUE, job, { retryLimit: 0, expireInHours: 12 }));
  for (let i = 0; i < HANDS; i++) await boss.work(QUEUE, { batchSize: 1, pollingIntervalSeconds: 0.5 }, run);
  const lookout = setInterval(() => {
    lookAfterCuts(services, dispatch).catch((error: unknown) =>
      log.warn({ error: String(error) }, 'looking after cuts'),
    );
  }, LOOK_AFTER_MS);
  return {
    dispatch,
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
