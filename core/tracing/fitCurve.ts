/**
 * Smooth curves through traced points: corners are kept, straight stretches become lines, the rest cubics.
 * Schneider, An Algorithm for Automatically Fitting Digitized Curves, Graphics Gems (1990). Points are kept flat,
 * x0, y0, x1, y1 …, and runs are named by their first and last point: pictures have hundreds of thousands of them.
 */
import type { Path } from '../geometry/path';
import { ringArea } from '../geometry/region';

type Point = readonly [number, number];

/** How far along the outline a corner is looked at on each side, px. */
const CORNER_REACH = 4;
/** The sides of a corner are looked at between these distances from it, px. */
const [SIDE_FROM, SIDE_TO] = [1.5, 5];
/**
 * How far a blur of one deviation cuts a right-angled corner off: Φ(x)² = ½ at x = 0.545, and √2 for the diagonal.
 * Sharper corners lose more, about as the tangent of half the turn.
 */
const CUT_OFF = 0.77;
/** A corner that turns by more may as well be a blunt end: no more is put back than for this one. */
const SHARPEST = (115 * Math.PI) / 180;
/** A pixel blurs like a Gaussian of this deviation: that of a box of one, √(1 ∕ 12). */
const PIXEL = 0.29;
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
 * @param blur deviation of the blur that was laid over the picture, px
 */
export function fitRing(ring: Float64Array, corner: number, tolerance: number, blur: number): Path {
  const points = withoutRepeats(ring);
  const corners = findCorners(points, corner);
  if (corners.length === 0) return fitSmooth(points, tolerance);
  const sharp = corners.map((i) => cornerPoint(points, i, blur));
  const out: Fitted = { ops: ['M'], xy: [...sharp[0]] };
  corners.forEach((from, k) => {
    const next = (k + 1) % corners.length;
    const run = calm(between(stretch(points, from, corners[next]), sharp[k], sharp[next]));
    fitRun(run, tolerance, out);
  });
  return { ops: `${out.ops.join('')}Z`, xy: out.xy };
}

interface Fitted {
  readonly ops: string[];
  readonly xy: number[];
}

/** A ring without corners: joined, with one tangent, where it turns least. */
function fitSmooth(points: Float64Array, tolerance: number): Path {
  const start = calmest(points);
  const [tx, ty] = tangentAt(points, start);
  const run = calm(stretch(points, start, start));
  const out: Fitted = { ops: ['M'], xy: [run[0], run[1]] };
  fitCubics(run, 0, run.length / 2 - 1, [tx, ty], [-tx, -ty], tolerance, out, 0);
  return { ops: `${out.ops.join('')}Z`, xy: out.xy };
}

function withoutRepeats(ring: Float64Array): Float64Array {
  const out = new Float64Array(ring.length);
  let n = 0;
  for (let i = 0; i < ring.length; i += 2) {
    if (n > 0 && Math.hypot(out[n - 2] - ring[i], out[n - 1] - ring[i + 1]) <= 1e-6) continue;
    out[n++] = ring[i];
    out[n++] = ring[i + 1];
  }
  return out.slice(0, n);
}

/** The points from one corner to the next, both ends in; a ring with one corner comes back to it. */
function stretch(points: Float64Array, from: number, to: number): Float64Array {
  const n = points.length / 2;
  const count = ((to - from + n) % n || n) + 1;
  const out = new Float64Array(2 * count);
  for (let k = 0; k < count; k++) {
    const i = (from + k) % n;
    out[2 * k] = points[2 * i];
    out[2 * k + 1] = points[2 * i + 1];
  }
  return out;
}

/**
 * Where the two sides of a corner would meet: pixels and blur cut corners off, and no further than they do is one put
 * back, so that a corner which is round in the picture does not grow a tip.
 */
