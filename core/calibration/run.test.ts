import { describe, expect, test } from '@jest/globals';
import type { Ground, Measured, Seen, Setup } from './run';
import { judgeRun, sameQuantity } from './run';
import { crossPlaces } from './patterns';

const ground: Ground = { before: [10, -0.8], step: 0.025, earlier: [] };
const PRINT: Setup = { kind: 'sensor-print', film: 'x', width: 297, height: 210 };
const seen: Seen = { places: crossPlaces(220, 130), shared: 0 };
const says = (measured: Measured, over: Partial<Ground> = {}) =>
  judgeRun(PRINT, seen, measured, { ...ground, ...over });
const found = (measured: Measured, over: Partial<Ground> = {}) => {
  const said = says(measured, over);
  if (said.says !== 'found') throw new Error(JSON.stringify(said));
  return said.found;
};
const OFF = [
  [-0.3, 0.2],
  [-0.25, 0.15],
  [-0.3, 0.2],
  [-0.35, 0.15],
  [-0.3, 0.25],
] as const;

describe('a run that was measured', () => {
  test('a cut to the left and front puts the sensor further along and back: the app does the sign', () => {
    const [along, down] = found({ off: OFF }).changes;
    expect(along).toMatchObject({ before: 10, value: expect.closeTo(10.3, 2) });
    expect(down).toMatchObject({ before: -0.8, value: expect.closeTo(-0.99, 2) });
    expect(along.left).toBeUndefined();
  });

  test('nothing is said of two places, or of what does not fit until it is looked at', () => {
    expect(says({ off: [OFF[0], OFF[1], null, null, null] }).says).toBe('more');
    const slipped = { off: [OFF[0], OFF[1], [-3, 0.2] as const, OFF[3], OFF[4]] };
    expect(says(slipped)).toMatchObject({ says: 'odd', odd: [{ at: 2, slip: 'ten' }] });
    expect(found({ ...slipped, leftOut: [2] }).changes[0].value).toBeCloseTo(10.3, 1);
    expect(found({ ...slipped, trusted: [2] }).changes[0].value).toBeGreaterThan(10.7);
  });

  test('runs before it that agree are taken in, one that does not ends that', () => {
    const like = [
      { value: 10.32, sure: 0.05 },
      { value: -1, sure: 0.05 },
    ];
    const other = [
      { value: 11, sure: 0.05 },
      { value: -1, sure: 0.05 },
    ];
    expect(found({ off: OFF }, { earlier: [like, like] }).runs).toBe(3);
    expect(found({ off: OFF }, { earlier: [other, like] }).runs).toBe(1);
    expect(found({ off: OFF }, { earlier: [like] }).changes[0].sure).toBeLessThan(
      found({ off: OFF }).changes[0].sure,
    );
  });

  test('what is kept already is not proposed again', () => {
    const { changes } = found({ off: OFF.map(() => [0.01, -0.01] as const) });
    expect(changes.map(({ left }) => left)).toEqual(['below-step', 'below-step']);
    // scattered by more than it is off
    const scattered = OFF.map((_, i) => [i % 2 === 0 ? 0.1 : -0.05, 0] as const);
    expect(found({ off: scattered }).changes[0].left).toBe('inside-noise');
  });

  test('a length that no cutter could be off by is asked about', () => {
    const setup: Setup = { kind: 'length', axis: 'along', whole: 1000 };
    const said = judgeRun(setup, null, { lengths: [null, null, 100.2] }, { ...ground, before: [1] });
    expect(said).toMatchObject({ says: 'odd', odd: [{ at: 2 }] });
    expect(judgeRun(setup, null, { lengths: [null, null, null] }, { ...ground, before: [1] }).says).toBe(
      'more',
    );
  });

  test('the best of a grid alone is taken as it is; a row needs one of its shapes', () => {
    const cells = [40, 60, 80].map((force) => ({ force, speed: 20 }));
    const grid: Setup = { kind: 'force', film: 'x', line: 'kiss', columns: 3, cells };
    const said = judgeRun(grid, null, { picked: 1 }, { ...ground, before: [75] });
    expect(said).toMatchObject({
      says: 'found',
      found: { changes: [{ value: 60, sure: 10 }], force: { clean: { from: 50, to: 70 }, speed: 20 } },
    });
    const row: Setup = { kind: 'blade-row', blade: '45°', values: [0.2, 0.25, 0.3] };
    expect(judgeRun(row, null, { picked: 7 }, { ...ground, before: [0.25] }).says).toBe('more');
  });

  test('runs of one quantity are told from those of another', () => {
    expect(sameQuantity({ kind: 'sensor-pen' }, PRINT)).toBe(true);
    expect(
      sameQuantity({ kind: 'blade-gap', blade: '45°' }, { kind: 'blade-row', blade: '45°', values: [] }),
    ).toBe(true);
    expect(sameQuantity({ kind: 'blade-gap', blade: '45°' }, { kind: 'blade-gap', blade: '60°' })).toBe(
      false,
    );
    expect(
      sameQuantity(
        { kind: 'length', axis: 'along', whole: 300 },
        { kind: 'length', axis: 'across', whole: 300 },
      ),
    ).toBe(false);
  });
});
