import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { Matrix } from './matrix';
import { determinant, IDENTITY, inverse, mapped, multiply } from './matrix';

// evenly spread: doubles by their bits are mostly next to nothing, and nearly all such maps flatten
const entry = fc.integer({ min: -5000, max: 5000 }).map((thousandths) => thousandths / 1000);

test('a map and its way back are no map at all; one that flattens has none', () => {
  fc.assert(
    fc.property(fc.tuple(entry, entry, entry, entry, entry, entry), (m: Matrix) => {
      fc.pre(Math.abs(determinant(m)) > 0.01);
      multiply(inverse(m), m).forEach((v, i) => expect(v).toBeCloseTo(IDENTITY[i], 6));
      const [x, y] = mapped(mapped([3, -4], m), inverse(m));
      expect([x.toFixed(5), y.toFixed(5)]).toEqual(['3.00000', '-4.00000']);
    }),
  );
  expect(() => inverse([2, 4, 1, 2, 0, 0])).toThrow(RangeError);
});
