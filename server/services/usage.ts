/** What became of film and of the cutters' time, added up from what was booked. */
import type { SQL } from 'drizzle-orm';
import { asc, eq, gte, sql } from 'drizzle-orm';
import type { Doing, FilmSums, Usage, UsageQuery } from '../../contracts/usage';
import { DOINGS } from '../../contracts/usage';
import { areaOf } from '../../core/films/film';
import { csvText } from '../../core/units/csvText';
import type { Db } from '../db/connect';
import { cutters, cutterTimes, filmBookings, films, orders, people } from '../db/schema';

/** A wait or a stop that is longer says that nobody was there: it counts for so much, s (common practice, no source). */
export const LONGEST_WAIT_S = 3600;

/** From the first day's midnight to that after the last, by the clocks of a place. */
interface Span {
  readonly from: SQL;
  readonly to: SQL;
}
const spanOf = ({ from, to, zone }: UsageQuery): Span => ({
  from: sql`(${from}::timestamp at time zone ${zone})`,
  to: sql`((${to}::date + 1)::timestamp at time zone ${zone})`,
});
const isIn = ({ from, to }: Span): SQL => sql`${filmBookings.at} >= ${from} and ${filmBookings.at} < ${to}`;

/** @param share of each booking that counts; missing: all of it */
const sums = (share: SQL = sql`1`) => {
  const { kind, used, kept, price } = filmBookings;
  const sum = (mm: SQL): SQL<number> => sql<number>`coalesce(sum(${mm} * ${share}), 0)::float8`;
  const ofKind = (...kinds: string[]): SQL =>
    sql`case when ${kind} in (${sql.join(
      kinds.map((one) => sql`${one}`),
      sql`, `,
    )}) then ${used} else 0 end`;
  return {
    used: sum(sql`${used}`),
    kept: sum(sql`${kept}`),
    spoilt: sum(ofKind('again', 'spoilt')),
    tested: sum(ofKind('calibration')),
    cost: sum(sql`${used} / 1000 * coalesce(${price}, 0)`),
  };
};
const NONE: FilmSums = { used: 0, kept: 0, spoilt: 0, tested: 0, cost: 0 };
const isUse = sql`${filmBookings.kind} <> 'counted'`;

export async function usageOf(db: Db, query: UsageQuery): Promise<Usage> {
  const span = spanOf(query);
  const wanted = sql`${isIn(span)} and ${isUse}`;
  const monday = sql<string>`to_char(date_trunc('week', ${filmBookings.at} at time zone ${query.zone}), 'YYYY-MM-DD')`;
  const [[all], byWeek, byFilm, byOrder, byCutter, cut] = await Promise.all([
    db.select(sums()).from(filmBookings).where(wanted),
    db
      .select({ monday: monday.as('monday'), ...sums() })
      .from(filmBookings)
      .where(wanted)
      .groupBy(sql`monday`)
      .orderBy(sql`monday`),
    filmsOf(db, span),
    ordersOf(db, wanted),
    cuttersOf(db, span, wanted),
    ordersCut(db, query),
  ]);
  return { all, orders: cut, byWeek, byFilm, byOrder, byCutter };
}

/** Film by film, with the shelf before and after: what was booked since then is what it has changed by. */
async function filmsOf(db: Db, span: Span): Promise<Usage['byFilm']> {
  const { filmId, at, used, width, kind } = filmBookings;
  const area = (where: SQL): SQL<number> =>
    sql<number>`coalesce(sum(${used} * ${width}) filter (where ${where}), 0)::float8`;
  const during = isIn(span);
  const [booked, shelf] = await Promise.all([
    db
      .select({
        film: filmId,
        came: area(sql`${during} and ${kind} = 'counted'`),
        gone: area(sql`${during} and ${isUse}`),
        since: area(sql`${at} >= ${span.to}`),
        ...sums(sql`case when ${during} and ${isUse} then 1 else 0 end`),
      })
      .from(filmBookings)
      .where(gte(at, span.from))
      .groupBy(filmId),
    db.select({ data: films.data }).from(films),
  ]);
  const known = new Map(shelf.map(({ data }) => [data.id, data]));
  return booked
    .filter(({ used: mm, came }) => mm !== 0 || came !== 0)
    .map(({ came, gone, since, ...row }) => {
      const film = row.film === null ? undefined : known.get(row.film);
      if (!film) return { ...row, ...UNKNOWN };
      const after = areaOf(film.rolls) + since;
      return {
        ...row,
        name: film.name,
        colour: film.colour,
        before: after + came + gone,
        came: -came,
        gone,
        after,
      };
    })
    .sort((a, b) => b.used - a.used);
}
/** Of film that nobody named nothing lies on the shelf. */
const UNKNOWN = { name: null, colour: null, before: 0, came: 0, gone: 0, after: 0 };

