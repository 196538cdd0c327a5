/** Against known maps, closed forms, and what Gauss and Markov predict. */
import { describe, expect, test } from '@jest/globals';
import type { Spot } from '../geometry/spot';
import { random } from '../random';
import { fitSheet } from './fit';
import type { ModelName, Reading } from './models';
import { fitModel } from './models';
import type { Distortion } from './noise.testing';
import { distorted, marksOf, normal } from './noise.testing';

const [WIDTH, HEIGHT] = [384, 250];
const NOISE = 0.02;

const chance = normal(7);
function readings(marks: readonly Spot[], map: (at: Spot) => Spot, noise = 0): Reading[] {
  return marks.map((designed) => {
    const [x, y] = map(designed);
    return { designed, measured: [x + noise * chance(), y + noise * chance()] };
  });
}
const SHEET: Distortion = { rotation: 2.4, scaleX: 1.003, scaleY: 0.998 };
const inside: readonly Spot[] = [
  [0, 0],
  [192, 125],
  [384, 125],
  [100, 250],
  [430, 270],
];
const distance = (a: Spot, b: Spot): number => Math.hypot(a[0] - b[0], a[1] - b[1]);
const aslant = ([x, y]: Spot): Spot => {
  const w = 1 + 2e-5 * x - 1e-5 * y;
  return [(x + 4) / w, (y * 1.001 - 2) / w];
};

describe('known maps are recovered exactly', () => {
  test.each<readonly [ModelName, number, (at: Spot) => Spot]>([
    ['similarity', 0, distorted(WIDTH, { rotation: 178.3, scaleX: 0.9973, scaleY: 0.9973 })],
    ['affine', 0, distorted(WIDTH, SHEET)],
    ['bow', 1, distorted(WIDTH, { ...SHEET, bow: 0.8 })],
    ['projective', 1, aslant],
  ])('%s', (model, between, map) => {
    const fit = fitSheet(readings(marksOf(WIDTH, HEIGHT, between), map), NOISE)!;
    expect(fit.model).toBe(model);
    for (const at of inside) expect(distance(fit.map(at), map(at))).toBeLessThan(1e-8);
  });

  test('turn, scales, skew and bow are what they were; upright sheets too', () => {
    const fit = fitSheet(
      readings(marksOf(WIDTH, HEIGHT, 2), distorted(WIDTH, { ...SHEET, bow: 0.41 })),
      NOISE,
    )!;
    expect(fit.rotation).toBeCloseTo(2.4, 3);
    expect(fit.scaleX).toBeCloseTo(1.003, 6);
    expect(fit.scaleY).toBeCloseTo(0.998, 6);
    expect([fit.skew, fit.bow]).toEqual([expect.closeTo(0, 3), expect.closeTo(0.41, 6)]);
    const turnedUp = ([x, y]: Spot): Spot => [y, x];
    const upright = readings(marksOf(WIDTH, HEIGHT, 2), distorted(WIDTH, { bow: 0.41 })).map(
      ({ designed, measured }): Reading => ({ designed: turnedUp(designed), measured: turnedUp(measured) }),
    );
    expect(Math.abs(fitSheet(upright, NOISE)!.bow)).toBeCloseTo(0.41, 6);
  });

  test('a similarity as Umeyama (1991) has it', () => {
    const noisy = readings(marksOf(WIDTH, HEIGHT, 1), distorted(WIDTH, SHEET), 0.5);
    const mean = (of: (one: Reading) => Spot): Spot => {
      const all = noisy.map(of);
      return [0, 1].map((k) => all.reduce((sum, one) => sum + one[k], 0) / all.length) as unknown as Spot;
    };
    const [from, to] = [mean(({ designed }) => designed), mean(({ measured }) => measured)];
    let [dot, cross, square] = [0, 0, 0];
    for (const { designed, measured } of noisy) {
      const [x, y, p, q] = [
        designed[0] - from[0],
        designed[1] - from[1],
        measured[0] - to[0],
        measured[1] - to[1],
      ];
      [dot, cross, square] = [dot + x * p + y * q, cross + x * q - y * p, square + x * x + y * y];
    }
    const turn = Math.atan2(cross, dot);
    const scale = Math.hypot(dot, cross) / square;
    const { map } = fitModel('similarity', noisy)!;
    for (const [x, y] of inside) {
      const [u, v] = [scale * (x - from[0]), scale * (y - from[1])];
      const own: Spot = [
        to[0] + u * Math.cos(turn) - v * Math.sin(turn),
        to[1] + u * Math.sin(turn) + v * Math.cos(turn),
      ];
      expect(distance(map([x, y]), own)).toBeLessThan(1e-9);
    }
  });
});

