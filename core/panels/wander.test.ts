import { describe, expect, test } from '@jest/globals';
import { intersection, linesInside, rectangle, regionArea, regionBounds, weld } from '../geometry/region';
import type { Region } from '../geometry/region';
import { findCrossings } from '../geometry/crossings';
import { lineLength } from '../geometry/path';
import { narrowPlaces } from '../geometry/narrow';
import { random } from '../random';
import { NO_PANEL_CHOICES } from './choices';
import type { Ground } from './ground';
import { withInk } from './ground';
import { placeSeams } from './placeSeams';
import type { PanelRoom } from './room';
import type { Seams } from './seams';
import { cellsOf, within } from './split';
import { costOfLine, RUN_ON, wander } from './wander';
import { SEAM_RADIUS } from './wandering';

const box = (x: number, y: number, w: number, h: number): Region =>
  rectangle({ minX: x, minY: y, maxX: x + w, maxY: y + h });
const disc = (x: number, y: number, r: number): Float64Array =>
  Float64Array.from({ length: 120 }, (_, i) => {
    const a = (Math.PI * (i >> 1)) / 30;
    return i % 2 === 0 ? x + r * Math.cos(a) : y + r * Math.sin(a);
  });
/** Discs strewn loosely over a wall. */
function strewn(seed: number, width: number, height: number, count: number): Region {
  const next = random(seed * 37 + 5);
  const rings = Array.from({ length: count }, () =>
    disc(60 + next() * (width - 120), 60 + next() * (height - 120), 15 + next() * 45),
  );
  return weld(rings);
}
const groundOf = (region: Region): Ground =>
  withInk({
    box: regionBounds(region),
    regions: [region],
    kept: [],
    narrowest: 1.5,
    spread: 0,
  });
const ROOM: PanelRoom = { across: 560, along: 900, reserve: 0, turn: 'turned' };
const wandering = (region: Region, room = ROOM) =>
  placeSeams(groundOf(region), room, { ...NO_PANEL_CHOICES, way: 'wandering', keys: false });
const straight = (region: Region, room = ROOM) =>
  placeSeams(groundOf(region), room, { ...NO_PANEL_CHOICES, keys: false });

const rules = { narrowest: 1.5, radius: SEAM_RADIUS, kept: [], straight: [] };
const within200 = { from: 0, to: 400, low: 0, high: 200 };

/** Least radius that a line bends by, from the circle through points so far apart, mm. */
function leastRadius(line: Float64Array, apart: number): number {
  // walked evenly, so that short chords do not count as bends
  const at: [number, number][] = [];
  let left = 0;
  for (let i = 2; i < line.length; i += 2) {
    const [x, y, dx, dy] = [line[i - 2], line[i - 1], line[i] - line[i - 2], line[i + 1] - line[i - 1]];
    const length = Math.hypot(dx, dy);
    for (; left <= length; left += apart) at.push([x + (dx * left) / length, y + (dy * left) / length]);
    left -= length;
  }
  return at.slice(2).reduce((least, c, i) => {
    const [a, b] = [at[i], at[i + 1]];
    const [ab, bc, ca] = [
      Math.hypot(b[0] - a[0], b[1] - a[1]),
      Math.hypot(c[0] - b[0], c[1] - b[1]),
      Math.hypot(a[0] - c[0], a[1] - c[1]),
    ];
    const area = Math.abs((b[0] - a[0]) * (c[1] - a[1]) - (b[1] - a[1]) * (c[0] - a[0])) / 2;
    return area < 1e-9 ? least : Math.min(least, (ab * bc * ca) / (4 * area));
  }, Infinity);
}

