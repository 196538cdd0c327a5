import { describe, expect, test } from '@jest/globals';
import { createHpglReader } from '../hpgl/readHpgl';
import { flatten } from '../geometry/path';
import { compensateRing } from './compensate';
import { speedsAlong } from './slower';
import { lineMoments, lineSeconds } from './time';
import { writeHpgl } from '../devicelang/writeHpgl';
import { kindRecipes } from './kinds';

const K = 0.5522847498;
const circle = (r: number) =>
  flatten(
    {
      ops: 'MCCCCZ',
      xy: [
        ...[r, 0, r, K * r, K * r, r, 0, r, -K * r, r, -r, K * r, -r, 0],
        ...[-r, -K * r, -K * r, -r, 0, -r, K * r, -r, r, -K * r, r, 0],
      ],
    },
    [1, 0, 0, 1, 90, 90],
  )[0].points;
/** A slot: two straight sides of 60 mm and two half circles. */
const slot = (r: number) =>
  flatten(
    {
      ops: 'MLCCLCCZ',
      xy: [
        ...[0, 0, 60, 0, 60 + K * r, 0, 60 + r, r - K * r, 60 + r, r],
        ...[60 + r, r + K * r, 60 + K * r, 2 * r, 60, 2 * r, 0, 2 * r],
        ...[-K * r, 2 * r, -r, r + K * r, -r, r, -r, r - K * r, -K * r, 0, 0, 0],
      ],
    },
    [1, 0, 0, 1, 20, 20],
  )[0].points;
const slowing = { speed: 30, least: 1, radius: 10 };

describe('the radius of a curve, by how its chords turn', () => {
  test.each([0.8, 2, 5, 20, 60])('a circle of %p mm, to 4 %% of it, all the way round', (r) => {
    for (const offset of [0, 0.25]) {
      const { radii } = compensateRing(circle(r), offset, 0, [0, 1]);
      const curved = radii.filter(Number.isFinite);
      expect(curved.length).toBeGreaterThanOrEqual(circle(r).length / 2);
      for (const radius of curved) expect(Math.abs(radius / r - 1)).toBeLessThan(0.04);
    }
  });

  test('straight sides and corners have none', () => {
    const square = Float64Array.of(10, 10, 40, 10, 40, 40, 10, 40);
    expect([...compensateRing(square, 0.25, 0.6, [1, 0]).radii].some(Number.isFinite)).toBe(false);
  });
});

describe('speeds', () => {
  const along = (ring: Float64Array, how = slowing) => {
    const { points, radii } = compensateRing(ring, 0.25, 0.6, [1, 0]);
    return { points, speeds: speedsAlong(points, radii, how) };
  };

  test('what pushes aside in a curve is never more than in one of the radius that is told', () => {
    for (const r of [0.5, 1, 2, 4, 8]) {
      const { speeds } = along(slot(r));
      const slowest = Math.min(...speeds!);
      // v² / r: the law of circular motion
      expect(slowest ** 2 / r).toBeLessThanOrEqual((slowing.speed ** 2 / slowing.radius) * 1.04);
      expect(slowest).toBeGreaterThan(0.6 * slowing.speed * Math.sqrt(r / slowing.radius));
      expect(Math.max(...speeds!)).toBe(30);
      expect([...speeds!].every(Number.isInteger)).toBe(true);
    }
  });

  test('one speed where nothing is tight, and none below what the machine has', () => {
    expect(along(circle(12)).speeds).toBeUndefined();
    expect(along(slot(0.5), { ...slowing, least: 9 }).speeds!.includes(9)).toBe(true);
    expect(Math.min(...along(slot(0.5), { ...slowing, least: 9 }).speeds!)).toBe(9);
    // one that is slower already stays as it is
    expect(along(slot(0.5), { speed: 9, least: 9, radius: 10 }).speeds).toBeUndefined();
  });

  test('speeds change seldom, and none of them for less than a millimetre', () => {
    for (const r of [0.6, 1.5, 4]) {
      const { points, speeds } = along(slot(r));
      let [run, at] = [0, 0];
      const fast: number[] = [];
      speeds!.forEach((speed, i) => {
        at += Math.hypot(points[2 * i + 2] - points[2 * i], points[2 * i + 3] - points[2 * i + 1]);
        if (speeds![i + 1] === speed) return;
        if (i < speeds!.length - 1 && run > 0) fast.push(at - run);
        run = at;
      });
      expect(fast.length).toBeGreaterThan(1);
      expect(Math.min(...fast)).toBeGreaterThan(1);
      // changes of it: into each of the two curves and out of it, by few steps
      expect(fast.length).toBeLessThan(20);
    }
  });

  test('it takes as long as its stretches would by themselves, less what is gained at their joints', () => {
    const line = [0, 0, 100, 0, 200, 0];
    const [v, a] = [300, 1500];
    // closed form: from rest to 300, down to 100, 100 on, and to rest
    const [fast, slow] = [
      v / a + (v - 100) / a + (100 - v ** 2 / (2 * a) - (v ** 2 - 100 ** 2) / (2 * a)) / v,
      100 / a + (100 - 100 ** 2 / (2 * a)) / 100,
    ];
    expect(lineSeconds(line, [v, 100], a, 0.02)).toBeCloseTo(fast + slow, 9);
    expect(lineMoments(line, [v, 100], a, 0.02)[1]).toBeCloseTo(fast, 9);
    expect(lineSeconds(line, [v, v], a, 0.02)).toBeCloseTo(lineSeconds(line, v, a, 0.02), 12);
  });
});

test('the bytes of a line: a speed before the moves that have it, and its first again before the next line', () => {
  const { points, radii } = compensateRing(slot(2), 0.25, 0.6, [1, 0]);
  const speeds = speedsAlong(points, radii, slowing)!;
  const line = { points, part: 'art' as const, copy: 0, kind: 'kiss' as const };
  const recipes = kindRecipes({ force: 80, speed: 30, blade: 'a', bladeOffset: 0.25, overcut: 0.6 }, {}, 600);
  const device = {
    ...({ step: 0.025, feedAxis: 'x', feedReversed: false, acrossReversed: false } as const),
    ...{ sendsForce: true, sendsSpeed: true, pointsInDown: 7, bufferBytes: 4096 },
  };
  const both = [{ ...line, speeds }, line];
  const { lines } = writeHpgl({ lines: both, recipes, length: 200 }, device, 300);
  let speed = 0;
  const told: number[] = [];
  const reader = createHpglReader();
  for (const { code, values } of reader.push(new TextDecoder().decode(lines[0]))) {
    if (code === 'VS') [speed] = values;
    if (code !== 'PD') continue;
    expect(values.length / 2).toBeLessThanOrEqual(7);
    for (let i = 0; i < values.length; i += 2) told.push(speed);
  }
  expect(told).toEqual([...speeds]);
  expect(new TextDecoder().decode(lines[1])).toMatch(/^SP1;VS30;FS80;PU/);
});
