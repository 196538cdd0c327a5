import { describe, expect, test } from '@jest/globals';
import { PLOVER_SPEC, SALTPAN_SPEC } from './machines';
import type { Print } from './print';
import { lay, STRAIGHT } from './print';
import { fromFilm, onFilm } from './spec';

/** White with a black square from 40 to 60 mm both ways. */
const [WIDE, HIGH, PER_MM] = [200, 100, 4];
const print: Print = {
  width: WIDE,
  height: HIGH,
  columns: WIDE * PER_MM,
  rows: HIGH * PER_MM,
  grey: Uint8Array.from({ length: WIDE * HIGH * PER_MM ** 2 }, (_, i) => {
    const [x, y] = [(i % (WIDE * PER_MM)) / PER_MM, Math.floor(i / (WIDE * PER_MM)) / PER_MM];
    return x >= 40 && x < 60 && y >= 40 && y < 60 ? 0 : 255;
  }),
};
const LIE = { ...STRAIGHT, turn: 2.3, shift: [4, -3] as const, stretch: [1.004, 0.997] as const, bow: 0.8 };

describe('a print in a cutter', () => {
  test.each([
    ['straight', STRAIGHT],
    ['turned, stretched and bowed', LIE],
    ['face down', { ...LIE, mirrored: true }],
    ['upside down', { ...LIE, turn: 178 }],
  ])('%s: places go there and back, and the sensor sees what is printed there', (_, lie) => {
    const { onFilm: there, toPage, reflectance } = lay(print, lie);
    for (const [u, v] of [
      [10, 10],
      [50, 50],
      [190, 90],
      [120, 33],
    ] as const) {
      const [x, y] = there(u, v);
      const [bu, bv] = toPage(x, y);
      expect([bu, bv]).toEqual([expect.closeTo(u, 9), expect.closeTo(v, 9)]);
      expect(reflectance(x, y)).toBeCloseTo(u === 50 ? 0.06 : 0.9, 6);
    }
  });

  test('faint ink shows less, what lies over it not at all, and beyond its edge there is only film', () => {
    expect(lay(print, { ...STRAIGHT, ink: 0.5 }).reflectance(50, 50)).toBeCloseTo(0.48, 6);
    expect(lay(print, { ...STRAIGHT, covers: [[50, 50, 8]] }).reflectance(50, 50)).toBe(0.9);
    expect(lay(print, STRAIGHT).reflectance(-20, 50)).toBeCloseTo(0.9, 6);
  });
});

test.each([PLOVER_SPEC, SALTPAN_SPEC])('$name: its own axes and the film, there and back', (spec) => {
  const film = { name: 'print', width: 297, length: 420, toughness: 60 };
  for (const [along, across] of [
    [30, 25],
    [400, 280],
  ] as const) {
    const [x, y] = fromFilm(spec, film.width, along, across);
    expect(onFilm(spec, film, x, y)).toEqual([expect.closeTo(along, 9), expect.closeTo(across, 9)]);
  }
});
