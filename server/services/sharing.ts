/** Several orders on one film, as they stand in the database. */
import { createHash } from 'node:crypto';
import type { SQL } from 'drizzle-orm';
import { and, eq, inArray, isNull, ne, sql } from 'drizzle-orm';
import type { GuestOrder, SharingNow } from '../../contracts/cuts';
import type { Choices } from '../../core/plan/choices';
import type { Hosts, TakesAlong } from '../../core/plan/sharing';
import { guestsOn, hostsOf } from '../../core/plan/sharing';
import { own } from '../../core/units/own';
import type { Db } from '../db/connect';
import { cuts, cutShares, orders, takesOthersAlong } from '../db/schema';
import { choicesOf } from './choicesOf';

/** The database, or a transaction in it. */
type Reads = Pick<Db, 'select'>;

type Guests = Readonly<Record<string, readonly number[]>>;
const guestsIn = sql<Guests>`${orders.choices}#>'{layout,guests}'`;
const isHere = isNull(orders.putAwayAt);

/** Who is cut with whom, of all orders that are not put away. @param one an order's wishes in the place of its stored ones */
async function allHosts(db: Reads, one?: TakesAlong): Promise<Hosts> {
  const stored: TakesAlong[] = await db
    .select({ id: orders.id, guests: guestsIn })
    .from(orders)
    .where(and(isHere, takesOthersAlong));
  const wishes = one ? [...stored.filter(({ id }) => id !== one.id), one] : stored;
  const wished = wishes.flatMap(({ guests }) => Object.values(guests).flat());
  const others = await named(db, wished, isHere);
  const known = new Set(wishes.map(({ id }) => id));
  return hostsOf([
    ...wishes,
    ...others.filter(({ id }) => !known.has(id)).map(({ id }) => ({ id, guests: {} })),
  ]);
}

/** Orders by their ids; of none, which is of most, nobody is asked. */
const named = async (db: Reads, ids: readonly number[], provided?: SQL) =>
  ids.length === 0
    ? []
    : db
        .select({ id: orders.id, number: orders.number, name: orders.name })
        .from(orders)
        .where(and(provided, inArray(orders.id, [...ids])));

/** Of an order, what decides whom it is cut with. */
interface Sharer {
  readonly id: number;
  readonly choices: Pick<Choices, 'layout'>;
}

/** What an order shares with others, as they stand. */
export const sharingOf = async (db: Reads, order: Sharer): Promise<SharingNow> =>
  sharingAmong(db, order, await allHosts(db));

/** What it would share with others if its choices were these. */
export const sharingAsIf = async (db: Reads, { id, choices }: Sharer): Promise<SharingNow> =>
  sharingAmong(db, { id, choices }, await allHosts(db, { id, guests: choices.layout.guests }));

async function sharingAmong(db: Reads, { id, choices }: Sharer, hosts: Hosts): Promise<SharingNow> {
  const filmsOf = new Map<number, string[]>();
  for (const film of hosts.keys())
    for (const guest of guestsOn(hosts, film, id)) filmsOf.set(guest, [...(filmsOf.get(guest) ?? []), film]);
  const hostOf = [...hosts].flatMap(([film, on]) => {
    const host = on.get(id);
    return host === undefined ? [] : [{ film, host }];
  });
  const missing = Object.entries(choices.layout.guests).flatMap(([film, ids]) =>
    ids.filter((guest) => hosts.get(film)?.get(guest) !== id).map((guest) => ({ film, guest })),
  );
  const guests = await guestOrders(db, filmsOf, id);
  const rows = await named(db, [...hostOf.map(({ host }) => host), ...missing.map(({ guest }) => guest)]);
  const byId = new Map(rows.map((row) => [row.id, row]));
  const away = Object.fromEntries(
    hostOf.flatMap(({ film, host }) => {
      const order = byId.get(host);
      return order ? [[film, order] as const] : [];
    }),
  );
  const refused = missing.flatMap(({ film, guest }) => {
    const order = byId.get(guest);
    return order ? [{ film, order }] : [];
  });
  const said = JSON.stringify([
    guests.map(({ id: guest, revision, films }) => [guest, revision, films]),
    away,
  ]);
  const version = createHash('sha256').update(said).digest('base64url');
  return { guests, away, refused, version };
}

/** Orders with their choices, as guests on films. @param host cuts of its own do not count as cut already */
async function guestOrders(
  db: Reads,
  filmsOf: ReadonlyMap<number, readonly string[]>,
  host: number,
): Promise<GuestOrder[]> {
  const ids = [...filmsOf.keys()];
  if (ids.length === 0) return [];
  const rows = await db.select().from(orders).where(inArray(orders.id, ids)).orderBy(orders.id);
  const done = await db
    .select({ order: cutShares.orderId, film: sql<string>`${cuts.film}->>'id'` })
    .from(cutShares)
    .innerJoin(cuts, eq(cuts.id, cutShares.cutId))
    .where(and(inArray(cutShares.orderId, ids), eq(cuts.state, 'done'), ne(cuts.orderId, host)))
    .groupBy(cutShares.orderId, sql`2`);
  return rows.map((row) => ({
    id: row.id,
    number: row.number,
    name: row.name,
    due: row.due,
    revision: row.revision,
    films: filmsOf.get(row.id)!,
    cut: done.flatMap(({ order, film }) => (order === row.id ? [film] : [])),
    choices: choicesOf(row) as GuestOrder['choices'],
  }));
}

/** Orders that are offered at once. */
const MOST_OFFERED = 8;

/** Open orders that want a film too, those due about the same day first; cut with no other yet. */
export async function wantingFilm(db: Db, id: number, film: string): Promise<GuestOrder[]> {
  const hosts = await allHosts(db);
  const on = hosts.get(film) ?? new Map<number, number>();
  const taken = [...on.keys(), ...on.values()];
  const isWanted = sql`exists (select 1 from jsonb_array_elements(${orders.summary}->'films') f where f->>'id' = ${film})`;
  const isOpen = sql`not exists (select 1 from ${cutShares} s join ${cuts} c on c.id = s.cut_id
    where s.order_id = ${orders.id} and c.state <> 'cancelled' and c.film->>'id' = ${film})`;
  const own = sql`(select due from orders own where own.id = ${id})`;
  const rows = await db
    .select({ id: orders.id })
    .from(orders)
    .where(and(isHere, ne(orders.id, id), isWanted, isOpen))
    .orderBy(sql`abs(${orders.due} - ${own}) nulls last`, orders.id)
    .limit(MOST_OFFERED + taken.length);
  const offered = rows.filter((row) => !taken.includes(row.id)).slice(0, MOST_OFFERED);
  const found = await guestOrders(db, new Map(offered.map((row) => [row.id, [film]])), id);
  const place = new Map(offered.map((row, i) => [row.id, i]));
  return found.sort((a, b) => place.get(a.id)! - place.get(b.id)!);
}

/** Orders that other choices of one take along, or let go. */
export function guestsChanged(before: Choices, after: Choices): number[] {
  const on = ({ layout }: Choices): Guests => layout.guests;
  const films = new Set([...Object.keys(on(before)), ...Object.keys(on(after))]);
  const changed = [...films].flatMap((film) => {
    const [was, is] = [own(on(before), film) ?? [], own(on(after), film) ?? []];
    return [...was.filter((guest) => !is.includes(guest)), ...is.filter((guest) => !was.includes(guest))];
  });
  return [...new Set(changed)];
}
