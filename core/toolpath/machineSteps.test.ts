import { describe, expect, test } from '@jest/globals';
import type { Ring } from '../geometry/region';
import { random } from '../random';
import { deviationOf } from '../swivel/deviation';
import { dragStraight, tipPath } from '../swivel/tractrix';
import type { Heading } from './dragged';
import { compensateRing } from './compensate';
import { ontoGrid, trailedOntoGrid } from './machineSteps';

const STEP = 0.025;
const STEPS = [STEP, STEP] as const;
const next = random(7);

/** A polygon of 3 to 60 corners, round or spiky, wherever and however turned. */
function outline(): Ring {
  const [corners, radius, turn, spikes] = [3 + Math.floor(57 * next()), 1 + 20 * next(), 7 * next(), next()];
  const [x, y] = [40 + next(), 40 + next()];
  const around = Array.from({ length: corners }, (_, i) => {
    const [r, a] = [radius * (spikes < 0.5 ? 1 : 0.4 + 0.6 * next()), turn + (2 * Math.PI * i) / corners];
    return [x + r * Math.cos(a), y + r * Math.sin(a)];
  });
  return Float64Array.from(around.flat());
}
const anyHeading = (): Heading => {
  const a = 2 * Math.PI * next();
  return [Math.cos(a), Math.sin(a)];
};

describe('a trailing blade in whole machine steps', () => {
  const runs = Array.from({ length: 150 }, (_, k) => {
    const [ring, heading, offset] = [outline(), anyHeading(), [0.25, 0.5, 0.9][k % 3]];
    const path = compensateRing(ring, offset, 0.6, heading);
    const angle = Math.atan2(heading[1], heading[0]);
    // the independent tip of core/swivel, followed in moves of 0.1 mm
    const tip = (points: Float64Array) => tipPath(points, offset, angle, 0.1);
    const off = (points: Float64Array): number => deviationOf([tip(points).points], [ring]).largest;
    const trailed = trailedOntoGrid(path, offset, heading, STEPS);
    return { path, trailed, off, tip };
  });

  test('150 outlines, however the blade lies when it comes down: within 0.03 mm; rounding alone is not', () => {
    expect(Math.max(...runs.map(({ trailed, off }) => off(trailed.points)))).toBeLessThanOrEqual(0.03);
    expect(
      Math.max(...runs.map(({ path, off }) => off(ontoGrid(path.points, STEPS).points))),
    ).toBeGreaterThan(0.03);
  });

  test('it goes by whole steps, none twice, no farther than a step from where the holder shall be', () => {
    for (const { path, trailed } of runs) {
      const { points } = trailed;
      for (let i = 0; i < points.length; i += 2) {
        expect(Math.abs(points[i] / STEP - Math.round(points[i] / STEP))).toBeLessThan(1e-6);
        if (i > 0) expect(points[i] !== points[i - 2] || points[i + 1] !== points[i - 1]).toBe(true);
      }
      const end = path.points.length - 2;
      const [dx, dy] = [0, 1].map((k) => Math.abs(points[points.length - 2 + k] - path.points[end + k]));
      expect(Math.max(dx, dy)).toBeLessThanOrEqual(STEP + 1e-9);
    }
  });

  test('how the blade lies at the end is how the tractrix leaves it', () => {
    for (const { trailed, tip } of runs) {
      const { angle } = tip(trailed.points);
      expect(trailed.heading[0]).toBeCloseTo(Math.cos(angle), 6);
      expect(trailed.heading[1]).toBeCloseTo(Math.sin(angle), 6);
    }
  });

  test('a holder pushed straight back over its tip leaves it as it lies', () => {
    const back = { points: Float64Array.of(0.5, 0, 0.25, 0), tips: Float64Array.of(0, 0, -0.25, 0) };
    expect(trailedOntoGrid(back, 0.5, [1, 0], STEPS).heading).toEqual([1, 0]);
    expect(dragStraight(0, 0.5, 0, 0.25, 0, 0.5)).toBeCloseTo(0, 9);
  });
});
