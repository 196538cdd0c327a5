/** What a sensor sees of a stock: what is darker than what counts as a mark, and the least difference that can be trusted there. */
import type { Estimate } from './estimate';
import { SURE } from './estimate';
import { studentWithin } from './student';

/** What was seen at one mark, reflectances from 0 black to 1 white. */
export interface MarkLevels {
  /** Of the stock beside it. */
  readonly bare: number;
  /** By how much it is darker. */
  readonly contrast: number;
  /** By how much the stock alone is darker where it looks most like a mark. */
  readonly dip: number;
}

/** Less is not told from dust and shadows, however even a stock is (our own). */
const LEAST = 0.04;
/** A mark differs from what the stock alone shows by so many standard deviations of that. */
const STANDS_OUT = 4;
/** Share of the contrast that the least one may be: fainter print is still read. */
const IN_HAND = 0.5;
/** Marks that say something about a stock at least. */
const LEAST_MARKS = 2;

export interface ContrastFound {
  readonly threshold: Estimate;
  readonly least: Estimate;
  /** By how much marks are darker. */
  readonly contrast: number;
  /** The stock alone looks too much like a mark. */
  readonly isTooFaint: boolean;
}

/**
 * The threshold lies half way between stock and mark, where either is mistaken as seldom; the least contrast is what the
 * stock alone does not show: the mean of its deepest dips and four standard deviations of them.
 * @returns undefined: too few marks were seen
 */
export function contrastFrom(levels: readonly MarkLevels[]): ContrastFound | undefined {
  if (levels.length < LEAST_MARKS) return undefined;
  const dips = meanOf(levels.map(({ dip }) => dip));
  const contrast = meanOf(levels.map((one) => one.contrast)).value;
  const least = Math.max(LEAST, dips.value + STANDS_OUT * dips.deviation);
  return {
    threshold: meanOf(levels.map((one) => one.bare - one.contrast / 2)),
    least: { value: least, sure: dips.sure },
    contrast,
    isTooFaint: least > IN_HAND * contrast,
  };
}

/** A mean with Student's interval. */
function meanOf(values: readonly number[]): Estimate & { readonly deviation: number } {
  const n = values.length;
  const value = values.reduce((sum, one) => sum + one, 0) / n;
  const deviation = Math.sqrt(values.reduce((sum, one) => sum + (one - value) ** 2, 0) / (n - 1));
  return { value, deviation, sure: (studentWithin(SURE, n - 1) * deviation) / Math.sqrt(n) };
}
