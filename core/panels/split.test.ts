import { describe, expect, test } from '@jest/globals';
import { difference, intersection, rectangle, regionArea, regionBounds, weld } from '../geometry/region';
import type { Region } from '../geometry/region';
import { NO_PANEL_CHOICES, overlapAt } from './choices';
import { besideCommon, moved } from './seams';
import { cellsOf, within } from './split';

const box = (x: number, y: number, w: number, h: number): Region =>
  rectangle({ minX: x, minY: y, maxX: x + w, maxY: y + h });
const seams = { upright: [100, 300], level: [50] };
const choices = NO_PANEL_CHOICES;

describe('panels of straight seams', () => {
  test('are numbered row by row; the outermost reach as far as there is art', () => {
    const cells = cellsOf(seams, choices);
    expect(cells.map(({ number, row, column }) => [number, row, column])).toEqual([
      [1, 0, 0],
      [2, 0, 1],
      [3, 0, 2],
      [4, 1, 0],
      [5, 1, 1],
      [6, 1, 2],
    ]);
    expect(cells[4].seen).toMatchObject({ minX: 100, maxX: 300, minY: 50 });
    expect(cells[4].seen.maxY).toBeGreaterThan(30_000);
    expect(cells.every(({ outline }) => outline === undefined)).toBe(true);
  });

  test('what lies beneath reaches under its neighbour by its own seam’s overlap, on both axes', () => {
    const own = { ...choices, overlap: 4, overlaps: { upright: [null, 10], level: [7] } };
    expect([overlapAt(own, 'upright', 0), overlapAt(own, 'upright', 1), overlapAt(own, 'level', 0)]).toEqual([
      4, 10, 7,
    ]);
    const next = cellsOf(seams, { ...own, onTop: 'next' });
    expect(next[0].cut).toMatchObject({ maxX: 104, maxY: 57 });
    expect(next[1].cut).toMatchObject({ minX: 100, maxX: 310 });
    expect(next[5].cut).toMatchObject({ minX: 300, minY: 50 });
    const before = cellsOf(seams, { ...own, onTop: 'before' });
    expect(before[0].cut).toMatchObject({ maxX: 100, maxY: 50 });
    expect(before[4].cut).toMatchObject({ minX: 96, minY: 43, maxX: 300 });
  });
});

describe('panels of wandering seams', () => {
  const way = Float64Array.of(100, -20, 100, 40, 140, 40, 140, 90, 80, 90, 80, 140, 100, 140, 100, 220);
  const wandering = { upright: [100], level: [], ways: { upright: [way], level: [] } };
  const art = box(0, 0, 200, 200);

  test('make up the art, with nothing twice and nothing lost', () => {
    const [left, right] = cellsOf(wandering, choices).map((cell) => within(art, cell));
    expect(regionArea(left) + regionArea(right)).toBeCloseTo(regionArea(art), 3);
    expect(regionArea(intersection(left, right))).toBeLessThan(0.01);
    expect(regionArea(difference(art, weld([...left, ...right])))).toBeLessThan(0.2);
    expect(regionBounds(left).maxX).toBeCloseTo(140, 3);
    expect(regionBounds(right).minX).toBeCloseTo(80, 3);
    // the box of what is seen holds all of it
    const [first, second] = cellsOf(wandering, choices);
    expect([first.seen.maxX, second.seen.minX]).toEqual([140, 80]);
  });

  test('overlap on the side that lies beneath, all along the seam', () => {
    for (const onTop of ['next', 'before'] as const) {
      const own = { ...choices, overlap: 5, onTop };
      const [left, right] = cellsOf(wandering, own).map((cell) => within(art, cell));
      const shared = intersection(left, right);
      expect(regionArea(shared)).toBeGreaterThan(5 * 280);
      const plain = cellsOf(wandering, choices).map((cell) => within(art, cell));
      const [lower, upper] = onTop === 'next' ? [left, right] : [right, left];
      const [lowerPlain, upperPlain] = onTop === 'next' ? plain : [plain[1], plain[0]];
      expect(regionArea(difference(lowerPlain, lower))).toBeLessThan(0.2);
      expect(Math.abs(regionArea(upper) - regionArea(upperPlain))).toBeLessThan(0.2);
      expect(regionArea(lower)).toBeGreaterThan(regionArea(lowerPlain) + 5 * 280);
    }
  });

  test('cross straight seams of the other axis once, and are moved with them', () => {
    const both = { ...wandering, level: [60] };
    const cells = cellsOf(both, choices);
    expect(cells).toHaveLength(4);
    const parts = cells.map((cell) => within(art, cell));
    expect(parts.reduce((sum, part) => sum + regionArea(part), 0)).toBeCloseTo(regionArea(art), 2);
    const aside = moved(both, 12);
    expect([aside.upright, aside.level]).toEqual([[112], [72]]);
    expect(aside.ways!.upright[0]![0]).toBe(112);
    expect(aside.ways!.upright[0]![1]).toBe(-20);
    expect(moved(both, 0)).toBe(both);
  });
});

test('films’ seams lie evenly about the common ones', () => {
  expect(besideCommon(3, 10)).toEqual([-10, 0, 10]);
  expect(besideCommon(2, 10)).toEqual([-5, 5]);
  expect(besideCommon(1, 10)).toEqual([0]);
});
