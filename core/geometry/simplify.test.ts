import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { nearestOnLine } from './nearestOnLine';
import { simplify } from './simplify';

const coordinate = fc.double({ min: -500, max: 500, noNaN: true });
const points = fc
  .array(fc.tuple(coordinate, coordinate), { minLength: 3, maxLength: 60 })
  .map((all) => Float64Array.from(all.flat()));
const pointsOf = (xy: Float64Array): (readonly [number, number])[] =>
  Array.from({ length: xy.length / 2 }, (_, i) => [xy[2 * i], xy[2 * i + 1]] as const);

describe('a line with fewer points', () => {
  test('no point that was left out lies further off than the tolerance (Douglas & Peucker 1973)', () => {
    fc.assert(
      fc.property(
        points,
        fc.boolean(),
        fc.double({ min: 0.01, max: 40, noNaN: true }),
        (xy, closed, tolerance) => {
          const { points: kept } = simplify({ points: xy, closed }, tolerance);
          for (const at of pointsOf(xy))
            expect(nearestOnLine(kept, closed, at).distance).toBeLessThanOrEqual(tolerance + 1e-9);
        },
      ),
    );
  });

  test('keeps points of the line only, in their order, its ends among them', () => {
    fc.assert(
      fc.property(points, (xy) => {
        const kept = pointsOf(simplify({ points: xy, closed: false }, 5).points);
        const all = pointsOf(xy);
        let from = 0;
        for (const [x, y] of kept) {
          const at = all.findIndex(([px, py], i) => i >= from && px === x && py === y);
          expect(at).toBeGreaterThanOrEqual(from);
          from = at + 1;
        }
        expect(kept[0]).toEqual(all[0]);
        expect(kept.at(-1)).toEqual(all.at(-1));
      }),
    );
  });

  test('a straight line becomes its two ends, a square stays one', () => {
    const straight = Float64Array.from({ length: 40 }, (_, i) => (i % 2 ? 3 : i));
    expect([...simplify({ points: straight, closed: false }, 0.1).points]).toEqual([0, 3, 38, 3]);
    const square = Float64Array.of(0, 0, 5, 0, 10, 0, 10, 5, 10, 10, 5, 10, 0, 10, 0, 5);
    expect([...simplify({ points: square, closed: true }, 0.1).points]).toEqual([0, 0, 10, 0, 10, 10, 0, 10]);
  });

  test('a ring stays a ring: it never has fewer than three points', () => {
    const flat = Float64Array.of(0, 0, 10, 0.01, 20, 0, 10, -0.01);
    expect(simplify({ points: flat, closed: true }, 5).points).toEqual(flat);
    const three = Float64Array.of(0, 0, 1, 0, 0, 1);
    expect(simplify({ points: three, closed: true }, 100).points).toBe(three);
  });
});

describe('the nearest place on a line', () => {
  test('no point of the line is nearer, and the place lies on it', () => {
    fc.assert(
      fc.property(points, fc.boolean(), coordinate, coordinate, (xy, closed, x, y) => {
        const { at, distance } = nearestOnLine(xy, closed, [x, y]);
        expect(Math.hypot(at[0] - x, at[1] - y)).toBeCloseTo(distance, 9);
        for (const [px, py] of pointsOf(xy))
          expect(distance).toBeLessThanOrEqual(Math.hypot(px - x, py - y) + 1e-9);
        expect(nearestOnLine(xy, closed, at).distance).toBeLessThan(1e-6);
      }),
    );
  });

  test('a closed line is nearest on the edge that closes it, an open one is not', () => {
    const corner = Float64Array.of(0, 0, 10, 0, 10, 10, 0, 10);
    expect(nearestOnLine(corner, true, [-2, 5])).toEqual({ at: [0, 5], distance: 2 });
    expect(nearestOnLine(corner, false, [-2, 5]).distance).toBeCloseTo(Math.hypot(2, 5), 12);
  });
});
