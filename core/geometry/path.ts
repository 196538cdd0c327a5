/**
 * Outlines as they are drawn: lines and cubic Béziers. `ops` holds one letter a step (M, L, C, Z) and `xy`
 * the coordinates they take (2, 2, 6, 0): two plain arrays are the cheapest form to keep, send and read.
 */
import type { Matrix } from './matrix';
import { mapped, mapPoints, stretch } from './matrix';
import type { Bounds } from './bounds';

export interface Path {
  readonly ops: string;
  readonly xy: readonly number[];
}

/** A run of straight lines: x0, y0, x1, y1 … A closed one does not repeat its first point. */
export interface Polyline {
  readonly points: Float64Array;
  readonly closed: boolean;
}

/** How far a straight chord may lie from the curve it stands for, in mm at final size. */
export const FLATTEN_TOLERANCE = 0.01;

/**
 * Straightens a path after mapping it, each cubic into as few equal parameter steps as keep the chord error
 * below `tolerance`. Step count by the second-difference bound of Wang, Tulli, Manocha & Hoffmann
 * ("Wang's formula", in Goldman, Pyramid Algorithms, 2003): n = √(3·2/8 · max|Δ²P| / tolerance).
 * @param tolerance mm, after `matrix`
 */
export function flatten(path: Path, matrix: Matrix, tolerance = FLATTEN_TOLERANCE): Polyline[] {
  const out: Polyline[] = [];
  let run: number[] = [];
  let at = 0;
  const { ops } = path;
  const xy = mapped(path.xy, matrix);
  const finish = (closed: boolean): void => {
    const polyline = tidy(run, closed);
    if (polyline) out.push(polyline);
    run = [];
  };
  let startX = 0;
  let startY = 0;
  let penX = 0;
  let penY = 0;
  for (let i = 0; i < ops.length; i++) {
    const op = ops.charCodeAt(i);
    if (op === 77 /* M */ || op === 76 /* L */) {
      penX = xy[at++];
      penY = xy[at++];
      if (op === 77) {
        if (run.length > 0) finish(false);
        startX = penX;
        startY = penY;
      } else if (run.length === 0) run.push(startX, startY);
      run.push(penX, penY);
    } else if (op === 67 /* C */) {
      if (run.length === 0) run.push(startX, startY);
      flattenCubic(run, penX, penY, xy, at, tolerance);
      penX = xy[at + 4];
      penY = xy[at + 5];
      at += 6;
    } else {
      finish(true);
      penX = startX;
      penY = startY;
    }
  }
  if (run.length > 0) finish(false);
  return out;
}

/** @param at where the cubic's control points begin in `p` */
function flattenCubic(
  out: number[],
  x0: number,
  y0: number,
  p: Float64Array,
  at: number,
  tolerance: number,
): void {
  const [x1, y1, x2, y2, x3, y3] = [p[at], p[at + 1], p[at + 2], p[at + 3], p[at + 4], p[at + 5]];
  const bend = Math.max(
    Math.hypot(x0 - 2 * x1 + x2, y0 - 2 * y1 + y2),
    Math.hypot(x1 - 2 * x2 + x3, y1 - 2 * y2 + y3),
  );
  const steps = Math.min(10000, Math.max(1, Math.ceil(Math.sqrt((0.75 * bend) / tolerance))));
  for (let i = 1; i < steps; i++) {
    const t = i / steps;
    const s = 1 - t;
    const w0 = s * s * s;
    const w1 = 3 * s * s * t;
    const w2 = 3 * s * t * t;
    const w3 = t * t * t;
    out.push(w0 * x0 + w1 * x1 + w2 * x2 + w3 * x3, w0 * y0 + w1 * y1 + w2 * y2 + w3 * y3);
  }
  out.push(x3, y3);
}

/** Drops repeated points and, on closed runs, a last point that lies on the first. */
function tidy(run: readonly number[], closed: boolean): Polyline | undefined {
  const kept: number[] = [];
  for (let i = 0; i < run.length; i += 2) {
    const n = kept.length;
    if (n > 0 && kept[n - 2] === run[i] && kept[n - 1] === run[i + 1]) continue;
    kept.push(run[i], run[i + 1]);
  }
  while (
    closed &&
    kept.length > 2 &&
    kept[0] === kept[kept.length - 2] &&
    kept[1] === kept[kept.length - 1]
  ) {
    kept.length -= 2;
  }
  return kept.length === 0 ? undefined : { points: Float64Array.from(kept), closed };
}

