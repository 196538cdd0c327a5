/** Against the distance to every outline, measured one by one. */
import { describe, expect, test } from '@jest/globals';
import { isInside } from '../geometry/nesting';
import type { Region } from '../geometry/region';
import { difference, rectangle } from '../geometry/region';
import { random } from '../random';
import { nearestCells } from './nearestCells';

const WITHIN = rectangle({ minX: 0, minY: 0, maxX: 200, maxY: 150 });
/** What they share between them. */
const freeOf = (regions: readonly Region[]): Region => difference(WITHIN, regions.flat());

/** A small box in each cell of a grid, so that none overlaps another; some regions have several. */
function boxes(seed: number): Region[] {
  const next = random(seed);
  const regions: Float64Array[][] = Array.from({ length: 4 }, () => []);
  for (let x = 0; x < 200; x += 50)
    for (let y = 0; y < 150; y += 50) {
      const [minX, minY] = [x + 2 + 20 * next(), y + 2 + 20 * next()];
      const box = { minX, minY, maxX: minX + 4 + 20 * next(), maxY: minY + 4 + 20 * next() };
      regions[Math.floor(4 * next())].push(...rectangle(box));
    }
  return regions;
}

function distance(region: Region, x: number, y: number): number {
  let least = Infinity;
  for (const ring of region)
    for (let i = 0; i < ring.length; i += 2) {
      const to = (i + 2) % ring.length;
      const [ax, ay, dx, dy] = [ring[i], ring[i + 1], ring[to] - ring[i], ring[to + 1] - ring[i + 1]];
      const t = Math.max(0, Math.min(1, ((x - ax) * dx + (y - ay) * dy) / (dx * dx + dy * dy)));
      least = Math.min(least, Math.hypot(x - ax - t * dx, y - ay - t * dy));
    }
  return least;
}

const isIn = (cell: Region, x: number, y: number): boolean =>
  cell.filter((ring) => isInside(ring, [x, y])).length % 2 === 1;

describe('where each region is the nearest', () => {
  test('places are in the cell of the region that is nearest, but for a hair beside a border', () => {
    const next = random(3);
    for (let seed = 1; seed <= 12; seed++) {
      const regions = boxes(seed);
      const cells = nearestCells(regions, freeOf(regions));
      let told = 0;
      for (let k = 0; k < 400; k++) {
        const [x, y] = [200 * next(), 150 * next()];
        if (regions.some((region) => region.some((ring) => isInside(ring, [x, y])))) continue;
        const far = regions.map((region) => distance(region, x, y));
        const order = [...far.keys()].sort((a, b) => far[a] - far[b]);
        // a border may lie half of 0.25 mm off
        if (far[order[1]] - far[order[0]] < 0.3) continue;
        told++;
        expect(cells.map((cell) => isIn(cell, x, y))).toEqual(regions.map((_, i) => i === order[0]));
      }
      expect(told).toBeGreaterThan(150);
    }
  });

  test('one region is the nearest everywhere of interest', () => {
    const regions = [rectangle({ minX: 90, minY: 70, maxX: 110, maxY: 80 })];
    const [cell] = nearestCells(regions, freeOf(regions));
    for (const [x, y] of [
      [1, 1],
      [199, 149],
      [1, 149],
      [100, 75],
    ])
      expect(isIn(cell, x, y)).toBe(true);
  });
});
