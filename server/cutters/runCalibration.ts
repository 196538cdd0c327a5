/** One calibration at its machine: what it draws, cuts and reads, from the lease to what is to be measured. */
import { randomUUID } from 'node:crypto';
import { and, eq, inArray } from 'drizzle-orm';
import { untilBack } from '../db/away';
import { calibrations, cutters } from '../db/schema';
import { recipeFor } from '../services/calibrationRecipe';
import { wearInUse } from '../services/knives';
import { bookTest } from '../services/stock';
import { judged } from '../services/calibrations';
import { brokenOff, calibrateAt } from './calibrateAt';
import type { Lease } from './lease';
import { forgetWanted } from './recordOf';
import { LEASE_PATIENCE_MS, takeLease } from './lease';
import { LinkLost } from './links/link';
import { openLink } from './links/open';
import type { Services } from './settle';

type Row = typeof calibrations.$inferSelect;

const TELL_EVERY_MS = 250;

export async function runCalibration(
  services: Services,
  holder: string,
  id: number,
  asked: () => boolean,
): Promise<void> {
  const { db, log } = services;
  const [row] = await db.select().from(calibrations).where(eq(calibrations.id, id));
  if (row?.state === 'stopping') return settleCalibration(services, row, STOPPED_BEFORE);
  if (row?.state !== 'working') return; // under way elsewhere
  const lease = await takeLease(db, row.cutterId, `${holder} ${randomUUID()}`, LEASE_PATIENCE_MS);
  if (!lease)
    return settleCalibration(services, row, {
      state: 'ready',
      problem: 'The cutter is at work. Press again when it is done.',
    });
  try {
    await settleCalibration(services, row, await atMachine(services, row, lease, asked));
  } catch (error) {
    if (!(error instanceof LinkLost)) log.error({ error: String(error), id }, 'calibration failed');
    const why = error instanceof LinkLost ? error.message : 'something went wrong inside Jam Pan';
    await settleCalibration(services, row, { state: 'broken', problem: brokenOff(why) });
  } finally {
    await lease.release().catch(() => {}); // runs out by itself
  }
}

/** A person stopped it before anything began. */
const STOPPED_BEFORE: Partial<Row> = {
  state: 'ready',
  problem: 'Stopped before anything was drawn or cut. Press again to begin.',
};

/** What becomes of a run that is at its machine, written down and told. */
async function settleCalibration(services: Services, { id, cutterId }: Row, to: Partial<Row>): Promise<void> {
  const { db, hub, isClosing } = services;
  const isAtWork = and(eq(calibrations.id, id), inArray(calibrations.state, ['working', 'stopping']));
  await untilBack(() => db.update(calibrations).set(to).where(isAtWork), isClosing);
  await hub.tell({ kind: 'calibration', calibrationId: id, cutterId }).catch(() => {});
}

async function atMachine(
  services: Services,
  row: Row,
  lease: Lease,
  asked: () => boolean,
): Promise<Partial<Row>> {
  const { db, hub } = services;
  const [{ data: cutter, link: line }] = await db.select().from(cutters).where(eq(cutters.id, row.cutterId));
  await forgetWanted(db, row.cutterId);
  const link = await openLink(line);
  let told = 0;
  let stopped = false;
  const progress = (linesDone: number, lines: number): void => {
    if (Date.now() - told < TELL_EVERY_MS) return;
    told = Date.now();
    void db
      .update(calibrations)
      .set({ linesDone, lines })
      .where(eq(calibrations.id, row.id))
      .returning({ state: calibrations.state })
      .then(([now]) => {
        stopped ||= now?.state === 'stopping';
        const { id: calibrationId, cutterId } = row;
        return hub.tell({ kind: 'calibration-progress', calibrationId, cutterId, lines, linesDone });
      })
      .catch(() => {});
  };
  const isToStop = (): boolean => stopped || asked() || !lease.held();
  try {
    const recipe = await recipeFor(db, cutter, row.setup);
    const { setup, part } = row;
    const came = await calibrateAt({ setup, cutter, recipe, part, link, isToStop, progress });
    if (came.film) await bookTest(db, row, came.film);
    if ('problem' in came) return { state: came.state, problem: came.problem };
    const knife = came.metres > 0 ? await wearInUse(db, row.cutterId, came.metres) : null;
    if (came.state === 'next') return { state: 'ready', problem: null, part: part + 1 };
    const { seen } = came;
    const says = await judged(db, { ...row, seen }, {});
    return { state: 'measuring', problem: null, seen, knife, ...says };
  } finally {
    link.close();
  }
}