/** mm from a line's start to its end, a closed one back to its start. */
export function lineLength({ points, closed }: Polyline): number {
  const n = points.length;
  let length = 0;
  // not Math.hypot, which takes ten times as long
  for (let i = closed ? 0 : 2, j = closed ? n - 2 : 0; i < n; j = i, i += 2) {
    const dx = points[i] - points[j];
    const dy = points[i + 1] - points[j + 1];
    length += Math.sqrt(dx * dx + dy * dy);
  }
  return length;
}

/** Points of several lines one behind the other, x0, y0, x1, y1 … */
export function joinedPoints(...lines: readonly ArrayLike<number>[]): Float64Array {
  const points = new Float64Array(lines.reduce((sum, line) => sum + line.length, 0));
  let at = 0;
  for (const line of lines) {
    points.set(line, at);
    at += line.length;
  }
  return points;
}

/** The same points from the last to the first. */
export function backwards(points: Float64Array): Float64Array {
  const n = points.length;
  const out = new Float64Array(n);
  for (let i = 0; i < n; i += 2) {
    out[i] = points[n - 2 - i];
    out[i + 1] = points[n - 1 - i];
  }
  return out;
}

/** An open line as a ring that encloses nothing: it has each of its segments twice, and two of no length. */
export function thereAndBack(line: ArrayLike<number>): Float64Array {
  const n = line.length;
  const out = new Float64Array(2 * n);
  out.set(line);
  for (let i = 0; i < n; i += 2) out.set([line[n - 2 - i], line[n - 1 - i]], n + i);
  return out;
}

/** x0, y0, x1, y1 of the segment that begins at a point; the last one leads back to the first. */
export function segmentEnds(points: Float64Array, index: number): [number, number, number, number] {
  const next = (2 * index + 2) % points.length;
  return [points[2 * index], points[2 * index + 1], points[next], points[next + 1]];
}

/** The path with its points mapped. */
export const mapPath = ({ ops, xy }: Path, matrix: Matrix): Path => ({
  ops,
  xy: mapPoints(xy, matrix, new Array<number>(xy.length)),
});

/** Exact bounds of a mapped path: end points and the extremes of its cubics. */
export function pathBounds(path: Path, m: Matrix): Bounds {
  const { ops, xy } = path;
  let [minX, minY, maxX, maxY] = [Infinity, Infinity, -Infinity, -Infinity];
  const take = (x: number, y: number): void => {
    if (x < minX) minX = x;
    if (x > maxX) maxX = x;
    if (y < minY) minY = y;
    if (y > maxY) maxY = y;
  };
  const p = mapped(xy, m);
  let at = 0;
  for (let i = 0; i < ops.length; i++) {
    const op = ops.charCodeAt(i);
    if (op === 90 /* Z */) continue;
    const end = op === 67 /* C */ ? at + 4 : at;
    take(p[end], p[end + 1]);
    // a cubic stays inside its control points: only where those reach past its ends can there be an extreme
    if (op === 67) for (const t of extremes(p, at)) take(...cubicAt(p, at, t));
    at = end + 2;
  }
  return { minX, minY, maxX, maxY };
}

/** Parameters in (0, 1) at which the cubic ending at `at + 4` turns round in x or in y. */
function extremes(p: Float64Array, at: number): number[] {
  const found: number[] = [];
  for (const axis of [0, 1]) {
    const [p0, p1, p2, p3] = [p[at - 2 + axis], p[at + axis], p[at + 2 + axis], p[at + 4 + axis]];
    if (Math.min(p1, p2) >= Math.min(p0, p3) && Math.max(p1, p2) <= Math.max(p0, p3)) continue;
    const a = p3 - 3 * p2 + 3 * p1 - p0;
    const b = 2 * (p2 - 2 * p1 + p0);
    const c = p1 - p0;
    const root = Math.sqrt(Math.max(0, b * b - 4 * a * c));
    // the stable pair of roots: one from the sum that does not cancel, the other from their product
    const q = -(b + (b < 0 ? -root : root)) / 2;
    for (const t of [q / a, c / q]) if (t > 0 && t < 1) found.push(t);
  }
  return found;
}

function cubicAt(p: Float64Array, at: number, t: number): [number, number] {
  const s = 1 - t;
  const along = (k: number): number =>
    s * s * s * p[at - 2 + k] +
    3 * s * s * t * p[at + k] +
    3 * s * t * t * p[at + 2 + k] +
    t * t * t * p[at + 4 + k];
  return [along(0), along(1)];
}

/** The tolerance to flatten with before `matrix` so that the error after it is `tolerance`. */
export const toleranceBefore = (matrix: Matrix, tolerance: number): number =>
  tolerance / Math.max(stretch(matrix), 1e-12);
