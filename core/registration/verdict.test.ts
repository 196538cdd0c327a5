import { describe, expect, test } from '@jest/globals';
import type { Spot } from '../geometry/spot';
import { random } from '../random';
import { distorted, marksOf, normal } from './noise.testing';
import { judgeSheet, unmeasurable, USUAL_LIMITS } from './verdict';

const [WIDTH, HEIGHT, NOISE] = [384, 250, 0.02];
const MARKS = marksOf(WIDTH, HEIGHT, 1);

const chance = normal(51);
function read(marks: readonly Spot[], map: (at: Spot) => Spot): Spot[] {
  return marks.map((at) => map(at).map((v) => v + NOISE * chance()) as unknown as Spot);
}
const codes = (measured: readonly Spot[], designed = MARKS): string[] =>
  judgeSheet(designed, measured, NOISE).findings.map(({ code }) => code);
/** A sensor looks where marks should be and finds those that are there. */
const readThere = (marks: readonly Spot[], map: (at: Spot) => Spot, way: (at: Spot) => Spot) => {
  const there = read(marks.map(way), map);
  return marks.map((at) => {
    const [x, y] = map(at);
    return there.reduce((best, one) =>
      Math.hypot(one[0] - x, one[1] - y) < Math.hypot(best[0] - x, best[1] - y) ? one : best,
    );
  });
};

describe('fifty spoilt sheets, and fifty that are not', () => {
  const next = random(50);
  const sheet = () => distorted(WIDTH, { rotation: 6 * next() - 3, scaleX: 1 + 0.008 * next(), bow: next() });

  test('sheets as they should be are cut', () => {
    for (let run = 1; run <= 50; run++) {
      const { findings, fit, lies } = judgeSheet(MARKS, read(MARKS, sheet()), NOISE);
      expect(findings.filter(({ severity }) => severity === 'stop')).toEqual([]);
      expect([lies, fit?.isMirrored]).toEqual(['as-designed', false]);
    }
  });

  test('turned by 180°: told, and turned with it', () => {
    for (let run = 1; run <= 10; run++) {
      const map = sheet();
      const turn: (at: Spot) => Spot = ([x, y]) => [WIDTH - x, HEIGHT - y];
      const measured = readThere(MARKS, map, turn);
      const { findings, lies, fit } = judgeSheet(MARKS, measured, NOISE);
      expect(findings.map(({ code }) => code)).toEqual(['sheet-turned']);
      expect(lies).toBe('turned');
      // the design goes where the sheet was turned to
      const [x, y] = fit!.map([30, 40]);
      const [px, py] = map(turn([30, 40]));
      expect(Math.hypot(x - px, y - py)).toBeLessThan(0.1);
    }
  });

  test('turned, and its marks read one by one in the order of the design: told, and turned with it', () => {
    const map = sheet();
    const { lies, findings } = judgeSheet(
      MARKS,
      read(MARKS, (at) => map([WIDTH - at[0], HEIGHT - at[1]])),
      NOISE,
    );
    expect([lies, findings.map(({ code }) => code)]).toEqual(['turned', ['sheet-turned']]);
  });

  test('mirrored, read in order or where marks should be: refused', () => {
    for (let run = 1; run <= 10; run++) {
      const over: (at: Spot) => Spot = ([x, y]) => [WIDTH - x, y];
      expect(codes(read(MARKS.map(over), sheet()))).toContain('sheet-mirrored');
      expect(codes(readThere(MARKS, sheet(), over))).toContain('sheet-mirrored');
    }
  });

  test('read in another order: taken for what they are', () => {
    const map = sheet();
    const measured = read(MARKS, map);
    const { findings, fit } = judgeSheet(MARKS, [measured[1], measured[0], ...measured.slice(2)], NOISE);
    expect(findings.map(({ code, severity }) => [code, severity])).toEqual([['marks-swapped', 'note']]);
    const [x, y] = fit!.map([30, 40]);
    expect(Math.hypot(x - map([30, 40])[0], y - map([30, 40])[1])).toBeLessThan(0.1);
  });

  test('a sheet of another size or with other marks: refused', () => {
    for (let run = 1; run <= 10; run++) {
      const other = marksOf(WIDTH, HEIGHT, 1).map(([x, y], i): Spot => (i < 4 ? [x, y] : [x + 40, y]));
      expect(codes(read(other, sheet()))).toEqual(['another-sheet']);
      expect(codes(read(marksOf(300, 250, 1), sheet()))).toEqual(
        expect.arrayContaining([expect.stringMatching(/another-sheet|sheet-rescaled/)]),
      );
    }
    expect(codes(read(MARKS.slice(0, 4), sheet()))).toEqual(['another-sheet']);
  });

  test('printed at another size, or lying too far aslant: refused with the measure', () => {
    for (let run = 1; run <= 10; run++) {
      const scale = run % 2 ? 0.97 : 1.03;
      const { findings } = judgeSheet(
        MARKS,
        read(MARKS, distorted(WIDTH, { rotation: 1, scaleX: scale, scaleY: scale })),
        NOISE,
      );
      expect(findings).toContainEqual(expect.objectContaining({ code: 'sheet-rescaled', severity: 'stop' }));
      expect(findings.find(({ code }) => code === 'sheet-rescaled')!.message).toMatch(
        scale < 1 ? /9[67]\.\d\d %/ : /10[23]\.\d\d %/,
      );
      expect(codes(read(MARKS, distorted(WIDTH, { rotation: 9 })))).toContain('sheet-aslant');
    }
  });

  test('a mark that is something else: which one is said', () => {
    for (let run = 1; run <= 10; run++) {
      const measured = read(MARKS, sheet());
      const which = run % MARKS.length;
      const [x, y] = measured[which];
      const spoilt = measured.map((at, i): Spot => (i === which ? [x + 2, y - 1.5] : at));
      const { findings } = judgeSheet(MARKS, spoilt, NOISE);
      expect(findings.some(({ severity }) => severity === 'stop')).toBe(true);
    }
  });
});

test('marks that cannot measure a bow say so, with what that comes to; marks in between say nothing', () => {
  const corners = marksOf(WIDTH, HEIGHT, 0);
  const four = judgeSheet(corners, corners, NOISE);
  expect(four.findings).toEqual([
    expect.objectContaining({ code: 'not-measured', severity: 'check', limit: USUAL_LIMITS.residual }),
  ]);
  expect(four.findings[0].message).toMatch(/^Four marks cannot measure bow .* up to 1\.\d\d mm off/);
  expect(unmeasurable(corners, NOISE).map(({ code }) => code)).toEqual(['not-measured']);
  const more = marksOf(WIDTH, HEIGHT, 2);
  expect(unmeasurable(more, NOISE)).toEqual([]);
  expect(judgeSheet(more, more, NOISE).findings).toEqual([]);
});
