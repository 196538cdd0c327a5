import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { nextStep, ofStep, onOwnStep, ownStep, stepSize } from './ownSteps';

const PANEL = { least: 5, most: 210, steps: 42 };

test('the first step is the least, the last the most, each one alike', () => {
  expect([ofStep(PANEL, 1), ofStep(PANEL, 2), ofStep(PANEL, 42)]).toEqual([5, 10, 210]);
  expect(stepSize(PANEL)).toBe(5);
  expect([ownStep(PANEL, 5), ownStep(PANEL, 77), ownStep(PANEL, 400)]).toEqual([1, 15, 42]);
});

test('there and back, whatever the panel: no value moves by more than half a step', () => {
  const ranges = fc.record({
    least: fc.integer({ min: 1, max: 50 }),
    most: fc.integer({ min: 60, max: 900 }),
    steps: fc.integer({ min: 2, max: 200 }),
  });
  fc.assert(
    fc.property(ranges, fc.double({ min: 1, max: 900, noNaN: true }), (range, value) => {
      const done = onOwnStep(range, value);
      const inside = Math.min(range.most, Math.max(range.least, value));
      expect(Math.abs(done - inside)).toBeLessThanOrEqual(stepSize(range)! / 2 + 0.006);
      expect(ownStep(range, done)).toBe(ownStep(range, value));
    }),
  );
});

test('forces are in whole g, on the step all the same', () => {
  const fine = { least: 5, most: 210, steps: 83 };
  expect([ofStep(fine, 32), ofStep(fine, 32, 0)]).toEqual([82.5, 83]);
  for (let step = 1; step <= 83; step++) expect(ownStep(fine, ofStep(fine, step, 0))).toBe(step);
  expect(onOwnStep({ least: 5, most: 210 }, 77.3, 0)).toBe(77);
});

test('a machine that counts none has any value that it reaches', () => {
  expect(ownStep({ least: 5, most: 210 }, 77)).toBeUndefined();
  expect(onOwnStep({ least: 5, most: 210 }, 77.3)).toBe(77.3);
  expect(onOwnStep({ least: 5, most: 210 }, 777)).toBe(210);
});

test('a step up or down is the panel’s own, or a usual one; at an end there is none', () => {
  const fine = { least: 5, most: 210, steps: 83 };
  expect([nextStep(fine, 83, 1, 5, 0), nextStep(fine, 83, -1, 5, 0)]).toEqual([85, 80]);
  expect([nextStep(fine, 210, 1, 5, 0), nextStep(fine, 5, -1, 5, 0)]).toEqual([210, 5]);
  expect([nextStep({ least: 5, most: 210 }, 77, 1, 5), nextStep({ least: 5, most: 80 }, 77, 1, 5)]).toEqual([
    82, 80,
  ]);
});