describe('one seam', () => {
  test.each(['upright', 'level'] as const)('goes around what stands in its way (%s)', (axis) => {
    const [w, h] = axis === 'upright' ? [130, 60] : [60, 130];
    // two bars that leave a way at one side each
    const region: Region =
      axis === 'upright'
        ? [...box(0, 100, w, h), ...box(70, 250, w, h)]
        : [...box(100, 0, w, h), ...box(250, 70, w, h)];
    const line = wander([region], axis, within200, rules, 1e6);
    expect(costOfLine([region], line)).toEqual({ ink: 0, crossings: 0 });
    const along = axis === 'upright' ? 1 : 0;
    expect(line[along]).toBeCloseTo(-RUN_ON, 6);
    expect(line[line.length - 2 + along]).toBeCloseTo(400 + RUN_ON, 6);
    for (let i = 1 - along; i < line.length; i += 2) {
      expect(line[i]).toBeGreaterThanOrEqual(-0.01);
      expect(line[i]).toBeLessThanOrEqual(200.01);
    }
    // no nearer to the bars than it has to be, and not to and fro
    expect(lineLength({ points: line, closed: false })).toBeLessThan(400 + 2 * RUN_ON + 220);
    expect(leastRadius(line, 1)).toBeGreaterThan(SEAM_RADIUS * 0.85);
  });

  test('cuts the thinner of two stems where there is no way through, and square across', () => {
    const region: Region = [...box(0, 180, 90, 12), ...box(90, 180, 110, 60)];
    const line = wander([weld(region)], 'upright', within200, rules, 1e6);
    const { ink, crossings } = costOfLine([weld(region)], line);
    expect(crossings).toBe(2);
    expect(ink).toBeLessThan(12.6);
  });

  test('what is kept whole is gone around, though it costs more of other art', () => {
    const letter = { minX: 60, minY: 180, maxX: 140, maxY: 190 };
    const art = weld([...box(0, 150, 60, 60), rectangle(letter)[0], ...box(140, 150, 60, 60)]);
    const free = wander([art], 'upright', within200, rules, 1e6);
    expect(costOfLine([art], free).ink).toBeLessThan(11);
    const kept = wander([art], 'upright', within200, { ...rules, kept: [outsetBy(letter, -1)] }, 1e6);
    expect(linesInside([{ points: kept, closed: false }], rectangle(outsetBy(letter, -2)))).toEqual([]);
  });

  const outsetBy = (b: { minX: number; minY: number; maxX: number; maxY: number }, by: number) => ({
    minX: b.minX - by,
    minY: b.minY - by,
    maxX: b.maxX + by,
    maxY: b.maxY + by,
  });

  test('goes straight where seams of the other axis wander', () => {
    const region: Region = [...box(0, 100, 130, 60), ...box(70, 250, 130, 60)];
    const line = wander([region], 'upright', within200, { ...rules, straight: [[170, 200]] }, 1e6);
    const xs: number[] = [];
    for (let i = 0; i < line.length; i += 2) if (line[i + 1] > 172 && line[i + 1] < 198) xs.push(line[i]);
    expect(new Set(xs.map((x) => x.toFixed(2))).size).toBeLessThanOrEqual(1);
  });
});

describe('a set of them, on forty strewn walls', () => {
  const walls = Array.from({ length: 40 }, (_, seed) => strewn(seed, 2400, 820, 60));

  test('never cuts more art than the best straight seams, never crosses itself or another, keeps its radius', () => {
    let saved = 0;
    for (const region of walls) {
      const [best, way] = [straight(region), wandering(region)];
      expect(way.sum.ink).toBeLessThanOrEqual(best.sum.ink + 1e-6);
      saved += best.sum.ink - way.sum.ink;
      const lines = (way.seams.ways?.upright ?? []).flatMap((points) =>
        points ? [{ points, closed: false }] : [],
      );
      // each stands where it begins, for tape and handle
      way.seams.upright.forEach((x, i) => {
        const own = way.seams.ways?.upright[i];
        if (own) expect(own[0]).toBe(x);
      });
      // measured anew on the true outlines
      const measured = lines.reduce((sum, { points }) => sum + costOfLine([region], points).ink, 0);
      if (lines.length === way.seams.upright.length) expect(measured).toBeCloseTo(way.sum.ink, 6);
      expect(findCrossings(lines)).toEqual([]);
      for (const { points } of lines) expect(leastRadius(points, 1)).toBeGreaterThan(SEAM_RADIUS * 0.85);
      // in their corridors: every panel fits
      const panels = cellsOf(way.seams, NO_PANEL_CHOICES).map((cell) => within(region, cell));
      for (const part of panels) {
        const { minX, maxX } = regionBounds(part);
        expect(maxX - minX).toBeLessThanOrEqual(ROOM.across + 0.01);
      }
      const sum = panels.reduce((area, part) => area + regionArea(part), 0);
      expect(Math.abs(sum - regionArea(region))).toBeLessThan(10);
      expect(panels.slice(1).every((part, i) => regionArea(intersection(part, panels[i])) < 1)).toBe(true);
    }
    // not for nothing
    expect(saved).toBeGreaterThan(500);
  });

  test('leaves no sliver narrower than the film weeds that a straight cut would not leave', () => {
    const count = (region: Region, seams: Seams): number =>
      cellsOf(seams, NO_PANEL_CHOICES).reduce(
        (n, cell) => n + narrowPlaces(within(region, cell), 1.5).length,
        0,
      );
    let [wandered, even] = [0, 0];
    for (const region of walls.slice(0, 20)) {
      wandered += count(region, wandering(region).seams);
      even += count(region, straight(region).seams);
    }
    expect(wandered).toBeLessThanOrEqual(even);
  });
});
