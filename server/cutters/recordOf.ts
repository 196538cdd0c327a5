import type { CutRecord, Drawing } from '../../contracts/cuts';
import { recordSchema } from '../../contracts/cuts';
import { toStrip } from '../../core/devicelang/axes';
import { placesMapped } from '../../core/geometry/spot';
import type { Cutter } from '../../core/layout/cutter';
import type { cutters } from '../db/schema';
import { pack, unpack } from '../services/pack';
import type { StoredProgram } from '../work/makeCuts';
import type { CutRow, Services } from './settle';

/** The knife's way as a simulated cutter recorded it, set against the design. Real cutters keep none. */
export async function recordOf(
  { pool, log }: Services,
  cut: CutRow,
  { data: cutter, link: { panel } }: typeof cutters.$inferSelect,
  program: StoredProgram,
): Promise<Partial<CutRow>> {
  if (!panel) return {};
  try {
    const response = await fetch(new URL('/record', panel), { signal: AbortSignal.timeout(10_000) });
    const raw = recordSchema.parse(await response.json());
    const record = onStrip(raw, cutter, cut.cuttable);
    const drawing = unpack<Drawing>(cut.drawing);
    // of what lies elsewhere by now, nobody can say how it was meant to lie
    if (cut.slip || record.lines.length !== program.lines.length) return { record: pack(record) };
    const { largest, at } = await pool.run('compare', { record, drawing });
    return { record: pack(record), deviation: largest, deviationAt: { x: at[0], y: at[1] } };
  } catch (error) {
    log.warn({ error: String(error), cutId: cut.id }, 'no record of the cut');
    return {};
  }
}

/** The cutter records in mm on its own axes. */
function onStrip(record: CutRecord, { device }: Cutter, cuttable: number): CutRecord {
  const place = toStrip({ ...device, step: 1 }, cuttable);
  const moved = (points: readonly number[]): number[] => placesMapped(points, ([x, y]) => place(x, y));
  return { lines: record.lines.map((line) => ({ ...line, points: moved(line.points) })) };
}
