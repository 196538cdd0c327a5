/** Affine maps of the plane, in SVG's order: x' = a·x + c·y + e, y' = b·x + d·y + f. */
export type Matrix = readonly [a: number, b: number, c: number, d: number, e: number, f: number];

export const IDENTITY: Matrix = [1, 0, 0, 1, 0, 0];

/** The map that applies `inner` first and `outer` after it. */
export function multiply(outer: Matrix, inner: Matrix): Matrix {
  const [a, b, c, d, e, f] = outer;
  const [A, B, C, D, E, F] = inner;
  return [a * A + c * B, b * A + d * B, a * C + c * D, b * C + d * D, a * E + c * F + e, b * E + d * F + f];
}

export const translation = (x: number, y: number): Matrix => [1, 0, 0, 1, x, y];

export const scaling = (x: number, y: number = x): Matrix => [x, 0, 0, y, 0, 0];

/** Signed area factor; below 0 the map mirrors. */
export const determinant = (m: Matrix): number => m[0] * m[3] - m[1] * m[2];

/** The map back. @throws RangeError for one that flattens everything onto a line */
export function inverse(m: Matrix): Matrix {
  const by = determinant(m);
  if (by === 0) throw new RangeError('a map that flattens has no way back');
  const [a, b, c, d] = [m[3] / by, -m[1] / by, -m[2] / by, m[0] / by];
  return [a, b, c, d, -(a * m[4] + c * m[5]), -(b * m[4] + d * m[5])];
}

/** The largest factor by which the map stretches any length: its larger singular value. */
export function stretch(m: Matrix): number {
  const [a, b, c, d] = m;
  const s = a * a + b * b + c * c + d * d;
  const det = a * d - b * c;
  return Math.sqrt((s + Math.sqrt(Math.max(0, s * s - 4 * det * det))) / 2);
}

/**
 * Points x, y, x, y … mapped into `out`: the one place where an affine map meets coordinates.
 * @returns out
 */
export function mapPoints<T extends number[] | Float64Array>(
  xy: ArrayLike<number>,
  [a, b, c, d, e, f]: Matrix,
  out: T,
): T {
  for (let i = 0; i < xy.length; i += 2) {
    const [x, y] = [xy[i], xy[i + 1]];
    out[i] = a * x + c * y + e;
    out[i + 1] = b * x + d * y + f;
  }
  return out;
}

/** The points mapped, as a list of their own. */
export const mapped = (xy: ArrayLike<number>, m: Matrix): Float64Array =>
  mapPoints(xy, m, new Float64Array(xy.length));
