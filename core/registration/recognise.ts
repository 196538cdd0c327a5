/** Which mark is which: a sheet that was loaded or printed another way than it was designed. */
import type { Spot } from '../geometry/spot';
import { fitModel } from './models';
import type { Reading } from './models';

/** How the sheet lies as against the design; swapped: its marks were read in another order. */
export type Lies = 'as-designed' | 'swapped' | 'turned' | 'mirrored';

export interface Recognised {
  readonly lies: Lies;
  /** Every mark of the design with what was read of it. */
  readonly readings: readonly Reading[];
}

/** Another way counts when it leaves less than this share of what the design's own way leaves. */
const MUCH_LESS = 0.3;

type Way = (at: Spot) => Spot;
const WAYS: readonly (readonly [Lies, Way])[] = [
  ['turned', ([x, y]) => [-x, -y]],
  ['mirrored', ([x, y]) => [-x, y]],
  ['mirrored', ([x, y]) => [x, -y]],
];

/**
 * Pairs marks as they were designed with marks as they were read, by where they lie to one another. A set of marks that
 * looks the same when it is turned is taken as designed: marks that are to tell have to be unsymmetric.
 * @param designed mm on the sheet, in the order in which they are read
 * @param measured mm in the cutter, as many
 * @param alike mm that marks may lie off and still be the same
 * @returns undefined: they are not the same marks whichever way the sheet lies
 */
export function recognise(
  designed: readonly Spot[],
  measured: readonly Spot[],
  alike: number,
): Recognised | undefined {
  if (designed.length !== measured.length || designed.length < 2) return undefined;
  const inOrder = designed.map((at, i): Reading => ({ designed: at, measured: measured[i] }));
  const own = matched(designed, measured, ([x, y]) => [x, y]);
  const first: Recognised[] = [{ lies: 'as-designed', readings: inOrder }];
  if (own && own.some((reading, i) => reading.measured !== measured[i]))
    first.push({ lies: 'swapped', readings: own });
  const others = WAYS.flatMap(([lies, way]): Recognised[] => {
    const readings = matched(designed, measured, way);
    return readings ? [{ lies, readings }] : [];
  });
  let best = first[0];
  for (const one of [...first.slice(1), ...others])
    if (offBy(one.readings) < MUCH_LESS * offBy(best.readings)) best = one;
  // two marks fit whichever way; more that fit no way are of another sheet
  return offBy(best.readings) <= alike ? best : undefined;
}

/** Marks of the design, seen another way and moved to where they were read, each with the nearest; none twice. */
function matched(
  designed: readonly Spot[],
  measured: readonly Spot[],
  way: Way,
): readonly Reading[] | undefined {
  const [from, to] = [middleOf(designed), middleOf(measured)];
  const taken = new Set<Spot>();
  const readings = designed.map((at): Reading => {
    const [x, y] = way([at[0] - from[0], at[1] - from[1]]);
    const off = ([mx, my]: Spot): number => Math.hypot(mx - to[0] - x, my - to[1] - y);
    const nearest = measured.reduce((best, one) => (off(one) < off(best) ? one : best));
    taken.add(nearest);
    return { designed: at, measured: nearest };
  });
  return taken.size === measured.length ? readings : undefined;
}

function middleOf(spots: readonly Spot[]): Spot {
  const mean = (axis: 0 | 1): number => spots.reduce((sum, spot) => sum + spot[axis], 0) / spots.length;
  return [mean(0), mean(1)];
}

/** mm, root of the mean square of what stretching does not explain. */
function offBy(readings: readonly Reading[]): number {
  const fit = fitModel('affine', readings) ?? fitModel('similarity', readings);
  return fit ? Math.sqrt(fit.rss / readings.length) : Infinity;
}
