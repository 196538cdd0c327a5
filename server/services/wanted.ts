/** What cuts in the queue, and orders that are not in it yet, want of each film. */
import { inArray, isNull, sql } from 'drizzle-orm';
import { OPEN_STATES } from '../../contracts/cuts';
import type { FilmWanted } from '../../contracts/usage';
import { ORDERS_NAMED } from '../../contracts/usage';
import { offOf } from '../../core/films/leftover';
import type { Db } from '../db/connect';
import { cuts, cutShares, orders } from '../db/schema';

export async function wantedNow(db: Db): Promise<readonly FilmWanted[]> {
  const [queued, planned] = await Promise.all([queuedNow(db), plannedNow(db)]);
  const named = new Map(planned.map((row) => [row.film, row]));
  return [...new Set([...queued.keys(), ...named.keys()])].map((film) => ({
    ...(named.get(film) ?? { film, planned: 0, orders: [], count: 0 }),
    queued: queued.get(film) ?? 0,
  }));
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

/** Of orders of which nothing is cut or queued, as last planned. */
function plannedNow(db: Db): Promise<Omit<FilmWanted, 'queued'>[]> {
  const film = sql<string>`one->>'id'`;
  const mm = sql<number>`(one->>'mm')::float8`;
  const isBegun = sql`exists (select 1 from ${cutShares} s join ${cuts} c on c.id = s.cut_id
    where s.order_id = ${orders.id} and c.state <> 'cancelled')`;
  const named = sql`json_build_object('id', ${orders.id}, 'number', ${orders.number}, 'name', ${orders.name})`;
  return db
    .select({
      film: film.as('film'),
      planned: sql<number>`sum(${mm})`,
      orders: sql<
        FilmWanted['orders']
      >`to_json((array_agg(${named} order by ${orders.due} nulls last, ${orders.id}))[1:${sql.raw(String(ORDERS_NAMED))}])`,
      count: sql<number>`count(*)::int`,
    })
    .from(sql`${orders} cross join lateral jsonb_array_elements(${orders.summary}->'films') one`)
    .where(sql`${isNull(orders.putAwayAt)} and ${film} is not null and ${mm} > 0 and not ${isBegun}`)
    .groupBy(sql`film`);
}
