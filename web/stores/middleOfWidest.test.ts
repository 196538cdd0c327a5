import { expect, test } from '@jest/globals';
import { middleOfWidest } from './middleOfWidest';

test.each([
  [0, 100, [], 50],
  [0, 100, [20], 60],
  [0, 100, [70, 20], 45],
  [0, 100, [50], 25],
  // what lies outside is no edge
  [10, 50, [-5, 90], 30],
])('from %d to %d beside %j: %d', (from, to, places, middle) => {
  expect(middleOfWidest(from, to, places)).toBe(middle);
});
