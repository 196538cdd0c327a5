/** DXF entities into paths, in the drawing's own units, y up. */
import { addBulge, arcPath } from '../../geometry/arc';
import type { Path } from '../../geometry/path';
import type { Item } from './groups';
import { finite, numberOf } from './groups';

const RAD = Math.PI / 180;

export const linePath = (item: Item): Path => ({
  ops: 'ML',
  xy: [numberOf(item, 10), numberOf(item, 20), numberOf(item, 11), numberOf(item, 21)],
});

export function circlePath(item: Item): Path {
  const r = numberOf(item, 40);
  return arcPath([numberOf(item, 10), numberOf(item, 20)], [r, 0], [0, r], 0, 2 * Math.PI);
}

export function arcOf(item: Item): Path {
  const r = numberOf(item, 40);
  const from = numberOf(item, 50) * RAD;
  const to = numberOf(item, 51) * RAD;
  return arcPath([numberOf(item, 10), numberOf(item, 20)], [r, 0], [0, r], from, endAfter(from, to));
}

/** Arcs run counter-clockwise: an end before the start lies one turn on. */
function endAfter(from: number, to: number): number {
  const turn = 2 * Math.PI;
  const on = (((to - from) % turn) + turn) % turn;
  return from + (on < 1e-9 ? turn : on);
}

export function ellipsePath(item: Item): Path {
  const u = [numberOf(item, 11), numberOf(item, 21)] as const;
  const ratio = numberOf(item, 40, 1) * (numberOf(item, 230, 1) < 0 ? -1 : 1);
  const v = [-u[1] * ratio, u[0] * ratio] as const;
  const from = numberOf(item, 41, 0);
  return arcPath(
    [numberOf(item, 10), numberOf(item, 20)],
    u,
    v,
    from,
    endAfter(from, numberOf(item, 42, 2 * Math.PI)),
  );
}

/** Points with the bulge of what follows each. */
export interface Vertex {
  readonly x: number;
  readonly y: number;
  readonly bulge: number;
}

export function polylinePath(vertices: readonly Vertex[], closed: boolean): Path | undefined {
  if (vertices.length < 2) return undefined;
  const xy = [vertices[0].x, vertices[0].y];
  let ops = 'M';
  const count = closed ? vertices.length : vertices.length - 1;
  for (let i = 0; i < count; i++) {
    const to = vertices[(i + 1) % vertices.length];
    ops += addBulge(xy, to.x, to.y, vertices[i].bulge);
  }
  return { ops: closed ? `${ops}Z` : ops, xy };
}

export function lwVertices(item: Item): Vertex[] {
  const out: { x: number; y: number; bulge: number }[] = [];
  for (const { code, value } of item.groups) {
    if (code === 10) out.push({ x: finite(value), y: 0, bulge: 0 });
    else if (code === 20 && out.length > 0) out[out.length - 1].y = finite(value);
    else if (code === 42 && out.length > 0) out[out.length - 1].bulge = finite(value);
  }
  return out;
}

export interface Spline {
  readonly degree: number;
  readonly knots: readonly number[];
  /** x, y, weight */
  readonly control: readonly (readonly [number, number, number])[];
  readonly fit: readonly (readonly [number, number])[];
  readonly closed: boolean;
}

export function splineOf(item: Item): Spline {
  const knots: number[] = [];
  const weights: number[] = [];
  const control: [number, number][] = [];
  const fit: [number, number][] = [];
  for (const { code, value } of item.groups) {
    if (code === 40) knots.push(finite(value));
    else if (code === 41) weights.push(finite(value));
    else if (code === 10) control.push([finite(value), 0]);
    else if (code === 20 && control.length > 0) control[control.length - 1][1] = finite(value);
    else if (code === 11) fit.push([finite(value), 0]);
    else if (code === 21 && fit.length > 0) fit[fit.length - 1][1] = finite(value);
  }
  return {
    degree: numberOf(item, 71, 3),
    knots,
    control: control.map(([x, y], i) => [x, y, weights[i] ?? 1]),
    fit,
    closed: (numberOf(item, 70) & 1) === 1,
  };
}

