import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { Taken } from './booking';
import { countedBy, keptOf, lastPartOf, usedOf } from './booking';
import type { Roll } from './film';
import { areaOf } from './film';
import { stockAfter } from './leftover';

const LEAST = { width: 200, length: 300 };
const ROLL: Roll = { width: 610, lengthLeft: 22_000 };

describe('what is booked', () => {
  test('film that comes back as an offcut is not used, in the measure of the roll it is of', () => {
    const { off, offcuts } = stockAfter(
      [ROLL],
      { roll: ROLL, length: 1000, beside: 305 },
      LEAST,
      () => 'D-1',
    );
    const taken = { width: 610, off, back: offcuts };
    expect(usedOf(taken)).toBe(500);
    expect(keptOf(500, 610, 61_000)).toBe(100);
    // art that laps over itself on a strip is no more than the film that it is on
    expect(keptOf(500, 610, 1e9)).toBe(500);
  });

  test('of a cut on several films each has the art of its part, and all of them have all of it', () => {
    const whole = { length: 1000, art: 50_000 };
    expect(lastPartOf({ ...whole, onNewFilm: null })).toEqual(whole);
    const last = lastPartOf({ ...whole, onNewFilm: { line: 12, along: 640 } });
    expect(last).toEqual({ length: 360, art: 18_000 });
    expect(lastPartOf({ length: 0, art: 0, onNewFilm: null })).toEqual({ length: 0, art: 0 });
  });

  test('a count by hand is what it changed, width by width; what stays the same is nothing', () => {
    const sheets: Roll = { width: 500, lengthLeft: 700, sheets: 3 };
    expect(countedBy([ROLL, sheets], [ROLL, sheets])).toEqual([]);
    expect(
      countedBy(
        [ROLL, sheets],
        [
          { ...ROLL, lengthLeft: 21_000 },
          { ...sheets, sheets: 5 },
        ],
      ),
    ).toEqual([
      { width: 610, off: 1000, back: [] },
      { width: 500, off: -1400, back: [] },
    ]);
    // a roll cut to another width leaves as one and comes as the other
    expect(countedBy([ROLL], [{ ...ROLL, width: 600 }]).map(({ off }) => off)).toEqual([22_000, -22_000]);
  });

  test('whatever is cut and counted, in whatever order: what was there less what is booked is what is there', () => {
    const mm = fc.integer({ min: 1, max: 9000 });
    const width = fc.constantFrom(300, 500, 610);
    const roll: fc.Arbitrary<Roll> = fc.oneof(
      fc.record({ width, lengthLeft: mm }),
      fc.record({ width, lengthLeft: mm, sheets: fc.nat(4) }),
    );
    const step = fc.oneof(
      fc.record({ by: fc.constant('hand' as const), after: fc.array(roll, { maxLength: 4 }) }),
      fc.record({
        by: fc.constant('cut' as const),
        k: fc.nat(9),
        share: fc.double({ min: 0.01, max: 1.4, noNaN: true }),
        beside: fc.integer({ min: 0, max: 300 }),
      }),
    );
    fc.assert(
      fc.property(
        fc.array(roll, { minLength: 1, maxLength: 4 }),
        fc.array(step, { maxLength: 12 }),
        (begun, steps) => {
          let shelf: readonly Roll[] = begun;
          const booked: Taken[] = [];
          let code = 0;
          for (const one of steps) {
            if (one.by === 'hand') {
              booked.push(...countedBy(shelf, one.after));
              shelf = one.after;
              continue;
            }
            const from = shelf[one.k % Math.max(1, shelf.length)] ?? ROLL;
            const most = from.sheets === undefined ? 1.4 : 1;
            const used = {
              roll: from,
              length: Math.min(one.share, most) * from.lengthLeft,
              beside: one.beside,
            };
            const after = stockAfter(shelf, used, LEAST, () => `X-${code++}`);
            booked.push({ width: from.width, off: after.off, back: after.offcuts });
            booked.push({ width: from.width, off: -after.missing, back: [] });
            shelf = after.rolls;
          }
          const gone = booked.reduce((sum, taken) => sum + usedOf(taken) * taken.width, 0);
          // a thousandth of a square millimetre
          expect(Math.abs(areaOf(begun) - gone - areaOf(shelf))).toBeLessThan(1e-3);
        },
      ),
    );
  });
});
