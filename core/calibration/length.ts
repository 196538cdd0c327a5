/** What a cutter moves for each mm it is told, from lines that were measured. */
import { beyondF } from '../registration/fDistribution';
import type { Solved } from '../registration/leastSquares';
import { leastSquares } from '../registration/leastSquares';
import type { Estimate } from './estimate';
import { SURE } from './estimate';
import { studentWithin } from './student';

/** One line, or the way between two ticks, mm. */
export interface Measured {
  readonly told: number;
  readonly measured: number;
}

export interface LengthFound {
  /** mm measured for each mm told */
  readonly scale: Estimate;
  /** mm that every line is longer by; null: none, or it cannot be told from the scale. */
  readonly constant: Estimate | null;
  /** What is left of each, mm. */
  readonly rest: readonly number[];
}

/** A constant is taken only when chance alone would not do as much. */
const LEAST_CHANCE = 0.01;
/** Of a single measurement: how well a tape is read, mm (common practice, no source). */
const TAPE = 0.3;

/**
 * A straight line through what was told and measured, through nothing unless a constant is needed to explain it (F test).
 * @returns undefined: nothing was measured
 */
export function lengthFrom(measured: readonly Measured[]): LengthFound | undefined {
  if (measured.length === 0) return undefined;
  const right = measured.map((one) => one.measured);
  const plain = leastSquares(
    measured.map(({ told }) => [told]),
    right,
  );
  if (!plain) return undefined;
  const shifted = leastSquares(
    measured.map(({ told }) => [told, 1]),
    right,
  );
  const solved = shifted && isBetter(shifted, plain) ? shifted : plain;
  const [scale, constant = 0] = solved.unknowns;
  return {
    scale: { value: scale, sure: sureOf(solved, 0) },
    constant: solved === plain ? null : { value: constant, sure: sureOf(solved, 1) },
    rest: measured.map(({ told, measured: found }) => found - scale * told - constant),
  };
}

const isBetter = (larger: Solved, plain: Solved): boolean =>
  larger.freedom > 0 &&
  beyondF((plain.rss - larger.rss) / (larger.rss / larger.freedom), 1, larger.freedom) < LEAST_CHANCE;

function sureOf({ rss, freedom, covariance, unknowns }: Solved, k: number): number {
  const error = Math.sqrt(covariance[k * unknowns.length + k]);
  return freedom > 0 ? studentWithin(SURE, freedom) * Math.sqrt(rss / freedom) * error : TAPE * error;
}
