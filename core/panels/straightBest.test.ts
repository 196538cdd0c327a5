import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { intersection, rectangle, regionArea, weld } from '../geometry/region';
import type { Region } from '../geometry/region';
import { random } from '../random';
import type { InkProfile } from './ink';
import { costAt, inkProfile, valleys } from './ink';
import { straightBest } from './straightBest';

const box = (x: number, y: number, w: number, h: number): Region =>
  rectangle({ minX: x, minY: y, maxX: x + w, maxY: y + h });

/** Random triangles and boxes on whole millimetres, welded. */
function art(seed: number, shapes: number, width = 400): Region {
  const next = random(seed * 7919 + 3);
  const whole = (n: number): number => Math.floor(next() * n);
  const rings = Array.from({ length: shapes }, () => {
    const [x, y] = [whole(width - 80), whole(200)];
    return next() < 0.5
      ? box(x, y, 5 + whole(70), 5 + whole(60))[0]
      : weld([
          Float64Array.of(x, y, x + 10 + whole(60), y + whole(60), x + whole(40), y + 10 + whole(60)),
        ])[0];
  }).filter((ring) => ring !== undefined);
  return weld(rings);
}

/** mm of art on an upright line, measured by the area of a band a micrometre wide (an independent way: booleans). */
const measured = (region: Region, x: number): number =>
  regionArea(intersection(region, box(x, -1000, 0.001, 3000))) / 0.001;

describe('ink by position', () => {
  test('of a box with a hole: its height, and less where the hole is', () => {
    const frame: Region = [...box(0, 0, 100, 50), Float64Array.of(20, 10, 20, 40, 60, 40, 60, 10)];
    const upright = inkProfile([frame], 'upright');
    expect(costAt(upright, 10)).toEqual({ ink: 50, crossings: 2 });
    expect(costAt(upright, 40)).toEqual({ ink: 20, crossings: 4 });
    // on an edge of the hole the lesser side counts; outside there is nothing
    expect(costAt(upright, 60).ink).toBe(20);
    expect(costAt(upright, 120)).toEqual({ ink: 0, crossings: 0 });
    const level = inkProfile([frame], 'level');
    expect(costAt(level, 5)).toEqual({ ink: 100, crossings: 2 });
    expect(costAt(level, 25)).toEqual({ ink: 60, crossings: 4 });
  });

  test('is what a band a micrometre wide holds, anywhere on random art', () => {
    for (let seed = 0; seed < 30; seed++) {
      const region = art(seed, 12);
      const profile = inkProfile([region], 'upright');
      const next = random(seed + 50);
      for (let k = 0; k < 12; k++) {
        const x = Math.floor(next() * 400) + 0.5;
        // rounding of the band's corners to the grid moves its area by a share of its outline
        expect(Math.abs(costAt(profile, x).ink - measured(region, x))).toBeLessThan(1.5);
      }
    }
  });

  test('its integral is the area (Cavalieri)', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 5000 }), fc.constantFrom('upright', 'level'), (seed, axis) => {
        const region = art(seed, 20);
        const { at, before, behind } = inkProfile([region], axis);
        let area = 0;
        for (let i = 0; i + 1 < at.length; i++)
          area += ((behind[i] + before[i + 1]) / 2) * (at[i + 1] - at[i]);
        expect(area).toBeCloseTo(regionArea(region), 4);
      }),
      { numRuns: 60 },
    );
  });

  test('several films add up, and a valley is no higher than what lies just beside it', () => {
    const [a, b] = [art(1, 8), art(2, 8)];
    const both = inkProfile([a, b], 'upright');
    for (const x of [30.5, 111.25, 260.5])
      expect(costAt(both, x).ink).toBeCloseTo(
        costAt(inkProfile([a], 'upright'), x).ink + costAt(inkProfile([b], 'upright'), x).ink,
        6,
      );
    const least = Math.min(...Array.from(valleys(both), (x) => costAt(both, x).ink));
    for (let x = both.at[0]; x < both.at[both.at.length - 1]; x += 0.25)
      expect(costAt(both, x).ink).toBeGreaterThanOrEqual(least - 1e-9);
  });
});

