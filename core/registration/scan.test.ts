import { describe, expect, test } from '@jest/globals';
import { random } from '../random';
import { normal } from './noise.testing';
import type { LineSought, Scan } from './scan';
import { cornerOf, deepestDip, findLine } from './scan';

const STEP = 0.025;
const SPOT = 0.2;
const SOUGHT: LineSought = { width: 1, isPale: false, leastContrast: 0.1 };

/** A sheet as a round spot sees it on its way: lines by where they begin and end, each with its own reflectance. */
function scanOf(
  length: number,
  lines: readonly (readonly [from: number, to: number, value: number])[],
  { paper = 0.9, noise = 0, passes = 1, chance = (): number => 0 } = {},
): Scan {
  const at = (x: number): number => lines.find(([from, to]) => x >= from && x < to)?.[2] ?? paper;
  const values = Array.from({ length: Math.round(length / STEP) }, (_, i) => {
    // the spot is summed up in slices, which has nothing to do with how edges are fitted
    let [sum, weight] = [0, 0];
    for (let k = -30; k <= 30; k++) {
      const w = Math.exp(-0.5 * (k / 10) ** 2);
      sum += w * at(i * STEP + (k / 10) * SPOT);
      weight += w;
    }
    let mean = 0;
    for (let pass = 0; pass < passes; pass++) mean += (noise * chance()) / passes;
    return sum / weight + mean;
  });
  return { step: STEP, values };
}
const found = (scan: Scan, sought = SOUGHT) => {
  const line = findLine(scan, sought);
  if (typeof line === 'string') throw new Error(line);
  return line;
};

describe('a line in a scan', () => {
  test('is found where it is, dark on paper or pale on dark stock, whatever its blur', () => {
    const next = random(3);
    for (let run = 0; run < 40; run++) {
      const from = 3 + 4 * next();
      const dark = found(scanOf(12, [[from, from + 1, 0.1]]));
      expect(Math.abs(dark.centre - from - 0.5)).toBeLessThan(0.004);
      expect(dark.contrast).toBeCloseTo(0.8, 2);
      expect(dark.edges[1] - dark.edges[0]).toBeCloseTo(1, 2);
      const pale = found(scanOf(12, [[from, from + 1, 0.8]], { paper: 0.2 }), { ...SOUGHT, isPale: true });
      expect(Math.abs(pale.centre - from - 0.5)).toBeLessThan(0.004);
    }
  });

  test('a line that is darker than its stock and still no mark is none', () => {
    const pale = scanOf(12, [[5, 6, 0.5]]);
    expect(found(pale).contrast).toBeCloseTo(0.4, 2);
    expect(findLine(pale, { ...SOUGHT, darkerThan: 0.45 })).toBe('low-contrast');
    expect(found(pale, { ...SOUGHT, darkerThan: 0.55 }).centre).toBeCloseTo(5.5, 2);
  });

  test('how deep the deepest line of a bare stock is', () => {
    expect(deepestDip(scanOf(12, []).values, Math.round(1 / STEP))).toBeLessThan(1e-9);
    expect(deepestDip(scanOf(12, [[5, 6, 0.4]]).values, Math.round(1 / STEP))).toBeGreaterThan(0.3);
    // the edge of something large is no line
    expect(deepestDip(scanOf(12, [[5, 12, 0.2]]).values, Math.round(1 / STEP))).toBeLessThan(0.02);
  });

  test('at 20 % contrast and 5 % noise, four passes: within 0.02 mm, and as far off as it says itself', () => {
    const [next, chance] = [random(4), normal(5)];
    let [square, claimed] = [0, 0];
    const RUNS = 300;
    for (let run = 0; run < RUNS; run++) {
      const from = 3 + 4 * next();
      const { centre, error } = found(
        scanOf(12, [[from, from + 1, 0.7]], { noise: 0.05, passes: 4, chance }),
      );
      square += (centre - from - 0.5) ** 2;
      claimed += error;
    }
    const rms = Math.sqrt(square / RUNS);
    expect(rms).toBeLessThan(0.02);
    expect(rms / (claimed / RUNS)).toBeGreaterThan(0.85);
    expect(rms / (claimed / RUNS)).toBeLessThan(1.15);
  });

  test('too faint, of another width, not there, or only an edge: each is said', () => {
    const chance = normal(6);
    const faint = scanOf(12, [[5, 6, 0.83]], { noise: 0.01, chance });
    expect(findLine(faint, SOUGHT)).toBe('low-contrast');
    expect(findLine(scanOf(12, [], { noise: 0.01, chance }), SOUGHT)).toBe('no-line');
    expect(findLine(scanOf(12, [[5, 12, 0.1]]), SOUGHT)).toBe('no-line');
    expect(findLine(scanOf(20, [[5, 6.6, 0.1]]), SOUGHT)).toBe('other-width');
    expect(findLine(scanOf(2, [[0.5, 1.5, 0.1]]), SOUGHT)).toBe('too-short');
    const buried = scanOf(12, [[5, 6, 0.78]], { noise: 0.4, chance });
    expect(['low-contrast', 'no-line', 'other-width']).toContain(findLine(buried, SOUGHT));
  });

  test('a line beside art is told from it', () => {
    const { centre } = found(
      scanOf(20, [
        [4, 5, 0.1],
        [11, 20, 0.1],
      ]),
    );
    expect(centre).toBeCloseTo(4.5, 2);
  });
});

describe('a corner', () => {
  test('lies where its arms meet', () => {
    expect(cornerOf([[10, 0], [10, 8]], [[2, 20], [7, 20]])).toEqual([10, 20]); // prettier-ignore
    const [x, y] = cornerOf([[0, 0], [1, 10]], [[5, 30], [15, 29]])!; // prettier-ignore
    // on both lines
    expect(x - y / 10).toBeCloseTo(0, 9);
    expect(y - 30 + (x - 5) / 10).toBeCloseTo(0, 9);
  });

  test('of arms that run alike does not tell', () => {
    expect(cornerOf([[0, 0], [0, 5]], [[3, 0], [3.1, 5]])).toBeUndefined(); // prettier-ignore
  });
});
