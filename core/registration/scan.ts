/** A printed line found in what a sensor saw on its way across: to a small part of a step. */
import type { Spot } from '../geometry/spot';
import { createNormal } from './normalEquations';

/** What a sensor saw, evenly spaced, as it moved straight over a sheet. */
export interface Scan {
  /** mm from one value to the next. */
  readonly step: number;
  /** Reflectance: 0 black, 1 white. */
  readonly values: ArrayLike<number>;
}

/** What is looked for. */
export interface LineSought {
  /** mm that the printed line is wide. */
  readonly width: number;
  /** The line is paler than what is around it. */
  readonly isPale: boolean;
  /** Difference of reflectance that can be trusted at least, 0 … 1. */
  readonly leastContrast: number;
  /** A dark line reflects less than this; missing: whatever is darker than what is around it. */
  readonly darkerThan?: number;
}

/** A line that was found, along the scan, mm from its first value. */
export interface LineFound {
  readonly centre: number;
  readonly edges: readonly [number, number];
  /** Difference of reflectance between the line and what is around it. */
  readonly contrast: number;
  /** Standard error of the centre, mm, by what the values scatter. */
  readonly error: number;
}

/** Why no line was found. */
export type ScanProblem = 'no-line' | 'low-contrast' | 'other-width' | 'too-short';

/** A width that differs by more than this share is another line's. */
const OTHER_WIDTH = 0.4;
/** A difference has to stand out of the scatter by so many standard errors. */
const STANDS_OUT = 6;
/** Values around the line that are fitted, in its widths on either side. */
const AROUND = 1.5;
const ROUNDS = 25;

/**
 * Finds the one line of a scan: coarsely where the mean differs most from what is beside it, then both edges where the
 * reflectance is half way, by fitting two blurred steps to all values there (Gauss & Newton).
 */
export function findLine(scan: Scan, sought: LineSought): LineFound | ScanProblem {
  const { step, values } = scan;
  const wide = Math.max(2, Math.round(sought.width / step));
  if (values.length < 3 * wide) return 'too-short';
  const coarse = coarsely(values, wide, sought.isPale);
  if (coarse.depth < sought.leastContrast)
    return standsOut(coarse.depth, scatterOf(values), wide) ? 'low-contrast' : 'no-line';
  const from = Math.max(0, Math.floor(coarse.at - AROUND * wide));
  const to = Math.min(values.length, Math.ceil(coarse.at + wide + AROUND * wide));
  const fitted = fitSteps(values, from, to, coarse, wide);
  if (!fitted) return 'no-line';
  const { low, high, base, depth, centreError, scatter } = fitted;
  const contrast = Math.abs(depth);
  if (contrast < sought.leastContrast || !standsOut(contrast, scatter, wide)) return 'low-contrast';
  if (base + depth > (sought.darkerThan ?? Infinity)) return 'low-contrast';
  const width = (high - low) * step;
  if (Math.abs(width / sought.width - 1) > OTHER_WIDTH) return 'other-width';
  return {
    centre: ((low + high) / 2) * step,
    edges: [low * step, high * step],
    contrast,
    error: centreError * step,
  };
}

const standsOut = (depth: number, scatter: number, wide: number): boolean =>
  depth > (STANDS_OUT * scatter) / Math.sqrt(wide);

/**
 * How deep the deepest line is that bare stock shows: by that it may be taken for a mark.
 * @param width of a mark's line, in values
 */
export const deepestDip = (values: ArrayLike<number>, width: number): number =>
  Math.max(0, coarsely(values, Math.max(2, Math.round(width)), false).depth);

/** Standard deviation of the values about their course, by how far neighbours differ. */
function scatterOf(values: ArrayLike<number>): number {
  let sum = 0;
  for (let i = 1; i < values.length; i++) sum += (values[i] - values[i - 1]) ** 2;
  return Math.sqrt(sum / (2 * (values.length - 1)));
}

interface Coarse {
  /** Number of the first value on the line. */
  readonly at: number;
  readonly depth: number;
  readonly base: number;
}

