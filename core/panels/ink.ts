/** How much art a straight seam would cut, by its position. */
import type { Region } from '../geometry/region';
import type { Axis } from './axis';

/**
 * The length of art on a straight line as the line moves: linear between the outlines' points, so it is told by its
 * values just before and just behind each of them. Positions rise.
 */
export interface InkProfile {
  readonly at: Float64Array;
  /** mm of art on the line just before and just behind each position. */
  readonly before: Float64Array;
  readonly behind: Float64Array;
  /** Outlines that the line crosses just behind each position. */
  readonly crossings: Int32Array;
}

/**
 * The profile of all regions together. A line at x meets each outline edge that spans it at one place; the art on it is
 * the sum of those places, those where the outline goes one way less those where it goes the other. Every edge is a
 * straight line in x, so the sum is kept as two running numbers: its value here and its slope. Cost: n log n.
 */
export function inkProfile(regions: readonly Region[], axis: Axis): InkProfile {
  const along = axis === 'upright' ? 0 : 1;
  const count = regions.reduce((sum, region) => sum + region.reduce((n, ring) => n + ring.length / 2, 0), 0);
  const starts = new Float64Array(2 * count);
  const value = new Float64Array(2 * count);
  const slope = new Float64Array(2 * count);
  const spans = new Int8Array(2 * count);
  let n = 0;
  const add = (x: number, v: number, k: number, s: number): void => {
    starts[n] = x;
    value[n] = v;
    slope[n] = k;
    spans[n++] = s;
  };
  for (const region of regions) {
    for (const ring of region) {
      const m = ring.length;
      for (let i = 0, j = m - 2; i < m; j = i, i += 2) {
        const [x0, y0] = [ring[j + along], ring[j + 1 - along]];
        const [x1, y1] = [ring[i + along], ring[i + 1 - along]];
        if (x0 === x1) continue;
        // on a ring with positive area, y down, what goes to the right lies above the art and counts against it
        const sign = x1 > x0 === (along === 0) ? -1 : 1;
        const k = (y1 - y0) / (x1 - x0);
        const [first, last] = x0 < x1 ? [y0, y1] : [y1, y0];
        add(Math.min(x0, x1), sign * first, sign * k, 1);
        add(Math.max(x0, x1), -sign * last, -sign * k, -1);
      }
    }
  }
  return sweep(starts.subarray(0, n), value, slope, spans);
}

function sweep(starts: Float64Array, value: Float64Array, slope: Float64Array, spans: Int8Array): InkProfile {
  const order = Uint32Array.from({ length: starts.length }, (_, i) => i).sort(
    (a, b) => starts[a] - starts[b],
  );
  const at: number[] = [];
  const before: number[] = [];
  const behind: number[] = [];
  const crossings: number[] = [];
  let [v, k, open, here] = [0, 0, 0, 0];
  for (let i = 0; i < order.length;) {
    const x = starts[order[i]];
    v += k * (x - here);
    here = x;
    before.push(Math.max(0, v));
    for (; i < order.length && starts[order[i]] === x; i++) {
      v += value[order[i]];
      k += slope[order[i]];
      open += spans[order[i]];
    }
    // nothing is open: what rounding has left of the sums goes
    if (open === 0) [v, k] = [0, 0];
    at.push(x);
    behind.push(Math.max(0, v));
    crossings.push(open);
  }
  return {
    at: Float64Array.from(at),
    before: Float64Array.from(before),
    behind: Float64Array.from(behind),
    crossings: Int32Array.from(crossings),
  };
}

/** Of upright and of level seams. */
export type Inks = Readonly<Record<Axis, InkProfile>>;

/** What a seam at one position cuts. */
export interface SeamCost {
  /** mm of art */
  readonly ink: number;
  /** Outlines crossed. */
  readonly crossings: number;
}

const NOTHING: SeamCost = { ink: 0, crossings: 0 };

/** What a seam cuts; where the art begins or ends at once on it, the lesser side. */
export const costAt = (profile: InkProfile, x: number): SeamCost =>
  costBehind(profile, lastUpTo(profile.at, x), x);

/** The same when the last position up to it is known by its index; -1: none. */
export function costBehind({ at, before, behind, crossings }: InkProfile, i: number, x: number): SeamCost {
  if (i < 0 || i === at.length - 1) return NOTHING;
  if (at[i] === x && before[i] < behind[i])
    return { ink: before[i], crossings: i === 0 ? 0 : crossings[i - 1] };
  const share = (x - at[i]) / (at[i + 1] - at[i]);
  return { ink: behind[i] + share * (before[i + 1] - behind[i]), crossings: crossings[i] };
}

/** Index of the last of rising numbers that is no larger; -1: none. */
export function lastUpTo(rising: Float64Array, x: number): number {
  let [low, high] = [-1, rising.length - 1];
  while (low < high) {
    const middle = (low + high + 1) >> 1;
    if (rising[middle] <= x) low = middle;
    else high = middle - 1;
  }
  return low;
}

/** Positions at which the ink cannot be made less by moving a little: the profile's valleys and its steps. */
export function valleys({ at, before, behind }: InkProfile): Float64Array {
  const found: number[] = [];
  for (let i = 0; i < at.length; i++) {
    const from = i === 0 ? 0 : (before[i] - behind[i - 1]) / (at[i] - at[i - 1]);
    const to = i === at.length - 1 ? 0 : (before[i + 1] - behind[i]) / (at[i + 1] - at[i]);
    if (before[i] !== behind[i] || to > from || to === 0 || from === 0) found.push(at[i]);
  }
  return Float64Array.from(found);
}
