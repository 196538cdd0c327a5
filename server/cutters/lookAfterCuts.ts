import type { SQL } from 'drizzle-orm';
import { and, eq, gt, inArray, lt, notExists, or, sql } from 'drizzle-orm';
import type { PgColumn } from 'drizzle-orm/pg-core';
import { calibrations, cuts, leases } from '../db/schema';
import type { CutServices } from '../services/cuts';
import { promoteNext } from '../services/cuts';
import { goOnPaused } from '../services/floor';
import type { Services } from './settle';
import { settle } from './settle';

/** A cut that no server has taken up after this long was lost with the server that should have. */
const UNHEARD_SECONDS = 30;

/** What every server does again and again, so that no crash between two steps leaves anything standing. */
export async function lookAfterCuts(services: Services, dispatch: CutServices['dispatch']): Promise<void> {
  await stopForsaken(services);
  await breakOffForsaken(services);
  await goOnPaused({ ...services, dispatch, who: null });
  const waiting = await services.db
    .selectDistinct({ cutterId: cuts.cutterId })
    .from(cuts)
    .where(eq(cuts.state, 'queued'));
  for (const { cutterId } of waiting) await promoteNext(services, cutterId);
}

/** Somebody holds the cutter's lease. */
const aliveAt = (db: Services['db'], cutterId: PgColumn) =>
  db
    .select({ id: leases.cutterId })
    .from(leases)
    .where(
      and(
        eq(leases.cutterId, cutterId),
        sql`${leases.expiresAt} > (extract(epoch from clock_timestamp()) * 1000)::bigint`,
      ),
    );
const unheardSince = (movedAt: PgColumn): SQL =>
  lt(movedAt, sql`now() - make_interval(secs => ${UNHEARD_SECONDS})`);

/** Calibrations whose server went away: what they drew so far says nothing. */
async function breakOffForsaken({ db, hub }: Services): Promise<void> {
  const problem = 'The server that ran this went away. Look at the machine, then begin again on fresh film.';
  const broken = await db
    .update(calibrations)
    .set({ state: 'broken', problem })
    .where(
      and(
        inArray(calibrations.state, ['working', 'stopping']),
        unheardSince(calibrations.movedAt),
        notExists(aliveAt(db, calibrations.cutterId)),
      ),
    )
    .returning({ calibrationId: calibrations.id, cutterId: calibrations.cutterId });
  for (const one of broken) await hub.tell({ kind: 'calibration', ...one }).catch(() => {});
}

/** Cuts whose server went away without a word: a person has to look before they go on. */
async function stopForsaken(services: Services): Promise<void> {
  const { db } = services;
  const isForsaken = and(
    or(
      eq(cuts.state, 'cutting'),
      and(eq(cuts.state, 'stopping'), gt(cuts.linesSent, 0)),
      // stopped before anybody took it up: whoever does says so
      and(inArray(cuts.state, ['checking', 'stopping']), unheardSince(cuts.movedAt)),
    ),
    notExists(aliveAt(db, cuts.cutterId)),
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
