/** Takes cuts off the queue and has them cut; sees to it that none is forgotten. */
import { randomUUID } from 'node:crypto';
import { like, sql } from 'drizzle-orm';
import PgBoss from 'pg-boss';
import { urgently } from '../db/connect';
import { APP } from '../db/lines';
import { leases } from '../db/schema';
import type { Job } from '../services/cuts';
import { lookAfterCuts } from './lookAfterCuts';
import { fetchWanted } from './recordOf';
import { runCalibration } from './runCalibration';
import { runCut } from './runCut';
import { watchCuts } from './watchCuts';
import type { Services } from './settle';

const QUEUE = 'cut';
/** Lines to the database: one that asks for work, and one beside. */
const LINES = 2;
/** Jobs that are begun at once; there are more cutters, then more are begun a moment later. */
const AT_ONCE = 10;
const LAST_MS = 5000;
const LOOK_AFTER_MS = 2500;
const FETCH_AGAIN_MS = 5000;

export interface Dispatcher {
  readonly dispatch: (job: Job) => Promise<void>;
  readonly close: () => Promise<void>;
}

/** The queue, laid out in the database by whichever server comes first: two that do it at once lock each other out. */
async function openQueue(url: string, { db, log }: Pick<Services, 'db' | 'log'>): Promise<PgBoss> {
  const boss = new PgBoss({
    connectionString: url,
    application_name: APP,
    schema: 'queue',
    max: LINES,
    schedule: false,
  });
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

export async function openDispatcher(
  url: string,
  given: Omit<Services, 'isClosing' | 'watch'>,
): Promise<Dispatcher> {
  const { db, hub, log } = given;
  let closing = false;
  const watch = watchCuts(urgently(db));
  const services: Services = { ...given, isClosing: () => closing, watch };
  const holder = randomUUID();
  const boss = await openQueue(url, given);
  const stopping = new Set<string>();
  const unlisten = hub.on((event) => {
    if (event.kind === 'stop' || event.kind === 'stop-calibration') stopping.add(nameOf(event));
  });
  const run = async (job: Job): Promise<void> => {
    stopping.delete(nameOf(job));
    const isToStop = (): boolean => closing || stopping.has(nameOf(job));
    if ('cutId' in job) await runCut(services, holder, job.cutId, isToStop);
    else await runCalibration(services, holder, job.calibrationId, isToStop);
  };
  const dispatch = async (job: Job): Promise<void> =>
    void (await boss.send(QUEUE, job, { retryLimit: 0, expireInHours: 12 }));
  // each cutter is fed by itself, as many as there are: what is begun is no job any more, but a state of its cut
  const running = new Set<Promise<void>>();
  const begin = (job: Job): void => {
    const work = run(job)
      .catch((error: unknown) => log.error({ error: String(error), job: nameOf(job) }, 'job failed'))
      .finally(() => running.delete(work));
    running.add(work);
  };
  await boss.work<Job>(QUEUE, { batchSize: AT_ONCE, pollingIntervalSeconds: 0.5 }, async (jobs) => {
    for (const { data } of jobs) begin(data);
  });
  const lookout = setInterval(() => {
    lookAfterCuts(services, dispatch).catch((error: unknown) =>
      log.warn({ error: String(error) }, 'looking after cuts'),
    );
  }, LOOK_AFTER_MS);
  let fetching: Promise<void> | undefined;
  const later = setInterval(() => {
    fetching ??= fetchWanted(services)
      .catch((error: unknown) => log.warn({ error: String(error) }, 'records asked for again'))
      .finally(() => (fetching = undefined));
  }, FETCH_AGAIN_MS);
  return {
    dispatch,
    close: async () => {
      closing = true;
      clearInterval(lookout);
      clearInterval(later);
      unlisten();
      await boss.stop({ graceful: true, timeout: LAST_MS });
      await Promise.race([Promise.all(running), new Promise((done) => setTimeout(done, LAST_MS).unref())]);
      watch.close();
      await db
        .delete(leases)
        .where(like(leases.holder, `${holder}%`))
        .catch(() => {}); // they run out by themselves
    },
  };
}
