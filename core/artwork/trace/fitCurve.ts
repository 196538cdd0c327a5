/**
 * Smooth curves through traced points: corners are kept, straight stretches become lines, the rest cubics.
 * Schneider, An Algorithm for Automatically Fitting Digitized Curves, Graphics Gems (1990).
 */
import type { Path } from '../../geometry/path';
import { ringArea } from '../../geometry/region';

type Point = readonly [number, number];

/** How far points on each side a corner is looked at, px of outline. */
const CORNER_REACH = 4;
/** Points this near to a straight line are a straight line, px. */
const STRAIGHT = 0.22;
const MOST_ROUNDS = 4;
/** Runs of more points are halved before a cubic is tried: it would not fit. */
const LONGEST_RUN = 160;

/**
 * Fits a closed path to a ring of points.
 * @param ring x0, y0, x1, y1 … px
 * @param corner degrees by which the outline must turn to keep a corner
 * @param tolerance how far the path may lie from the points, px
 */
export function fitRing(ring: Float64Array, corner: number, tolerance: number): Path {
  const points = toPoints(ring);
  const corners = findCorners(points, corner);
  const sharp = new Map(corners.map((i) => [i, cornerPoint(points, i)]));
  const xy: number[] = [];
  let ops = 'M';
  const smoothStart = corners.length === 0;
  const starts = smoothStart ? [farthest(points)] : corners;
  xy.push(...(sharp.get(starts[0]) ?? points[starts[0]]));
  const joint = smoothStart ? tangentAt(points, starts[0]) : undefined;
  starts.forEach((from, i) => {
    const to = starts[(i + 1) % starts.length];
    const run = calm(between(stretch(points, from, to), sharp.get(from), sharp.get(to)));
    ops += fitRun(run, tolerance, xy, joint, joint && ([-joint[0], -joint[1]] as const));
  });
  return { ops: `${ops}Z`, xy };
}

function toPoints(ring: Float64Array): Point[] {
  const out: Point[] = [];
  for (let i = 0; i < ring.length; i += 2) {
    const last = out[out.length - 1];
    if (!last || Math.hypot(last[0] - ring[i], last[1] - ring[i + 1]) > 1e-6)
      out.push([ring[i], ring[i + 1]]);
  }
  return out;
}

/** The points from one corner to the next, both ends in; a ring with one corner comes back to it. */
function stretch(points: readonly Point[], from: number, to: number): Point[] {
  const n = points.length;
  const out: Point[] = [points[from]];
  for (let i = (from + 1) % n; ; i = (i + 1) % n) {
    out.push(points[i]);
    if (i === to) return out;
  }
}

/** Where the two sides of a corner would meet: the outline itself cuts corners off by half a pixel. */
function cornerPoint(points: readonly Point[], i: number): Point {
  const [a, b] = [walk(points, i, -1, CORNER_REACH + 1), walk(points, i, -1, 1.5)];
  const [c, d] = [walk(points, i, 1, CORNER_REACH + 1), walk(points, i, 1, 1.5)];
  const det = (b[0] - a[0]) * (d[1] - c[1]) - (b[1] - a[1]) * (d[0] - c[0]);
  if (Math.abs(det) < 1e-9) return points[i];
  const t = ((c[0] - a[0]) * (d[1] - c[1]) - (c[1] - a[1]) * (d[0] - c[0])) / det;
  const meet: Point = [a[0] + t * (b[0] - a[0]), a[1] + t * (b[1] - a[1])];
  return Math.hypot(meet[0] - points[i][0], meet[1] - points[i][1]) <= 1.5 ? meet : points[i];
}

/** A run from corner to corner, without the points that cut them off. */
function between(run: readonly Point[], from: Point | undefined, to: Point | undefined): Point[] {
  const near = (p: Point, corner: Point | undefined): boolean =>
    corner !== undefined && Math.hypot(p[0] - corner[0], p[1] - corner[1]) < 1;
  const inner = run.slice(1, -1).filter((p) => !near(p, from) && !near(p, to));
  return [from ?? run[0], ...inner, to ?? run[run.length - 1]];
}

/** Twice the mean of each point with its neighbours (1 2 1), ends kept: takes the stairs of pixels out. */
function calm(run: readonly Point[]): Point[] {
  let now = [...run];
  for (let round = 0; round < 2; round++) {
    const last = now;
    now = last.map((p, i) => {
      if (i === 0 || i === last.length - 1) return p;
      const [a, b] = [last[i - 1], last[i + 1]];
      return [(a[0] + 2 * p[0] + b[0]) / 4, (a[1] + 2 * p[1] + b[1]) / 4];
    });
  }
  return now;
}

