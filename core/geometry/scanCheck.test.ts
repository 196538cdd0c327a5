import { describe, expect, test } from '@jest/globals';
import polygonClipping from 'polygon-clipping';
import { Clipper64, ClipType, FillRule } from 'clipper2-ts';
import { random } from '../random';
import type { GridPath } from './columns';
import { outlineLength, regionArea, ringArea, weld } from './region';
import { errorOf } from './scanCheck';

const isIn = (winding: number): boolean => winding !== 0;
const onGrid = (ring: Float64Array): GridPath =>
  Array.from({ length: ring.length / 2 }, (_, i) => ({
    x: Math.round(ring[2 * i] * 1000),
    y: Math.round(ring[2 * i + 1] * 1000),
  }));

/** A pile of needles through a few millimetres: many edges that nearly coincide. */
function pile(seed: number): Float64Array[] {
  const next = random(seed * 7919 + 5);
  return Array.from({ length: 20 + Math.floor(next() * 60) }, () => {
    const [a, l, w] = [next() * Math.PI, 5 + next() * 60, 0.002 + next() * 0.05];
    const [x, y] = [next() * 8, next() * 8];
    const [c, s] = [Math.cos(a), Math.sin(a)];
    return Float64Array.of(x - s * w, y + c * w, x + c * l, y + s * l, x + s * w, y - c * w);
  });
}

/** The library's own sweep, unwatched. */
function bare(rings: readonly Float64Array[]): GridPath[] {
  const clipper = new Clipper64();
  clipper.addSubject(rings.map(onGrid));
  const out: GridPath[] = [];
  clipper.execute(ClipType.Union, FillRule.NonZero, out);
  return out;
}

/** The same union in an independent library (polygon-clipping, Martinez–Rueda–Feito). */
function otherArea(rings: readonly Float64Array[]): number {
  const polygons = rings.map((ring) => [onGrid(ring).map(({ x, y }) => [x, y] as [number, number])]);
  return (
    polygonClipping
      .union(polygons)
      .flatMap((polygon) =>
        polygon.map((r, i) => (i === 0 ? 1 : -1) * Math.abs(ringArea(r.slice(0, -1).flat()))),
      )
      .reduce((a, b) => a + b, 0) / 1e6
  );
}

describe('a boolean looked at along lines', () => {
  const rings = pile(5);
  const subject = rings.map(onGrid);
  const right = weld(rings).map(onGrid);

  test('is right when it is, and when rounding has moved it', () => {
    expect(errorOf(subject, [], right, isIn)).toBe(0);
    const moved = right.map((path) => path.map(({ x, y }, i) => ({ x: x + (i % 2), y })));
    expect(errorOf(subject, [], moved, isIn)).toBe(0);
  });

  test('is wrong when something is missing, or there though it was not asked for', () => {
    const largest = right.reduce((a, b) => (b.length > a.length ? b : a));
    expect(
      errorOf(
        subject,
        [],
        right.filter((path) => path !== largest),
        isIn,
      ),
    ).toBeGreaterThan(100);
    const box = [
      { x: 0, y: 0 },
      { x: 8000, y: 0 },
      { x: 8000, y: 8000 },
      { x: 0, y: 8000 },
    ];
    expect(errorOf(subject, [], [...right, box], isIn)).toBeGreaterThan(1000);
    expect(errorOf(subject, [box], right, (s, c) => isIn(s) && !isIn(c))).toBeGreaterThan(100);
  });
});

test.each([3556, 14403, 15309])('pile %i, which the library sweeps astray, is welded right', (seed) => {
  const rings = pile(seed);
  expect(errorOf(rings.map(onGrid), [], bare(rings), isIn)).toBeGreaterThan(0);
  const welded = weld(rings);
  const off = Math.abs(regionArea(welded) - otherArea(rings));
  expect(off).toBeLessThan(outlineLength(welded) * 0.001);
});
