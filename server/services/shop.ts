import { createHash } from 'node:crypto';
import { eq, max, sql } from 'drizzle-orm';
import type { ShopChange, ShopNow } from '../../contracts/shop';
import { filmsFromCsv } from '../../core/films/csv';
import type { LineKind } from '../../core/artwork/choices';
import type { Film } from '../../core/films/film';
import type { Cutter, Recipe } from '../../core/layout/cutter';
import { kindSuffix } from '../../core/plan/recipes';
import type { Db } from '../db/connect';
import { perDatabase } from '../db/perDatabase';
import { cutters, films, recipes } from '../db/schema';
import type { Hub } from '../events/hub';
import type { ByWhom } from '../people/who';
import { notFound, Trouble } from '../problem';
import { changeSettings, settingsFrom, storedSettings } from './settings';
import { bookCount, heldFilm, heldFilms } from './stock';
import { knivesIn, lastKept, staleCalibrations } from './stale';

export interface ShopServices extends ByWhom {
  readonly db: Db;
  readonly hub: Hub;
}

type RecipeRow = readonly [cutterId: string, filmId: string, kind: LineKind, recipe: Recipe];

/** Every plan asks for all of it: one query answers, with one view of the shop. */
const everything = perDatabase((db) =>
  db
    .select({
      films: sql<
        readonly Film[]
      >`(select coalesce(json_agg(${films.data} order by ${films.position}), '[]') from ${films})`,
      cutters: sql<
        readonly Cutter[]
      >`(select coalesce(json_agg(${cutters.data} order by ${cutters.id}), '[]') from ${cutters})`,
      recipes: sql<readonly RecipeRow[]>`(select coalesce(json_agg(
        json_build_array(${recipes.cutterId}, ${recipes.filmId}, ${recipes.kind}, ${recipes.data})
        order by ${recipes.cutterId}, ${recipes.filmId}, ${recipes.kind}), '[]') from ${recipes})`,
      settings: storedSettings,
      kept: lastKept,
      knives: knivesIn,
    })
    .from(sql`(select) as shop`)
    .prepare('shop'),
);

/** What the shop has, as the plan takes it. */
export async function loadShop(db: Db): Promise<ShopNow> {
  const [row] = await everything(db).execute();
  const { leastOffcut, printer } = settingsFrom(row.settings);
  const shop = {
    printer,
    films: row.films,
    cutters: row.cutters.filter(({ isRetired }) => !isRetired),
    recipes: Object.fromEntries(
      row.recipes.map(([cutterId, filmId, kind, recipe]) => [
        `${cutterId}/${filmId}${kindSuffix(kind)}`,
        recipe,
      ]),
    ),
  };
  const version = createHash('sha256').update(JSON.stringify(shop)).digest('base64url');
  // how old something is changes by itself, and nothing that is made with it
  const stale = staleCalibrations(row.kept, row.knives, row.cutters);
  return { ...shop, version, stale, leastOffcut, retired: row.cutters.filter(({ isRetired }) => isRetired) };
}

/** Changes a film's record; orders that use it are planned with it from then on. @throws Trouble when there is none */
export async function changeFilm(
  { db, hub, who }: ShopServices,
  id: string,
  change: Partial<Film>,
): Promise<readonly Film[]> {
  await db.transaction(async (tx) => {
    const before = await heldFilm(tx, id);
    if (!before) throw notFound('film');
    if (change.rolls) await bookCount(tx, before, change.rolls, who);
    await tx
      .update(films)
      .set({ data: sql`${films.data} || ${JSON.stringify(change)}::jsonb` })
      .where(eq(films.id, id));
  });
  await hub.tell({ kind: 'shop' });
  return (await loadShop(db)).films;
}

/** Changes what the shop sets for itself. */
export async function changeShop({ db, hub }: ShopServices, change: ShopChange): Promise<ShopNow> {
  await changeSettings(db, change);
  await hub.tell({ kind: 'shop' });
  return loadShop(db);
}

/** Adds the films of a table and changes those that are there; all of them or, when one is wrong, none. */
export async function importFilms({ db, hub, who }: ShopServices, csv: string): Promise<readonly Film[]> {
  const table = filmsFromCsv(csv);
  if (!table.ok) throw new Trouble(422, 'film-table', table.message);
  await db.transaction(async (tx) => {
    const [{ last }] = await tx.select({ last: max(films.position) }).from(films);
    const known = await heldFilms(tx, table.films.map(({ id }) => id)); // prettier-ignore
    const rows = [];
    for (const [i, film] of table.films.entries()) {
      const before = known.get(film.id);
      await bookCount(tx, before ?? { ...film, rolls: [] }, film.rolls, who);
      const data = { ...film, pack: before?.pack, coming: before?.coming };
      rows.push({ id: film.id, data, position: (last ?? -1) + 1 + i });
    }
    await tx
      .insert(films)
      .values(rows)
      .onConflictDoUpdate({ target: films.id, set: { data: sql`excluded.data` } });
  });
  await hub.tell({ kind: 'shop' });
  return (await loadShop(db)).films;
}
