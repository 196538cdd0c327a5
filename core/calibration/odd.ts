/** Measurements that do not fit the others: they are asked about, never averaged in. */
import { MM_PER_INCH } from '../units/length';

export interface Odd {
  /** Number of the measurement, from 0. */
  readonly at: number;
  /** How far it lies off the middle of the others, mm. */
  readonly by: number;
  /** What may have slipped. */
  readonly slip?: 'ten' | 'inch' | 'sign';
}

/** A deviation by so many of the usual ones is odd (Hampel 1974: three; ours asks less often). */
const MANY = 5;
/** 1 / Φ⁻¹(¾): the median of absolute deviations as a standard deviation. */
const OF_NORMAL = 1.4826;
/** A ratio is a slip when it is met to so much. */
const NEARLY = 0.25;

/**
 * The measurements that lie far off the median of the others, by the median of how far those lie off (Hampel 1974).
 * @param values mm; of at least three
 * @param least mm by which people read things differently anyway
 */
export function oddOnes(values: readonly number[], least: number): Odd[] {
  if (values.length < 3) return [];
  return values.flatMap((value, at) => {
    const others = values.filter((_, i) => i !== at);
    const middle = median(others);
    const usual = Math.max(least, OF_NORMAL * median(others.map((other) => Math.abs(other - middle))));
    const by = value - middle;
    return Math.abs(by) > MANY * usual ? [{ at, by, slip: slipOf(value, middle) }] : [];
  });
}

export function median(values: readonly number[]): number {
  const sorted = [...values].sort((a, b) => a - b);
  const half = sorted.length >> 1;
  return sorted.length % 2 === 1 ? sorted[half] : (sorted[half - 1] + sorted[half]) / 2;
}

function slipOf(value: number, middle: number): Odd['slip'] {
  const ratio = value / middle;
  const isAbout = (other: number): boolean => Math.abs(ratio / other - 1) < NEARLY;
  if (isAbout(-1)) return 'sign';
  if (isAbout(10) || isAbout(0.1)) return 'ten';
  return isAbout(MM_PER_INCH) || isAbout(1 / MM_PER_INCH) ? 'inch' : undefined;
}
