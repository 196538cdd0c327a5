/** Linear least squares, as exact as the numbers allow. */

/** The best solution of more equations than unknowns. */
export interface Solved {
  readonly unknowns: Float64Array;
  /** Sum of squared residuals, weights counted in. */
  readonly rss: number;
  /** Of the unknowns for residuals of variance 1, row by row; undefined when there are no more equations than unknowns. */
  readonly covariance: Float64Array;
  /** Equations less unknowns. */
  readonly freedom: number;
}

/** Less of a column than this share, once what other columns explain is taken out, tells nothing. */
const DEPENDENT = 1e-11;

/**
 * Solves A·x ≈ b by Householder reflections (Golub & Van Loan, Matrix Computations, 5.3; from memory), columns scaled to
 * length 1 first, and improves what was found once by its residuals.
 * @param rows equations, each with as many numbers as there are unknowns
 * @param right their right sides
 * @returns undefined: the equations do not tell all unknowns apart
 */
export function leastSquares(
  rows: readonly (readonly number[])[],
  right: readonly number[],
): Solved | undefined {
  const [m, n] = [rows.length, rows[0]?.length ?? 0];
  if (n === 0 || m < n) return undefined;
  const scales = columnLengths(rows, n);
  if (scales.some((length) => !(length > 0))) return undefined;
  const scaled = rows.map((row) => row.map((value, j) => value / scales[j]));
  const factors = factored(scaled, n);
  if (!factors) return undefined;
  const first = solve(factors, right);
  const off = right.map((b, i) => b - dot(scaled[i], first));
  const more = solve(factors, off);
  const x = first.map((value, j) => value + more[j]);
  const rss = right.reduce((sum, b, i) => sum + (b - dot(scaled[i], x)) ** 2, 0);
  return {
    unknowns: x.map((value, j) => value / scales[j]),
    rss,
    covariance: covarianceOf(factors, scales),
    freedom: m - n,
  };
}

const dot = (a: readonly number[], b: Float64Array): number =>
  a.reduce((sum, value, j) => sum + value * b[j], 0);

const columnLengths = (rows: readonly (readonly number[])[], n: number): number[] =>
  Array.from({ length: n }, (_, j) => lengthOf(rows.map((row) => row[j])));

const lengthOf = (vector: ArrayLike<number>): number => {
  let sum = 0;
  for (let i = 0; i < vector.length; i++) sum += vector[i] * vector[i];
  return Math.sqrt(sum);
};

/** R above the diagonal and on it; the reflections that made it. */
interface Factors {
  readonly r: readonly Float64Array[];
  readonly reflections: readonly Float64Array[];
  readonly n: number;
}

function factored(rows: readonly (readonly number[])[], n: number): Factors | undefined {
  const a = rows.map((row) => Float64Array.from(row));
  const reflections: Float64Array[] = [];
  for (let k = 0; k < n; k++) {
    const v = Float64Array.from(a, (row, i) => (i < k ? 0 : row[k]));
    const length = lengthOf(v);
    if (length < DEPENDENT) return undefined;
    v[k] += v[k] < 0 ? -length : length;
    const norm = lengthOf(v);
    for (let i = k; i < v.length; i++) v[i] /= norm;
    for (let j = k; j < n; j++) {
      const along = 2 * a.reduce((sum, row, i) => sum + v[i] * row[j], 0);
      for (let i = k; i < a.length; i++) a[i][j] -= along * v[i];
    }
    reflections.push(v);
  }
  return { r: a.slice(0, n), reflections, n };
}

function solve({ r, reflections, n }: Factors, right: readonly number[]): Float64Array {
  const b = Float64Array.from(right);
  for (const v of reflections) {
    const along = 2 * v.reduce((sum, value, i) => sum + value * b[i], 0);
    for (let i = 0; i < b.length; i++) b[i] -= along * v[i];
  }
  const x = new Float64Array(n);
  for (let k = n - 1; k >= 0; k--) {
    let rest = b[k];
    for (let j = k + 1; j < n; j++) rest -= r[k][j] * x[j];
    x[k] = rest / r[k][k];
  }
  return x;
}

/** (RᵀR)⁻¹, back in the columns' own lengths. */
function covarianceOf({ r, n }: Factors, scales: readonly number[]): Float64Array {
  // the rows of R⁻¹, from the last on
  const inverse = Array.from({ length: n }, () => new Float64Array(n));
  for (let k = n - 1; k >= 0; k--) {
    inverse[k][k] = 1 / r[k][k];
    for (let j = k + 1; j < n; j++) {
      let sum = 0;
      for (let i = k + 1; i <= j; i++) sum += r[k][i] * inverse[i][j];
      inverse[k][j] = -sum / r[k][k];
    }
  }
  const out = new Float64Array(n * n);
  for (let i = 0; i < n; i++)
    for (let j = 0; j < n; j++) {
      let sum = 0;
      for (let k = Math.max(i, j); k < n; k++) sum += inverse[i][k] * inverse[j][k];
      out[i * n + j] = sum / (scales[i] * scales[j]);
    }
  return out;
}