/** Every set of up to three seams on a fine raster, and what the best of them cuts. */
function byBruteForce(profile: InkProfile, to: number, widest: number, step: number): number {
  const places = Array.from({ length: Math.floor(to / step) - 1 }, (_, i) => (i + 1) * step);
  let best = Infinity;
  const go = (from: number, sum: number, left: number): void => {
    if (sum >= best) return;
    if (to - from <= widest + 1e-9) best = Math.min(best, sum);
    if (left === 0) return;
    for (const x of places)
      if (x > from && x - from <= widest + 1e-9) go(x, sum + costAt(profile, x).ink, left - 1);
  };
  go(0, 0, 3);
  return best;
}

describe('seams that cut the least', () => {
  const cut = (profile: InkProfile, seams: readonly number[]): number =>
    seams.reduce((sum, x) => sum + costAt(profile, x).ink, 0);
  const even = (widest: number) => ({ first: widest, between: widest, last: widest });

  test('never more than brute force over a raster finds, on 150 small cases', () => {
    for (let seed = 0; seed < 150; seed++) {
      const profile = inkProfile([art(seed, 4 + (seed % 9))], 'upright');
      const widest = 150 + (seed % 40);
      const seams = straightBest(profile, [0, 400], even(widest))!;
      expect(cut(profile, seams)).toBeLessThanOrEqual(byBruteForce(profile, 400, widest, 2) + 1e-3);
      [...seams, 400].forEach((x, i) => expect(x - (seams[i - 1] ?? 0)).toBeLessThanOrEqual(widest + 1e-3));
    }
  });

  test('goes through gaps wherever there are any', () => {
    const letters = [0, 110, 220, 330].flatMap((x) => box(x, 0, 100, 80));
    const profile = inkProfile([letters], 'upright');
    const seams = straightBest(profile, [0, 430], even(225))!;
    expect(seams).toHaveLength(1);
    expect(cut(profile, seams)).toBe(0);
    // in the middle of the gap, where it is easiest to join
    expect(seams[0]).toBeCloseTo(215, 2);
    // and as near to that as a full panel lets it
    expect(straightBest(profile, [0, 430], { first: 212, between: 225, last: 225 })![0]).toBeCloseTo(211, 2);
  });

  test('one panel more is taken to cut less, many more are not', () => {
    const bars = [0, 150, 300].flatMap((x) => box(x, 0, 140, 60));
    const profile = inkProfile([bars], 'upright');
    expect(straightBest(profile, [0, 440], even(225))).toHaveLength(2);
    expect(cut(profile, straightBest(profile, [0, 440], even(225))!)).toBe(0);
  });

  test('nothing to cut where it fits; no way where a panel may have no width', () => {
    const profile = inkProfile([box(0, 0, 300, 50)], 'upright');
    expect(straightBest(profile, [0, 300], even(300))).toEqual([]);
    expect(straightBest(profile, [0, 300], even(0))).toBeUndefined();
    expect(straightBest(profile, [0, 300], even(-5))).toBeUndefined();
  });

  test('where panels must be full, seams stand a full panel apart', () => {
    const profile = inkProfile([box(0, 0, 600, 50)], 'upright');
    const seams = straightBest(profile, [0, 600], { first: 210, between: 210, last: 180 })!;
    expect(seams).toHaveLength(2);
    expect(seams[0]).toBeLessThanOrEqual(210);
    expect(600 - seams[1]).toBeLessThanOrEqual(180.001);
  });

  test('a 22 in word on a 12 in machine: 11.5 in kept, two pieces (common practice, no source)', () => {
    const inch = 25.4;
    const word = [0, 5.7, 11.4, 17.1].flatMap((x) => box(x * inch, 0, 4.9 * inch, 150));
    const seams = straightBest(inkProfile([word], 'upright'), [0, 22 * inch], even(11.5 * inch))!;
    expect(seams).toHaveLength(1);
    expect(Math.max(seams[0], 22 * inch - seams[0])).toBeLessThanOrEqual(11.5 * inch);
    expect(cut(inkProfile([word], 'upright'), seams)).toBe(0);
  });
});

