/** Which calibrations are not to be relied on any more. */
import { sql } from 'drizzle-orm';
import type { CalibrationKind } from '../../core/calibration/run';
import type { StaleCalibration } from '../../core/calibration/stale';
import { daysBetween, quantityOf, staleness } from '../../core/calibration/stale';
import type { LastKept } from '../../core/calibration/stale';
import type { Cutter } from '../../core/layout/cutter';
import { own } from '../../core/units/own';
import { calibrations, knives } from '../db/schema';

/** A run that was kept, as it is asked for. */
interface KeptRun {
  readonly cutter: string;
  readonly kind: CalibrationKind;
  readonly film: string | null;
  readonly keptAt: number;
  readonly knife: number | null;
}

/** For a query that asks for more: the last kept run of every kind at each cutter. What is found of one film says nothing of another. */
export const lastKept = sql<readonly KeptRun[]>`(select coalesce(json_agg(k), '[]') from (
  select distinct on (cutter_id, kind, coalesce(film, '')) cutter_id as cutter, kind, film,
    round(extract(epoch from kept_at) * 1000) as "keptAt", (knife->>'id')::int as knife
  from (select *, setup->>'kind' as kind, setup->>'film' as film from ${calibrations}) c
  where state = 'kept' and kept_at is not null
  order by cutter_id, kind, coalesce(film, ''), kept_at desc) k)`;

/** For a query that asks for more: the knife in each cutter, by the cutter. */
export const knivesIn = sql<
  Readonly<Record<string, number>>
>`(select coalesce(json_object_agg(${knives.cutterId}, ${knives.id}), '{}')
  from ${knives} where ${knives.cutterId} is not null)`;

/** @param runs see `lastKept` @param inThem see `knivesIn` @param machines as they are now @param now ms since 1970 */
export function staleCalibrations(
  runs: readonly KeptRun[],
  inThem: Readonly<Record<string, number>>,
  machines: readonly Cutter[],
  now = Date.now(),
): StaleCalibration[] {
  return lastOf(runs).flatMap((kept) => {
    const machine = machines.find(({ id }) => id === kept.cutter);
    if (!machine) return [];
    const knife = own(inThem, kept.cutter);
    const movedAt = machine.movedAt ? Date.parse(machine.movedAt) : undefined;
    const why = staleness(kept, { movedAt, knife }, now);
    const { cutter, quantity, film, keptAt } = kept;
    return why ? [{ cutter, quantity, ...(film && { film }), why, days: daysBetween(keptAt, now) }] : [];
  });
}

/** Of ways of finding the same thing the later one counts. */
function lastOf(runs: readonly KeptRun[]): (LastKept & { readonly cutter: string })[] {
  const last = new Map<string, LastKept & { readonly cutter: string }>();
  for (const { cutter, kind, keptAt, knife, ...run } of runs) {
    const quantity = quantityOf(kind);
    const film = (kind === 'contrast' && run.film) || undefined;
    const name = `${cutter} ${quantity} ${film}`;
    const before = last.get(name);
    if (!quantity || (before && before.keptAt > keptAt)) continue;
    last.set(name, { cutter, quantity, keptAt, ...(film && { film }), ...(knife !== null && { knife }) });
  }
  return [...last.values()];
}
