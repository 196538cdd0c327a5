import { describe, expect, test } from '@jest/globals';
import { deviationOf } from '../swivel/deviation';
import { random } from '../random';
import { thinned } from './thinned';

const circle = (radius: number, points: number): Float64Array =>
  Float64Array.from(
    { length: 2 * points },
    (_, i) => 50 + radius * (i % 2 ? Math.sin : Math.cos)(((i >> 1) * 2 * Math.PI) / points),
  );
const moves = (points: Float64Array): number[] =>
  Array.from({ length: points.length / 2 - 1 }, (_, i) =>
    Math.hypot(points[2 * i + 2] - points[2 * i], points[2 * i + 3] - points[2 * i + 1]),
  );

describe('lines with no more points than a head needs', () => {
  test('a circle that is drawn much too finely goes by moves of 0.1 mm, and is the same circle', () => {
    const fine = circle(5, 4000);
    const { points } = thinned({ points: fine, closed: true }, 0.1);
    expect(Math.min(...moves(points))).toBeGreaterThanOrEqual(0.1);
    expect(points.length / 2).toBeLessThan(330);
    expect(deviationOf([Float64Array.of(...points, points[0], points[1])], [fine]).largest).toBeLessThan(
      0.01,
    );
  });

  test('corners stay, however near they lie', () => {
    const teeth = Float64Array.from({ length: 80 }, (_, i) =>
      i % 2 ? ((i >> 1) % 2) * 0.06 : (i >> 1) * 0.05,
    );
    expect(thinned({ points: teeth, closed: false }, 0.1).points).toEqual(teeth);
  });

  test('ends stay, and so does what has few points', () => {
    const line = Float64Array.of(0, 0, 0.01, 0, 0.02, 0, 0.03, 0);
    expect(Array.from(thinned({ points: line, closed: false }, 0.1).points)).toEqual([0, 0, 0.03, 0]);
    const three = Float64Array.of(0, 0, 0.01, 0, 0, 0.01);
    expect(thinned({ points: three, closed: true }, 0.1).points).toBe(three);
  });

  test('nothing that is left out lies farther beside than 0.01 mm (200 wandering lines)', () => {
    const next = random(9);
    for (let run = 0; run < 200; run++) {
      const points = new Float64Array(200);
      let heading = 0;
      for (let i = 2; i < 200; i += 2) {
        heading += (next() - 0.5) * 0.8;
        points[i] = points[i - 2] + 0.04 * Math.cos(heading);
        points[i + 1] = points[i - 1] + 0.04 * Math.sin(heading);
      }
      const thin = thinned({ points, closed: false }, 0.1).points;
      const off = deviationOf([thin], [], [{ points, closed: false, dashed: false }]).largest;
      expect(off).toBeLessThan(0.0101);
    }
  });
});