test('where the art cut is the same, fewer outlines are crossed, and panels settle what is left', () => {
  // 20 mm of art everywhere: in one bar on the left, in two thin ones on the right
  const left = box(0, 0, 300, 20);
  const right = [...box(300, 0, 300, 10), ...box(300, 40, 300, 10)];
  const profile = inkProfile([left, right], 'upright');
  const widths = { first: 400, between: 400, last: 400 };
  const [seam, ...more] = straightBest(profile, [0, 600], widths)!;
  expect(more).toEqual([]);
  expect(seam).toBeLessThanOrEqual(300);
  expect(costAt(profile, seam)).toEqual({ ink: 20, crossings: 2 });
});

describe('what is kept whole', () => {
  const even = (widest: number) => ({ first: widest, between: widest, last: widest });
  const crosses = (x: number, kept: readonly (readonly [number, number])[]): number =>
    kept.filter(([a, b]) => x > a + 0.002 && x < b - 0.002).length;

  /** The fewest kept shapes crossed, and then the least ink, over every set of up to three seams on a raster. */
  function byBruteForceSparing(
    profile: InkProfile,
    to: number,
    widest: number,
    kept: readonly (readonly [number, number])[],
  ): readonly [number, number] {
    let best: readonly [number, number] = [Infinity, Infinity];
    const go = (from: number, crossed: number, sum: number, left: number): void => {
      if (crossed > best[0] || (crossed === best[0] && sum >= best[1])) return;
      if (to - from <= widest + 1e-9) best = [crossed, sum];
      if (left === 0) return;
      for (let x = 2; x < to; x += 2)
        if (x > from && x - from <= widest + 1e-9)
          go(x, crossed + crosses(x, kept), sum + costAt(profile, x).ink, left - 1);
    };
    go(0, 0, 0, 3);
    return best;
  }

  test('is crossed as little as brute force manages, and the art no more than that, on 80 small cases', () => {
    let spared = 0;
    for (let seed = 0; seed < 80; seed++) {
      const profile = inkProfile([art(seed, 6)], 'upright');
      const next = random(seed + 11);
      const kept = Array.from({ length: 1 + (seed % 4) }, () => {
        const from = Math.floor(next() * 360);
        return [from, from + 20 + Math.floor(next() * 120)] as const;
      });
      const seams = straightBest(profile, [0, 400], even(150 + (seed % 30)), kept)!;
      const crossed = seams.reduce((sum, x) => sum + crosses(x, kept), 0);
      const ink = seams.reduce((sum, x) => sum + costAt(profile, x).ink, 0);
      const [least, leastInk] = byBruteForceSparing(profile, 400, 150 + (seed % 30), kept);
      expect(crossed).toBeLessThanOrEqual(least);
      // tenths of a millimetre are what the art counts in where not all can be spared
      if (crossed === least) expect(ink).toBeLessThanOrEqual(leastInk + 0.4);
      if (crossed === 0) spared++;
    }
    expect(spared).toBeGreaterThan(20);
  });

  test('a seam runs along the edge of what it spares where that is all there is', () => {
    const profile = inkProfile([box(0, 0, 300, 50)], 'upright');
    const [seam] = straightBest(profile, [0, 300], even(220), [[85, 215]])!;
    expect(Math.min(Math.abs(seam - 150 + 67.5), Math.abs(seam - 150 - 67.5))).toBeLessThanOrEqual(2.6);
  });
});
