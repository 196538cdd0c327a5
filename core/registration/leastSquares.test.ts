/** Against the Statistical Reference Datasets of NIST (StRD, linear regression), with their certified values. */
import { describe, expect, test } from '@jest/globals';
import { beyondF, KNOWN } from './fDistribution';
import { leastSquares } from './leastSquares';

/** Digits that agree, as NIST counts them. */
const digits = (found: number, certified: number): number =>
  found === certified ? 15 : -Math.log10(Math.abs(found - certified) / Math.abs(certified));

function fit(rows: number[][], right: number[]) {
  const { unknowns, rss, freedom, covariance } = leastSquares(rows, right)!;
  const n = unknowns.length;
  const sigma = Math.sqrt(rss / freedom);
  return {
    unknowns,
    sigma,
    errors: Array.from(unknowns, (_, i) => sigma * Math.sqrt(covariance[i * n + i])),
  };
}

// NIST StRD Norris (1979): lower level of difficulty
const NORRIS =
  `0.1 0.2 338.8 337.4 118.1 118.2 888.0 884.6 9.2 10.1 228.1 226.5 668.5 666.3 998.5 996.3 449.1 448.6 778.9 777.0
  559.2 558.2 0.3 0.4 0.1 0.6 778.1 775.5 668.8 666.9 339.3 338.0 448.9 447.5 10.8 11.6 557.7 556.0 228.3 228.1
  998.0 995.8 888.8 887.6 119.6 120.2 0.3 0.3 0.6 0.3 557.6 556.8 339.3 339.1 888.0 887.2 998.5 999.0 778.9 779.0
  10.2 11.1 117.6 118.3 228.9 229.2 668.4 669.1 449.2 448.9 0.2 0.5`
    .split(/\s+/)
    .map(Number);

// NIST StRD Longley (1967): columns that nearly depend on one another
const LONGLEY = `60323 83.0 234289 2356 1590 107608 1947  61122 88.5 259426 2325 1456 108632 1948
  60171 88.2 258054 3682 1616 109773 1949  61187 89.5 284599 3351 1650 110929 1950
  63221 96.2 328975 2099 3099 112075 1951  63639 98.1 346999 1932 3594 113270 1952
  64989 99.0 365385 1870 3547 115094 1953  63761 100.0 363112 3578 3350 116219 1954
  66019 101.2 397469 2904 3048 117388 1955  67857 104.6 419180 2822 2857 118734 1956
  68169 108.4 442769 2936 2798 120445 1957  66513 110.8 444546 4681 2637 121950 1958
  68655 112.6 482704 3813 2552 123366 1959  69564 114.2 502601 3931 2514 125368 1960
  69331 115.7 518173 4806 2572 127852 1961  70551 116.9 554894 4007 2827 130081 1962`
  .split(/\s+/)
  .map(Number);

describe('the solver', () => {
  test('Norris', () => {
    const pairs = NORRIS.flatMap((y, i) => (i % 2 === 0 ? [[y, NORRIS[i + 1]]] : []));
    const { unknowns, errors, sigma } = fit(
      pairs.map(([, x]) => [1, x]),
      pairs.map(([y]) => y),
    );
    expect(digits(unknowns[0], -0.262323073774029)).toBeGreaterThan(11);
    expect(digits(unknowns[1], 1.00211681802045)).toBeGreaterThan(13);
    expect(digits(errors[0], 0.232818234301152)).toBeGreaterThan(11);
    expect(digits(errors[1], 0.429796848199937e-3)).toBeGreaterThan(11);
    expect(digits(sigma, 0.884796396144373)).toBeGreaterThan(11);
  });

  test('NoInt1: through the origin', () => {
    // NIST StRD NoInt1 (Eberhardt): average level of difficulty
    const rows = Array.from({ length: 11 }, (_, i) => [60 + i]);
    const { unknowns, errors } = fit(
      rows,
      rows.map(([x]) => x + 70),
    );
    expect(digits(unknowns[0], 2.07438016528926)).toBeGreaterThan(13);
    expect(digits(errors[0], 0.165289256198347e-1)).toBeGreaterThan(12);
  });

  test('Longley', () => {
    const rows = Array.from({ length: 16 }, (_, i) => LONGLEY.slice(7 * i, 7 * i + 7));
    const { unknowns, sigma, errors } = fit(
      rows.map(([, ...x]) => [1, ...x]),
      rows.map(([y]) => y),
    );
    const certified = [
      -3482258.63459582, 15.0618722713733, -0.35819179292591e-1, -2.02022980381683, -1.03322686717359,
      -0.511041056535807e-1, 1829.15146461355,
    ];
    certified.forEach((value, i) => expect(digits(unknowns[i], value)).toBeGreaterThan(10));
    expect(digits(errors[0], 890420.383607373)).toBeGreaterThan(10);
    expect(digits(sigma, 304.854073561965)).toBeGreaterThan(11);
  });

  test.each([
    ['Wampler1', (x: number) => 1 + x + x ** 2 + x ** 3 + x ** 4 + x ** 5, [1, 1, 1, 1, 1, 1]],
    [
      'Wampler2',
      (x: number) => 1 + x / 10 + x ** 2 / 100 + x ** 3 / 1000 + x ** 4 / 1e4 + x ** 5 / 1e5,
      [1, 0.1, 0.01, 1e-3, 1e-4, 1e-5],
    ],
  ])('%s: a polynomial of the fifth degree, exactly', (_, polynomial, certified) => {
    const xs = Array.from({ length: 21 }, (_unused, i) => i);
    const { unknowns } = fit(
      xs.map((x) => [1, x, x ** 2, x ** 3, x ** 4, x ** 5]),
      xs.map(polynomial),
    );
    certified.forEach((value, i) => expect(digits(unknowns[i], value)).toBeGreaterThan(9));
  });

  test('says when the equations do not tell', () => {
    expect(leastSquares([[1, 2], [2, 4], [3, 6]], [1, 2, 3])).toBeUndefined(); // prettier-ignore
    expect(leastSquares([[1, 2]], [1])).toBeUndefined();
    expect(leastSquares([], [])).toBeUndefined();
  });
});

describe('F distribution', () => {
  test('as in its closed forms', () => {
    for (const x of [0.01, 0.3, 1, 2.5, 17]) {
      // two above: (1 + 2x/n)^(−n/2); one and one: arctangent; two above, variance known: e^−x
      for (const n of [1, 3, 10, 200])
        expect(beyondF(x, 2, n)).toBeCloseTo((1 + (2 * x) / n) ** (-n / 2), 12);
      expect(beyondF(x, 1, 1)).toBeCloseTo(1 - (2 / Math.PI) * Math.atan(Math.sqrt(x)), 12);
      expect(beyondF(x, 2, KNOWN)).toBeCloseTo(Math.exp(-x), 5);
      expect(beyondF(x, 5, 7)).toBeCloseTo(1 - beyondF(1 / x, 7, 5), 12);
    }
  });

  test('as in printed tables: 5 % and 1 % (Abramowitz & Stegun 26.9 and 26.8, from memory)', () => {
    for (const [x, above, below, share] of [
      [4.965, 1, 10, 0.05],
      [3.326, 5, 10, 0.05],
      [10.04, 1, 10, 0.01],
      [9.488 / 4, 4, KNOWN, 0.05],
      [13.277 / 4, 4, KNOWN, 0.01],
    ])
      expect(Math.abs(beyondF(x, above, below) - share)).toBeLessThan(share * 0.002);
    expect([beyondF(0, 3, 3), beyondF(Infinity, 3, 3)]).toEqual([1, 0]);
  });
});
