/** What operators say of finished cuts, kept with what they were cut with; what it asks of the recipe. */
import { and, desc, eq, isNotNull, sql } from 'drizzle-orm';
import type { Said } from '../../contracts/cuts';
import type { Cell } from '../../core/calibration/grid';
import type { HowItWas } from '../../core/calibration/howItWas';
import { forceAsked } from '../../core/calibration/howItWas';
import type { Db } from '../db/connect';
import { calibrations, cutActs, cuts } from '../db/schema';
import { Trouble } from '../problem';
import type { CutServices } from './cuts';
import { getCut } from './cuts';
import { effectiveRecipe } from './recipes';

/** Cuts that still say something of a recipe. */
const LAST = 12;

/** @param was null: nothing after all */
export async function sayHow(
  { db, hub, who }: Pick<CutServices, 'db' | 'hub' | 'who'>,
  id: number,
  was: HowItWas | null,
): Promise<Said> {
  const [said] = await db
    .update(cuts)
    .set({ howItWas: was })
    .where(and(eq(cuts.id, id), eq(cuts.state, 'done')))
    .returning({ cutterId: cuts.cutterId, film: cuts.film, orderId: cuts.orderId });
  const cut = await getCut(db, id);
  if (!said) throw new Trouble(409, 'not-now', 'Say how it was when the cut is done.');
  await db.insert(cutActs).values({ cutId: id, act: 'said', who });
  await hub.tell({ kind: 'cut', cutId: id, orderId: said.orderId, cutterId: said.cutterId });
  return { cut, asks: was && was !== 'clean' ? await askedOf(db, said.cutterId, said.film.id) : null };
}

async function askedOf(db: Db, cutterId: string, filmId: string): Promise<Said['asks']> {
  const { cutter, recipe } = await effectiveRecipe(db, { cutterId, filmId, kind: 'kiss' });
  if (recipe.force === null) return null;
  const spoken = await db
    .select({ was: cuts.howItWas, recipe: cuts.recipe, nudges: cuts.nudges })
    .from(cuts)
    .where(and(eq(cuts.cutterId, cutterId), sql`${cuts.film}->>'id' = ${filmId}`, isNotNull(cuts.howItWas)))
    .orderBy(desc(cuts.endedAt))
    .limit(LAST);
  const to = forceAsked(
    spoken.map(({ was, recipe: { force, speed }, nudges }) => ({ was: was!, force, speed, ...nudges.kiss })),
    { force: recipe.force, speed: recipe.speed ?? cutter.ownSpeed },
    await lastGrid(db, cutterId, filmId),
    cutter.force,
  );
  return to === undefined || to === recipe.force ? null : { from: recipe.force, to };
}

async function lastGrid(db: Db, cutterId: string, filmId: string): Promise<readonly Cell[]> {
  const [grid] = await db
    .select()
    .from(calibrations)
    .where(
      and(
        eq(calibrations.cutterId, cutterId),
        eq(calibrations.state, 'kept'),
        sql`${calibrations.setup} @> ${JSON.stringify({ kind: 'force', film: filmId, line: 'kiss' })}::jsonb`,
      ),
    )
    .orderBy(desc(calibrations.keptAt))
    .limit(1);
  if (grid?.setup.kind !== 'force') return [];
  const { looks } = grid.measured;
  return grid.setup.cells.map((cell, i): Cell => ({ ...cell, looks: looks?.[i] ?? undefined }));
}
