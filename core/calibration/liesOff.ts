/** How a cut lies off its print, or a mark off where it was drawn: moved, turned and stretched, from several places. */
import type { Spot } from '../geometry/spot';
import { leastSquares } from '../registration/leastSquares';
import type { Estimate } from './estimate';
import { SURE, SURE_OF_KNOWN } from './estimate';
import { studentWithin } from './student';

/** What was seen at one place. */
export interface SeenOff {
  /** mm on the strip */
  readonly at: Spot;
  /** How far the cut lies off the print there, mm: along the film, and from its far edge to the near one. */
  readonly off: Spot;
}

/** All places together. */
export interface LiesOff {
  /** mm, about the middle of the places */
  readonly along: Estimate;
  readonly down: Estimate;
  /** Degrees, from x to y. */
  readonly turn: Estimate;
  /** Share of the length. */
  readonly stretch: Estimate;
  /** What is left at each place, mm. */
  readonly rest: readonly Spot[];
  /** mm: what single readings scatter by */
  readonly scatter: number;
}

/** Places that are needed to tell moved from turned and stretched, and how sure that is. */
export const LEAST_PLACES = 3;
const DEGREES = 180 / Math.PI;

/**
 * Least squares about the middle of the places, where the four unknowns do not mix (Gauss & Markov: no other linear estimate
 * scatters less). The interval is Student's, with what all places share added in.
 * @param shared mm: standard deviation of what moves all places alike, such as the reading of the sheet's marks
 * @returns undefined: fewer than {@link LEAST_PLACES}, or all at one place
 */
export function liesOff(seen: readonly SeenOff[], shared = 0): LiesOff | undefined {
  if (seen.length < LEAST_PLACES) return undefined;
  const [cx, cy] = [0, 1].map((k) => seen.reduce((sum, { at }) => sum + at[k], 0) / seen.length);
  const rows = seen.flatMap(({ at: [x, y] }) => [
    [1, 0, -(y - cy), x - cx],
    [0, 1, x - cx, y - cy],
  ]);
  const right = seen.flatMap(({ off }) => [...off]);
  const solved = leastSquares(rows, right);
  if (!solved) return undefined;
  const { unknowns, covariance, rss, freedom } = solved;
  const scatter = Math.sqrt(rss / freedom);
  const t = studentWithin(SURE, freedom);
  const estimate = (k: number, common: number, unit = 1): Estimate => ({
    value: unknowns[k] * unit,
    sure: Math.hypot(t * scatter * Math.sqrt(covariance[k * 4 + k]), SURE_OF_KNOWN * common) * unit,
  });
  return {
    along: estimate(0, shared),
    down: estimate(1, shared),
    turn: estimate(2, 0, DEGREES),
    stretch: estimate(3, 0),
    rest: seen.map((_, i): Spot => {
      const left = (k: number): number =>
        right[k] - rows[k].reduce((sum, value, j) => sum + value * unknowns[j], 0);
      return [left(2 * i), left(2 * i + 1)];
    }),
    scatter,
  };
}
