import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { Matrix } from '../geometry/matrix';
import { IDENTITY, mapped } from '../geometry/matrix';
import { toStrip } from './axes';
import { opened } from './lineText';
import { movedLine } from './movedLine';

const AXES = { step: 0.025, feedAxis: 'x', feedReversed: false, acrossReversed: false } as const;
const LINE = 'SP1;VS30;FS80;PU400,4000;VS30;PD440,4000,480,4040;VS12;PD500,4100;PU;';
const placesOf = (line: string): (readonly number[])[] =>
  opened(line).points.map(({ x, y }) => toStrip(AXES, 584.6)(x, y));

describe('a line for film that lies elsewhere', () => {
  test('says the same of its settings and speeds, and where nothing moved the same of its places', () => {
    const same = movedLine(LINE, IDENTITY, AXES, 584.6);
    expect(opened(same)).toEqual(opened(LINE));
  });

  test('every place lies where the motion has it, to half a unit each way, whichever way round the axes are', () => {
    fc.assert(
      fc.property(
        fc.double({ min: -0.3, max: 0.3, noNaN: true }),
        fc.integer({ min: -80, max: 80 }),
        fc.boolean(),
        fc.boolean(),
        fc.constantFrom('x' as const, 'y' as const),
        (t, d, feedReversed, acrossReversed, feedAxis) => {
          const axes = { ...AXES, feedReversed, acrossReversed, feedAxis };
          const onStrip = toStrip(axes, 584.6);
          const matrix: Matrix = [Math.cos(t), Math.sin(t), -Math.sin(t), Math.cos(t), d, d / 3];
          const before = opened(LINE).points.map(({ x, y }) => onStrip(x, y));
          const after = opened(movedLine(LINE, matrix, axes, 584.6)).points;
          expect(after).toHaveLength(before.length);
          for (const [i, { x, y }] of after.entries()) {
            const [wx, wy] = mapped(before[i], matrix);
            const [mx, my] = onStrip(x, y);
            expect(Math.max(Math.abs(mx - wx), Math.abs(my - wy))).toBeLessThanOrEqual(0.0125 + 1e-9);
          }
        },
      ),
    );
  });

  test('moved along the film by whole units it is moved by no more', () => {
    const there = placesOf(movedLine(LINE, [1, 0, 0, 1, 25, 0], AXES, 584.6));
    for (const [i, [x, y]] of placesOf(LINE).entries()) {
      expect(there[i][0]).toBeCloseTo(x + 25, 9);
      expect(there[i][1]).toBeCloseTo(y, 9);
    }
  });
});
