import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import polygonClipping from 'polygon-clipping';
import { flatten } from './path';
import type { Region } from './region';
import {
  cutToBox,
  difference,
  intersection,
  letOut,
  mapRegion,
  outlineLength,
  rectangle,
  regionArea,
  regionBounds,
  ringArea,
  ringLength,
  strokeOutline,
  weld,
} from './region';

const ring = (...xy: number[]): Float64Array => Float64Array.from(xy);
const square = (x: number, y: number, side: number): Region =>
  rectangle({ minX: x, minY: y, maxX: x + side, maxY: y + side });
const ROUND = { join: 'round', cap: 'round', miterLimit: 4 } as const;

/** The same operation in an independent library (polygon-clipping, Martinez–Rueda–Feito). */
function otherArea(kind: 'union' | 'difference' | 'intersection', a: Region, b: Region): number {
  const geometry = (region: Region) =>
    region.map((r) => [
      Array.from({ length: r.length / 2 }, (_, i) => [r[2 * i], r[2 * i + 1]] as [number, number]),
    ]);
  const result = polygonClipping[kind](geometry(a), geometry(b));
  return result.reduce(
    (sum, polygon) =>
      sum +
      polygon.reduce((s, r, i) => s + (i === 0 ? 1 : -1) * Math.abs(ringArea(r.slice(0, -1).flat())), 0),
    0,
  );
}

const triangle = fc
  .array(fc.integer({ min: 0, max: 100_000 }), { minLength: 6, maxLength: 6 })
  .map((v) => weld([Float64Array.from(v, (n) => n / 1000)]))
  .filter((region) => region.length === 1 && regionArea(region) > 1);

describe('areas', () => {
  test('shoelace: a square and its hole', () => {
    const frame = difference(square(0, 0, 10), square(2, 2, 3));
    expect(regionArea(frame)).toBeCloseTo(91, 9);
    expect(outlineLength(frame)).toBeCloseTo(52, 9);
    expect(frame.map((r) => Math.sign(ringArea(r))).sort()).toEqual([-1, 1]);
  });

  test('even-odd and nonzero fill a doubled outline differently', () => {
    const twice = [ring(0, 0, 10, 0, 10, 10, 0, 10), ring(2, 2, 8, 2, 8, 8, 2, 8)];
    expect(regionArea(weld(twice, 'nonzero'))).toBeCloseTo(100, 9);
    expect(regionArea(weld(twice, 'evenodd'))).toBeCloseTo(64, 9);
  });
});

describe('booleans against an independent library', () => {
  test('union, difference and intersection of triangles have the same area', () => {
    fc.assert(
      fc.property(triangle, triangle, (a, b) => {
        // to within outline length × the grid of 1 µm
        const slack = (outlineLength(a) + outlineLength(b)) * 0.001 + 1e-6;
        expect(Math.abs(regionArea(weld([...a, ...b])) - otherArea('union', a, b))).toBeLessThan(slack);
        expect(Math.abs(regionArea(difference(a, b)) - otherArea('difference', a, b))).toBeLessThan(slack);
        expect(Math.abs(regionArea(intersection(a, b)) - otherArea('intersection', a, b))).toBeLessThan(
          slack,
        );
      }),
      { numRuns: 200 },
    );
  });

  test('a shape is what it shares with another and what it does not', () => {
    fc.assert(
      fc.property(triangle, triangle, (a, b) => {
        const parts = regionArea(difference(a, b)) + regionArea(intersection(a, b));
        expect(Math.abs(parts - regionArea(a))).toBeLessThan((outlineLength(a) + outlineLength(b)) * 0.001);
      }),
    );
  });
});