/** Order by order: on a strip of several, each by its share. */
function ordersOf(db: Db, wanted: SQL): Promise<Usage['byOrder'][number][]> {
  const share = sql`(one->>'share')::float8`;
  const number = sql<number>`(one->>'order')::int`;
  return db
    .select({ number: number.as('number'), name: sql<string>`max(one->>'name')`, ...sums(share) })
    .from(sql`${filmBookings} cross join lateral jsonb_array_elements(${filmBookings.bookedFor}) one`)
    .where(wanted)
    .groupBy(sql`number`)
    .orderBy(sql`sum(${filmBookings.used} * ${share}) desc`);
}

async function cuttersOf(db: Db, { from, to }: Span, wanted: SQL): Promise<Usage['byCutter']> {
  const { cutterId, doing, began, ended } = cutterTimes;
  const seconds = sql`extract(epoch from least(coalesce(${ended}, now()), ${to}) - greatest(${began}, ${from}))`;
  const counted = sql`case when ${doing} in ('waiting', 'stopped') then least(${seconds}, ${LONGEST_WAIT_S}) else ${seconds} end`;
  const [used, times, all] = await Promise.all([
    db
      .select({ cutter: filmBookings.cutterId, ...sums() })
      .from(filmBookings)
      .where(wanted)
      .groupBy(filmBookings.cutterId),
    db
      .select({ cutter: cutterId, doing, seconds: sql<number>`sum(${counted})::float8` })
      .from(cutterTimes)
      .where(sql`${began} < ${to} and coalesce(${ended}, now()) > ${from}`)
      .groupBy(cutterId, doing),
    db.select({ id: cutters.id, data: cutters.data }).from(cutters).orderBy(asc(cutters.id)),
  ]);
  return all.flatMap(({ id, data: { name } }) => {
    const own = used.find(({ cutter }) => cutter === id) ?? NONE;
    const its = new Map(times.filter(({ cutter }) => cutter === id).map((row) => [row.doing, row.seconds]));
    const spent = Object.fromEntries(DOINGS.map((one) => [one, its.get(one) ?? 0])) as Record<Doing, number>;
    return own.used === 0 && its.size === 0 ? [] : [{ ...NONE, ...own, cutter: id, name, times: spent }];
  });
}

/** Late is what was cut after the day on which it was due. */
async function ordersCut(db: Db, query: UsageQuery): Promise<Usage['orders']> {
  const cut = db
    .select({
      cutOrder: sql<number>`(one->>'order')::int`.as('cut_order'),
      last: sql`(max(${filmBookings.at}) at time zone ${query.zone})::date`.as('last_cut'),
    })
    .from(sql`${filmBookings} cross join lateral jsonb_array_elements(${filmBookings.bookedFor}) one`)
    .where(sql`${isIn(spanOf(query))} and ${filmBookings.kind} in ('cut', 'again')`)
    .groupBy(sql`cut_order`)
    // what was booked over is not cut
    .having(sql`sum(${filmBookings.used}) > 0`)
    .as('cut');
  const [row] = await db
    .select({
      cut: sql<number>`count(*)::int`,
      late: sql<number>`(count(*) filter (where ${cut.last} > ${orders.due}))::int`,
    })
    .from(cut)
    .leftJoin(orders, eq(orders.number, cut.cutOrder));
  return row;
}

const COLUMNS = [
  'at',
  'what',
  'film',
  'code',
  'cutter',
  'cut',
  'orders',
  'width mm',
  'off the shelf mm',
  'back as offcuts',
  'used mm',
  'on signs mm',
  'wasted mm',
  'spoilt mm',
  'tests mm',
  'cost',
  'who',
];

/** Every change of the shelf as a table that any spreadsheet opens (RFC 4180), in its order. */
export async function bookingsCsv(db: Db, query: UsageQuery): Promise<string> {
  const rows = await db
    .select({ booking: filmBookings, film: films.data, cutter: cutters.data, who: people.name })
    .from(filmBookings)
    .leftJoin(films, eq(films.id, filmBookings.filmId))
    .leftJoin(cutters, eq(cutters.id, filmBookings.cutterId))
    .leftJoin(people, eq(people.id, filmBookings.who))
    .where(isIn(spanOf(query)))
    .orderBy(asc(filmBookings.at), asc(filmBookings.id));
  const data = rows.map(({ booking, film, cutter, who }) => {
    const { kind, used, kept, price } = booking;
    return [
      booking.at.toISOString(),
      kind,
      film?.name ?? '',
      film?.code ?? '',
      cutter?.name ?? '',
      booking.cutId ?? '',
      booking.bookedFor.map(({ order }) => `#${order}`).join(' '),
      booking.width,
      booking.off,
      booking.back.map(({ width, lengthLeft, offcut }) => `${offcut} ${width} x ${lengthLeft}`).join('; '),
      used,
      kept,
      kind === 'cut' ? used - kept : 0,
      kind === 'again' || kind === 'spoilt' ? used : 0,
      kind === 'calibration' ? used : 0,
      price === null ? '' : (used / 1000) * price,
      who ?? '',
    ];
  });
  return csvText(COLUMNS, data);
}
