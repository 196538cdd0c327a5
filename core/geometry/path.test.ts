import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { dash } from './dash';
import { flatten, pathBounds } from './path';
import { IDENTITY, multiply, scaling, stretch, translation } from './matrix';

const number = fc.integer({ min: -500, max: 500 });

test('bounds of a cubic are those of a very fine straightening', () => {
  fc.assert(
    fc.property(fc.array(number, { minLength: 8, maxLength: 8 }), (xy) => {
      const path = { ops: 'MC', xy };
      const exact = pathBounds(path, IDENTITY);
      const [line] = flatten(path, IDENTITY, 1e-4);
      if (!line) return;
      const xs = Array.from(line.points).filter((_, i) => i % 2 === 0);
      const ys = Array.from(line.points).filter((_, i) => i % 2 === 1);
      expect(Math.abs(exact.minX - Math.min(...xs))).toBeLessThan(1e-3);
      expect(Math.abs(exact.maxX - Math.max(...xs))).toBeLessThan(1e-3);
      expect(Math.abs(exact.minY - Math.min(...ys))).toBeLessThan(1e-3);
      expect(Math.abs(exact.maxY - Math.max(...ys))).toBeLessThan(1e-3);
    }),
  );
});

test('a path that goes on after closing starts again at its start', () => {
  const lines = flatten({ ops: 'MLLZL', xy: [0, 0, 10, 0, 10, 10, 5, -5] }, IDENTITY);
  expect(lines.map((line) => line.closed)).toEqual([true, false]);
  expect(Array.from(lines[1].points)).toEqual([0, 0, 5, -5]);
});

test('repeated points and a doubled closing point are dropped', () => {
  const [line] = flatten({ ops: 'MLLLLZ', xy: [0, 0, 5, 0, 5, 0, 5, 5, 0, 0] }, IDENTITY);
  expect(Array.from(line.points)).toEqual([0, 0, 5, 0, 5, 5]);
});

test('maps compose from the inside out; stretch is the larger singular value', () => {
  const m = multiply(translation(10, 0), scaling(2, 3));
  expect(m).toEqual([2, 0, 0, 3, 10, 0]);
  expect(stretch(m)).toBeCloseTo(3, 12);
  expect(stretch([0, 4, -4, 0, 0, 0])).toBeCloseTo(4, 12);
});

test('dashes: the lengths on add up to what the pattern says', () => {
  const line = [{ points: Float64Array.of(0, 0, 100, 0), closed: false }];
  const dashes = dash(line, [6, 4], 0);
  expect(dashes).toHaveLength(10);
  expect(Array.from(dashes[3].points)).toEqual([30, 0, 36, 0]);
  // an odd pattern is taken twice (SVG 2, stroke-dasharray)
  expect(dash(line, [10], 5).map((d) => Array.from(d.points))[1]).toEqual([15, 0, 25, 0]);
  expect(dash(line, [0, 0], 0)).toEqual(line);
  expect(dash(line, [1e-9], 0)).toEqual(line);
});
