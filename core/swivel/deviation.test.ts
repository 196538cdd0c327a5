import { describe, expect, test } from '@jest/globals';
import { rectangle } from '../geometry/region';
import { deviationOf, placesOff } from './deviation';

const square = rectangle({ minX: 0, minY: 0, maxX: 100, maxY: 100 });
const around = (by: number): Float64Array =>
  Float64Array.of(-by, -by, 100 + by, -by, 100 + by, 100 + by, -by, 100 + by, -by, -by);

describe('how far a cut lies from its design (Hausdorff distance)', () => {
  test('nothing where it lies on it, wherever it begins', () => {
    expect(deviationOf([around(0)], square).largest).toBe(0);
    const elsewhere = Float64Array.of(50, 0, 100, 0, 100, 100, 0, 100, 0, 0, 50, 0);
    expect(deviationOf([elsewhere], square).largest).toBe(0);
  });

  test('of a square cut larger all round, from corner to corner', () => {
    const { largest, at } = deviationOf([around(0.3)], square);
    expect(largest).toBeCloseTo(0.3 * Math.SQRT2, 9);
    expect(Math.abs(at[0] - 50)).toBeCloseTo(50.3, 9);
  });

  test('what was left out shows as much as what was cut astray', () => {
    const half = Float64Array.of(0, 0, 100, 0, 100, 10);
    const missing = deviationOf([half], square);
    expect(missing.largest).toBe(25);
    const astray = deviationOf([around(0), Float64Array.of(50, 50, 51, 50)], square);
    expect(astray.largest).toBe(25);
    const near = deviationOf([around(0), Float64Array.of(50, 3, 51, 3)], square);
    expect([near.largest, near.at]).toEqual([3, [50, 3]]);
  });

  test('a dashed line is kept to, but need not be cut all along; a drawn one has to be', () => {
    const fold = Float64Array.of(0, 200, 100, 200);
    const dashes = [Float64Array.of(0, 200, 3, 200), Float64Array.of(90, 200, 93, 200)];
    const lines = (dashed: boolean) => [{ points: fold, closed: false, dashed }];
    expect(deviationOf([around(0), ...dashes], square, lines(true)).largest).toBe(0);
    expect(deviationOf([around(0), ...dashes], square, lines(false)).largest).toBe(7);
    expect(deviationOf([around(0), Float64Array.of(0, 201, 3, 201)], square, lines(true)).largest).toBe(1);
  });

  test('nothing designed, nothing cut', () => {
    expect(deviationOf([], [])).toEqual({ largest: 0, at: [0, 0] });
  });

  test('places that lie off by more than a limit are told apart, each with its worst', () => {
    const off = Float64Array.of(
      0,
      0,
      40,
      0,
      50,
      0.4,
      50.5,
      0.6,
      60,
      0,
      100,
      0,
      100,
      50,
      99.7,
      51,
      100,
      52,
      100,
      100,
      0,
      100,
      0,
      0,
    );
    const { places, largest } = placesOff([off], square, [], 0.2);
    expect(largest).toBeCloseTo(0.6, 9);
    expect(places.map(({ largest: mm, at }) => [mm.toFixed(2), ...at])).toEqual([
      ['0.60', 50.5, 0.6],
      ['0.30', 99.7, 51],
    ]);
    expect(placesOff([off], square, [], 0.7).places).toEqual([]);
    const astray = Float64Array.from({ length: 20_000 }, (_, i) => (i % 2 ? 30 : i * 3));
    expect(placesOff([astray], square, [], 0.2).places.length).toBeLessThanOrEqual(500);
  });
});
