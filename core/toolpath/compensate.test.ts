import { describe, expect, test } from '@jest/globals';
import type { Ring } from '../geometry/region';
import { flatten } from '../geometry/path';
import { deviationOf } from '../swivel/deviation';
import { tipPath } from '../swivel/tractrix';
import { compensateRing } from './compensate';

const D = 0.25;
const STEP = 0.025;
const K = 0.5522847498;
const circle = (r: number): Ring =>
  flatten(
    {
      ops: 'MCCCCZ',
      xy: [
        r,
        0,
        r,
        K * r,
        K * r,
        r,
        0,
        r,
        -K * r,
        r,
        -r,
        K * r,
        -r,
        0,
        -r,
        -K * r,
        -K * r,
        -r,
        0,
        -r,
        K * r,
        -r,
        r,
        -K * r,
        r,
        0,
      ],
    },
    [1, 0, 0, 1, 40, 40],
  )[0].points;
const square: Ring = Float64Array.of(10, 10, 40, 10, 40, 40, 10, 40);
const star: Ring = Float64Array.from(
  Array.from({ length: 10 }, (_, i) => {
    const r = i % 2 ? 8 : 20;
    return [30 + r * Math.cos((i * Math.PI) / 5), 30 + r * Math.sin((i * Math.PI) / 5)];
  }).flat(),
);
const onGrid = (points: Float64Array): Float64Array => points.map((v) => Math.round(v / STEP) * STEP);

/** What the trailing tip makes of a holder path (tractrix, exact for straight holder moves). */
function cut(ring: Ring, compensated: boolean): number {
  // the blade comes in along x, as the aligning stroke leaves it
  const holder = compensated
    ? compensateRing(ring, D, 0.6, [1, 0]).points
    : Float64Array.from([...ring, ring[0], ring[1]]);
  const { points } = tipPath(onGrid(holder), D, 0, 0.02);
  return deviationOf([points], [ring]).largest;
}

describe('the tip under a compensated holder, on the machine grid', () => {
  test.each([
    ['a square', square],
    ['a star with sharp points', star],
    ['a circle of 30 mm', circle(15)],
    ['a circle of 3 mm', circle(1.5)],
    ['a curve as tight as the blade', circle(0.4)],
  ])('%s: within 0.03 mm, and not without compensation', (_, ring) => {
    expect(cut(ring, true)).toBeLessThanOrEqual(0.03);
    // on a large circle the uncompensated tip is off by only about d²/2r: the trailing start and end still show
    expect(cut(ring, false)).toBeGreaterThan(0.1);
  });

  test('a corner begins where the recipe says: turns of 22.5 degrees are swung round, or led as a curve', () => {
    const sixteen = Float64Array.from({ length: 32 }, (_, i) => {
      const a = ((i >> 1) * Math.PI) / 8;
      return 40 + 0.75 * (i % 2 ? Math.sin(a) : Math.cos(a));
    });
    const [sharp, flat] = [20, 30].map((corner) => compensateRing(sixteen, D, 0, [-0.2, 0.98], { corner }));
    expect(sharp.points.length).toBeGreaterThan(1.5 * flat.points.length);
    expect(sharp.radii.some(Number.isFinite)).toBe(false);
    expect(flat.radii.some(Number.isFinite)).toBe(true);
  });

  test('a pen follows the outline itself', () => {
    const { points } = compensateRing(square, 0, 0, [1, 0]);
    expect(Array.from(points)).toEqual([10, 10, 40, 10, 40, 40, 10, 40, 10, 10]);
  });

  test('several passes go round without the knife being lifted, and the overcut comes once, at the end', () => {
    const [once, thrice] = [1, 3].map((passes) => compensateRing(square, 0, 4, [1, 0], { passes }).points);
    expect(thrice.length - once.length).toBe(2 * square.length);
    expect(Array.from(thrice.slice(0, 10))).toEqual([...square, 10, 10]);
    expect(Array.from(thrice.slice(-4))).toEqual([10, 10, 14, 10]);
    // with a trailing blade each time as exactly
    const { points } = tipPath(
      onGrid(compensateRing(star, D, 0.6, [1, 0], { passes: 3 }).points),
      D,
      0,
      0.02,
    );
    expect(deviationOf([points], [star]).largest).toBeLessThanOrEqual(0.03);
  });

  test('overcut goes past the start by its length', () => {
    const { points } = compensateRing(square, 0, 4, [1, 0]);
    expect(Array.from(points.slice(-2))).toEqual([14, 10]);
    const long = compensateRing(square, 0, 33, [1, 0]).points;
    expect(Array.from(long.slice(-4))).toEqual([40, 10, 40, 13]);
  });
});
