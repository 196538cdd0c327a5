/** How long a cutter's cuts take. */
import { and, desc, eq, gte, isNotNull } from 'drizzle-orm';
import type { Pace } from '../../core/calibration/pace';
import { LEAST_TIMED, paceOf } from '../../core/calibration/pace';
import type { Db } from '../db/connect';
import { cuts, cutters } from '../db/schema';
import { notFound } from '../problem';

/** The last cuts that are looked at: a machine changes. */
const LAST = 40;

/** @returns null: too few cuts ran without a stop */
export async function paceAt(db: Db, cutterId: string): Promise<Pace | null> {
  const [known] = await db.select({ id: cutters.id }).from(cutters).where(eq(cutters.id, cutterId));
  if (!known) throw notFound('cutter');
  const rows = await db
    .select({ reckoned: cuts.reckoned, took: cuts.took })
    .from(cuts)
    .where(
      and(
        eq(cuts.cutterId, cutterId),
        eq(cuts.state, 'done'),
        isNotNull(cuts.took),
        gte(cuts.reckoned, LEAST_TIMED),
      ),
    )
    .orderBy(desc(cuts.id))
    .limit(LAST);
  return paceOf(rows.map(({ reckoned, took }) => ({ reckoned: reckoned!, took: took! }))) ?? null;
}
