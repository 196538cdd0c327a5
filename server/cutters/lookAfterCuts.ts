import { and, eq, gt, inArray, lt, notExists, or, sql } from 'drizzle-orm';
import { cuts, leases } from '../db/schema';
import { promoteNext } from '../services/cuts';
import type { Services } from './settle';
import { settle } from './settle';

/** A cut that no server has taken up after this long was lost with the server that should have. */
const UNHEARD_SECONDS = 30;

/** What every server does again and again, so that no crash between two steps leaves anything standing. */
export async function lookAfterCuts(services: Services): Promise<void> {
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
    or(
      eq(cuts.state, 'cutting'),
      and(eq(cuts.state, 'stopping'), gt(cuts.linesSent, 0)),
      // stopped before anybody took it up: whoever does says so
      and(inArray(cuts.state, ['checking', 'stopping']), waitedLong),
    ),
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
