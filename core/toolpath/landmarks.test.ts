import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { landmarksOf } from './landmarks';

const square = (x: number, y: number, size: number): number[] => [
  x,
  y,
  x + size,
  y,
  x + size,
  y + size,
  x,
  y + size,
];
const disc = (x: number, y: number, r: number): number[] =>
  Array.from({ length: 90 }, (_, i) => [x + r * Math.cos(i / 14.3), y + r * Math.sin(i / 14.3)]).flat();

test('corners of what is cut, and of nothing else; a disc has none', () => {
  const rings = [square(0, 0, 10), disc(300, 20, 15), square(500, 0, 10), square(900, 0, 10)];
  const found = landmarksOf(rings, [square(-0.2, -0.2, 10.4), disc(300, 20, 15), square(500, 0, 10)])!;
  const [a, b] = found;
  expect(Math.hypot(a[0] - b[0], a[1] - b[1])).toBeCloseTo(Math.hypot(510, 10), 6);
  expect(landmarksOf(rings, [disc(300, 20, 15)])).toBeUndefined();
  expect(landmarksOf(rings, [])).toBeUndefined();
});

test('they lie nearly as far apart as any two corners (within what 32 directions miss: 1 - cos 180°/32)', () => {
  const place = fc.tuple(fc.integer({ min: 0, max: 3000 }), fc.integer({ min: 0, max: 600 }));
  fc.assert(
    fc.property(fc.array(place, { minLength: 1, maxLength: 12 }), (places) => {
      const rings = places.map(([x, y]) => square(x, y, 20));
      const [a, b] = landmarksOf(rings, rings)!;
      const all = rings.flatMap((ring) => [0, 2, 4, 6].map((i) => [ring[i], ring[i + 1]]));
      const far = Math.max(...all.flatMap((p) => all.map((q) => Math.hypot(p[0] - q[0], p[1] - q[1]))));
      expect(Math.hypot(a[0] - b[0], a[1] - b[1])).toBeGreaterThanOrEqual(
        far * Math.cos(Math.PI / 32) - 1e-9,
      );
    }),
  );
});
