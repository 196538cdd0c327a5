/** What a cutter's sensor sees of a stock and of the marks printed on it. */
import type { MarkLevels } from '../../core/calibration/contrast';
import type { Spot } from '../../core/geometry/spot';
import type { Cutter } from '../../core/layout/cutter';
import type { DesignedMark, MarkSeen, ScanSeen } from '../../core/registration/readMarks';
import { LOOK_STEP } from '../../core/registration/readMarks';
import { deepestDip } from '../../core/registration/scan';
import type { CutterLink } from './links/link';
import { sensorOn } from './readSheet';

/** mm off a mark's end, from which on there is nothing but stock, and mm of it that are looked at. */
const [OFF, LONG] = [3, 14];

/**
 * Looks along the bare stock beside every mark, towards the others.
 * @param line mm that marks are wide
 */
export async function levelsOf(
  link: CutterLink,
  cutter: Cutter,
  {
    marks,
    seen,
    line,
    cuttable,
  }: {
    readonly marks: readonly DesignedMark[];
    readonly seen: readonly MarkSeen[];
    readonly line: number;
    readonly cuttable: number;
  },
): Promise<MarkLevels[]> {
  const { look, nearest } = sensorOn(link, cuttable, cutter);
  const middle = seen.reduce((sum, { at }) => sum + at[0], 0) / seen.length;
  const out: MarkLevels[] = [];
  for (const [i, { at, scans }] of seen.entries()) {
    const way = at[0] < middle ? 1 : -1;
    // gone past an arm whichever way round the sheet lies
    const past = OFF + Math.abs(marks[i].arms[0]);
    const spot = (mm: number): Spot => nearest([at[0] + way * (past + mm), at[1]]);
    const values = await look(spot(0), spot(LONG), Math.round(LONG / LOOK_STEP) + 1);
    const bare = values.reduce((sum, value) => sum + value, 0) / values.length;
    out.push({ bare, contrast: meanContrast(scans), dip: deepestDip(values, line / LOOK_STEP) });
  }
  return out;
}

const meanContrast = (scans: readonly ScanSeen[]): number => {
  const contrasts = scans.flatMap(({ found }) => (typeof found === 'object' ? [found.contrast] : []));
  return contrasts.reduce((sum, one) => sum + one, 0) / contrasts.length;
};
