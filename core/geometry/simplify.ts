import type { Polyline } from './path';

/**
 * Leaves out points that lie within `tolerance` of the line without them (Ramer 1972; Douglas & Peucker 1973).
 * A closed line is taken apart at its first point and the one farthest from it.
 * @param tolerance mm
 */
export function simplify({ points, closed }: Polyline, tolerance: number): Polyline {
  const n = points.length / 2;
  if (n < (closed ? 4 : 3)) return { points, closed };
  const keep = new Uint8Array(n);
  if (closed) {
    const far = farthestFrom(points, 0);
    keep[0] = keep[far] = 1;
    keepBetween(points, 0, far, tolerance, keep);
    keepBetween(points, far, n, tolerance, keep);
  } else {
    keep[0] = keep[n - 1] = 1;
    keepBetween(points, 0, n - 1, tolerance, keep);
  }
  const kept: number[] = [];
  for (let i = 0; i < n; i++) if (keep[i]) kept.push(points[2 * i], points[2 * i + 1]);
  return kept.length >= (closed ? 6 : 4) ? { points: Float64Array.from(kept), closed } : { points, closed };
}

function farthestFrom(points: Float64Array, from: number): number {
  let far = 0;
  let most = -1;
  for (let i = 0; i < points.length / 2; i++) {
    const [dx, dy] = [points[2 * i] - points[2 * from], points[2 * i + 1] - points[2 * from + 1]];
    const d = dx * dx + dy * dy;
    if (d > most) [far, most] = [i, d];
  }
  return far;
}

function keepBetween(points: Float64Array, a: number, b: number, tolerance: number, keep: Uint8Array): void {
  // spans that are still to be looked at: from, to, from, to …
  const open = [a, b];
  while (open.length > 0) {
    const to = open.pop()!;
    const from = open.pop()!;
    const at = farthestBetween(points, from, to, tolerance);
    if (at < 0) continue;
    keep[at] = 1;
    open.push(from, at, at, to);
  }
}

/**
 * The point between two that lies farthest from the line from one to the other; -1 when all lie within the tolerance.
 * @param to may be the number of points: the first of a closed line once more
 */
export function farthestBetween(points: Float64Array, from: number, to: number, tolerance: number): number {
  const ax = points[2 * from];
  const ay = points[2 * from + 1];
  const end = 2 * to === points.length ? 0 : 2 * to;
  const dx = points[end] - ax;
  const dy = points[end + 1] - ay;
  const length2 = dx * dx + dy * dy;
  let worst = tolerance * tolerance;
  let at = -1;
  for (let i = from + 1; i < to; i++) {
    const px = points[2 * i] - ax;
    const py = points[2 * i + 1] - ay;
    const t = length2 > 0 ? Math.max(0, Math.min(1, (px * dx + py * dy) / length2)) : 0;
    const x = px - t * dx;
    const y = py - t * dy;
    const d = x * x + y * y;
    if (d > worst) {
      worst = d;
      at = i;
    }
  }
  return at;
}
