import { describe, expect, test } from '@jest/globals';
import { gaussian } from '../random';
import { wearOf } from './wear';

const points = (slope: number, noise = (): number => 0) =>
  [0, 20, 40, 60].map((metres) => ({ metres, force: 60 + slope * metres + noise(), sure: 4 }));

describe('a knife that dulls', () => {
  test('a straight creep is met exactly, and forecast to twice what it wanted new', () => {
    const wear = wearOf(points(0.5), 60)!;
    expect(wear.whenNew).toBeCloseTo(60, 9);
    expect(wear.perMetre).toBeCloseTo(0.5, 9);
    expect(wear.crept).toBeCloseTo(30, 9);
    expect(wear.until!.at).toBeCloseTo(120, 6);
    expect(wear.until!.from).toBeLessThan(120);
    expect(wear.until!.to).toBeGreaterThan(120);
    expect(wear.isWorn).toBe(false);
    expect(wearOf(points(0.5), 125)!.isWorn).toBe(true);
  });

  test('the forecast holds the truth in about 95 of 100 however the grids scatter', () => {
    const noise = gaussian(41, 2);
    let held = 0;
    for (let k = 0; k < 400; k++) {
      const { until } = wearOf(points(0.5, noise), 60)!;
      if (until && until.from <= 120 && 120 <= until.to) held++;
    }
    expect(held / 400).toBeGreaterThan(0.9);
  });

  test('one grid, or several at one place, tell no creep; a knife that wants twice as much is worn whatever the line says', () => {
    expect(wearOf(points(0.5).slice(0, 1), 3)).toMatchObject({ until: null, crept: 0, isWorn: false });
    expect(wearOf(points(-0.1), 60)!.until).toBeNull();
    const sudden = [
      { metres: 1, force: 60, sure: 3 },
      { metres: 1.2, force: 125, sure: 3 },
    ];
    expect(wearOf(sudden, 1.2)).toMatchObject({ isWorn: true, until: null });
    expect(wearOf([], 0)).toBeUndefined();
  });
});
