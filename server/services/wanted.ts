/** What cuts in the queue, and orders that are not in it yet, want of each film. */
import { asc, inArray, isNotNull, isNull, sql } from 'drizzle-orm';
import { OPEN_STATES } from '../../contracts/cuts';
import type { FilmWanted } from '../../contracts/usage';
import { offOf } from '../../core/films/leftover';
import type { Db } from '../db/connect';
import { cuts, cutShares, orders } from '../db/schema';

export async function wantedNow(db: Db): Promise<readonly FilmWanted[]> {
  const [queued, planned] = await Promise.all([queuedNow(db), plannedNow(db)]);
  const all = new Set([...queued.keys(), ...planned.keys()]);
  return [...all].map((film) => {
    const own = planned.get(film) ?? [];
    return {
      film,
      queued: queued.get(film) ?? 0,
      planned: own.reduce((sum, { mm }) => sum + mm, 0),
      orders: own,
    };
  });
}

async function queuedNow(db: Db): Promise<ReadonlyMap<string, number>> {
  const open = await db
    .select({ film: sql<string>`${cuts.film}->>'id'`, roll: cuts.roll, length: cuts.length })
    .from(cuts)
    .where(inArray(cuts.state, [...OPEN_STATES]));
  const by = new Map<string, number>();
  for (const { film, roll, length } of open)
    by.set(film, (by.get(film) ?? 0) + (roll ? offOf(roll, length) : length));
  return by;
}

type PlannedFor = FilmWanted['orders'][number];

/** Of orders of which nothing is cut or queued, as last planned. */
async function plannedNow(db: Db): Promise<ReadonlyMap<string, readonly PlannedFor[]>> {
  const isBegun = sql`exists (select 1 from ${cutShares} s join ${cuts} c on c.id = s.cut_id
    where s.order_id = ${orders.id} and c.state <> 'cancelled')`;
  const rows = await db
    .select({
      id: orders.id,
      number: orders.number,
      name: orders.name,
      due: orders.due,
      summary: orders.summary,
    })
    .from(orders)
    .where(sql`${isNull(orders.putAwayAt)} and ${isNotNull(orders.summary)} and not ${isBegun}`)
    .orderBy(sql`${orders.due} nulls last`, asc(orders.id));
  const by = new Map<string, PlannedFor[]>();
  for (const { summary, ...order } of rows)
    for (const { id, mm = 0 } of summary?.films ?? []) {
      if (id === undefined || mm === 0) continue;
      by.set(id, [...(by.get(id) ?? []), { ...order, mm }]);
    }
  return by;
}