function cornerPoint(points: Float64Array, i: number, blur: number): Point {
  const [a, b] = [walk(points, i, -1, SIDE_TO), walk(points, i, -1, SIDE_FROM)];
  const [c, d] = [walk(points, i, 1, SIDE_TO), walk(points, i, 1, SIDE_FROM)];
  const own: Point = [points[2 * i], points[2 * i + 1]];
  const [ux, uy] = unit(b[0] - a[0], b[1] - a[1]);
  const [vx, vy] = unit(c[0] - d[0], c[1] - d[1]);
  const det = ux * vy - uy * vx;
  if (Math.abs(det) < 0.05) return own;
  const t = ((c[0] - a[0]) * vy - (c[1] - a[1]) * vx) / det;
  const away: Point = [a[0] + t * ux - own[0], a[1] + t * uy - own[1]];
  const turn = Math.acos(Math.min(1, Math.max(-1, ux * vx + uy * vy)));
  const most = CUT_OFF * Math.hypot(blur, PIXEL) * Math.tan(Math.min(turn, SHARPEST) / 2) + 0.2;
  const far = Math.hypot(away[0], away[1]);
  // past all sense: the sides do not lead to this corner
  if (far > 3 * most) return own;
  const by = Math.min(1, most / (far || 1));
  return [own[0] + by * away[0], own[1] + by * away[1]];
}

/** A run from corner to corner, without the points that cut them off. */
function between(run: Float64Array, from: Point, to: Point): Float64Array {
  const out: number[] = [...from];
  for (let i = 2; i < run.length - 2; i += 2) {
    if (Math.hypot(run[i] - from[0], run[i + 1] - from[1]) < 1) continue;
    if (Math.hypot(run[i] - to[0], run[i + 1] - to[1]) < 1) continue;
    out.push(run[i], run[i + 1]);
  }
  out.push(to[0], to[1]);
  return Float64Array.from(out);
}

/** Twice the mean of each point with its neighbours (1 2 1), ends kept: takes the stairs of pixels out. */
function calm(run: Float64Array): Float64Array {
  let now = run;
  for (let round = 0; round < 2; round++) {
    const next = now.slice();
    for (let i = 2; i < now.length - 2; i++) next[i] = (now[i - 2] + 2 * now[i] + now[i + 2]) / 4;
    now = next;
  }
  return now;
}

