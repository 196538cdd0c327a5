import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { grow, rectangle, regionArea, weld } from '../geometry/region';
import type { Region } from '../geometry/region';
import { random } from '../random';
import { clearance, coarser, inkGrid } from './inkGrid';
import { leastPath } from './leastPath';

const all = (rows: number, columns: number) => ({
  first: new Int32Array(rows),
  last: new Int32Array(rows).fill(columns - 1),
});
const NEVER = (): boolean => false;

/** What a way costs: half of both cells for each step, times its length. */
function costOf(path: readonly number[], cost: Float32Array, columns: number): number {
  let sum = cost[path[0]] / 2;
  for (let i = 1; i < path.length; i++) {
    const [a, b] = [path[i - 1], path[i]];
    const isLeaning = Math.floor(a / columns) !== Math.floor(b / columns) && a % columns !== b % columns;
    sum += ((cost[a] + cost[b]) / 2) * (isLeaning ? Math.SQRT2 : 1);
  }
  return sum;
}

/** All that can be reached, by relaxing every edge until nothing changes (Bellman 1958, Ford 1956). */
function byRelaxing(cost: Float32Array, rows: number, columns: number): number {
  const best = new Float64Array(rows * columns).fill(Infinity);
  for (let k = 0; k < columns; k++) best[k] = cost[k] / 2;
  for (let changed = true; changed;) {
    changed = false;
    for (let row = 0; row < rows; row++)
      for (let k = 0; k < columns; k++)
        for (const [dr, dk] of [
          [1, 0],
          [1, -1],
          [1, 1],
          ...(row > 0
            ? [
                [0, -1],
                [0, 1],
              ]
            : []),
        ]) {
          const [r, c] = [row + dr, k + dk];
          if (r >= rows || c < 0 || c >= columns) continue;
          const step = ((cost[row * columns + k] + cost[r * columns + c]) / 2) * (dr && dk ? Math.SQRT2 : 1);
          if (best[row * columns + k] + step < best[r * columns + c] - 1e-12) {
            best[r * columns + c] = best[row * columns + k] + step;
            changed = true;
          }
        }
  }
  return best.slice((rows - 1) * columns).reduce((least, v) => Math.min(least, v));
}

describe('the least costly way', () => {
  test('is as cheap as any, found by relaxing every step (Bellman–Ford)', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 1e6 }),
        fc.integer({ min: 2, max: 14 }),
        fc.integer({ min: 1, max: 12 }),
        (seed, rows, columns) => {
          const next = random(seed);
          const cost = Float32Array.from({ length: rows * columns }, () => (next() < 0.4 ? 5 : 0.1) + next());
          const path = [...leastPath({ rows, columns, cost, band: all(rows, columns), isStraight: NEVER })];
          expect(costOf(path, cost, columns)).toBeCloseTo(byRelaxing(cost, rows, columns), 6);
          // a row at a time, never back, never a jump
          path.slice(1).forEach((cell, i) => {
            const [dr, dk] = [
              Math.floor(cell / columns) - Math.floor(path[i] / columns),
              (cell % columns) - (path[i] % columns),
            ];
            expect([0, 1]).toContain(dr);
            expect(Math.abs(dk)).toBeLessThanOrEqual(1);
            expect(dr !== 0 || dk !== 0).toBe(true);
          });
          expect(new Set(path).size).toBe(path.length);
        },
      ),
      { numRuns: 200 },
    );
  });

  test('walks along a row where that is what it takes, goes straight where it has to, and stays in its band', () => {
    // a wall with its only gap at the far right
    const [rows, columns] = [5, 9];
    const cost = Float32Array.from({ length: rows * columns }, (_, i) =>
      Math.floor(i / columns) === 2 && i % columns !== 8 ? 1000 : 1,
    );
    for (let row = 0; row < 5; row++) if (row !== 2) cost[row * columns] = 0.01;
    const grid = { rows, columns, cost, band: all(rows, columns) };
    expect([...leastPath({ ...grid, isStraight: NEVER })].some((cell) => cell === 2 * columns + 8)).toBe(
      true,
    );
    const straight = [...leastPath({ ...grid, isStraight: () => true })];
    expect(new Set(straight.map((cell) => cell % columns)).size).toBe(1);
    const band = { first: new Int32Array(rows), last: new Int32Array(rows).fill(4) };
    expect([...leastPath({ ...grid, band, isStraight: NEVER })].every((cell) => cell % columns <= 4)).toBe(
      true,
    );
  });
});

describe('art on a grid', () => {
  const disc = (x: number, y: number, r: number): Float64Array =>
    Float64Array.from({ length: 240 }, (_, i) =>
      i % 2 === 0 ? x + r * Math.cos((Math.PI * i) / 120) : y + r * Math.sin((Math.PI * (i - 1)) / 120),
    );
  const ring: Region = weld([disc(100, 100, 80)]);
  const hole: Region = [
    ...ring,
    disc(100, 100, 40)
      .reverse()
      .map((_, i, all) => (i % 2 === 0 ? all[i + 1] : all[i - 1])),
  ];

  test.each(['upright', 'level'] as const)('covers the area that it has (%s)', (axis) => {
    const grid = inkGrid([ring], axis, { from: 0, to: 200, low: 0, high: 200 }, 0.5);
    const covered = grid.films.reduce((sum, films) => sum + films, 0) * 0.25;
    expect(Math.abs(covered - regionArea(ring))).toBeLessThan(0.002 * regionArea(ring));
  });

  test('holes are open, films add up, and what lies beside the corridor does not count', () => {
    const at = (regions: readonly Region[], x: number, y: number): number => {
      const grid = inkGrid(regions, 'upright', { from: 0, to: 200, low: 50, high: 150 }, 1);
      return grid.films[Math.floor(y) * grid.columns + Math.floor(x - 50)];
    };
    expect([at([hole], 100, 100), at([hole], 100, 40), at([hole], 51, 3)]).toEqual([0, 1, 0]);
    expect(at([hole, ring], 100, 40)).toBe(2);
    expect(at([rectangle({ minX: -50, minY: 0, maxX: 40, maxY: 200 })], 51, 100)).toBe(0);
  });

  test('clearance is the distance to the outline, within the few per cent of a chamfer (Borgefors 1986)', () => {
    const grid = inkGrid([ring], 'upright', { from: 0, to: 200, low: 0, high: 200 }, 1);
    const clear = clearance(grid, all(grid.rows, grid.columns), 30);
    for (let i = 0; i < clear.length; i += 97) {
      const [x, y] = [(i % grid.columns) + 0.5, Math.floor(i / grid.columns) + 0.5];
      const off = Math.min(30, Math.abs(Math.hypot(x - 100, y - 100) - 80));
      expect(Math.abs(clear[i] - off)).toBeLessThan(1.2 + 0.09 * off);
    }
    expect(grow(ring, -10).length).toBe(1);
  });

  test('coarser cells keep a gap in mind', () => {
    const gap = [
      ...rectangle({ minX: 0, minY: 0, maxX: 50, maxY: 8 }),
      ...rectangle({ minX: 52, minY: 0, maxX: 100, maxY: 8 }),
    ];
    const grid = inkGrid([gap], 'upright', { from: 0, to: 8, low: 0, high: 96 }, 1);
    const { films, columns } = coarser(grid, 4);
    expect(columns).toBe(24);
    expect(films[12]).toBeLessThan(films[5]);
    expect(films[5]).toBe(1);
  });
});
