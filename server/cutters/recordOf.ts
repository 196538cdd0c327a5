import { and, eq, lt, sql } from 'drizzle-orm';
import type { Db } from '../db/connect';
import { cuts, cutters } from '../db/schema';
import { filmsOf } from '../services/newFilm';
import type { StoredProgram } from '../work/makeCuts';
import { panelOf } from './links/simulators';
import { programAt } from './programAt';
import type { CutRow, Services } from './settle';
import { rowOf } from './settle';

/** The knife's way as a simulated cutter recorded it, set against the design. Real cutters keep none. @throws when it cannot be fetched */
export async function recordOf(
  { pool }: Services,
  cut: CutRow,
  { data: cutter, link }: typeof cutters.$inferSelect,
  { kinds }: StoredProgram,
): Promise<Partial<CutRow>> {
  const panel = panelOf(link);
  if (!panel) return {};
  const response = await fetch(new URL('/record', panel), { signal: AbortSignal.timeout(10_000) });
  const told = await response.text();
  // it was switched off and on since, and knows of nothing any more
  if (NOTHING.test(told)) return {};
  const { record, ...said } = await pool.run('readRecord', {
    told,
    device: cutter.device,
    cuttable: cut.cuttable,
    drawing: cut.drawing,
    kinds,
    bladeOffset: cut.recipe.bladeOffset,
    films: filmsOf(cut),
  });
  return { record: Buffer.from(record), ...said };
}

const NOTHING = /^\s*\{\s*"lines"\s*:\s*\[\s*\]/;

/** Records that could not be fetched when their cuts ended, as long as nothing else was done at the cutter; after a day no more. */
export async function fetchWanted(services: Services): Promise<void> {
  const { db, hub } = services;
  const isOld = lt(cuts.endedAt, sql`now() - interval '1 day'`);
  await db
    .update(cuts)
    .set({ recordWanted: false })
    .where(and(eq(cuts.recordWanted, true), isOld));
  const wanted = await db.select({ id: cuts.id }).from(cuts).where(eq(cuts.recordWanted, true));
  for (const { id } of wanted) {
    const cut = await rowOf(db, id);
    if (!cut) continue;
    const [cutter] = await db.select().from(cutters).where(eq(cutters.id, cut.cutterId));
    const found = await recordOf(services, cut, cutter, programAt(cut, cutter.data)).catch(() => undefined);
    if (!found) continue;
    // another cut that was begun there meanwhile has drawn over it
    await db
      .update(cuts)
      .set({ ...found, recordWanted: false })
      .where(and(eq(cuts.id, id), eq(cuts.recordWanted, true)));
    await hub.tell({ kind: 'cut', cutId: id, orderId: cut.orderId, cutterId: cut.cutterId });
  }
}

/** Something else is done at a cutter: what it recorded before is gone. */
export const forgetWanted = (db: Db, cutterId: string) =>
  db
    .update(cuts)
    .set({ recordWanted: false })
    .where(and(eq(cuts.cutterId, cutterId), eq(cuts.recordWanted, true)));
