/** How far a blade's tip trails its holder, from what a test cut shows. */
import { leastSquares } from '../registration/leastSquares';
import type { Estimate } from './estimate';
import { SURE } from './estimate';
import { studentWithin } from './student';

/** mm: how well a gap is read under a loupe (common practice, no source). */
const LOUPE = 0.05;

/**
 * From gaps between two lines that were cut towards one another, the holder to the same place: each tip stays behind by the
 * offset, so a gap is two of them.
 * @param gaps mm
 * @returns undefined: none was measured
 */
export function offsetFromGaps(gaps: readonly number[]): Estimate | undefined {
  const solved = leastSquares(
    gaps.map(() => [2]),
    gaps,
  );
  if (!solved) return undefined;
  const { unknowns, rss, freedom, covariance } = solved;
  const error = Math.sqrt(covariance[0]);
  const scatter = freedom > 0 ? studentWithin(SURE, freedom) * Math.sqrt(rss / freedom) : 0;
  return { value: unknowns[0], sure: Math.max(scatter, LOUPE / Math.sqrt(gaps.length)) * error };
}

/** From the one of a row that looks best: it is nearer than its neighbours. @param step mm from one to the next */
export const fromRow = (value: number, step: number): Estimate => ({ value, sure: step / 2 });

/** Values of a row of test shapes, mm: wide at first, then finely about what was found. */
export function rowValues(about: Estimate | undefined, [least, most]: readonly [number, number]): number[] {
  const step = about ? Math.max(FINEST, (4 * about.sure) / (ROW - 1)) : (most - least) / (ROW - 1);
  const first = about ? Math.max(least, about.value - step * ((ROW - 1) / 2)) : least;
  return Array.from({ length: ROW }, (_, i) => Number((first + i * step).toFixed(3)));
}
/** Shapes in a row. */
const ROW = 11;
/** mm: nobody sees finer differences (our own). */
const FINEST = 0.01;