describe('under noise', () => {
  test.each<readonly [ModelName, number, (at: Spot) => Spot]>([
    ['similarity', 0, distorted(WIDTH, { rotation: 1.1 })],
    ['affine', 0, distorted(WIDTH, SHEET)],
    ['bow', 1, distorted(WIDTH, { ...SHEET, bow: 0.6 })],
    ['double-bow', 2, distorted(WIDTH, { ...SHEET, bow: 0.6 })],
    ['projective', 1, aslant],
  ])('%s: places lie as far off as Gauss and Markov predict, within a tenth', (model, between, map) => {
    const marks = marksOf(WIDTH, HEIGHT, between);
    const sums = inside.map(() => 0);
    const RUNS = 1000;
    for (let run = 1; run <= RUNS; run++) {
      const fit = fitModel(model, readings(marks, map, NOISE))!;
      inside.forEach((at, i) => (sums[i] += distance(fit.map(at), map(at)) ** 2));
    }
    const { covarianceAt } = fitModel(model, readings(marks, map))!;
    inside.forEach((at, i) => {
      const [xx, yy] = covarianceAt(at);
      const predicted = NOISE * Math.sqrt(xx + yy);
      expect(Math.abs(Math.sqrt(sums[i] / RUNS) / predicted - 1)).toBeLessThan(0.1);
    });
  });

  test('the simplest model that explains what was read is taken: seldom a larger one, never one too small by much', () => {
    const next = random(77);
    let larger = 0;
    for (let run = 1; run <= 300; run++) {
      const map = distorted(WIDTH, { rotation: 6 * next() - 3 });
      const { model, isExplained } = fitSheet(readings(marksOf(WIDTH, HEIGHT, 2), map, NOISE), NOISE)!;
      if (model !== 'similarity') larger++;
      expect(isExplained).toBe(true);
    }
    // four tests at one in a hundred each
    expect(larger / 300).toBeLessThan(0.06);
    for (let run = 1; run <= 100; run++) {
      const map = distorted(WIDTH, { rotation: 6 * next() - 3, scaleX: 1.004, bow: 0.7 });
      const fit = fitSheet(readings(marksOf(WIDTH, HEIGHT, 2), map, NOISE), NOISE)!;
      expect(['bow', 'double-bow']).toContain(fit.model);
      for (const at of inside.slice(0, 4)) expect(distance(fit.map(at), map(at))).toBeLessThan(0.1);
    }
  });

  test('as many unknowns as readings only where nothing simpler will do', () => {
    const three = marksOf(WIDTH, HEIGHT, 0).slice(0, 3);
    const straight = fitSheet(readings(three, distorted(WIDTH, { rotation: 1 }), NOISE), NOISE)!;
    expect(straight.model).toBe('similarity');
    const stretched = fitSheet(readings(three, distorted(WIDTH, SHEET), NOISE), NOISE)!;
    expect(stretched.model).toBe('affine');
    expect(stretched.tried.at(-1)).toMatchObject({ model: 'affine', chance: undefined });
    const two = fitSheet(readings(three.slice(0, 2), distorted(WIDTH, { rotation: 1 })), NOISE)!;
    expect(two.model).toBe('similarity');
  });

  test('what no model explains is said', () => {
    const marks = marksOf(WIDTH, HEIGHT, 2);
    const spoilt = readings(marks, distorted(WIDTH, SHEET), NOISE);
    const [first, ...rest] = spoilt;
    const slipped = [
      { ...first, measured: [first.measured[0] + 0.6, first.measured[1] - 0.4] as Spot },
      ...rest,
    ];
    const fit = fitSheet(slipped, NOISE)!;
    expect(fit.isExplained).toBe(false);
    expect(fit.worst).toBeGreaterThan(0.1);
  });

  test('marks at one place, or none, tell nothing', () => {
    const [one] = readings([[10, 10]], distorted(WIDTH, SHEET));
    expect(fitSheet([], NOISE)).toBeUndefined();
    expect(fitSheet([one], NOISE)).toBeUndefined();
    expect(fitSheet([one, one, one], NOISE)).toBeUndefined();
  });
});
