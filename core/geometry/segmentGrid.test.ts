import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { nearestOnLine } from './nearestOnLine';
import { createSegmentGrid } from './segmentGrid';

const ring = fc
  .array(
    fc.tuple(fc.double({ min: 0, max: 300, noNaN: true }), fc.double({ min: 0, max: 300, noNaN: true })),
    {
      minLength: 3,
      maxLength: 25,
    },
  )
  .map((all) => Float64Array.from(all.flat()));
const place = fc.double({ min: -20, max: 320, noNaN: true });

test('finds what looking at every segment finds, or nothing where nothing is near', () => {
  fc.assert(
    fc.property(fc.array(ring, { minLength: 1, maxLength: 5 }), place, place, (rings, x, y) => {
      const found = createSegmentGrid(rings, 20).nearest(x, y, 10);
      const best = Math.min(...rings.map((one) => nearestOnLine(one, true, [x, y]).distance));
      if (best < 10 - 1e-9) expect(Math.hypot(found!.x - x, found!.y - y)).toBeCloseTo(best, 9);
      else if (best > 10 + 1e-9) expect(found).toBeUndefined();
    }),
    { numRuns: 400 },
  );
});

test('segments are counted through all rings, each with its neighbours on its own ring', () => {
  const grid = createSegmentGrid(
    [Float64Array.of(0, 0, 10, 0, 10, 10), Float64Array.of(50, 50, 60, 50, 60, 60, 50, 60)],
    10,
  );
  expect(grid.nearest(55, 50, 2)?.segment).toBe(3);
  expect([grid.before(0), grid.after(2)]).toEqual([2, 0]);
  expect([grid.before(3), grid.after(6)]).toEqual([6, 3]);
});
