import type { Path } from './path';

/** Arcs are cut into parts of at most this many radians: a cubic then lies within 4e-7 of the radius. */
const LARGEST_PART = Math.PI / 6;

/**
 * Adds an elliptic arc as cubics to `xy`, its start point left out: centre + cos t · u + sin t · v for t from → to.
 * Control points at 4/3 · tan(Δt/4) along the tangents (Goldapp, Approximation of circular arcs by cubic
 * polynomials, 1991).
 * @returns the ops of what was added
 */
export function addArc(
  xy: number[],
  [cx, cy]: readonly [number, number],
  [ux, uy]: readonly [number, number],
  [vx, vy]: readonly [number, number],
  from: number,
  to: number,
): string {
  const parts = Math.max(1, Math.ceil(Math.abs(to - from) / LARGEST_PART - 1e-9));
  const step = (to - from) / parts;
  const k = (4 / 3) * Math.tan(step / 4);
  for (let i = 0; i < parts; i++) {
    const a = from + i * step;
    const b = a + step;
    const [ca, sa, cb, sb] = [Math.cos(a), Math.sin(a), Math.cos(b), Math.sin(b)];
    const [p, q, r, s] = [ca - k * sa, sa + k * ca, cb + k * sb, sb - k * cb];
    xy.push(cx + p * ux + q * vx, cy + p * uy + q * vy);
    xy.push(cx + r * ux + s * vx, cy + r * uy + s * vy);
    xy.push(cx + cb * ux + sb * vx, cy + cb * uy + sb * vy);
  }
  return 'C'.repeat(parts);
}

/** An arc of an ellipse as an open path; a whole turn is closed. */
export function arcPath(
  centre: readonly [number, number],
  u: readonly [number, number],
  v: readonly [number, number],
  from: number,
  to: number,
): Path {
  const [c, s] = [Math.cos(from), Math.sin(from)];
  const xy = [centre[0] + c * u[0] + s * v[0], centre[1] + c * u[1] + s * v[1]];
  const ops = `M${addArc(xy, centre, u, v, from, to)}`;
  return { ops: Math.abs(to - from) > 2 * Math.PI - 1e-9 ? `${ops}Z` : ops, xy };
}

/** Adds the arc of a polyline's bulge (tangent of a quarter of its angle, above nought to the left) from the last point. */
export function addBulge(xy: number[], x: number, y: number, bulge: number): string {
  const x0 = xy[xy.length - 2];
  const y0 = xy[xy.length - 1];
  const chord = Math.hypot(x - x0, y - y0);
  if (chord === 0 || Math.abs(bulge) < 1e-12) {
    xy.push(x, y);
    return 'L';
  }
  const angle = 4 * Math.atan(bulge);
  const offset = chord / 2 / Math.tan(angle / 2);
  const cx = (x0 + x) / 2 - ((y - y0) / chord) * offset;
  const cy = (y0 + y) / 2 + ((x - x0) / chord) * offset;
  const radius = Math.hypot(x0 - cx, y0 - cy);
  const start = Math.atan2(y0 - cy, x0 - cx);
  const ops = addArc(xy, [cx, cy], [radius, 0], [0, radius], start, start + angle);
  // exactly where the polyline says, not where rounding puts it
  xy[xy.length - 2] = x;
  xy[xy.length - 1] = y;
  return ops;
}
