/** The stated error of a sheet, held against simulated sheets of every kind. */
import { describe, expect, test } from '@jest/globals';
import type { Spot } from '../geometry/spot';
import { random } from '../random';
import type { Distortion } from './distortion';
import { ENOUGH_SHEETS, USUAL_DISTORTION, usualDistortion } from './distortion';
import { fitSheet } from './fit';
import type { Reading } from './models';
import { normal } from './noise.testing';
import { times } from '../sample.testing';

const NOISE = 0.02;

/** How one sheet is printed and loaded. */
interface Lie {
  readonly rotation: number;
  readonly stretch: Spot;
  readonly bow: number;
  readonly unevenBow: number;
  readonly aslant: Spot;
}
const STRAIGHT: Lie = { rotation: 0.8, stretch: [1, 1], bow: 0, unevenBow: 0, aslant: [0, 0] };

/** The same place in the cutter. Written down by itself, not by the columns that are tested. */
const laid =
  (width: number, height: number, { rotation, stretch: [sx, sy], bow, unevenBow, aslant: [g, h] }: Lie) =>
  ([x, y]: Spot): Spot => {
    const [u, v] = [(2 * x) / width - 1, (2 * y) / height - 1];
    const bend = (bow + unevenBow * v) * (1 - u * u);
    const w = 1 + (2 * g * u) / width + (2 * h * v) / width;
    const [px, py] = [((x - width / 2) * sx) / w, ((y - height / 2) * sy + bend) / w];
    const [cos, sin] = [Math.cos((rotation * Math.PI) / 180), Math.sin((rotation * Math.PI) / 180)];
    return [cos * px - sin * py + 40, sin * px + cos * py + 70];
  };

/** So many marks: corners first, then places along both long edges. */
function marksOf(width: number, height: number, count: number): Spot[] {
  const corners: Spot[] = [
    [0, 0],
    [width, 0],
    [width, height],
    [0, height],
  ];
  const between = Math.max(0, count - 4);
  const along = Array.from({ length: between }, (_, i): Spot => {
    const [rank, of] = [i >> 1, (between + 1) >> 1];
    return i % 2 === 0
      ? [(width * (rank + 1)) / (of + 1) - 5, 0]
      : [(width * (rank + 1)) / (of + 1) + 5, height];
  });
  return [...corners.slice(0, count), ...along];
}

/** The share of places, on sheets of this kind, that lie within what is stated. */
function held(
  sheets: number,
  seed: number,
  lieOf: (next: () => number) => Lie,
  countOf: (i: number) => number,
): number {
  const [next, chance] = [random(seed), normal(seed)];
  let [inside, all] = [0, 0];
  for (let i = 0; i < sheets; i++) {
    const [width, height] = [250 + 700 * next(), 150 + 90 * next()];
    const map = laid(width, height, lieOf(next));
    const readings = marksOf(width, height, countOf(i)).map((designed): Reading => {
      const [x, y] = map(designed);
      return { designed, measured: [x + NOISE * chance(), y + NOISE * chance()] };
    });
    const fit = fitSheet(readings, NOISE)!;
    for (let k = 0; k < 40; k++) {
      const at: Spot = [width * next(), height * next()];
      const [[x, y], [u, v]] = [fit.map(at), map(at)];
      if (Math.hypot(x - u, y - v) <= fit.within95At(at)) inside++;
      all++;
    }
  }
  return inside / all;
}

const within = (next: () => number, most: number): number => most * (2 * next() - 1);
const SHEETS = times(300, 100);
const KINDS: Readonly<Record<string, (next: () => number) => Lie>> = {
  'turned only': (next) => ({ ...STRAIGHT, rotation: within(next, 3) }),
  stretched: (next) => ({ ...STRAIGHT, stretch: [1 + within(next, 0.005), 1 + within(next, 0.005)] }),
  bowed: (next) => ({ ...STRAIGHT, bow: within(next, 1) }),
  'bowed by a tenth of a millimetre': () => ({ ...STRAIGHT, bow: 0.1 }),
  'bowed and stretched': (next) => ({
    ...STRAIGHT,
    bow: within(next, 1),
    stretch: [1 + within(next, 0.005), 1 + within(next, 0.005)],
  }),
  'bowed unevenly': (next) => ({ ...STRAIGHT, bow: within(next, 0.8), unevenBow: within(next, 0.4) }),
  aslant: (next) => ({ ...STRAIGHT, aslant: [within(next, 0.5), within(next, 0.5)] }),
};

describe('95 of 100 places lie within what is stated, and 93 at least in any 300 sheets', () => {
  test.each(Object.keys(KINDS))('%s, three to twelve marks', (kind) => {
    expect(held(SHEETS, 31, KINDS[kind], (i) => 3 + (i % 10))).toBeGreaterThanOrEqual(0.93);
  });

  test.each([3, 4, 5, 6, 8, 12])('every kind, %i marks', (count) => {
    const kinds = Object.values(KINDS);
    const mixed = (next: () => number): Lie => kinds[Math.floor(next() * kinds.length)](next);
    expect(held(SHEETS, 77 + count, mixed, () => count)).toBeGreaterThanOrEqual(0.93);
  });
});

describe('what the marks cannot measure', () => {
  const map = laid(420, 297, { ...STRAIGHT, bow: 0.4 });
  const fitted = (count: number, usual?: Distortion): ReturnType<typeof fitSheet> =>
    fitSheet(
      marksOf(420, 297, count).map((designed) => ({ designed, measured: map(designed) })),
      NOISE,
      usual,
    );

  test('is named; with marks in between it is measured', () => {
    expect(fitted(2)!.unmeasured).toEqual(['stretch', 'skew', 'bow', 'unevenBow', 'aslant']);
    expect(fitted(4)!.unmeasured).toEqual(['bow', 'unevenBow']);
    const six = fitted(6)!;
    expect(six.unmeasured).toEqual([]);
    expect(six.distortion.bow).toBeCloseTo(0.4, 2);
    expect(fitted(4)!.distortion.bow).toBeUndefined();
  });

  test('counts as error in the middle of the sheet, and not at its marks', () => {
    const four = fitted(4)!;
    expect(four.within95At([210, 148])).toBeGreaterThan(0.8);
    expect(four.within95At([0, 0])).toBeLessThan(0.1);
    expect(four.noiseAt([210, 148])).toBeLessThan(0.02);
    expect(fitted(12)!.within95At([210, 148])).toBeLessThan(0.06);
  });

  test('is taken from earlier sheets once there are enough of them, outliers left aside', () => {
    const flat = { bow: 0.05, unevenBow: 0.02, stretch: 0.001 };
    const few = Array.from({ length: ENOUGH_SHEETS - 1 }, () => flat);
    expect(usualDistortion(few)).toEqual(USUAL_DISTORTION);
    const { bow, unevenBow, skew } = usualDistortion([...few, flat, { bow: 4 }]);
    expect(bow).toBeGreaterThan(0.05);
    expect(bow).toBeLessThan(0.12);
    // never less than a tenth of what is usual
    expect(unevenBow).toBeGreaterThanOrEqual(0.1 * USUAL_DISTORTION.unevenBow);
    expect(skew).toBe(USUAL_DISTORTION.skew);
    expect(fitted(4, usualDistortion([...few, flat]))!.within95At([210, 148])).toBeLessThan(0.25);
  });
});
