import { describe, expect, test } from '@jest/globals';
import { gaussian } from '../random';
import type { Spot } from '../geometry/spot';
import type { SeenOff } from './liesOff';
import { liesOff } from './liesOff';
import { crossPlaces } from './patterns';

const PLACES = crossPlaces(240, 160);

/** Moved, turned (radians) and stretched about the middle, read with some noise. */
function seenWith(move: Spot, turn: number, stretch: number, noise: () => number): SeenOff[] {
  const [cx, cy] = [0, 1].map((k) => PLACES.reduce((sum, at) => sum + at[k], 0) / PLACES.length);
  return PLACES.map((at) => {
    const [x, y] = [at[0] - cx, at[1] - cy];
    return {
      at,
      off: [move[0] - turn * y + stretch * x + noise(), move[1] + turn * x + stretch * y + noise()],
    };
  });
}

describe('what is seen at several places', () => {
  test('moved, turned and stretched are told apart, exactly', () => {
    const found = liesOff(seenWith([-0.3, 0.2], 0.002, -0.001, () => 0))!;
    expect(found.along.value).toBeCloseTo(-0.3, 12);
    expect(found.down.value).toBeCloseTo(0.2, 12);
    expect(found.turn.value).toBeCloseTo((0.002 * 180) / Math.PI, 12);
    expect(found.stretch.value).toBeCloseTo(-0.001, 12);
    expect(found.scatter).toBeLessThan(1e-12);
  });

  test('the interval holds the truth in 95 of 100 (1000 runs; three standard errors of that share are 2 %)', () => {
    const noise = gaussian(11, 0.04);
    let held = 0;
    for (let k = 0; k < 1000; k++) {
      const { along } = liesOff(seenWith([0.7, 0], 0.001, 0, noise))!;
      if (Math.abs(along.value - 0.7) <= along.sure) held++;
    }
    expect(Math.abs(held / 1000 - 0.95)).toBeLessThan(0.02);
  });

  test('no linear estimate scatters less: the mean of a place alone does by √5', () => {
    const noise = gaussian(23, 0.05);
    const runs = Array.from({ length: 400 }, () => seenWith([0, 0], 0, 0, noise));
    const rms = (values: readonly number[]): number =>
      Math.sqrt(values.reduce((sum, v) => sum + v * v, 0) / values.length);
    const all = rms(runs.map((run) => liesOff(run)!.along.value));
    // Gauss & Markov: σ / √n for what is moved alike
    expect(all / (0.05 / Math.sqrt(5))).toBeCloseTo(1, 0.9);
    expect(all).toBeLessThan(rms(runs.map((run) => run[2].off[0])));
  });

  test('what moves all places alike widens the interval; two places tell nothing', () => {
    const seen = seenWith([0.1, 0], 0, 0, gaussian(5, 0.02));
    const [alone, shared] = [liesOff(seen)!, liesOff(seen, 0.03)!];
    expect(shared.along.sure).toBeCloseTo(Math.hypot(alone.along.sure, 1.959964 * 0.03), 9);
    expect(liesOff(seen.slice(0, 2))).toBeUndefined();
    expect(liesOff(seen.map((one) => ({ ...one, at: [1, 1] })))).toBeUndefined();
  });
});
