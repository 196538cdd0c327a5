import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { groupNested, componentsOf } from './nesting';

const square = (x: number, y: number, s: number): Float64Array =>
  Float64Array.of(x, y, x + s, y, x + s, y + s, x, y + s);

test('holes and islands belong to the outline around them, with their depth', () => {
  const groups = groupNested([square(0, 0, 100), square(10, 10, 50), square(20, 20, 10), square(200, 0, 10)]);
  expect(groups).toEqual([
    { rings: [0, 1, 2], depth: [0, 1, 2] },
    { rings: [3], depth: [0] },
  ]);
});

test('a box inside another’s box is not inside it when it lies in a notch', () => {
  const notched = Float64Array.of(0, 0, 100, 0, 100, 100, 60, 100, 60, 20, 40, 20, 40, 100, 0, 100);
  expect(groupNested([notched, square(45, 60, 10)]).map((g) => g.rings)).toEqual([[0], [1]]);
});

test('every ring is in one group, at any depth and in any order', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 1, max: 12 }),
      fc.integer({ min: 1, max: 6 }),
      fc.integer(),
      (deep, wide, seed) => {
        const rings = Array.from({ length: deep * wide }, (_, i) => {
          const level = i % deep;
          return square(Math.floor(i / deep) * 1000 + level, level, 900 - 2 * level);
        });
        rings.sort((a, b) => ((a[0] * 7919 + seed) % 101) - ((b[0] * 7919 + seed) % 101));
        const groups = groupNested(rings);
        expect(groups).toHaveLength(wide);
        expect(groups.flatMap((g) => g.rings).sort((a, b) => a - b)).toEqual(rings.map((_, i) => i));
        for (const group of groups)
          expect([...group.depth].sort((a, b) => a - b)).toEqual(Array.from({ length: deep }, (_, i) => i));
      },
    ),
  );
});

test('pieces: an island in a hole is a piece of its own', () => {
  const hole = square(5, 5, 20).toReversed();
  const turned = Float64Array.from(hole, (_, i) => hole[i % 2 === 0 ? i + 1 : i - 1]);
  expect(componentsOf([turned, square(10, 10, 5), square(0, 0, 30)])).toEqual([
    [square(10, 10, 5)],
    [square(0, 0, 30), turned],
  ]);
});