/** Where the outline turns by more than `degrees` between what lies a few pixels before and after, each the sharpest around. */
function findCorners(points: readonly Point[], degrees: number): number[] {
  const n = points.length;
  if (n < 8) return points.map((_, i) => i);
  const turn = points.map((_, i) => turnAt(points, i));
  const limit = (degrees * Math.PI) / 180;
  const found: number[] = [];
  for (let i = 0; i < n; i++) {
    if (turn[i] < limit) continue;
    let sharpest = true;
    for (let k = 1; k <= CORNER_REACH && sharpest; k++) {
      sharpest = turn[i] > turn[(i - k + n) % n] && turn[i] >= turn[(i + k) % n];
    }
    if (sharpest) found.push(i);
  }
  return found;
}

function turnAt(points: readonly Point[], i: number): number {
  const before = walk(points, i, -1);
  const after = walk(points, i, 1);
  const [x, y] = points[i];
  const ax = x - before[0];
  const ay = y - before[1];
  const bx = after[0] - x;
  const by = after[1] - y;
  return Math.abs(Math.atan2(ax * by - ay * bx, ax * bx + ay * by));
}

/** The point some pixels along the outline. */
function walk(points: readonly Point[], from: number, by: 1 | -1, far = CORNER_REACH): Point {
  const n = points.length;
  let left = far;
  let at = from;
  for (let k = 0; k < n; k++) {
    const to = (at + by + n) % n;
    const [dx, dy] = [points[to][0] - points[at][0], points[to][1] - points[at][1]];
    const length = Math.hypot(dx, dy);
    if (length >= left) return [points[at][0] + (dx * left) / length, points[at][1] + (dy * left) / length];
    left -= length;
    at = to;
  }
  return points[at];
}

/** Start where it turns least, so that a smooth ring is joined where nobody sees it. */
function farthest(points: readonly Point[]): number {
  let best = 0;
  let least = Infinity;
  for (let i = 0; i < points.length; i += 3) {
    const turn = turnAt(points, i);
    if (turn < least) [best, least] = [i, turn];
  }
  return best;
}

function tangentAt(points: readonly Point[], i: number): Point {
  const a = walk(points, i, -1);
  const b = walk(points, i, 1);
  return unit(b[0] - a[0], b[1] - a[1]);
}

function unit(x: number, y: number): Point {
  const length = Math.hypot(x, y) || 1;
  return [x / length, y / length];
}

/** Adds what fits a run of points to `xy`, its first point left out. @returns the ops */
function fitRun(run: readonly Point[], tolerance: number, xy: number[], start?: Point, end?: Point): string {
  if (isStraight(run)) {
    xy.push(...run[run.length - 1]);
    return 'L';
  }
  return fitCubics(run, start ?? runTangent(run, 1), end ?? runTangent(run, -1), tolerance, xy, 0);
}

function isStraight(run: readonly Point[]): boolean {
  const [x0, y0] = run[0];
  const [x1, y1] = run[run.length - 1];
  const length = Math.hypot(x1 - x0, y1 - y0);
  if (length < 1e-9) return false;
  return run.every(([x, y]) => Math.abs((x1 - x0) * (y - y0) - (y1 - y0) * (x - x0)) / length <= STRAIGHT);
}

/** Direction into the run from its first (1) or last (-1) point, over the first few pixels. */
function runTangent(run: readonly Point[], side: 1 | -1): Point {
  const from = side === 1 ? 0 : run.length - 1;
  const [x, y] = run[from];
  for (let k = 1; k < run.length; k++) {
    const [px, py] = run[from + side * k];
    if (Math.hypot(px - x, py - y) >= 3 || k === run.length - 1) return unit(px - x, py - y);
  }
  return [1, 0];
}

function fitCubics(
  run: readonly Point[],
  startTangent: Point,
  endTangent: Point,
  tolerance: number,
  xy: number[],
  depth: number,
): string {
  const first = run[0];
  const last = run[run.length - 1];
  const chord = Math.hypot(last[0] - first[0], last[1] - first[1]);
  if (run.length <= 2 || depth > 40) {
    const third = chord / 3;
    xy.push(first[0] + startTangent[0] * third, first[1] + startTangent[1] * third);
    xy.push(last[0] + endTangent[0] * third, last[1] + endTangent[1] * third, ...last);
    return 'C';
  }
  let u = chordLengths(run);
  let worst = { error: Infinity, at: run.length >> 1 };
  const rounds = run.length > LONGEST_RUN ? 0 : MOST_ROUNDS;
  for (let round = 0; round < rounds; round++) {
    const bezier = bestCubic(run, u, startTangent, endTangent);
    worst = worstError(run, bezier, u);
    if (worst.error <= tolerance) {
      xy.push(...bezier[1], ...bezier[2], ...bezier[3]);
      return 'C';
    }
    // too far off for better parameters to mend it
    if (worst.error > 4 * tolerance + 2) break;
    u = u.map((t, i) => improved(bezier, run[i], t));
  }
  const split = Math.min(run.length - 2, Math.max(1, worst.at));
  const tangent = unit(run[split - 1][0] - run[split + 1][0], run[split - 1][1] - run[split + 1][1]);
  const wide = widerTangent(run, split) ?? tangent;
  return (
    fitCubics(run.slice(0, split + 1), startTangent, wide, tolerance, xy, depth + 1) +
    fitCubics(run.slice(split), [-wide[0], -wide[1]], endTangent, tolerance, xy, depth + 1)
  );
}

