/** The shop's knives: which is in which cutter, how much each has cut, and what a dull one asks of the recipes. */
import { and, asc, eq, isNull, sql } from 'drizzle-orm';
import type { z } from 'zod';
import type { Knife, putInSchema } from '../../contracts/calibrations';
import type { ShopNow } from '../../contracts/shop';
import type { Recipe } from '../../core/layout/cutter';
import type { Db, Tx } from '../db/connect';
import type { cuts, KnifeThen } from '../db/schema';
import { calibrations, cutters, knives, recipes } from '../db/schema';
import { notFound, Trouble } from '../problem';
import type { RecipeKey } from './recipes';
import { changeBlade, isRecipe } from './recipes';
import type { ShopServices } from './shop';
import { loadShop } from './shop';

export async function listKnives(db: Db): Promise<Knife[]> {
  const rows = await db.select().from(knives).where(isNull(knives.thrownAt)).orderBy(asc(knives.id));
  return rows.map(({ id, blade, cutterId, putInAt, metres }) => ({
    id,
    blade,
    cutter: cutterId,
    putInAt: putInAt?.toISOString() ?? null,
    metres,
  }));
}

/** Puts a new knife in, or one from the drawer; the one that was there goes into the drawer. */
export async function putIn(
  { db, hub }: ShopServices,
  cutterId: string,
  which: z.infer<typeof putInSchema>,
): Promise<Knife[]> {
  await db.transaction(async (tx) => {
    const [cutter] = await tx.select().from(cutters).where(eq(cutters.id, cutterId)).for('update');
    if (!cutter) throw notFound('cutter');
    await tx.update(knives).set({ cutterId: null }).where(eq(knives.cutterId, cutterId));
    const putInAt = sql`now()`;
    if ('blade' in which)
      return void (await tx.insert(knives).values({ blade: which.blade, cutterId, putInAt }));
    const [moved] = await tx
      .update(knives)
      .set({ cutterId, putInAt })
      .where(and(eq(knives.id, which.knife), isNull(knives.thrownAt)))
      .returning({ id: knives.id });
    if (!moved) throw notFound('knife');
  });
  await hub.tell({ kind: 'shop' });
  return listKnives(db);
}

export async function throwKnife({ db, hub }: ShopServices, id: number): Promise<Knife[]> {
  await db
    .update(knives)
    .set({ thrownAt: sql`now()`, cutterId: null })
    .where(eq(knives.id, id));
  await hub.tell({ kind: 'shop' });
  return listKnives(db);
}

/** What a cut wears its cutter's knife by: its metres, tougher film more by as much as it is cut harder than all films are. */
export async function wearKnife(
  tx: Tx,
  { cutterId, cutLength, recipe }: Pick<typeof cuts.$inferSelect, 'cutterId' | 'cutLength' | 'recipe'>,
): Promise<KnifeThen | null> {
  const [usual] = await tx
    .select()
    .from(recipes)
    .where(isRecipe({ cutterId, filmId: '*', kind: 'kiss' }));
  const tougher = recipe.force && usual?.data.force ? recipe.force / usual.data.force : 1;
  return wearInUse(tx, cutterId, (cutLength / 1000) * tougher);
}

/** @returns the knife as it was before; null: nobody said which is in */
export async function wearInUse(
  db: Pick<Db, 'update'>,
  cutterId: string,
  metres: number,
): Promise<KnifeThen | null> {
  const [worn] = await db
    .update(knives)
    .set({ metres: sql`${knives.metres} + ${metres}` })
    .where(eq(knives.cutterId, cutterId))
    .returning({ id: knives.id, metres: knives.metres });
  return worn ? { id: worn.id, metres: worn.metres - metres } : null;
}

/**
 * A knife that wants more force on one film wants more on all: the recipes of that blade on the cutter are raised alike.
 * @throws Trouble when the grid found nothing, or no more force
 */
export async function raiseOthers({ db, hub, who }: ShopServices, calibrationId: number): Promise<ShopNow> {
  await db.transaction(async (tx) => {
    const [row] = await tx.select().from(calibrations).where(eq(calibrations.id, calibrationId));
    if (row?.setup.kind !== 'force') throw notFound('trial grid');
    const { cutterId, setup, after, before } = row;
    const [{ data: cutter }] = await tx.select().from(cutters).where(eq(cutters.id, cutterId));
    const isOwn = ({ filmId, kind }: RecipeKey): boolean => filmId === setup.film && kind === setup.line;
    const [own] = await tx
      .select()
      .from(recipes)
      .where(isRecipe({ cutterId, filmId: setup.film, kind: setup.line }));
    const by = after && before[0] > 0 ? after[0] / before[0] : 1;
    if (!(by > 1) || !own)
      throw new Trouble(
        409,
        'no-more-force',
        'This grid found no more force than before: nothing is to be raised.',
      );
    const raised = ({ force, ...recipe }: Recipe, key: RecipeKey): Recipe | undefined =>
      isOwn(key) || force === null
        ? undefined
        : { ...recipe, force: Math.min(cutter.force.most, Math.round(force * by)) };
    const why = `knife dulls: raised with trial grid ${calibrationId}`;
    await changeBlade(tx, cutterId, own.data.blade, raised, { why, who });
  });
  await hub.tell({ kind: 'shop' });
  return loadShop(db);
}
