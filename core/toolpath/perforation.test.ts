import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { lineLength } from '../geometry/path';
import type { Polyline } from '../geometry/path';
import { isTooShort, perforated } from './perforation';

const closed = (...xy: number[]): Polyline => ({ points: Float64Array.from(xy), closed: true });
const open = (...xy: number[]): Polyline => ({ points: Float64Array.from(xy), closed: false });
const circle = (r: number, n: number): Polyline =>
  closed(
    ...Array.from({ length: n }, (_, i) => (2 * Math.PI * i) / n).flatMap((a) => [
      r * Math.cos(a),
      r * Math.sin(a),
    ]),
  );
const lengths = (line: Polyline): number[] => perforated(line, [3, 0.4]).map(lineLength);
const ends = ({ points }: Polyline): number[][] => [
  [points[0], points[1]],
  [points[points.length - 2], points[points.length - 1]],
];

describe('perforated lines', () => {
  test('a corner lies in the middle of a gap, and each side has a whole number of equal dashes', () => {
    const dashes = perforated(closed(0, 0, 40, 0, 40, 25, 0, 25), [3, 0.4]);
    for (const corner of [
      [0, 0],
      [40, 0],
      [40, 25],
      [0, 25],
    ]) {
      const near = dashes.flatMap(ends).map(([x, y]) => Math.hypot(x - corner[0], y - corner[1]));
      const [first, second] = near.sort((a, b) => a - b);
      expect(first).toBeCloseTo(0.2, 9);
      expect(second).toBeCloseTo(0.2, 9);
    }
    // 40 mm: 12 of 3.4 mm come nearest; 25 mm: 7
    expect(dashes).toHaveLength(2 * (12 + 7));
    expect(dashes.slice(0, 12).map(lineLength)).toEqual(Array(12).fill(expect.closeTo(40 / 12 - 0.4, 9)));
  });

  test('a round line has no corner: the same dashes all round, and none cut short where it closes', () => {
    const own = lengths(circle(20, 720));
    expect(own).toHaveLength(Math.round((2 * Math.PI * 20) / 3.4));
    expect(Math.max(...own) - Math.min(...own)).toBeLessThan(1e-6);
  });

  test('no circle has a dash left over where it closes, whatever its size', () => {
    for (let r = 2; r < 40; r += 0.37) {
      for (const pattern of [
        [3, 0.4],
        [10, 3],
        [2, 0.5],
      ] as const) {
        const own = perforated(circle(r, 360), pattern).map(lineLength);
        expect(Math.min(...own)).toBeGreaterThan(0.5);
        expect(Math.max(...own) - Math.min(...own)).toBeLessThan(1e-6);
      }
    }
  });

  test('a short line keeps a gap, and one that has no room for it is told', () => {
    const line = (mm: number): Polyline => open(0, 0, mm, 0);
    expect(perforated(line(13.7), [10, 3]).map(lineLength)).toEqual(
      [5.35, 5.35].map((mm) => expect.closeTo(mm, 9)),
    );
    expect(perforated(line(8.5), [10, 3])).toHaveLength(2);
    expect(isTooShort(line(8.5), [10, 3])).toBe(false);
    expect(perforated(line(7), [10, 3])).toHaveLength(1);
    expect(isTooShort(line(7), [10, 3])).toBe(true);
    // round lines have a gap as soon as they are longer than it
    expect(isTooShort(circle(1, 90), [3, 0.4])).toBe(false);
  });

  test('an open line begins and ends with a dash, corners between them in gaps', () => {
    const dashes = perforated(open(0, 0, 17, 0, 17, 10), [3, 0.4]);
    expect(ends(dashes[0])[0]).toEqual([0, 0]);
    expect(ends(dashes.at(-1)!)[1].map((v) => Number(v.toFixed(9)))).toEqual([17, 10]);
    const total = dashes.reduce((sum, one) => sum + lineLength(one), 0);
    expect(27 - total).toBeCloseTo(0.4 * (dashes.length - 1), 9);
  });

  test('corners nearer than a dash can be cut between are gone round', () => {
    const teeth = Array.from({ length: 40 }, (_, i) => [i * 0.5, i % 2]).flat();
    const dashes = perforated(open(...teeth), [3, 0.4]);
    expect(dashes.length).toBeGreaterThan(5);
    expect(Math.min(...dashes.map(lineLength))).toBeGreaterThan(1);
    expect(perforated(closed(0, 0, 1, 0, 1, 1, 0, 1), [3, 0.4]).map(lineLength)).toEqual(
      [1.6, 1.6].map((mm) => expect.closeTo(mm, 9)),
    );
  });

  test('on any line: no dash is shorter than half of one and a bit, no gap wider, nothing beside the line', () => {
    const place = fc.integer({ min: 0, max: 400 }).map((v) => v / 4);
    fc.assert(
      fc.property(
        fc.array(fc.tuple(place, place), { minLength: 3, maxLength: 12 }),
        fc.boolean(),
        (spots, isClosed) => {
          const distinct = spots.filter(
            ([x, y], i) => i === 0 || Math.hypot(x - spots[i - 1][0], y - spots[i - 1][1]) > 0.2,
          );
          const line = { points: Float64Array.from(distinct.flat()), closed: isClosed };
          fc.pre(distinct.length > 2 && lineLength(line) > 4);
          const dashes = perforated(line, [3, 0.4]);
          const cut = dashes.reduce((sum, one) => sum + lineLength(one), 0);
          const left = lineLength(line) - cut;
          expect(left).toBeLessThanOrEqual(0.4 * (dashes.length + 1) + 1e-6);
          expect(left).toBeGreaterThanOrEqual(0.4 * (dashes.length - 1) - 1e-6);
          expect(Math.max(...dashes.map(lineLength))).toBeLessThan(3 + 2);
        },
      ),
      { numRuns: 300, seed: 14 },
    );
  });
});
