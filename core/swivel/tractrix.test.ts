import { describe, expect, test } from '@jest/globals';
import { deviationOf } from './deviation';
import { dragStraight, tipPath } from './tractrix';

describe('tractrix', () => {
  test('the closed form agrees with small steps of the differential equation dφ/ds = −sin φ / d', () => {
    const d = 0.25;
    for (const start of [0.3, 1.2, 2.8, -2]) {
      let angle = start;
      const steps = 200_000;
      const length = 0.7;
      for (let i = 0; i < steps; i++) angle -= (Math.sin(angle) / d) * (length / steps);
      expect(dragStraight(start, 0, 0, length, 0, d)).toBeCloseTo(angle, 4);
    }
  });

  test('two halves of a move are the whole move', () => {
    const whole = dragStraight(2, 1, 1, 4, 5, 0.4);
    expect(dragStraight(dragStraight(2, 1, 1, 2.5, 3, 0.4), 2.5, 3, 4, 5, 0.4)).toBeCloseTo(whole, 12);
  });

  test('the rod keeps its length and the tip ends up straight behind', () => {
    const { points, angle } = tipPath([0, 0, 20, 0], 0.25, 2.5);
    expect(Math.hypot(points[0], points[1])).toBeCloseTo(0.25, 12);
    expect(points[points.length - 2]).toBeCloseTo(19.75, 9);
    expect(angle).toBeCloseTo(0, 9);
  });

  test('a holder on a circle of radius R drags the tip onto a circle of √(R² − d²)', () => {
    const holder = Array.from({ length: 20_001 }, (_, i) => [
      10 * Math.cos(i / 1000),
      10 * Math.sin(i / 1000),
    ]).flat();
    const { points } = tipPath(holder, 3, 0, 1);
    expect(Math.hypot(points[points.length - 2], points[points.length - 1])).toBeCloseTo(Math.sqrt(91), 3);
  });

  test('without an offset the tip is the holder', () => {
    expect(Array.from(tipPath([1, 2, 3, 4], 0, 1).points)).toEqual([1, 2, 3, 4]);
  });
});

describe('deviation', () => {
  const square = [Float64Array.of(0, 0, 10, 0, 10, 10, 0, 10)];

  test('a cut that rounds a corner off is found at the corner', () => {
    const rounded = [Float64Array.of(0, 0, 9, 0, 10, 1, 10, 10, 0, 10, 0, 0)];
    const { largest, at } = deviationOf(rounded, square);
    expect(largest).toBeCloseTo(Math.SQRT1_2, 9);
    expect(at).toEqual([10, 0]);
  });

  test('an outline that was not cut at all is as far off as can be told', () => {
    expect(
      deviationOf(
        [Float64Array.of(0, 0, 10, 0, 10, 10, 0, 10, 0, 0)],
        [...square, Float64Array.of(90, 0, 95, 0, 95, 5)],
      ).largest,
    ).toBe(25);
  });
});
