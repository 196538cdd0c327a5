/** With what a calibration is drawn and cut. */
import { and, eq } from 'drizzle-orm';
import type { Setup } from '../../core/calibration/run';
import type { Cutter, Recipe } from '../../core/layout/cutter';
import { PEN_FORCE } from '../../core/toolpath/kinds';
import { FIRST_RECIPE } from '../../core/layout/cutterRecord';
import type { Db } from '../db/connect';
import { recipes } from '../db/schema';
import { effectiveRecipe } from './recipes';

/** What lines are cut with at the lowest speed the machine has: nothing then drags or overshoots. */
export async function recipeFor(db: Db, cutter: Cutter, setup: Setup): Promise<Recipe> {
  const recipe = await shopRecipe(db, cutter.id, setup);
  const slow = { ...recipe, passes: 1, speed: cutter.speed.least };
  if (setup.kind !== 'sensor-pen') return setup.kind === 'force' ? { ...recipe, passes: 1 } : slow;
  const force = Math.min(Math.max(PEN_FORCE, cutter.force.least), cutter.force.most);
  return { ...slow, force, bladeOffset: 0, overcut: 0 };
}

/** The film's own where the run is about one, else what the cutter cuts most with; with the blade that it is about. */
export async function shopRecipe(db: Db, cutterId: string, setup: Setup): Promise<Recipe> {
  if (setup.kind === 'force')
    return (await effectiveRecipe(db, { cutterId, filmId: setup.film, kind: setup.line })).recipe;
  const rows = await db
    .select()
    .from(recipes)
    .where(and(eq(recipes.cutterId, cutterId), eq(recipes.kind, 'kiss')));
  const own = rows.filter(({ data }) => !('blade' in setup) || data.blade === setup.blade);
  return (own.find(({ filmId }) => filmId === '*') ?? own[0])?.data ?? FIRST_RECIPE;
}
