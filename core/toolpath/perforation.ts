/** Perforated lines: dashes by length along the line, with a gap at every corner. */
import { dash } from '../geometry/dash';
import type { Polyline } from '../geometry/path';
import { lineLength } from '../geometry/path';
import { cornerCosine } from './compensate';

/**
 * Cuts a line into dashes that are stretched so that a whole number of them fits between corners. A corner lies in the
 * middle of a gap: it is not lifted by what passes over it, and the blade does not swing within a dash. Where corners are
 * nearer than half a dash and a gap, the dash goes round them.
 * @param on mm cut, about @param off mm left @param corner degrees: a turn by more is a corner
 */
export function perforated(
  line: Polyline,
  [on, off]: readonly [number, number],
  corner?: number,
): Polyline[] {
  const corners = apartBy(on / 2 + off, line, cornersOf(line, cornerCosine(corner)));
  const dashes =
    corners.length === 0
      ? dash([line], whole(lineLength(line), on, off, line.closed ? off : 0), 0)
      : sidesOf(line, corners).flatMap(({ points, isCornerFirst, isCornerLast }) => {
          const side = { points, closed: false };
          const gaps = (isCornerFirst ? off / 2 : 0) + (isCornerLast ? off / 2 : 0);
          const pattern = whole(lineLength(side), on, off, gaps);
          return dash([side], pattern, isCornerFirst ? pattern[0] + off / 2 : 0);
        });
  // where the last gap ends by a rounding before the line does, one more dash would begin
  return dashes.filter((one) => lineLength(one) > ROUNDING);
}

/** mm: a dash this short is what rounding left. */
const ROUNDING = 1e-6;
/** A dash is no shorter than this share of what was asked for, where a short line is to keep a gap. */
const LEAST_DASH = 0.25;

/** Whether a line is too short to hold by a gap: perforated, it is cut through from end to end. */
export const isTooShort = (line: Polyline, [on, off]: readonly [number, number]): boolean =>
  lineLength(line) < (line.closed ? 1 : 2) * LEAST_DASH * on + off;

/**
 * A dash and a gap of which a whole number fits, with a gap at least where there is room for one.
 * @param gaps mm at both ends together that are left
 */
function whole(length: number, on: number, off: number, gaps: number): [number, number] {
  const fits = Math.round((length - gaps + off) / (on + off));
  const least = gaps > 0 || length < 2 * LEAST_DASH * on + off ? 1 : 2;
  const count = Math.max(least, fits);
  return [Math.max(0, (length - gaps - (count - 1) * off) / count), off];
}

/** Points of a line at which it turns sharply. */
function cornersOf({ points, closed }: Polyline, corner: number): number[] {
  const n = points.length / 2;
  const [first, last] = closed ? [0, n] : [1, n - 1];
  const out: number[] = [];
  for (let i = first; i < last; i++) {
    const [a, b] = [(i + n - 1) % n, (i + 1) % n];
    const [ux, uy] = [points[2 * i] - points[2 * a], points[2 * i + 1] - points[2 * a + 1]];
    const [vx, vy] = [points[2 * b] - points[2 * i], points[2 * b + 1] - points[2 * i + 1]];
    if (ux * vx + uy * vy < corner * Math.hypot(ux, uy) * Math.hypot(vx, vy)) out.push(i);
  }
  return out;
}

/** Corners without those that lie too near behind another, or before an end. */
function apartBy(least: number, line: Polyline, corners: readonly number[]): number[] {
  const at = lengthsAlong(line);
  const end = at[at.length - 1];
  const kept: number[] = [];
  for (const corner of corners) {
    const before = kept.length > 0 ? at[kept[kept.length - 1]] : line.closed ? -Infinity : 0;
    if (at[corner] - before >= least) kept.push(corner);
  }
  const next = line.closed && kept.length > 0 ? at[kept[0]] + end : end;
  while (kept.length > 0 && kept.length > (line.closed ? 1 : 0) && next - at[kept[kept.length - 1]] < least)
    kept.pop();
  return kept;
}

/** mm along a line to each of its points, and to its end; of a closed one back at its start. */
function lengthsAlong({ points, closed }: Polyline): number[] {
  const n = points.length / 2;
  const out = [0];
  for (let i = 1; i < n + (closed ? 1 : 0); i++) {
    const [a, b] = [2 * (i - 1), 2 * (i % n)];
    out.push(out[i - 1] + Math.hypot(points[b] - points[a], points[b + 1] - points[a + 1]));
  }
  return out;
}

interface Side {
  readonly points: Float64Array;
  readonly isCornerFirst: boolean;
  readonly isCornerLast: boolean;
}

/** What lies between corners. @param corners at least one, as places in the line */
function sidesOf({ points, closed }: Polyline, corners: readonly number[]): Side[] {
  const n = points.length / 2;
  const stops = closed ? [...corners, corners[0] + n] : [0, ...corners, n - 1];
  return stops.slice(1).map((to, k) => {
    const out: number[] = [];
    for (let i = stops[k]; i <= to; i++) out.push(points[2 * (i % n)], points[2 * (i % n) + 1]);
    return {
      points: Float64Array.from(out),
      isCornerFirst: closed || k > 0,
      isCornerLast: closed || k < stops.length - 2,
    };
  });
}
