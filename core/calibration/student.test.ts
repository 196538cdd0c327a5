import { describe, expect, test } from '@jest/globals';
import { studentWithin } from './student';

describe("Student's t", () => {
  // two-sided, from the table of percentage points in Abramowitz & Stegun, Handbook of Mathematical Functions, 26.10
  // (from memory; the first column is also tan(πp/2) in closed form)
  const TABLE = [
    [1, 0.95, 12.706],
    [1, 0.99, 63.657],
    [2, 0.95, 4.303],
    [3, 0.9, 2.353],
    [4, 0.95, 2.776],
    [6, 0.95, 2.447],
    [8, 0.99, 3.355],
    [10, 0.95, 2.228],
    [20, 0.95, 2.086],
    [30, 0.99, 2.75],
    [120, 0.95, 1.98],
  ] as const;

  test.each(TABLE)('%d degrees of freedom, within %d: %d', (freedom, share, t) => {
    expect(studentWithin(share, freedom)).toBeCloseTo(t, 2.9);
  });

  test('one degree of freedom is the tangent, two have a closed form, many the normal distribution', () => {
    for (const share of [0.5, 0.8, 0.95, 0.999]) {
      expect(studentWithin(share, 1)).toBeCloseTo(Math.tan((Math.PI * share) / 2), 6);
      expect(studentWithin(share, 2)).toBeCloseTo(share * Math.sqrt(2 / (1 - share * share)), 8);
    }
    // the normal's 97.5 % point
    expect(studentWithin(0.95, 1e6)).toBeCloseTo(1.959964, 4);
  });
});