describe('strokes', () => {
  test("Steiner's formula: a round stroke round a convex outline reaches A + P·r + π·r²", () => {
    fc.assert(
      fc.property(triangle, fc.integer({ min: 1, max: 40 }), (shape, tenths) => {
        const r = tenths / 10;
        const outline = strokeOutline([{ points: shape[0], closed: true }], 2 * r, ROUND);
        const outer = Math.max(...outline.map(ringArea));
        const steiner = regionArea(shape) + ringLength(shape[0]) * r + Math.PI * r * r;
        // arcs are straightened inside their circle by at most 5 µm
        expect(Math.abs(outer - steiner)).toBeLessThan((ringLength(shape[0]) + 2 * Math.PI * r) * 0.006);
      }),
      { numRuns: 60 },
    );
  });

  test('a line with round ends covers 2·r·L + π·r², with butt ends 2·r·L', () => {
    const line = [{ points: ring(0, 0, 30, 40), closed: false }];
    expect(regionArea(strokeOutline(line, 4, ROUND))).toBeCloseTo(200 + Math.PI * 4, 1);
    expect(regionArea(strokeOutline(line, 4, { ...ROUND, cap: 'butt' }))).toBeCloseTo(200, 1);
    expect(regionArea(strokeOutline(line, 4, { ...ROUND, cap: 'square' }))).toBeCloseTo(216, 1);
  });
});

test('mirroring keeps areas positive and moves where it should', () => {
  const mirrored = mapRegion([ring(0, 0, 4, 0, 4, 3)], [-1, 0, 0, 1, 10, 0]);
  expect(regionArea(mirrored)).toBeCloseTo(6, 9);
  expect(regionBounds(mirrored)).toEqual({ minX: 6, minY: 0, maxX: 10, maxY: 3 });
});

test('cutting to a box leaves what an intersection leaves', () => {
  fc.assert(
    fc.property(triangle, (shape) => {
      const box = { minX: 20, minY: 20, maxX: 60, maxY: 70 };
      const slack = (outlineLength(shape) + 180) * 0.001;
      expect(
        Math.abs(regionArea(weld(cutToBox(shape, box))) - regionArea(intersection(shape, rectangle(box)))),
      ).toBeLessThan(slack);
    }),
  );
});

test('letting out moves every edge by the distance', () => {
  const out = letOut(square(0, 0, 10), 0.5);
  expect(regionBounds(out)).toEqual({ minX: -0.5, minY: -0.5, maxX: 10.5, maxY: 10.5 });
});

describe('curves', () => {
  // four cubics for a circle: radius error 0.027 % (Goldapp 1991, by memory)
  const K = 0.5522847498;
  const ellipse = (a: number, b: number) => ({
    ops: 'MCCCCZ',
    xy: [
      a,
      0,
      a,
      K * b,
      K * a,
      b,
      0,
      b,
      -K * a,
      b,
      -a,
      K * b,
      -a,
      0,
      -a,
      -K * b,
      -K * a,
      -b,
      0,
      -b,
      K * a,
      -b,
      a,
      -K * b,
      a,
      0,
    ],
  });

  test('ellipse perimeter by the arithmetic–geometric mean (Gauss; Abramowitz & Stegun 17.6)', () => {
    const perimeter = (a: number, b: number): number => {
      let [x, y] = [a, b];
      let sum = (a * a + b * b) / 2;
      for (let k = 0, p = 1; k < 12; k++, p *= 2) {
        const c = (x - y) / 2;
        if (k > 0 || c !== 0) sum -= p * c * c;
        [x, y] = [(x + y) / 2, Math.sqrt(x * y)];
      }
      return (2 * Math.PI * sum) / x;
    };
    for (const [a, b] of [
      [50, 50],
      [80, 20],
      [120, 3],
    ]) {
      const [line] = flatten(ellipse(a, b), [1, 0, 0, 1, 0, 0]);
      expect(Math.abs(ringLength(line.points) / perimeter(a, b) - 1)).toBeLessThan(5e-4);
    }
  });

  test('a straightened circle never lies further off than the tolerance', () => {
    const [line] = flatten(ellipse(200, 200), [1, 0, 0, 1, 0, 0], 0.01);
    const n = line.points.length;
    for (let i = 0; i < n; i += 2) {
      const k = (i + 2) % n;
      const middle = Math.hypot(
        (line.points[i] + line.points[k]) / 2,
        (line.points[i + 1] + line.points[k + 1]) / 2,
      );
      // chord error on top of the four-cubic circle's own 0.027 %
      expect(200 * 1.00028 - middle).toBeLessThan(200 * 0.00028 + 0.01);
    }
  });
});
