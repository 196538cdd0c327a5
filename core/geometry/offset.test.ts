/** Offsets in closed form: Steiner's formula (Schneider, Convex Bodies, 4.1), and what SVG 2 (13.5) says of strokes. */
import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { difference, grow, outlineLength, rectangle, regionArea, strokeOutline, weld } from './region';
import type { Region } from './region';

const line = (...xy: number[]) => ({ points: Float64Array.from(xy), closed: false });
const style = (
  join: 'round' | 'miter' | 'bevel',
  cap: 'butt' | 'round' | 'square' = 'butt',
  miterLimit = 4,
) => ({
  join,
  cap,
  miterLimit,
});
/** A convex polygon on a circle, corners at the angles given. */
const convex = (radius: number, angles: readonly number[]): Region =>
  weld([
    Float64Array.from(
      [...angles]
        .sort((a, b) => a - b)
        .flatMap((angle) => [radius * Math.cos(angle), radius * Math.sin(angle)]),
    ),
  ]);
const angles = fc.uniqueArray(fc.integer({ min: 0, max: 359 }), { minLength: 3, maxLength: 12 });

describe('growing', () => {
  test("Steiner's formula: a convex shape grown by r has A + P·r + π·r², and its outline P + 2·π·r", () => {
    fc.assert(
      fc.property(angles, fc.double({ min: 0.1, max: 30, noNaN: true }), (degrees, r) => {
        const shape = convex(
          40,
          degrees.map((degree) => (degree * Math.PI) / 180),
        );
        const [area, round] = [regionArea(shape), outlineLength(shape)];
        const grown = grow(shape, r);
        const expected = area + round * r + Math.PI * r * r;
        // chords lie up to 5 µm inside their arcs
        expect(Math.abs(regionArea(grown) - expected)).toBeLessThan(0.005 * (round + 2 * Math.PI * r) + 0.01);
        expect(Math.abs(outlineLength(grown) - round - 2 * Math.PI * r)).toBeLessThan(0.01 * (round + r));
      }),
      { seed: 11, numRuns: 80 },
    );
  });

  test('out and in again gives a convex shape back; in and out again rounds its corners off', () => {
    const square = rectangle({ minX: 0, minY: 0, maxX: 50, maxY: 30 });
    expect(regionArea(grow(grow(square, 7), -7))).toBeCloseTo(1500, 1);
    // each corner of 90° loses (1 - π/4)·r²
    expect(regionArea(grow(grow(square, -7), 7))).toBeCloseTo(1500 - (4 - Math.PI) * 49, 0);
    expect(grow(square, -15.001)).toEqual([]);
  });

  test('holes shrink, close, and the way back finds them gone', () => {
    const ring = difference(
      rectangle({ minX: 0, minY: 0, maxX: 60, maxY: 60 }),
      rectangle({ minX: 20, minY: 20, maxX: 40, maxY: 40 }),
    );
    expect(regionArea(grow(ring, 4))).toBeCloseTo(3600 + 240 * 4 + Math.PI * 16 - 12 * 12, 0);
    expect(grow(ring, 10.01)).toHaveLength(1);
    expect(regionArea(grow(ring, -4))).toBeCloseTo(52 * 52 - (400 + 80 * 4 + Math.PI * 16), 0);
  });
});

describe('strokes', () => {
  test.each([
    ['butt', 100 * 8],
    ['square', 108 * 8],
    ['round', 100 * 8 + Math.PI * 16],
  ] as const)('%s ends', (cap, area) => {
    const outline = strokeOutline([line(0, 0, 60, 80)], 8, style('miter', cap));
    expect(outline).toHaveLength(1);
    // chords lie inside the arcs
    expect(Math.abs(regionArea(outline) - area)).toBeLessThan(0.1);
  });

  test.each([
    // the outer corner: a square, its half, a quarter of a disc
    ['miter', 16],
    ['bevel', 8],
    ['round', (Math.PI * 16) / 4],
  ] as const)('a right angle with a %s corner', (join, corner) => {
    const outline = strokeOutline([line(0, 0, 50, 0, 50, 50)], 8, style(join));
    expect(regionArea(outline)).toBeCloseTo(100 * 8 - 16 + corner, 1);
  });

  test('a point sharper than the miter limit is cut off straight', () => {
    // half the angle has a sine of 0.2: a miter of 5 widths
    const half = Math.asin(0.2);
    const spike = line(
      -100 * Math.cos(half),
      100 * Math.sin(half),
      0,
      0,
      -100 * Math.cos(half),
      -100 * Math.sin(half),
    );
    const reach = (limit: number): number =>
      Math.max(...strokeOutline([spike], 4, style('miter', 'butt', limit))[0].filter((_, i) => i % 2 === 0));
    expect(reach(5.1)).toBeCloseTo(2 / 0.2, 2);
    expect(reach(4.9)).toBeCloseTo(2 * 0.2, 2);
  });

  test('a closed line has an inside, whichever way round it runs; dots have their cap', () => {
    const square = [0, 0, 40, 0, 40, 40, 0, 40];
    const backwards = [0, 0, 0, 40, 40, 40, 40, 0];
    for (const xy of [square, backwards]) {
      const outline = strokeOutline([{ points: Float64Array.from(xy), closed: true }], 6, style('miter'));
      expect(regionArea(outline)).toBeCloseTo(46 * 46 - 34 * 34, 3);
      expect(outline).toHaveLength(2);
    }
    const dot = (cap: 'butt' | 'round' | 'square'): number =>
      regionArea(strokeOutline([line(5, 5, 5, 5)], 6, style('round', cap)));
    expect(dot('butt')).toBe(0);
    expect(dot('square')).toBeCloseTo(36, 6);
    expect(dot('round')).toBeCloseTo(Math.PI * 9, 0);
  });
});
