import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { Part } from '../panels/part';
import type { Item, Room, Shelf } from './shelves';
import { isShelves, lay, lengthOf, shelvesOf } from './shelves';

const item = (width: number, height: number, copy = 0): Item => ({
  part: { bounds: { minX: 0, minY: 0, maxX: width, maxY: height } } as unknown as Part,
  copy,
});
const room = (more: Partial<Room> = {}): Room => ({
  usable: 580,
  spacing: 10,
  rim: 0,
  turn: 'shorter',
  abreast: null,
  ...more,
});
const shelved = (items: readonly Item[], where: Room): readonly Shelf[] => {
  const made = shelvesOf(items, where);
  if (!isShelves(made)) throw new Error('does not fit');
  return made;
};

const anyItems = fc
  .array(fc.tuple(fc.integer({ min: 5, max: 560 }), fc.integer({ min: 5, max: 560 })), {
    minLength: 1,
    maxLength: 30,
  })
  .map((sizes) => sizes.map(([w, h], i) => item(w, h, i)));

describe('shelves', () => {
  test('hold every item once, in order, none wider than the film', () => {
    fc.assert(
      fc.property(anyItems, fc.constantFrom(0, 5), fc.constantFrom(0, 10), (items, rim, spacing) => {
        const made = shelved(items, room({ rim, spacing }));
        expect(made.flatMap((shelf) => shelf.items.map(({ copy }) => copy))).toEqual(
          items.map(({ copy }) => copy),
        );
        for (const shelf of made) {
          const across =
            shelf.items.reduce((sum, one) => sum + one.across, 0) + (shelf.items.length - 1) * spacing;
          expect(shelf.across).toBeCloseTo(across, 9);
          expect(across).toBeLessThanOrEqual(580 + 1e-6);
          expect(shelf.along).toBe(Math.max(...shelf.items.map((one) => one.along)));
        }
      }),
    );
  });

  test('take no more film turned freely than turned either way', () => {
    fc.assert(
      fc.property(anyItems, (items) => {
        const along = (turn: Room['turn']): number => lengthOf(shelved(items, room({ turn })), 10);
        expect(along('shorter')).toBeLessThanOrEqual(Math.min(along('as-drawn'), along('turned')) + 1e-6);
      }),
    );
  });

  test('an item that fits neither way is given back', () => {
    const wide = shelvesOf([item(100, 100), item(700, 600)], room());
    expect(isShelves(wide)).toBe(false);
    expect(isShelves(shelvesOf([item(700, 560)], room()))).toBe(true);
    expect(isShelves(shelvesOf([item(560, 700)], room()))).toBe(true);
    expect(isShelves(shelvesOf([item(560, 700)], room({ turn: 'as-drawn' })))).toBe(false);
  });

  test('no more lie side by side than asked, and as many as fit when more are asked for', () => {
    const items = Array.from({ length: 7 }, (_, copy) => item(100, 100, copy));
    const counts = (abreast: number | null) =>
      (shelvesOf(items, room({ abreast, turn: 'as-drawn' })) as readonly Shelf[]).map(
        (shelf) => shelf.items.length,
      );
    expect(counts(null)).toEqual([5, 2]);
    expect(counts(3)).toEqual([3, 3, 1]);
    expect(counts(9)).toEqual([5, 2]);
  });

  test('a weed border counts on both sides, the room between shelves only between them', () => {
    expect(lay(item(100, 40), 5, false)).toMatchObject({ along: 110, across: 50 });
    expect(lay(item(100, 40), 5, true)).toMatchObject({ along: 50, across: 110 });
    const two = shelved([item(100, 400), item(100, 400)], room({ turn: 'as-drawn' }));
    expect(two).toHaveLength(2);
    expect(lengthOf(two, 10)).toBe(210);
    expect(lengthOf([], 10)).toBe(0);
  });
});