/** Cubics in each stretch between two knots: the error of a cubic falls with the fourth power of its length. */
const PARTS = 8;

/** A rational B-spline as cubics through its own points with its own tangents. */
export function splinePath({ degree, knots, control, fit, closed }: Spline): Path | undefined {
  if (control.length < 2) return fit.length < 2 ? undefined : throughPoints(fit, closed);
  const p = Math.min(degree, control.length - 1);
  if (knots.length < control.length + p + 1 || p < 1) return undefined;
  const xy: number[] = [];
  let ops = '';
  for (let k = p; k < control.length; k++) {
    const a = knots[k];
    const b = knots[k + 1];
    if (!(b > a)) continue;
    for (let i = 0; i < PARTS; i++) {
      const from = a + ((b - a) * i) / PARTS;
      const to = a + ((b - a) * (i + 1)) / PARTS;
      const start = pointOn(p, knots, control, k, from);
      const end = pointOn(p, knots, control, k, to);
      const third = (to - from) / 3;
      if (ops === '') {
        ops = 'M';
        xy.push(start.x, start.y);
      }
      ops += 'C';
      xy.push(start.x + start.dx * third, start.y + start.dy * third);
      xy.push(end.x - end.dx * third, end.y - end.dy * third, end.x, end.y);
    }
  }
  const n = xy.length;
  const meets =
    n > 6 &&
    Math.hypot(xy[0] - xy[n - 2], xy[1] - xy[n - 1]) < 1e-9 * (1 + Math.abs(xy[0]) + Math.abs(xy[1]));
  return ops === '' ? undefined : { ops: closed || meets ? `${ops}Z` : ops, xy };
}

interface OnCurve {
  readonly x: number;
  readonly y: number;
  readonly dx: number;
  readonly dy: number;
}

/** Point and derivative by de Boor's algorithm on weighted points (de Boor 1972); `k` is the knot span. */
function pointOn(
  p: number,
  knots: readonly number[],
  control: Spline['control'],
  k: number,
  t: number,
): OnCurve {
  let d = Array.from({ length: p + 1 }, (_, j) => {
    const [x, y, w] = control[j + k - p];
    return [x * w, y * w, w];
  });
  let last = d;
  for (let r = 1; r <= p; r++) {
    last = d;
    d = d.map((point, j) => {
      if (j < r) return point;
      const low = knots[j + k - p];
      const a = (t - low) / (knots[j + 1 + k - r] - low);
      return point.map((value, axis) => (1 - a) * last[j - 1][axis] + a * value);
    });
  }
  const [x, y, w] = d[p];
  // the last two points before the end span the tangent
  const scale = p / (knots[k + 1] - knots[k]);
  const [wx, wy, ww] = [0, 1, 2].map((axis) => scale * (last[p][axis] - last[p - 1][axis]));
  return { x: x / w, y: y / w, dx: (wx - (x / w) * ww) / w, dy: (wy - (y / w) * ww) / w };
}

/** A smooth line through points (Catmull & Rom 1974), for splines that are given by fit points only. */
function throughPoints(points: readonly (readonly [number, number])[], closed: boolean): Path {
  const n = points.length;
  const at = (i: number): readonly [number, number] =>
    closed ? points[(i + n) % n] : points[Math.max(0, Math.min(n - 1, i))];
  const xy = [...points[0]];
  let ops = 'M';
  for (let i = 0; i < (closed ? n : n - 1); i++) {
    const [a, b, c, d] = [at(i - 1), at(i), at(i + 1), at(i + 2)];
    xy.push(b[0] + (c[0] - a[0]) / 6, b[1] + (c[1] - a[1]) / 6);
    xy.push(c[0] - (d[0] - b[0]) / 6, c[1] - (d[1] - b[1]) / 6, c[0], c[1]);
    ops += 'C';
  }
  return { ops: closed ? `${ops}Z` : ops, xy };
}
