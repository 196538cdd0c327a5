import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { NearestNext } from './nearestNext';

/** The least distance from a place to what is left, by looking at every point. */
function leastAway(
  items: readonly number[][],
  left: ReadonlySet<number>,
  [x, y]: readonly [number, number],
): number {
  let least = Infinity;
  for (const item of left)
    for (let k = 0; k < items[item].length; k += 2)
      least = Math.min(least, (items[item][k] - x) ** 2 + (items[item][k + 1] - y) ** 2);
  return least;
}

function ordered(items: readonly number[][], from: readonly [number, number]): number[] {
  const index = new NearestNext(items);
  const order: number[] = [];
  let at = from;
  for (let next = index.take(at); next; next = index.take(at)) {
    order.push(next.item);
    const { item, point } = next;
    at = [items[item][2 * point], items[item][2 * point + 1]];
  }
  return order;
}

test('takes what looking at every point takes, from anywhere, however the points lie', () => {
  const spread = fc.constantFrom(1, 30, 1000);
  const item = spread.chain((width) =>
    fc.array(fc.tuple(fc.integer({ min: 0, max: width }), fc.integer({ min: 0, max: 1000 })), {
      minLength: 1,
      maxLength: 6,
    }),
  );
  fc.assert(
    fc.property(
      fc.array(item, { maxLength: 60 }),
      fc.tuple(fc.integer({ min: -3000, max: 3000 }), fc.integer({ min: -3000, max: 3000 })),
      (given, from) => {
        const items = given.map((points) => points.flat());
        const index = new NearestNext(items);
        const left = new Set(items.keys());
        let at: readonly [number, number] = from;
        for (let next = index.take(at); next; next = index.take(at)) {
          const { item, point } = next;
          expect(left.has(item)).toBe(true);
          const [x, y] = [items[item][2 * point], items[item][2 * point + 1]];
          // of two that are as near either will do
          expect((x - at[0]) ** 2 + (y - at[1]) ** 2).toBe(leastAway(items, left, at));
          left.delete(item);
          at = [x, y];
        }
        expect(left.size).toBe(0);
      },
    ),
    { numRuns: 300, seed: 7 },
  );
});

test('one item, items on one spot, items on one line', () => {
  expect(ordered([], [0, 0])).toEqual([]);
  expect(ordered([[5, 5]], [-9, 100])).toEqual([0]);
  const onOneSpot = ordered(
    Array.from({ length: 50 }, () => [3, 3]),
    [0, 0],
  );
  expect([...onOneSpot].sort((a, b) => a - b)).toEqual([...Array(50).keys()]);
  expect(
    ordered(
      Array.from({ length: 50 }, (_, i) => [i, 0]),
      [0, 0],
    ),
  ).toEqual([...Array(50).keys()]);
});
