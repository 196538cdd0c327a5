import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { addBulge, arcPath } from './arc';
import { IDENTITY } from './matrix';
import { flatten, lineLength } from './path';

// evenly spread: doubles by their bits are mostly next to nothing
const angle = fc.integer({ min: -180_000, max: 180_000 }).map((turn) => (turn / 180_000) * Math.PI);

describe('arcs as cubics', () => {
  test('no point of a circle of 100 mm lies further off than a ten-thousandth of a millimetre', () => {
    fc.assert(
      fc.property(angle, angle, (from, to) => {
        fc.pre(Math.abs(to - from) > 0.01);
        const path = arcPath([7, -3], [100, 0], [0, 100], from, to);
        let furthest = 0;
        for (const { points } of flatten(path, IDENTITY, 1e-4))
          for (let i = 0; i < points.length; i += 2)
            furthest = Math.max(furthest, Math.abs(Math.hypot(points[i] - 7, points[i + 1] + 3) - 100));
        expect(furthest).toBeLessThan(1e-4);
      }),
    );
  });

  test('an arc is as long as its angle times its radius', () => {
    fc.assert(
      fc.property(angle, fc.double({ min: 0.05, max: 6.2, noNaN: true }), (from, turn) => {
        const [line] = flatten(arcPath([0, 0], [50, 0], [0, 50], from, from + turn), IDENTITY, 1e-5);
        expect(lineLength(line)).toBeCloseTo(50 * turn, 2);
      }),
    );
  });

  test('an ellipse runs through the ends of its axes, and a whole turn is closed', () => {
    const path = arcPath([0, 0], [30, 40], [-8, 6], 0, 2 * Math.PI);
    expect(path.ops.endsWith('Z')).toBe(true);
    const [{ points }] = flatten(path, IDENTITY, 1e-3);
    const passes = (x: number, y: number): boolean =>
      Array.from({ length: points.length / 2 }, (_, i) =>
        Math.hypot(points[2 * i] - x, points[2 * i + 1] - y),
      ).some((d) => d < 0.5);
    for (const [x, y] of [
      [30, 40],
      [-8, 6],
      [-30, -40],
      [8, -6],
    ])
      expect(passes(x, y)).toBe(true);
  });
});

describe('bulges of polylines (DXF Reference: tangent of a quarter of the arc’s angle, left above nought)', () => {
  const bulged = (bulge: number) => {
    const xy = [0, 0];
    const ops = addBulge(xy, 10, 0, bulge);
    return flatten({ ops: `M${ops}`, xy }, IDENTITY, 1e-5)[0];
  };

  test('1 is half a circle, to the right of where it goes in coordinates with y up', () => {
    const { points } = bulged(1);
    const ys = points.filter((_, i) => i % 2 === 1);
    expect(Math.min(...ys)).toBeCloseTo(-5, 3);
    expect(lineLength(bulged(1))).toBeCloseTo(5 * Math.PI, 3);
    expect(Math.max(...bulged(-1).points.filter((_, i) => i % 2 === 1))).toBeCloseTo(5, 3);
  });

  test('is as long as its angle says, and ends where it was told to', () => {
    fc.assert(
      fc.property(fc.integer({ min: -3000, max: 3000 }), (thousandths) => {
        fc.pre(Math.abs(thousandths) > 1);
        const bulge = thousandths / 1000;
        const line = bulged(bulge);
        const turn = 4 * Math.atan(Math.abs(bulge));
        expect(lineLength(line)).toBeCloseTo((10 / 2 / Math.sin(turn / 2)) * turn, 2);
        expect([...line.points.slice(-2)]).toEqual([10, 0]);
      }),
    );
  });

  test('nought is a straight line', () => expect([...bulged(0).points]).toEqual([0, 0, 10, 0]));
});
