/** How long cuts really take beside how long they were reckoned to take. */
import { median } from './odd';

/** A cut that ran from its first line to its last without a stop. */
export interface TimedCut {
  /** s by the machine's own record, before any pace */
  readonly reckoned: number;
  readonly took: number;
}

/** What a machine's cuts take, as a share of what is reckoned. */
export interface Pace {
  readonly ratio: number;
  /** Half of all cuts lie within this share of it. */
  readonly within: number;
  readonly cuts: number;
}

/** s: of shorter cuts the time is mostly that of starting and being asked */
export const LEAST_TIMED = 5;
/** Fewer cuts than this say nothing. */
const FEWEST = 3;

/**
 * The median of the ratios, and the median of how far they lie from it: one cut that somebody leant on moves neither.
 * Ratios go by their logarithms: half as long and twice as long are as far from one.
 */
export function paceOf(cuts: readonly TimedCut[]): Pace | undefined {
  const ratios = cuts
    .filter(({ reckoned, took }) => reckoned >= LEAST_TIMED && took > 0)
    .map(({ reckoned, took }) => Math.log(took / reckoned));
  if (ratios.length < FEWEST) return undefined;
  const middle = median(ratios);
  const apart = median(ratios.map((ratio) => Math.abs(ratio - middle)));
  return { ratio: Math.exp(middle), within: Math.expm1(apart), cuts: ratios.length };
}
