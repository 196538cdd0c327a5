import type { cutters } from '../db/schema';
import { filmsOf } from '../services/newFilm';
import type { StoredProgram } from '../work/makeCuts';
import { panelOf } from './links/simulators';
import type { CutRow, Services } from './settle';

/** The knife's way as a simulated cutter recorded it, set against the design. Real cutters keep none. */
export async function recordOf(
  { pool, log }: Services,
  cut: CutRow,
  { data: cutter, link }: typeof cutters.$inferSelect,
  { kinds }: StoredProgram,
): Promise<Partial<CutRow>> {
  const panel = panelOf(link);
  if (!panel) return {};
  try {
    const response = await fetch(new URL('/record', panel), { signal: AbortSignal.timeout(10_000) });
    const { record, ...said } = await pool.run('readRecord', {
      told: await response.text(),
      device: cutter.device,
      cuttable: cut.cuttable,
      drawing: cut.drawing,
      kinds,
      bladeOffset: cut.recipe.bladeOffset,
      films: filmsOf(cut),
    });
    return { record: Buffer.from(record), ...said };
  } catch (error) {
    log.warn({ error: String(error), cutId: cut.id }, 'no record of the cut');
    return {};
  }
}
