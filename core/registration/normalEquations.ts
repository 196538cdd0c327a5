/**
 * Least squares by normal equations, summed up row by row: several times quicker than by orthogonal turns, for a few unknowns
 * of about the same size whose columns are far from alike.
 */

export interface NormalSolution {
  readonly unknowns: Float64Array;
  /** Of the unknowns for values that vary by 1, row by row. */
  readonly covariance: Float64Array;
  /** Sum of squares of what is left. */
  readonly rss: number;
  /** Values less unknowns. */
  readonly freedom: number;
}

export interface Normal {
  /** One equation: its coefficients and its value. */
  readonly add: (row: readonly number[], value: number) => void;
  /** @returns undefined: the equations do not tell all unknowns */
  readonly solve: () => NormalSolution | undefined;
}

/** A pivot below this share of the largest is none. */
const NOTHING = 1e-12;

export function createNormal(n: number): Normal {
  const matrix = new Float64Array(n * n);
  const right = new Float64Array(n);
  let [squares, rows] = [0, 0];
  return {
    add: (row, value) => {
      for (let i = 0; i < n; i++) {
        right[i] += row[i] * value;
        for (let j = 0; j <= i; j++) matrix[i * n + j] += row[i] * row[j];
      }
      squares += value * value;
      rows++;
    },
    solve: () => {
      const covariance = inverse(matrix, n);
      if (!covariance || rows <= n) return undefined;
      const unknowns = new Float64Array(n);
      for (let i = 0; i < n; i++) for (let j = 0; j < n; j++) unknowns[i] += covariance[i * n + j] * right[j];
      let explained = 0;
      for (let i = 0; i < n; i++) explained += unknowns[i] * right[i];
      return { unknowns, covariance, rss: Math.max(0, squares - explained), freedom: rows - n };
    },
  };
}

/** Of a symmetric matrix of which the lower half is given, by elimination (Gauss & Jordan); all its pivots lie on the diagonal. */
function inverse(lower: Float64Array, n: number): Float64Array | undefined {
  const a = new Float64Array(n * n);
  const out = new Float64Array(n * n);
  let largest = 0;
  for (let i = 0; i < n; i++) {
    out[i * n + i] = 1;
    for (let j = 0; j <= i; j++) a[i * n + j] = a[j * n + i] = lower[i * n + j];
    largest = Math.max(largest, a[i * n + i]);
  }
  for (let k = 0; k < n; k++) {
    const pivot = a[k * n + k];
    if (!(pivot > NOTHING * largest)) return undefined;
    for (let j = 0; j < n; j++) {
      a[k * n + j] /= pivot;
      out[k * n + j] /= pivot;
    }
    for (let i = 0; i < n; i++) {
      const by = a[i * n + k];
      if (i === k || by === 0) continue;
      for (let j = 0; j < n; j++) {
        a[i * n + j] -= by * a[k * n + j];
        out[i * n + j] -= by * out[k * n + j];
      }
    }
  }
  return out;
}
