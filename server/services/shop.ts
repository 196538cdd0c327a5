import { asc } from 'drizzle-orm';
import type { Shop } from '../../core/plan/plan';
import type { Db } from '../db/connect';
import { cutters, films, recipes } from '../db/schema';

/** What the shop has, as the plan takes it. */
export async function loadShop(db: Db): Promise<Shop> {
  const [filmRows, cutterRows, recipeRows] = await Promise.all([
    db.select().from(films).orderBy(asc(films.position)),
    db.select().from(cutters).orderBy(asc(cutters.id)),
    db.select().from(recipes),
  ]);
  return {
    films: filmRows.map((row) => row.data),
    cutters: cutterRows.map((row) => row.data),
    recipes: Object.fromEntries(recipeRows.map((row) => [`${row.cutterId}/${row.filmId}`, row.data])),
  };
}
