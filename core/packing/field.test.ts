import { expect, test } from '@jest/globals';
import * as Flatten from '@flatten-js/core';
import { random } from '../random';
import type { Ring } from '../geometry/region';
import { away, distanceTo, fieldOf } from './field';

const star = (points: number, next: () => number): Ring =>
  Float64Array.from({ length: 2 * points }, (_, i) => {
    const k = Math.floor(i / 2);
    const turn = (2 * Math.PI * (k + 0.6 * next())) / points;
    return (30 + 70 * next()) * (i % 2 === 0 ? Math.cos(turn) : Math.sin(turn));
  });
/** As an independent library (@flatten-js/core) measures it. */
function measured(ring: Ring, x: number, y: number): number {
  const corners = Array.from({ length: ring.length / 2 }, (_, i) =>
    Flatten.point(ring[2 * i], ring[2 * i + 1]),
  );
  const polygon = new Flatten.Polygon(corners);
  const at = Flatten.point(x, y);
  const edges = corners.map((corner, i) => Flatten.segment(corner, corners[(i + 1) % corners.length]));
  const away = edges.reduce((least, edge) => Math.min(least, at.distanceTo(edge)[0]), Infinity);
  return polygon.contains(at) ? -away : away;
}

test('near a distance that is asked for it is exact, inside and out; further off it is about right', () => {
  const next = random(7);
  for (let round = 0; round < 12; round++) {
    // corners in order round the middle, so that no outline crosses itself
    const ring = star(5 + Math.floor(next() * 12), () => next());
    const field = fieldOf([ring], 6);
    for (let i = 0; i < 150; i++) {
      const [x, y] = [240 * next() - 120, 240 * next() - 120];
      const is = measured(ring, x, y);
      const found = distanceTo(field, x, y, 3);
      if (Math.abs(is - 3) < field.cell / 4) expect(found).toBeCloseTo(is, 6);
      else if (found !== Infinity) expect(Math.abs(found - is)).toBeLessThan(2 * field.cell);
      else expect(is).toBeGreaterThan(6);
    }
  }
});

test('the way out is where the distance grows', () => {
  const ring = Float64Array.of(0, 0, 100, 0, 100, 40, 0, 40);
  const field = fieldOf([ring], 5);
  expect(distanceTo(field, 50, 3, 0)).toBeCloseTo(-3, 9);
  expect([away.alongX, away.alongY].map((v) => v + 0)).toEqual([0, -1]);
  expect(distanceTo(field, 101.5, 20, 0)).toBeCloseTo(1.5, 9);
  expect([away.alongX, away.alongY]).toEqual([1, 0]);
  expect(distanceTo(field, 300, 20, 0)).toBe(Infinity);
});

test('the inside of a hole is outside', () => {
  const outer = Float64Array.of(0, 0, 100, 0, 100, 100, 0, 100);
  const hole = Float64Array.of(20, 20, 20, 80, 80, 80, 80, 20);
  const field = fieldOf([outer, hole], 5);
  expect(distanceTo(field, 22, 50, 0)).toBeCloseTo(2, 9);
  expect(distanceTo(field, 18, 50, 0)).toBeCloseTo(-2, 9);
});
