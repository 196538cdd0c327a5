/** How films are cut: recipes as they are, changed within what a machine can do, with all that they were before. */
import { and, desc, eq, getTableColumns, sql } from 'drizzle-orm';
import type { RecipeChange, RecipeHistory, ShopNow } from '../../contracts/shop';
import type { LineKind } from '../../core/artwork/choices';
import type { Film } from '../../core/films/film';
import type { Cutter, Recipe } from '../../core/layout/cutter';
import { FIRST_RECIPE } from '../../core/layout/cutterRecord';
import { recipesFor } from '../../core/plan/recipes';
import type { Db, Tx } from '../db/connect';
import { people, recipeChanges, recipes } from '../db/schema';
import type { ByWhom } from '../people/who';
import { notFound, Trouble } from '../problem';
import type { ShopServices } from './shop';
import { loadShop } from './shop';

/** What a recipe is for. */
export interface RecipeKey {
  readonly cutterId: string;
  /** `*`: all films without one of their own. */
  readonly filmId: string;
  readonly kind: LineKind;
}

const isAt = (table: typeof recipes | typeof recipeChanges, { cutterId, filmId, kind }: RecipeKey) =>
  and(eq(table.cutterId, cutterId), eq(table.filmId, filmId), eq(table.kind, kind));

/** What lines of a kind are cut with, whether that is the film's own recipe, that of all films, or made from the kiss cut's. */
export async function effectiveRecipe(
  db: Db,
  { cutterId, filmId, kind }: RecipeKey,
): Promise<{ readonly cutter: Cutter; readonly recipe: Recipe }> {
  const shop = await loadShop(db);
  const cutter = [...shop.cutters, ...shop.retired].find(({ id }) => id === cutterId);
  if (!cutter) throw notFound('cutter');
  const film = filmId === '*' ? ALL_FILMS : shop.films.find(({ id }) => id === filmId);
  if (!film) throw notFound('film');
  const found = recipesFor(shop, cutter, film, { recipes: {} })?.kinds[kind];
  if (!found) return { cutter, recipe: FIRST_RECIPE };
  const { tool: _tool, ...recipe } = found;
  return { cutter, recipe };
}
const ALL_FILMS = { id: '*' } as Film;

/** Whoever changes recipes of a cutter from what they are has them to themselves until the transaction is over. */
export const holdRecipes = (tx: Tx, cutterId: string) =>
  tx.execute(sql`select pg_advisory_xact_lock(731005, hashtext(${cutterId}))`);

/** What is cut with, held until the transaction is over: to be changed from what it is. */
export async function heldRecipe(tx: Tx, key: RecipeKey): ReturnType<typeof effectiveRecipe> {
  await holdRecipes(tx, key.cutterId);
  return effectiveRecipe(tx, key);
}

export const isRecipe = (key: RecipeKey) => isAt(recipes, key);

/** Why a recipe is changed, and who has it so. */
interface Note extends ByWhom {
  readonly why: string;
}

/**
 * Sets a recipe, or takes it out, and notes why. What it was before the first change is noted too.
 * @param data null: it has none of its own any more
 */
export async function setRecipe(
  tx: Tx,
  key: RecipeKey,
  data: Recipe | null,
  { why, who }: Note,
): Promise<void> {
  await holdRecipes(tx, key.cutterId);
  const [was] = await tx.select().from(recipes).where(isRecipe(key)).for('update');
  const known = await tx.$count(recipeChanges, isAt(recipeChanges, key));
  if (known === 0)
    await tx
      .insert(recipeChanges)
      .values({ ...key, data: was?.data ?? null, why: was ? AS_IT_WAS : AS_ALL_FILMS });
  if (data)
    await tx
      .insert(recipes)
      .values({ ...key, data })
      .onConflictDoUpdate({ target: [recipes.cutterId, recipes.filmId, recipes.kind], set: { data } });
  else await tx.delete(recipes).where(isRecipe(key));
  await tx.insert(recipeChanges).values({ ...key, data, why, madeBy: who });
}
/** Changes all that a cutter cuts with one blade. @param changed what of a recipe becomes another; undefined: it stays */
export async function changeBlade(
  tx: Tx,
  cutterId: string,
  blade: string,
  changed: (recipe: Recipe, key: RecipeKey) => Recipe | undefined,
  note: Note,
): Promise<void> {
  await holdRecipes(tx, cutterId);
  const rows = await tx.select().from(recipes).where(eq(recipes.cutterId, cutterId)).for('update');
  for (const { filmId, kind, data } of rows.filter((row) => row.data.blade === blade)) {
    const key = { cutterId, filmId, kind };
    const to = changed(data, key);
    if (to) await setRecipe(tx, key, to, note);
  }
}

