/** Film on the shelf as it is used up, each change of it booked in the same step. */
import { and, eq, inArray, sql } from 'drizzle-orm';
import type { Drawing } from '../../contracts/cuts';
import { isSpoilt } from '../../contracts/cuts';
import type { BookingKind, FilmTaken, OnNewFilm, Taken } from '../../core/films/booking';
import { countedBy, keptOf, lastPartOf, usedOf } from '../../core/films/booking';
import { emptyBounds, growBounds } from '../../core/geometry/bounds';
import type { Film, Roll } from '../../core/films/film';
import { WIDTH_SLACK } from '../../core/films/film';
import type { FilmUsed } from '../../core/films/leftover';
import { stockAfter } from '../../core/films/leftover';
import type { Db, Tx } from '../db/connect';
import type { ByWhom } from '../people/who';
import type { BookedFor } from '../db/schema';
import type { calibrations } from '../db/schema';
import { cuts, cutShares, cutters, filmBookings, films, orders } from '../db/schema';
import { unpack } from './pack';
import { settingsOf } from './settings';

/** What film was used for. */
interface UsedFor {
  readonly kind: Exclude<BookingKind, 'counted'>;
  readonly cutterId: string;
  readonly cutId?: number;
  readonly calibrationId?: number;
  /** mm² of it that are on signs */
  readonly art?: number;
  readonly bookedFor?: readonly BookedFor[];
  /** Who said how much there is of it; missing: nobody, it was found by the cut. */
  readonly who?: number | null;
}
type CutRow = typeof cuts.$inferSelect;

/** A cut is done: its film is off the shelf. @returns the offcuts that it left, which lie there now */
export async function bookCut(tx: Tx, cut: CutRow): Promise<readonly Roll[]> {
  if (!cut.roll) return [];
  const { length, art } = lastPartOf(cut);
  return takeFromShelf(tx, cut.film.id, { ...cut, length, roll: cut.roll }, await cutOf(tx, cut, art));
}

/** @param art mm² of it that are on signs */
const cutOf = async (tx: Tx, cut: CutRow, art: number): Promise<UsedFor> => ({
  kind: cut.againOf !== null || isSpoilt(cut.asked ?? {}) ? 'again' : 'cut',
  cutterId: cut.cutterId,
  cutId: cut.id,
  art,
  bookedFor: await bookedFor(tx, cut.id),
});

/**
 * A cut's film ended, and the rest of it goes onto new film: what came from the old one is booked.
 * @param isAtEnd nothing is left of the roll, as somebody says
 */
export async function bookFilmEnded(
  tx: Tx,
  cutId: number,
  { line, along }: OnNewFilm,
  { isAtEnd, who }: ByWhom & { readonly isAtEnd: boolean },
): Promise<void> {
  const [cut] = await tx.select().from(cuts).where(eq(cuts.id, cutId));
  if (!cut?.roll) return;
  const before = lastPartOf(cut);
  const after = lastPartOf({ ...cut, onNewFilm: { line, along } });
  const { lines } = unpack<Drawing>(cut.drawing);
  // lines lie in no order along the film: some that are cut may reach past some that are not
  const reach = reachOf(lines.slice(0, line - 1)) - (cut.onNewFilm?.along ?? 0);
  const length = Math.max(0, Math.min(before.length, reach));
  if (length === 0 && !isAtEnd) return;
  // its end is no offcut that anybody would find
  const used = { roll: cut.roll, length, beside: 0, isAtEnd, needed: before.length };
  await takeFromShelf(tx, cut.film.id, used, { ...(await cutOf(tx, cut, before.art - after.art)), who });
}

/** A cut that was begun is left, or begun anew: the film as far as something may be cut in it is spoilt. */
export async function bookSpoilt(tx: Tx, cutId: number): Promise<void> {
  const [cut] = await tx.select().from(cuts).where(eq(cuts.id, cutId));
  if (!cut?.roll || cut.linesSent === 0) return;
  const how = { ...(await cutOf(tx, cut, 0)), kind: 'spoilt' as const };
  if (cut.onNewFilm) await spoilBooked(tx, cutId);
  const { lines } = unpack<Drawing>(cut.drawing);
  const { line, along } = cut.onNewFilm ?? { line: 1, along: 0 };
  const length = Math.min(cut.length, reachOf(lines.slice(line - 1, cut.linesSent))) - along;
  if (length > 0) await takeFromShelf(tx, cut.film.id, { roll: cut.roll, length, beside: cut.beside }, how);
}

/** What was booked for a cut on films that ended is spoilt with the rest: nothing is taken out, it is booked over. */
async function spoilBooked(tx: Tx, cutId: number): Promise<void> {
  const rows = await tx
    .select()
    .from(filmBookings)
    .where(and(eq(filmBookings.cutId, cutId), inArray(filmBookings.kind, ['cut', 'again'])));
  const [last] = rows;
  const [used, kept] = [sumOf(rows.map((row) => row.used)), sumOf(rows.map((row) => row.kept))];
  if (!last || used <= 0) return;
  const { id: _id, at: _at, ...like } = last;
  const over = { ...like, back: [] };
  await tx.insert(filmBookings).values([
    { ...over, off: -used, used: -used, kept: -kept },
    { ...over, kind: 'spoilt', off: used, used, kept: 0 },
  ]);
}

const sumOf = (all: readonly number[]): number => all.reduce((sum, one) => sum + one, 0);

