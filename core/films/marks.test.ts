import { describe, expect, test } from '@jest/globals';
import { boundsTouch } from '../geometry/bounds';
import { regionArea, regionBounds } from '../geometry/region';
import type { MarkChoices } from './marks';
import { markPlaces, markRegion, markSize } from './marks';

const sign = { minX: 0, minY: 0, maxX: 800, maxY: 300 };
const marks = (more: Partial<MarkChoices> = {}): MarkChoices => ({
  shape: 'square',
  count: 3,
  size: null,
  at: null,
  ...more,
});

describe('layer marks', () => {
  test('grow with the sign, within what a hand can see and film can spare (common practice, no source)', () => {
    const size = (width: number): number => markSize({ ...sign, maxX: width }, marks());
    expect([size(100), size(800), size(5000)]).toEqual([6, 16, 20]);
    expect(markSize(sign, marks({ size: 9 }))).toBe(9);
  });

  test.each([2, 3, 4] as const)('%i of them lie outside the sign, clear of it by their tab', (count) => {
    const places = markPlaces(sign, marks({ count }));
    expect(places).toHaveLength(count);
    for (const [x, y] of places) {
      expect(x < 0 || x > 800).toBe(true);
      expect(y > 0 && y < 300).toBe(true);
    }
    expect(boundsTouch(regionBounds(markRegion(sign, marks({ count }))), sign)).toBe(true);
  });

  test('three of them look different when the sign is turned or mirrored', () => {
    const places = markPlaces(sign, marks()).map(([x, y]) => `${x} ${y}`);
    const turned = markPlaces(sign, marks()).map(([x, y]) => `${800 - x} ${300 - y}`);
    const mirrored = markPlaces(sign, marks()).map(([x, y]) => `${800 - x} ${y}`);
    for (const other of [turned, mirrored]) expect(new Set([...places, ...other]).size).toBeGreaterThan(3);
  });

  test('stay where a person has put them, no more than are wanted', () => {
    const at = [
      { x: 1, y: 2 },
      { x: 3, y: 4 },
      { x: 5, y: 6 },
    ];
    expect(markPlaces(sign, marks({ at }))).toEqual([
      [1, 2],
      [3, 4],
      [5, 6],
    ]);
    expect(markPlaces(sign, marks({ at, count: 2 }))).toHaveLength(2);
  });

  test('are holes of their shape in a tab of film (areas by their formulas)', () => {
    const size = 16;
    const tab = (size * 1.8) ** 2;
    const hole = (shape: MarkChoices['shape']): number =>
      tab - regionArea(markRegion(sign, marks({ shape, count: 2, size }))) / 2;
    expect(hole('square')).toBeCloseTo(size ** 2, 2);
    expect(hole('triangle')).toBeCloseTo(size ** 2 / 2, 2);
    expect(hole('cross')).toBeCloseTo(2 * size * (size / 4) - (size / 4) ** 2, 2);
    expect(hole('ring')).toBeCloseTo(Math.PI * ((size / 2) ** 2 - (size / 4) ** 2), 0);
  });
});