const [AS_IT_WAS, AS_ALL_FILMS] = ['as it was before', 'as all films'];

/** @throws Trouble when the machine cannot do that */
export async function changeRecipe(
  { db, hub, who }: ShopServices,
  key: RecipeKey,
  { why = 'by hand', ...change }: RecipeChange,
): Promise<ShopNow> {
  await db.transaction(async (tx) => {
    const { cutter, recipe } = await heldRecipe(tx, key);
    const data = { ...recipe, ...change };
    const trouble = outOfRange(data, cutter);
    if (trouble) throw new Trouble(422, 'out-of-range', trouble);
    await setRecipe(tx, key, data, { why, who });
  });
  await hub.tell({ kind: 'shop' });
  return loadShop(db);
}

/** Why a machine cannot cut with a recipe; undefined: it can. */
export function outOfRange(
  { force, speed }: Pick<Recipe, 'force' | 'speed'>,
  { name, force: forces, speed: speeds }: Cutter,
): string | undefined {
  const off = (value: number | null, { least, most }: Cutter['force'], what: string, unit: string) =>
    value !== null && (value < least || value > most)
      ? `${name} cuts with a ${what} of ${least} to ${most} ${unit}; ${value} ${unit} is none of it.`
      : undefined;
  return off(force, forces, 'force', 'g') ?? off(speed, speeds, 'speed', 'cm/s');
}

export async function clearRecipe({ db, hub, who }: ShopServices, key: RecipeKey): Promise<ShopNow> {
  if (key.filmId === '*' && key.kind === 'kiss')
    throw new Trouble(409, 'last-recipe', 'This recipe is what all films fall back to: change it instead.');
  await db.transaction(async (tx) => {
    await heldRecipe(tx, key);
    await setRecipe(tx, key, null, { why: AS_ALL_FILMS, who });
  });
  await hub.tell({ kind: 'shop' });
  return loadShop(db);
}

/** Shown of one recipe at the most. */
const MOST_SHOWN = 200;

export async function recipeHistory(db: Db, key: RecipeKey): Promise<RecipeHistory[]> {
  const rows = await db
    .select({ ...getTableColumns(recipeChanges), who: people.name })
    .from(recipeChanges)
    .leftJoin(people, eq(people.id, recipeChanges.madeBy))
    .where(isAt(recipeChanges, key))
    .orderBy(desc(recipeChanges.id))
    .limit(MOST_SHOWN);
  return rows.map(({ id, data, why, madeAt, who }) => ({
    id,
    recipe: data,
    why,
    who,
    madeAt: madeAt.toISOString(),
  }));
}

const dateText = (date: Date): string => date.toISOString().slice(0, 10);

export async function recipeBack({ db, hub, who }: ShopServices, changeId: number): Promise<ShopNow> {
  await db.transaction(async (tx) => {
    const [change] = await tx.select().from(recipeChanges).where(eq(recipeChanges.id, changeId));
    if (!change) throw notFound('change');
    const { cutterId, filmId, kind, data, madeAt } = change;
    await setRecipe(tx, { cutterId, filmId, kind }, data, { why: `back to ${dateText(madeAt)}`, who });
  });
  await hub.tell({ kind: 'shop' });
  return loadShop(db);
}
