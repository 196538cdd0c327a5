import { expect, test } from '@jest/globals';
import { gaussian, random } from '../random';
import { leastSquares } from './leastSquares';
import { createNormal } from './normalEquations';

test('gives what orthogonal turns give, its covariance too', () => {
  const [next, noise] = [random(3), gaussian(4, 0.1)];
  const rows = Array.from({ length: 40 }, () => [1, next(), next() - 0.5, next() ** 2]);
  const values = rows.map(([a, b, c, d]) => 2 * a - b + 3 * c + 0.5 * d + noise());
  const normal = createNormal(4);
  rows.forEach((row, i) => normal.add(row, values[i]));
  const [mine, theirs] = [normal.solve()!, leastSquares(rows, values)!];
  expect(mine.freedom).toBe(theirs.freedom);
  expect(mine.rss).toBeCloseTo(theirs.rss, 9);
  mine.unknowns.forEach((value, i) => expect(value).toBeCloseTo(theirs.unknowns[i], 9));
  mine.covariance.forEach((value, i) => expect(value).toBeCloseTo(theirs.covariance[i], 9));
});

test('what does not tell all unknowns is said', () => {
  const alike = createNormal(2);
  for (let i = 0; i < 9; i++) alike.add([1, 1], i);
  expect(alike.solve()).toBeUndefined();
  const few = createNormal(2);
  few.add([1, 2], 3);
  few.add([2, 1], 3);
  expect(few.solve()).toBeUndefined();
});
