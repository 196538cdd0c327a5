import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { reachOf, readLimits, readStanding, writeLimits, writeStanding } from './answers';
import { toStrip, toUnits } from './axes';
import { inStretches, opened, restOf } from './lineText';

const axes = fc.record({
  step: fc.constantFrom(0.01, 0.025, 0.05),
  feedAxis: fc.constantFrom('x' as const, 'y' as const),
  feedReversed: fc.boolean(),
  acrossReversed: fc.boolean(),
});
const mm = fc.double({ min: 0, max: 1500, noNaN: true });

test('there and back on any axes: no place moves by more than half a step', () => {
  fc.assert(
    fc.property(axes, mm, mm, (own, x, y) => {
      const [u, v] = toUnits(own, 1345)(x, y);
      expect([u, v].every(Number.isInteger)).toBe(true);
      const [backX, backY] = toStrip(own, 1345)(u, v);
      expect(Math.abs(backX - x)).toBeLessThanOrEqual(own.step / 2 + 1e-9);
      expect(Math.abs(backY - y)).toBeLessThanOrEqual(own.step / 2 + 1e-9);
    }),
  );
});

test('corners of a strip on each kind of axes', () => {
  const plain = { step: 0.025, feedAxis: 'x', feedReversed: false, acrossReversed: false } as const;
  // the far edge of the cuttable width is the top of the strip; plotters count from the near one
  expect(toUnits(plain, 100)(10, 0)).toEqual([400, 4000]);
  expect(toUnits({ ...plain, acrossReversed: true }, 100)(10, 0)).toEqual([400, 0]);
  expect(toUnits({ ...plain, feedReversed: true }, 100)(10, 0)).toEqual([-400, 4000]);
  expect(toUnits({ ...plain, feedAxis: 'y' }, 100)(10, 0)).toEqual([4000, 400]);
});

test('answers are read as they are written, and are none to another question', () => {
  const standing = { x: -40, y: 12_345, down: true };
  expect(readStanding(writeStanding(standing))).toEqual(standing);
  const limits = { x1: 0, y1: -200_000, x2: 23_384, y2: 0 };
  expect(readLimits(writeLimits(limits))).toEqual(limits);
  expect(readLimits(writeStanding(standing))).toBeUndefined();
  expect(readStanding('CURLEW')).toBeUndefined();
  const axesDown = { step: 0.025, feedAxis: 'y', feedReversed: true, acrossReversed: false } as const;
  expect(reachOf(limits, axesDown)).toEqual({ along: 5000, across: expect.closeTo(584.6, 9) });
});

test('a line broken off at any of its points and gone on with has all its points once', () => {
  const points = fc.array(
    fc.tuple(fc.integer({ min: -9999, max: 9999 }), fc.integer({ min: 0, max: 9999 })),
    {
      minLength: 2,
      maxLength: 120,
    },
  );
  fc.assert(
    fc.property(points, fc.nat(), (way, at) => {
      const [first, ...rest] = way.map((p) => p.join(','));
      const line = `SP2;FS40;PU${first};PD${rest.join(',')};PU;`;
      expect(inStretches(line).join('')).toBe(line);
      const from = at % way.length;
      const left = opened(restOf(line, from));
      expect(left.points.map(({ x, y }) => [x, y])).toEqual(way.slice(from));
      expect(left.settings.map(({ code }) => code)).toEqual(['SP', 'FS']);
    }),
  );
});

test('a line that is slower on its way is gone on with at the speed that it has there', () => {
  const line = 'SP1;VS30;PU0,0;VS30;PD10,0;VS12;PD20,0,30,0;VS30;PD40,0;PU;';
  expect(restOf(line, 1)).toBe('SP1;VS30;PU10,0;VS12;PD20,0;PD30,0;VS30;PD40,0;PU;');
  expect(restOf(line, 2)).toBe('SP1;VS30;PU20,0;VS12;PD30,0;VS30;PD40,0;PU;');
  expect(inStretches(restOf(line, 2)).join('')).toBe(restOf(line, 2));
});