/** Tangent over a few points on both sides: single points jitter. */
function widerTangent(run: readonly Point[], at: number): Point | undefined {
  const k = Math.min(6, at, run.length - 1 - at);
  if (k < 1) return undefined;
  const [a, b] = [run[at - k], run[at + k]];
  const length = Math.hypot(a[0] - b[0], a[1] - b[1]);
  return length > 1e-9 ? [(a[0] - b[0]) / length, (a[1] - b[1]) / length] : undefined;
}

function chordLengths(run: readonly Point[]): number[] {
  const out = [0];
  for (let i = 1; i < run.length; i++) {
    out.push(out[i - 1] + Math.hypot(run[i][0] - run[i - 1][0], run[i][1] - run[i - 1][1]));
  }
  const whole = out[out.length - 1] || 1;
  return out.map((length) => length / whole);
}

type Bezier = readonly [Point, Point, Point, Point];

/** Least squares for the two handles' lengths along given tangents. */
function bestCubic(run: readonly Point[], u: readonly number[], t1: Point, t2: Point): Bezier {
  const p0 = run[0];
  const p3 = run[run.length - 1];
  let c00 = 0;
  let c01 = 0;
  let c11 = 0;
  let x0 = 0;
  let x1 = 0;
  const dot = t1[0] * t2[0] + t1[1] * t2[1];
  for (let i = 0; i < run.length; i++) {
    const t = u[i];
    const s = 1 - t;
    const b1 = 3 * t * s * s;
    const b2 = 3 * t * t * s;
    const b01 = s * s * s + b1;
    const b23 = t * t * t + b2;
    const rx = run[i][0] - (p0[0] * b01 + p3[0] * b23);
    const ry = run[i][1] - (p0[1] * b01 + p3[1] * b23);
    c00 += b1 * b1;
    c01 += b1 * b2 * dot;
    c11 += b2 * b2;
    x0 += b1 * (t1[0] * rx + t1[1] * ry);
    x1 += b2 * (t2[0] * rx + t2[1] * ry);
  }
  const det = c00 * c11 - c01 * c01;
  const chord = Math.hypot(p3[0] - p0[0], p3[1] - p0[1]);
  let a1 = det === 0 ? 0 : (x0 * c11 - x1 * c01) / det;
  let a2 = det === 0 ? 0 : (c00 * x1 - c01 * x0) / det;
  const least = 1e-6 * chord;
  // handles that point backwards or fly off: the usual third of the chord instead (Wu & Barsky's rule, as in the paper)
  if (!(a1 > least) || !(a2 > least) || a1 > 3 * chord + 10 || a2 > 3 * chord + 10) a1 = a2 = chord / 3;
  return [p0, [p0[0] + t1[0] * a1, p0[1] + t1[1] * a1], [p3[0] + t2[0] * a2, p3[1] + t2[1] * a2], p3];
}

function pointAt([p0, p1, p2, p3]: Bezier, t: number): Point {
  const s = 1 - t;
  const [w0, w1, w2, w3] = [s * s * s, 3 * s * s * t, 3 * s * t * t, t * t * t];
  return [
    w0 * p0[0] + w1 * p1[0] + w2 * p2[0] + w3 * p3[0],
    w0 * p0[1] + w1 * p1[1] + w2 * p2[1] + w3 * p3[1],
  ];
}

function worstError(
  run: readonly Point[],
  bezier: Bezier,
  u: readonly number[],
): { error: number; at: number } {
  let error = 0;
  let at = run.length >> 1;
  for (let i = 1; i < run.length - 1; i++) {
    const [x, y] = pointAt(bezier, u[i]);
    const d = Math.hypot(x - run[i][0], y - run[i][1]);
    if (d > error) [error, at] = [d, i];
  }
  return { error, at };
}

/** One Newton step towards the parameter of the nearest point. */
function improved(bezier: Bezier, [px, py]: Point, t: number): number {
  const [p0, p1, p2, p3] = bezier;
  const s = 1 - t;
  const [x, y] = pointAt(bezier, t);
  let numerator = 0;
  let denominator = 0;
  for (const axis of [0, 1] as const) {
    const d1 =
      3 * (s * s * (p1[axis] - p0[axis]) + 2 * s * t * (p2[axis] - p1[axis]) + t * t * (p3[axis] - p2[axis]));
    const d2 = 6 * (s * (p2[axis] - 2 * p1[axis] + p0[axis]) + t * (p3[axis] - 2 * p2[axis] + p1[axis]));
    const off = axis === 0 ? x - px : y - py;
    numerator += off * d1;
    denominator += d1 * d1 + off * d2;
  }
  if (Math.abs(denominator) < 1e-12) return t;
  return Math.min(1, Math.max(0, t - numerator / denominator));
}

/** px² inside a ring of points. */
export const areaOf = (ring: Float64Array): number => Math.abs(ringArea(ring));
