/** How likely a ratio of two variances is by chance. */

/** Enough to stand for a variance that is known. */
export const KNOWN = 1e6;

/**
 * The share of chance that lies above x: F distribution with so many degrees of freedom above and below; {@link KNOWN}
 * below makes it the χ² distribution of x times `above`. By the continued fraction of the incomplete beta function (Press et
 * al., Numerical Recipes, 6.4; from memory).
 */
export function beyondF(x: number, above: number, below: number): number {
  if (!(x > 0)) return 1;
  if (x === Infinity) return 0;
  return incompleteBeta(below / (below + above * x), below / 2, above / 2, (above * x) / (below + above * x));
}

/** @param rest 1 − x, where x is so near 1 that it would be lost */
function incompleteBeta(x: number, a: number, b: number, rest: number): number {
  const front = Math.exp(
    logGamma(a + b) - logGamma(a) - logGamma(b) + a * logOf(x, rest) + b * logOf(rest, x),
  );
  return x < (a + 1) / (a + b + 2)
    ? (front * betaFraction(x, a, b)) / a
    : 1 - (front * betaFraction(rest, b, a)) / b;
}

const logOf = (x: number, rest: number): number => (x > 0.5 ? Math.log1p(-rest) : Math.log(x));

const TINY = 1e-300;
const PRECISE = 1e-15;
const MOST_TERMS = 100_000;

/** Lentz's way from the front. */
function betaFraction(x: number, a: number, b: number): number {
  const kept = (value: number): number => (Math.abs(value) < TINY ? TINY : value);
  let c = 1;
  let d = 1 / kept(1 - ((a + b) * x) / (a + 1));
  let h = d;
  for (let m = 1; m < MOST_TERMS; m++) {
    const even = (m * (b - m) * x) / ((a + 2 * m - 1) * (a + 2 * m));
    d = 1 / kept(1 + even * d);
    c = kept(1 + even / c);
    h *= d * c;
    const odd = (-(a + m) * (a + b + m) * x) / ((a + 2 * m) * (a + 2 * m + 1));
    d = 1 / kept(1 + odd * d);
    c = kept(1 + odd / c);
    h *= d * c;
    if (Math.abs(d * c - 1) < PRECISE) break;
  }
  return h;
}

/** Stirling's series, from 10 on upwards where it is precise; below, by Γ(x + 1) = x · Γ(x). */
function logGamma(x: number): number {
  let [at, off] = [x, 0];
  while (at < 10) off += Math.log(at++);
  const inv = 1 / (at * at);
  const series = (1 / 12 - inv * (1 / 360 - inv * (1 / 1260 - inv * (1 / 1680 - inv / 1188)))) / at;
  return (at - 0.5) * Math.log(at) - at + 0.5 * Math.log(2 * Math.PI) + series - off;
}
