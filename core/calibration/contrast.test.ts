import { describe, expect, test } from '@jest/globals';
import { gaussian, random } from '../random';
import { contrastFrom } from './contrast';
import { judgeRun, sameQuantity } from './run';
import type { Seen, Setup } from './run';

const SETUP: Setup = { kind: 'contrast', film: 'lilac', width: 297, height: 210 };
const ground = { before: [1, 0.15], step: 0.025, earlier: [] };
const seenAs = (levels: Seen['levels']): Seen => ({ places: [], shared: 0, levels });

describe('the contrast of a stock', () => {
  test('half way between stock and mark, and what the stock alone does not show', () => {
    const levels = [0.6, 0.62, 0.58, 0.6].map((bare, i) => ({
      bare,
      contrast: 0.5,
      dip: 0.05 + 0.01 * (i % 2),
    }));
    const found = contrastFrom(levels)!;
    expect(found.threshold.value).toBeCloseTo(0.35, 9);
    // four values: Student's 3.182 of three degrees of freedom (from memory), a deviation of 0.0163
    expect(found.threshold.sure).toBeCloseTo((3.182 * 0.01633) / 2, 4);
    expect(found.least.value).toBeCloseTo(0.055 + 4 * 0.005774, 5);
    expect(found).toMatchObject({ contrast: 0.5, isTooFaint: false });
    // however even a stock is, dust is not taken for marks
    expect(contrastFrom(levels.map((one) => ({ ...one, dip: 0 })))!.least.value).toBe(0.04);
    expect(contrastFrom(levels.slice(0, 1))).toBeUndefined();
  });

  test('in 300 sheets the interval of the threshold holds the truth in 95 of 100', () => {
    const [next, noise] = [random(11), gaussian(12, 0.02)];
    const held = Array.from({ length: 300 }, () => {
      const [bare, mark] = [0.3 + 0.6 * next(), 0.05 + 0.1 * next()];
      const levels = Array.from({ length: 4 }, () => {
        const own = bare + noise();
        return { bare: own, contrast: own - mark - noise(), dip: 0.02 };
      });
      const { threshold } = contrastFrom(levels)!;
      return Math.abs(threshold.value - (bare + mark) / 2) <= threshold.sure;
    });
    expect(held.filter(Boolean).length / held.length).toBeGreaterThan(0.92);
    expect(held.filter(Boolean).length / held.length).toBeLessThan(0.98);
  });

  test('marks that the stock itself nearly shows are not trusted, and that is said', () => {
    const faint = judgeRun(
      SETUP,
      seenAs([0, 1, 2].map(() => ({ bare: 0.3, contrast: 0.12, dip: 0.08 }))),
      {},
      ground,
    );
    expect(faint).toMatchObject({
      says: 'more',
      message: expect.stringMatching(/12 % darker.*8 %.*white patch/),
    });
    const good = judgeRun(
      SETUP,
      seenAs([0, 1, 2].map(() => ({ bare: 0.3, contrast: 0.2, dip: 0.05 }))),
      {},
      ground,
    );
    expect(good).toMatchObject({
      says: 'found',
      found: { changes: [{ value: expect.closeTo(0.2, 9) }, { value: expect.closeTo(0.05, 9) }] },
    });
    expect(judgeRun(SETUP, null, {}, ground).says).toBe('more');
  });

  test('one stock says nothing of another', () => {
    expect(sameQuantity(SETUP, { ...SETUP, width: 420 })).toBe(true);
    expect(sameQuantity(SETUP, { ...SETUP, film: 'sea' })).toBe(false);
    expect(sameQuantity(SETUP, { ...SETUP, kind: 'sensor-print' })).toBe(false);
  });
});
