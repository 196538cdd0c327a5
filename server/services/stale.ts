/** Which calibrations are not to be relied on any more. */
import { and, desc, eq, isNotNull, sql } from 'drizzle-orm';
import type { StaleCalibration } from '../../core/calibration/stale';
import { daysBetween, quantityOf, staleness } from '../../core/calibration/stale';
import type { LastKept } from '../../core/calibration/stale';
import type { Cutter } from '../../core/layout/cutter';
import type { Db } from '../db/connect';
import { calibrations, knives } from '../db/schema';

type Kept = LastKept & { readonly cutter: string };

/** The last run of every quantity that each cutter keeps, and the knife that is in it now. */
export async function keptNow(db: Pick<Db, 'select' | 'selectDistinctOn'>) {
  const kind = sql`${calibrations.setup}->>'kind'`;
  // what is found of one film says nothing of another
  const film = sql`coalesce(${calibrations.setup}->>'film', '')`;
  const [rows, knivesIn] = await Promise.all([
    db
      .selectDistinctOn([calibrations.cutterId, kind, film], {
        cutter: calibrations.cutterId,
        setup: calibrations.setup,
        keptAt: calibrations.keptAt,
        knife: calibrations.knife,
      })
      .from(calibrations)
      .where(and(eq(calibrations.state, 'kept'), isNotNull(calibrations.keptAt)))
      .orderBy(calibrations.cutterId, kind, film, desc(calibrations.keptAt)),
    db.select({ id: knives.id, cutter: knives.cutterId }).from(knives).where(isNotNull(knives.cutterId)),
  ]);
  // ways of finding the same thing: the later one counts
  const last = new Map<string, Kept>();
  for (const { cutter, setup, keptAt, knife } of rows) {
    const quantity = quantityOf(setup.kind);
    const about = setup.kind === 'contrast' ? setup.film : undefined;
    const name = `${cutter} ${quantity} ${about}`;
    const before = last.get(name);
    if (!quantity || !keptAt || (before && before.keptAt > keptAt.getTime())) continue;
    const rest = { ...(about && { film: about }), ...(knife && { knife: knife.id }) };
    last.set(name, { cutter, quantity, keptAt: keptAt.getTime(), ...rest });
  }
  return { kept: [...last.values()], knives: new Map(knivesIn.map(({ cutter, id }) => [cutter, id])) };
}

/** @param machines as they are now @param now ms since 1970 */
export function staleCalibrations(
  { kept: all, knives: inThem }: Awaited<ReturnType<typeof keptNow>>,
  machines: readonly Cutter[],
  now = Date.now(),
): StaleCalibration[] {
  return all.flatMap((kept) => {
    const machine = machines.find(({ id }) => id === kept.cutter);
    if (!machine) return [];
    const knife = inThem.get(kept.cutter);
    const movedAt = machine.movedAt ? Date.parse(machine.movedAt) : undefined;
    const why = staleness(kept, { movedAt, knife }, now);
    const { cutter, quantity, film, keptAt } = kept;
    return why ? [{ cutter, quantity, ...(film && { film }), why, days: daysBetween(keptAt, now) }] : [];
  });
}
