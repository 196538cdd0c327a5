import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { findCrossings } from './crossings';

type Ends = readonly [number, number, number, number];
const line = (ends: Ends) => ({ points: Float64Array.from(ends), closed: false });
const cross = (a: Ends, b: Ends): boolean => findCrossings([line(a), line(b)]).length > 0;

/** The side of a point by whole numbers of any length: exact whatever the coordinates. */
function exactSide([x0, y0, x1, y1]: Ends, x: number, y: number): number {
  const [ax, ay, bx, by, cx, cy] = [x0, y0, x1, y1, x, y].map(BigInt);
  const twice = (bx - ax) * (cy - ay) - (by - ay) * (cx - ax);
  return twice > 0n ? 1 : twice < 0n ? -1 : 0;
}
const exactlyCross = (a: Ends, b: Ends): boolean =>
  exactSide(a, b[0], b[1]) * exactSide(a, b[2], b[3]) < 0 &&
  exactSide(b, a[0], a[1]) * exactSide(b, a[2], a[3]) < 0;

describe('two segments', () => {
  // no further: whole numbers this near are never less than a touch (1e-6) off a line without lying on it
  const far = fc.integer({ min: -200_000, max: 200_000 });
  const ends = fc.tuple(far, far, far, far).filter(([a, b, c, d]) => a !== c || b !== d);
  const near = fc.integer({ min: -2, max: 2 });

  test('cross where exact arithmetic says so', () => {
    fc.assert(
      fc.property(ends, ends, (a, b) => {
        expect(cross(a, b)).toBe(exactlyCross(a, b));
      }),
      { numRuns: 3000 },
    );
  });

  test('that nearly coincide too', () => {
    fc.assert(
      fc.property(ends, fc.tuple(near, near, near, near), (a, by) => {
        const b = a.map((v, i) => v + by[i]) as unknown as Ends;
        expect(cross(a, b)).toBe(exactlyCross(a, b));
      }),
      { numRuns: 3000 },
    );
  });

  test('that touch do not cross, wherever rounding puts the place', () => {
    fc.assert(
      fc.property(ends, ends, fc.double({ min: 0, max: 1, noNaN: true }), ([x0, y0, x1, y1], b, share) => {
        const [a, at] = [
          [x0, y0, x1, y1].map((v) => v / 1000) as unknown as Ends,
          [x0 + share * (x1 - x0), y0 + share * (y1 - y0)].map((v) => v / 1000),
        ];
        expect(cross(a, [at[0], at[1], b[2] / 1000, b[3] / 1000])).toBe(false);
      }),
    );
  });
});

test('a line is told once against each other and against itself, at the place', () => {
  const eight = { points: Float64Array.of(0, 0, 10, 10, 10, 0, 0, 10), closed: true };
  const bar = { points: Float64Array.of(-5, 4, 15, 4), closed: false };
  const found = findCrossings([eight, bar]);
  expect(found.map(({ a, b }) => [a, b]).sort()).toEqual([
    [0, 0],
    [0, 1],
  ]);
  expect(found.find(({ a, b }) => a === b)?.at).toEqual([5, 5]);
});