/** mm along the film to the end of what lines reach. @param lines x and y by turns */
const reachOf = (lines: Drawing['lines']): number =>
  lines.reduce((most, line) => Math.max(most, growBounds(emptyBounds(), line).maxX), 0);

/** Whose a cut is, as those orders are called now. */
const bookedFor = (tx: Tx, cutId: number): Promise<BookedFor[]> =>
  tx
    .select({ order: orders.number, name: orders.name, share: cutShares.share })
    .from(cutShares)
    .innerJoin(orders, eq(orders.id, cutShares.orderId))
    .where(eq(cutShares.cutId, cutId))
    .orderBy(orders.id);

/** Film that a test was cut in: the one that it was set up with, or what lay in the cutter. */
export async function bookTest(
  db: Db,
  { id, cutterId, setup }: typeof calibrations.$inferSelect,
  taken: FilmTaken,
): Promise<void> {
  if (taken.length === 0) return;
  const about = { kind: 'calibration' as const, cutterId, calibrationId: id };
  await db.transaction(async (tx) => {
    const [cutter] = await tx.select({ in: cutters.loaded }).from(cutters).where(eq(cutters.id, cutterId));
    const named = 'film' in setup ? setup.film : cutter?.in?.film;
    const film = named === undefined ? undefined : await heldFilm(tx, named);
    const roll = film && rollOf(film, taken);
    if (film && roll) await takeFromShelf(tx, film.id, { roll, length: taken.length, beside: 0 }, about);
    else {
      const { width, length } = taken;
      await tx.insert(filmBookings).values({ ...about, width, off: length, used: length });
    }
  });
}

/** What of a film on the shelf is as wide as what was cut in. */
const rollOf = ({ rolls }: Film, { width, length, isSheet }: FilmTaken): Roll | undefined =>
  rolls.find(
    (roll) =>
      roll.offcut === undefined &&
      Math.abs(roll.width - width) <= WIDTH_SLACK &&
      (isSheet ? roll.sheets !== undefined && roll.lengthLeft === length : roll.sheets === undefined),
  );

/** A person loaded a film for a cut, and it is the right one, as far as its cutter can tell. */
export async function noteLoaded(
  db: Db,
  { cutterId, film, recipe, rollWidth: width }: CutRow,
): Promise<void> {
  const loaded = { film: film.id, name: film.name, colour: film.colour, width, blade: recipe.blade };
  await db.update(cutters).set({ loaded }).where(eq(cutters.id, cutterId));
}

/** Takes film off the shelf and books it. @returns offcuts that lie there now */
export async function takeFromShelf(
  tx: Tx,
  filmId: string,
  used: FilmUsed,
  how: UsedFor,
): Promise<readonly Roll[]> {
  const film = await heldFilm(tx, filmId);
  if (!film) return [];
  const { leastOffcut: least } = await settingsOf(tx);
  const count = stockAfter(film.rolls, used, least, () => '').offcuts.length;
  const codes = await nextCodes(tx, film, count);
  const { rolls, offcuts, off, missing } = stockAfter(film.rolls, used, least, () => codes.shift()!);
  await tx
    .update(films)
    .set({ data: sql`${films.data} || ${JSON.stringify({ rolls })}::jsonb` })
    .where(eq(films.id, filmId));
  const { width } = used.roll;
  const { art = 0, who = null, ...about } = how;
  const taken: Taken = { width, off, back: offcuts };
  const gone = usedOf(taken);
  const isKept = how.kind === 'cut';
  await tx.insert(filmBookings).values({
    ...about,
    ...taken,
    filmId,
    used: gone,
    kept: isKept ? keptOf(gone, width, art) : 0,
    price: film.price,
  });
  // more, or less, was there than was written down
  if (missing !== 0) await book(tx, film, [{ width, off: -missing, back: [] }], who);
  return offcuts;
}

/** Somebody changed what lies on the shelf. */
export async function bookCount(
  tx: Tx,
  before: Film,
  after: readonly Roll[],
  who: number | null,
): Promise<void> {
  await book(tx, before, countedBy(before.rolls, after), who);
}

async function book(tx: Tx, film: Film, taken: readonly Taken[], who: number | null): Promise<void> {
  if (taken.length === 0) return;
  await tx.insert(filmBookings).values(
    taken.map((one) => ({
      ...one,
      kind: 'counted' as const,
      filmId: film.id,
      used: usedOf(one),
      price: film.price,
      who,
    })),
  );
}

/** A film, held until the transaction ends. */
export const heldFilm = async (tx: Tx, id: string): Promise<Film | undefined> =>
  (await heldFilms(tx, [id])).get(id);

/** Some of them, always in one order: two who hold the same do not wait for one another. */
export async function heldFilms(tx: Tx, ids: readonly string[]): Promise<ReadonlyMap<string, Film>> {
  const rows = await tx
    .select({ data: films.data })
    .from(films)
    .where(inArray(films.id, [...ids]))
    .orderBy(films.id)
    .for('update');
  return new Map(rows.map(({ data }) => [data.id, data]));
}

/** What is written on the next offcuts of a film. */
async function nextCodes(tx: Tx, { name }: Film, count: number): Promise<string[]> {
  const letter = name.slice(0, 1).toUpperCase();
  const codes: string[] = [];
  for (let k = 0; k < count; k++) {
    const { rows } = await tx.execute<{ next: string }>(sql`select nextval('offcut_numbers') as next`);
    codes.push(`${letter}-${rows[0].next}`);
  }
  return codes;
}
