/** Takes cuts off the queue and has them cut; sees to it that none is forgotten. */
import { randomUUID } from 'node:crypto';
import { like, sql } from 'drizzle-orm';
import PgBoss from 'pg-boss';
import { leases } from '../db/schema';
import { lookAfterCuts } from './lookAfterCuts';
import { runCut } from './runCut';
import type { Services } from './settle';

const QUEUE = 'cut';
const HANDS = 4;
const LOOK_AFTER_MS = 2500;

export interface Dispatcher {
  readonly dispatch: (cutId: number) => Promise<void>;
  readonly close: () => Promise<void>;
}

/** The queue, laid out in the database by whichever server comes first: two that do it at once lock each other out. */
async function openQueue(url: string, { db, log }: Pick<Services, 'db' | 'log'>): Promise<PgBoss> {
  const boss = new PgBoss({ connectionString: url, schema: 'queue', max: 3, schedule: false });
  boss.on('error', (error) => log.error({ error: error.message }, 'queue'));
  await db.transaction(async (tx) => {
    await tx.execute(sql`select pg_advisory_xact_lock(731004)`);
    await boss.start();
    await boss.createQueue(QUEUE);
  });
  return boss;
}

export async function openDispatcher(url: string, given: Omit<Services, 'isClosing'>): Promise<Dispatcher> {
  const { db, hub, log } = given;
  let closing = false;
  const services: Services = { ...given, isClosing: () => closing };
  const holder = randomUUID();
  const boss = await openQueue(url, given);
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
