import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { Matrix } from './matrix';
import { determinant, IDENTITY, inverse, mapped, multiply } from './matrix';

const entry = fc.double({ min: -5, max: 5, noNaN: true });

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
