import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { snapped } from './snap';
import { stagger } from './stagger';

describe('handles in rows', () => {
  test('none lies on another, and one that has room stays in the first row', () => {
    fc.assert(
      fc.property(fc.array(fc.double({ min: 0, max: 900, noNaN: true }), { maxLength: 40 }), (at) => {
        const rows = stagger(at, 64);
        at.forEach((x, i) =>
          at.forEach((y, j) => {
            if (i < j && rows[i] === rows[j]) expect(Math.abs(x - y)).toBeGreaterThanOrEqual(64);
          }),
        );
        at.forEach((x, i) => {
          if (at.every((y, j) => i === j || Math.abs(x - y) >= 64)) expect(rows[i]).toBe(0);
        });
      }),
    );
  });
  test('two near ones take turns', () => expect(stagger([100, 130, 170, 300], 64)).toEqual([0, 1, 0, 0]));
});

describe('a seam that is dragged', () => {
  /** Art from 0 to 100 mm and from 120 to 300 mm, told every millimetre. */
  const ink = { from: 0, to: 300, at: Array.from({ length: 301 }, (_, x) => (x > 100 && x < 120 ? 0 : 40)) };

  test('is drawn into the middle of a gap that is near on the screen', () => {
    expect(snapped(104, ink, 1)).toBe(110);
    expect(snapped(117.4, ink, 1)).toBe(110);
    // too far away on the screen, though not on the sign
    expect(snapped(104, ink, 4)).toBe(104);
  });

  test('rests on whole millimetres elsewhere, and where nothing is known of the art', () => {
    expect(snapped(60.4, ink, 1)).toBe(60);
    expect(snapped(212.7, ink, 1)).toBe(213);
    expect(snapped(104.2, undefined, 1)).toBe(104);
    expect(snapped(33.3, { from: 0, to: 0, at: [] }, 1)).toBe(33);
  });
});
