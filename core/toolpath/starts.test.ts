import { expect, test } from '@jest/globals';
import { random } from '../random';
import { shortestStarts } from './starts';

const next = random(5);
const ring = (points: number): Float64Array => Float64Array.from({ length: 2 * points }, () => 100 * next());

test('with few points each it is the shortest way of all (every choice tried)', () => {
  for (let run = 0; run < 30; run++) {
    const rings = Array.from({ length: 5 }, () => ring(1 + Math.floor(4 * next())));
    let least = Infinity;
    const tryAll = (i: number, x: number, y: number, way: number): void => {
      if (i === rings.length) return void (least = Math.min(least, way));
      for (let k = 0; k < rings[i].length; k += 2) {
        const [nx, ny] = [rings[i][k], rings[i][k + 1]];
        tryAll(i + 1, nx, ny, way + Math.hypot(nx - x, ny - y));
      }
    };
    tryAll(0, 50, 50, 0);
    const { starts, travel } = shortestStarts(rings, [50, 50], 24);
    expect(travel).toBeCloseTo(least, 9);
    expect(starts.every((k, i) => k >= 0 && 2 * k < rings[i].length)).toBe(true);
  }
});

test('of many points, those that were not among the few are found too', () => {
  const circle = (x: number): Float64Array =>
    Float64Array.from(
      { length: 400 },
      (_, i) => (i % 2 ? 0 : x) + 10 * (i % 2 ? Math.sin : Math.cos)(((i >> 1) * Math.PI) / 100),
    );
  // from the left edge of the first straight to that of the second
  const { travel } = shortestStarts([circle(0), circle(40)], [-30, 0], 7);
  expect(travel).toBeCloseTo(20 + 40, 2);
});

test('nothing to begin takes no way', () => {
  expect(shortestStarts([], [3, 4], 24)).toEqual({ starts: new Int32Array(), travel: 0 });
});