/** Where the outline turns by more than `degrees` between what lies a few pixels before and after, each the sharpest around. */
function findCorners(points: Float64Array, degrees: number): number[] {
  const n = points.length / 2;
  if (n < 8) return Array.from({ length: n }, (_, i) => i);
  const turn = Float64Array.from({ length: n }, (_, i) => turnAt(points, i));
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

function turnAt(points: Float64Array, i: number): number {
  const before = walk(points, i, -1);
  const after = walk(points, i, 1);
  const ax = points[2 * i] - before[0];
  const ay = points[2 * i + 1] - before[1];
  const bx = after[0] - points[2 * i];
  const by = after[1] - points[2 * i + 1];
  return Math.abs(Math.atan2(ax * by - ay * bx, ax * bx + ay * by));
}

/** The point some pixels along the outline. */
function walk(points: Float64Array, from: number, by: 1 | -1, far = CORNER_REACH): Point {
  const n = points.length / 2;
  let left = far;
  let at = from;
  for (let k = 0; k < n; k++) {
    const to = (at + by + n) % n;
    const dx = points[2 * to] - points[2 * at];
    const dy = points[2 * to + 1] - points[2 * at + 1];
    const length = Math.sqrt(dx * dx + dy * dy);
    if (length >= left)
      return [points[2 * at] + (dx * left) / length, points[2 * at + 1] + (dy * left) / length];
    left -= length;
    at = to;
  }
  return [points[2 * at], points[2 * at + 1]];
}

/** Where a ring turns least, so that it is joined where nobody sees it. */
function calmest(points: Float64Array): number {
  let best = 0;
  let least = Infinity;
  for (let i = 0; i < points.length / 2; i += 3) {
    const turn = turnAt(points, i);
    if (turn < least) [best, least] = [i, turn];
  }
  return best;
}

function tangentAt(points: Float64Array, i: number): Point {
  const a = walk(points, i, -1);
  const b = walk(points, i, 1);
  return unit(b[0] - a[0], b[1] - a[1]);
}

function unit(x: number, y: number): Point {
  const length = Math.hypot(x, y) || 1;
  return [x / length, y / length];
}

/** Adds what fits a run of points, its first point left out. */
function fitRun(run: Float64Array, tolerance: number, out: Fitted): void {
  const last = run.length / 2 - 1;
  if (isStraight(run)) {
    out.ops.push('L');
    out.xy.push(run[2 * last], run[2 * last + 1]);
  } else fitCubics(run, 0, last, runTangent(run, 1), runTangent(run, -1), tolerance, out, 0);
}

function isStraight(run: Float64Array): boolean {
  const n = run.length;
  const dx = run[n - 2] - run[0];
  const dy = run[n - 1] - run[1];
  const length = Math.hypot(dx, dy);
  if (length < 1e-9) return false;
  for (let i = 2; i < n - 2; i += 2) {
    if (Math.abs(dx * (run[i + 1] - run[1]) - dy * (run[i] - run[0])) > STRAIGHT * length) return false;
  }
  return true;
}

/** Direction into the run from its first (1) or last (-1) point, over the first few pixels. */
function runTangent(run: Float64Array, side: 1 | -1): Point {
  const count = run.length / 2;
  const from = side === 1 ? 0 : count - 1;
  for (let k = 1; k < count; k++) {
    const dx = run[2 * (from + side * k)] - run[2 * from];
    const dy = run[2 * (from + side * k) + 1] - run[2 * from + 1];
    if (Math.hypot(dx, dy) >= 3 || k === count - 1) return unit(dx, dy);
  }
  return [1, 0];
}

function fitCubics(
  run: Float64Array,
  from: number,
  to: number,
  startTangent: Point,
  endTangent: Point,
  tolerance: number,
  out: Fitted,
  depth: number,
): void {
  const add = (bezier: Float64Array): void => {
    out.ops.push('C');
    for (let k = 2; k < 8; k++) out.xy.push(bezier[k]);
  };
  if (to - from <= 1 || depth > 40) return add(thirds(run, from, to, startTangent, endTangent));
  let at = (from + to) >> 1;
  if (to - from <= LONGEST_RUN) {
    const u = chordLengths(run, from, to);
    for (let round = 0; round < MOST_ROUNDS; round++) {
      const bezier = bestCubic(run, from, to, u, startTangent, endTangent);
      const worst = worstError(run, from, to, bezier, u);
      at = worst.at;
      if (worst.error <= tolerance) return add(bezier);
      // too far off for better parameters to mend it
      if (worst.error > 5 * tolerance) break;
      for (let i = 0; i < u.length; i++) u[i] = improved(bezier, run, from + i, u[i]);
    }
  }
  const split = Math.min(to - 1, Math.max(from + 1, at));
  const k = Math.min(6, split - from, to - split);
  const tangent = unit(
    run[2 * (split - k)] - run[2 * (split + k)],
    run[2 * (split - k) + 1] - run[2 * (split + k) + 1],
  );
  fitCubics(run, from, split, startTangent, tangent, tolerance, out, depth + 1);
  fitCubics(run, split, to, [-tangent[0], -tangent[1]], endTangent, tolerance, out, depth + 1);
}

/** The cubic with handles of a third of the chord. */
function thirds(run: Float64Array, from: number, to: number, t1: Point, t2: Point): Float64Array {
  const third = Math.hypot(run[2 * to] - run[2 * from], run[2 * to + 1] - run[2 * from + 1]) / 3;
  return handles(run, from, to, t1, t2, third, third);
}

function handles(
  run: Float64Array,
  from: number,
  to: number,
  t1: Point,
  t2: Point,
  a1: number,
  a2: number,
): Float64Array {
  const [x0, y0, x3, y3] = [run[2 * from], run[2 * from + 1], run[2 * to], run[2 * to + 1]];
  return Float64Array.of(x0, y0, x0 + t1[0] * a1, y0 + t1[1] * a1, x3 + t2[0] * a2, y3 + t2[1] * a2, x3, y3);
}

function chordLengths(run: Float64Array, from: number, to: number): Float64Array {
  const out = new Float64Array(to - from + 1);
  for (let i = 1; i < out.length; i++) {
    const p = 2 * (from + i);
    const dx = run[p] - run[p - 2];
    const dy = run[p + 1] - run[p - 1];
    out[i] = out[i - 1] + Math.sqrt(dx * dx + dy * dy);
  }
  const whole = out[out.length - 1] || 1;
  for (let i = 0; i < out.length; i++) out[i] /= whole;
  return out;
}

/** Least squares for the two handles' lengths along given tangents. */
function bestCubic(
  run: Float64Array,
  from: number,
  to: number,
  u: Float64Array,
  t1: Point,
  t2: Point,
): Float64Array {
  const [x0, y0, x3, y3] = [run[2 * from], run[2 * from + 1], run[2 * to], run[2 * to + 1]];
  const dot = t1[0] * t2[0] + t1[1] * t2[1];
  let c00 = 0;
  let c01 = 0;
  let c11 = 0;
  let r0 = 0;
  let r1 = 0;
  for (let i = 0; i < u.length; i++) {
    const t = u[i];
    const s = 1 - t;
    const b1 = 3 * t * s * s;
    const b2 = 3 * t * t * s;
    const b01 = s * s * s + b1;
    const b23 = t * t * t + b2;
    const rx = run[2 * (from + i)] - (x0 * b01 + x3 * b23);
    const ry = run[2 * (from + i) + 1] - (y0 * b01 + y3 * b23);
    c00 += b1 * b1;
    c01 += b1 * b2 * dot;
    c11 += b2 * b2;
    r0 += b1 * (t1[0] * rx + t1[1] * ry);
    r1 += b2 * (t2[0] * rx + t2[1] * ry);
  }
  const det = c00 * c11 - c01 * c01;
  const chord = Math.hypot(x3 - x0, y3 - y0);
  const a1 = det === 0 ? 0 : (r0 * c11 - r1 * c01) / det;
  const a2 = det === 0 ? 0 : (c00 * r1 - c01 * r0) / det;
  const least = 1e-6 * chord;
  // handles that point backwards or fly off: the usual third of the chord instead (Wu & Barsky's rule, as in the paper)
  const sound = a1 > least && a2 > least && a1 <= 3 * chord + 10 && a2 <= 3 * chord + 10;
  return sound ? handles(run, from, to, t1, t2, a1, a2) : thirds(run, from, to, t1, t2);
}

function worstError(
  run: Float64Array,
  from: number,
  to: number,
  b: Float64Array,
  u: Float64Array,
): { error: number; at: number } {
  let most = 0;
  let at = (from + to) >> 1;
  for (let i = 1; i < u.length - 1; i++) {
    const t = u[i];
    const s = 1 - t;
    const w0 = s * s * s;
    const w1 = 3 * s * s * t;
    const w2 = 3 * s * t * t;
    const w3 = t * t * t;
    const dx = w0 * b[0] + w1 * b[2] + w2 * b[4] + w3 * b[6] - run[2 * (from + i)];
    const dy = w0 * b[1] + w1 * b[3] + w2 * b[5] + w3 * b[7] - run[2 * (from + i) + 1];
    const d2 = dx * dx + dy * dy;
    if (d2 > most) [most, at] = [d2, from + i];
  }
  return { error: Math.sqrt(most), at };
}

/** One Newton step towards the parameter of the nearest point. */
function improved(b: Float64Array, run: Float64Array, point: number, t: number): number {
  const s = 1 - t;
  let numerator = 0;
  let denominator = 0;
  for (let axis = 0; axis < 2; axis++) {
    const p0 = b[axis];
    const p1 = b[axis + 2];
    const p2 = b[axis + 4];
    const p3 = b[axis + 6];
    const off =
      s * s * s * p0 + 3 * s * s * t * p1 + 3 * s * t * t * p2 + t * t * t * p3 - run[2 * point + axis];
    const d1 = 3 * (s * s * (p1 - p0) + 2 * s * t * (p2 - p1) + t * t * (p3 - p2));
    const d2 = 6 * (s * (p2 - 2 * p1 + p0) + t * (p3 - 2 * p2 + p1));
    numerator += off * d1;
    denominator += d1 * d1 + off * d2;
  }
  if (Math.abs(denominator) < 1e-12) return t;
  return Math.min(1, Math.max(0, t - numerator / denominator));
}

/** px² inside a ring of points. */
export const areaOf = (ring: Float64Array): number => Math.abs(ringArea(ring));