/** Where a stretch as wide as the line differs most from what is beside it, by running sums. */
function coarsely(values: ArrayLike<number>, wide: number, isPale: boolean): Coarse {
  const sums = new Float64Array(values.length + 1);
  for (let i = 0; i < values.length; i++) sums[i + 1] = sums[i] + values[i];
  const mean = (from: number, to: number): number => (sums[to] - sums[from]) / (to - from);
  const gap = Math.max(1, wide >> 1);
  let best: Coarse = { at: 0, depth: -Infinity, base: 0 };
  for (let at = gap; at + wide + gap <= values.length; at++) {
    const before = mean(Math.max(0, at - gap), at);
    const after = mean(at + wide, at + wide + gap);
    // on both sides: an edge of something large is no line
    const base = isPale ? Math.max(before, after) : Math.min(before, after);
    const depth = (isPale ? 1 : -1) * (mean(at, at + wide) - base);
    if (depth > best.depth) best = { at, depth, base };
  }
  return best;
}

interface Steps {
  /** Places of both edges, in values. */
  readonly low: number;
  readonly high: number;
  readonly base: number;
  readonly depth: number;
  readonly centreError: number;
  readonly scatter: number;
}

/** A level, and a line on it with two edges blurred alike. */
function fitSteps(
  values: ArrayLike<number>,
  from: number,
  to: number,
  coarse: Coarse,
  wide: number,
): Steps | undefined {
  let [base, depth] = [
    coarse.base,
    values[Math.min(values.length - 1, coarse.at + (wide >> 1))] - coarse.base,
  ];
  let [low, high, blur] = [coarse.at - 0.5, coarse.at + wide - 0.5, Math.max(1, wide / 6)];
  for (let round = 0; round < ROUNDS; round++) {
    const normal = createNormal(5);
    for (let i = from; i < to; i++) {
      const [a, b] = [(i - low) / blur, (i - high) / blur];
      const [bellA, bellB] = [Math.exp(-0.5 * a * a), Math.exp(-0.5 * b * b)];
      const inside = normalCdf(a, bellA) - normalCdf(b, bellB);
      const [da, db] = [(bellA * PEAK) / blur, (bellB * PEAK) / blur];
      const row = [1, inside, -depth * da, depth * db, depth * (b * db - a * da)];
      normal.add(row, values[i] - base - depth * inside);
    }
    const solved = normal.solve();
    if (!solved) return undefined;
    const { unknowns: d, covariance, rss, freedom } = solved;
    const most = wide / 2;
    const limited = (value: number): number => Math.max(-most, Math.min(most, value));
    base += d[0];
    depth += d[1];
    low += limited(d[2]);
    high += limited(d[3]);
    blur = Math.max(0.3, Math.min(2 * wide, blur + limited(d[4])));
    if (!(high > low) || low < from - wide || high > to + wide) return undefined;
    if (Math.abs(d[2]) + Math.abs(d[3]) > 1e-4 && round < ROUNDS - 1) continue;
    const scatter = Math.sqrt(rss / freedom);
    const variance = (covariance[2 * 5 + 2] + covariance[3 * 5 + 3] + 2 * covariance[2 * 5 + 3]) / 4;
    return { low, high, base, depth, centreError: scatter * Math.sqrt(variance), scatter };
  }
  return undefined;
}

/** Of a normal density. */
const PEAK = 1 / Math.sqrt(2 * Math.PI);

/** Within 1.5e-7 (Abramowitz & Stegun 7.1.26, from memory). @param bell e^(−t²/2) */
function normalCdf(t: number, bell: number): number {
  const z = Math.abs(t) / Math.SQRT2;
  const k = 1 / (1 + 0.3275911 * z);
  const series =
    k * (0.254829592 + k * (-0.284496736 + k * (1.421413741 + k * (-1.453152027 + k * 1.061405429))));
  const beyond = (series * bell) / 2;
  return t < 0 ? beyond : 1 - beyond;
}

/** A straight line through two places of it. */
export type Through = readonly [Spot, Spot];

/** Where the two arms of a corner meet, each found at two places; undefined: they run alike. */
export function cornerOf([[ax, ay], [bx, by]]: Through, [[cx, cy], [dx, dy]]: Through): Spot | undefined {
  const [ux, uy, vx, vy] = [bx - ax, by - ay, dx - cx, dy - cy];
  const cross = ux * vy - uy * vx;
  if (Math.abs(cross) < 0.1 * Math.hypot(ux, uy) * Math.hypot(vx, vy)) return undefined;
  const t = ((cx - ax) * vy - (cy - ay) * vx) / cross;
  return [ax + t * ux, ay + t * uy];
}
