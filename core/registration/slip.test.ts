import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { gaussian } from '../random';
import { mapped } from '../geometry/matrix';
import { LEAST_APART, slipFrom } from './slip';

const place = fc.tuple(
  fc.double({ min: 0, max: 3000, noNaN: true }),
  fc.double({ min: 0, max: 1200, noNaN: true }),
);
const motion = fc.record({
  turn: fc.double({ min: -20, max: 20, noNaN: true }),
  x: fc.double({ min: -200, max: 200, noNaN: true }),
  y: fc.double({ min: -50, max: 50, noNaN: true }),
});
/** Turned about the origin, then moved. */
const moved = ([x, y]: readonly number[], { turn, x: dx, y: dy }: { turn: number; x: number; y: number }) => {
  const t = (turn * Math.PI) / 180;
  return [x * Math.cos(t) - y * Math.sin(t) + dx, x * Math.sin(t) + y * Math.cos(t) + dy] as const;
};

describe('film that slipped', () => {
  test('two places of a rigid motion give all of it (two points and their images determine a motion of the plane)', () => {
    fc.assert(
      fc.property(place, place, place, motion, (a, b, anywhere, how) => {
        fc.pre(Math.hypot(b[0] - a[0], b[1] - a[1]) >= LEAST_APART);
        const slip = slipFrom({ cut: a, found: moved(a, how) }, { cut: b, found: moved(b, how) })!;
        const [x, y] = mapped(anywhere, slip.matrix);
        const [wx, wy] = moved(anywhere, how);
        expect(Math.hypot(x - wx, y - wy)).toBeLessThan(1e-6);
        expect(slip.turn).toBeCloseTo(how.turn, 8);
        expect(Math.abs(slip.off)).toBeLessThan(1e-9);
      }),
    );
  });

  test('met a little off, what lies between them is off by no more, and its size stays', () => {
    const error = fc.double({ min: -0.5, max: 0.5, noNaN: true });
    fc.assert(
      fc.property(
        motion,
        fc.tuple(error, error, error, error),
        fc.double({ min: 0, max: 1, noNaN: true }),
        (how, e, t) => {
          const [a, b] = [
            [100, 100],
            [900, 400],
          ] as const;
          const off = ([x, y]: readonly number[], dx: number, dy: number) => [x + dx, y + dy] as const;
          const slip = slipFrom(
            { cut: a, found: off(moved(a, how), e[0], e[1]) },
            { cut: b, found: off(moved(b, how), e[2], e[3]) },
          )!;
          const between = [a[0] + t * (b[0] - a[0]), a[1] + t * (b[1] - a[1])];
          const [x, y] = mapped(between, slip.matrix);
          const [wx, wy] = moved(between, how);
          expect(Math.hypot(x - wx, y - wy)).toBeLessThanOrEqual(Math.SQRT1_2 * 2 + 1e-9);
          const [c, s] = slip.matrix;
          expect(Math.hypot(c, s)).toBeCloseTo(1, 12);
        },
      ),
    );
  });

  test('how far off a place is expected to lie is how far off it lies, over many tries', () => {
    const [a, b] = [
      [100, 100],
      [400, 180],
    ] as const;
    const blur = gaussian(7, 0.1);
    const met = ([x, y]: readonly [number, number]) => [x + blur(), y + blur()] as const;
    for (const at of [
      [250, 140],
      [1500, 300],
      [100, 500],
    ] as const) {
      let [sum, expected] = [0, 0];
      const tries = 4000;
      for (let i = 0; i < tries; i++) {
        const slip = slipFrom({ cut: a, found: met(a) }, { cut: b, found: met(b) })!;
        const [x, y] = mapped(at, slip.matrix);
        sum += (x - at[0]) ** 2 + (y - at[1]) ** 2;
        expected = 0.1 * slip.expectedAt(at);
      }
      expect(Math.sqrt(sum / tries) / expected).toBeGreaterThan(0.95);
      expect(Math.sqrt(sum / tries) / expected).toBeLessThan(1.05);
    }
  });

  test('too near to one another they tell nothing', () => {
    expect(slipFrom({ cut: [0, 0], found: [1, 1] }, { cut: [10, 0], found: [11, 1] })).toBeUndefined();
  });
});
