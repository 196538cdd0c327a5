import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { Roll } from './film';
import type { FilmUsed } from './leftover';
import { leftOf, stockAfter } from './leftover';

const LEAST = { width: 200, length: 300 };
const after = (stock: readonly Roll[], used: FilmUsed) => {
  let next = 17;
  return stockAfter(stock, used, LEAST, () => `D-${next++}`);
};
const ROLL: Roll = { width: 610, lengthLeft: 22_000 };
const SHEETS: Roll = { width: 500, lengthLeft: 700, sheets: 3 };
const OFFCUT: Roll = { width: 610, lengthLeft: 1210, sheets: 1, offcut: 'D-9' };

describe('after a cut', () => {
  test('a roll is so much shorter; what lies beside the cut in one piece becomes an offcut', () => {
    const { rolls, offcuts } = after([ROLL, SHEETS], { roll: ROLL, length: 2523, beside: 241.7 });
    expect(offcuts).toEqual([{ width: 241, lengthLeft: 2523, sheets: 1, offcut: 'D-17' }]);
    expect(rolls).toEqual([{ width: 610, lengthLeft: 19_477 }, SHEETS, ...offcuts]);
  });

  test('of two rolls of one width the one with as much left was used', () => {
    const other = { ...ROLL, lengthLeft: 4000 };
    expect(after([other, ROLL], { roll: ROLL, length: 1000, beside: 0 }).rolls).toEqual([
      other,
      { ...ROLL, lengthLeft: 21_000 },
    ]);
    // it was used meanwhile by another cut
    expect(
      after([{ ...ROLL, lengthLeft: 9000 }], { roll: ROLL, length: 1000, beside: 0 }).rolls[0].lengthLeft,
    ).toBe(8000);
  });

  test('a sheet and an offcut are gone, and what lies behind the cut is an offcut', () => {
    expect(after([SHEETS], { roll: SHEETS, length: 390, beside: 0 })).toEqual({
      rolls: [
        { ...SHEETS, sheets: 2 },
        { width: 500, lengthLeft: 310, sheets: 1, offcut: 'D-17' },
      ],
      offcuts: [{ width: 500, lengthLeft: 310, sheets: 1, offcut: 'D-17' }],
      off: 700,
      missing: 0,
    });
    expect(after([ROLL, OFFCUT], { roll: OFFCUT, length: 600, beside: 0 }).rolls).toEqual([
      ROLL,
      { width: 610, lengthLeft: 610, sheets: 1, offcut: 'D-17' },
    ]);
  });

  test('what is smaller than the shop keeps is waste; either way round counts', () => {
    expect(after([ROLL], { roll: ROLL, length: 900, beside: 199 }).offcuts).toEqual([]);
    expect(after([ROLL], { roll: ROLL, length: 210, beside: 310 }).offcuts).toHaveLength(1);
  });

  test('film that is not on the shelf changes nothing there', () => {
    const strange: Roll = { width: 700, lengthLeft: 5000 };
    const taken = after([ROLL], { roll: strange, length: 900, beside: 20 });
    expect(taken.rolls).toEqual([ROLL]);
    expect([taken.off, taken.missing]).toEqual([900, 900]);
  });

  test('more than was written down is there after all', () => {
    const short = { ...ROLL, lengthLeft: 300 };
    const { rolls, off, missing } = after([short], { roll: ROLL, length: 420, beside: 0 });
    expect([rolls[0].lengthLeft, off, missing]).toEqual([0, 420, 120]);
    const none = { ...SHEETS, sheets: 0 };
    expect(after([none], { roll: SHEETS, length: 390, beside: 0 }).missing).toBe(700);
  });

  test('of several rolls of one width one that is long enough was used, not one that ended', () => {
    const [empty, short, long] = [0, 300, 9000].map((lengthLeft) => ({ ...ROLL, lengthLeft }));
    const left = (stock: readonly Roll[], length: number): number[] =>
      after(stock, { roll: ROLL, length, beside: 0 }).rolls.map(({ lengthLeft }) => lengthLeft);
    expect(left([empty, short, long], 1000)).toEqual([0, 300, 8000]);
    expect(left([empty, short, long], 200)).toEqual([0, 100, 9000]);
    // none is: more was there than was written down, of the longest
    expect(left([empty, short], 1000)).toEqual([0, 0]);
    expect([leftOf([empty, long], ROLL), leftOf([SHEETS], ROLL)]).toEqual([long, undefined]);
    // what is said to be left before is what is taken then
    const [used, needed] = [{ roll: ROLL, length: 200, beside: 0, isAtEnd: true }, 1000];
    expect(leftOf([short, long], ROLL, needed)).toEqual(long);
    expect(after([short, long], { ...used, needed }).rolls).toEqual([short, empty]);
  });

  test('a roll that ended is empty, whatever was written down; a sheet or an offcut is gone anyway', () => {
    const ended = (roll: Roll, length: number) =>
      after([{ ...ROLL, lengthLeft: 5000 }, SHEETS], { roll, length, beside: 0, isAtEnd: true });
    const { rolls, off, missing } = ended(ROLL, 1200);
    expect([rolls[0].lengthLeft, off, missing]).toEqual([0, 1200, -3800]);
    // longer than anybody knew
    expect(ended(ROLL, 5300)).toMatchObject({ off: 5300, missing: 300 });
    expect(ended(SHEETS, 400)).toMatchObject({ off: 700, missing: 0 });
  });

  test('never more film than there was', () => {
    const area = (rolls: readonly Roll[]): number =>
      rolls.reduce((sum, { width, lengthLeft, sheets = 1 }) => sum + width * lengthLeft * sheets, 0);
    const roll = fc.oneof(
      fc.record({
        width: fc.integer({ min: 100, max: 1400 }),
        lengthLeft: fc.integer({ min: 0, max: 9000 }),
      }),
      fc.record({
        width: fc.integer({ min: 100, max: 1400 }),
        lengthLeft: fc.integer({ min: 0, max: 9000 }),
        sheets: fc.constant(1),
      }),
    );
    fc.assert(
      fc.property(
        fc.array(roll, { minLength: 1, maxLength: 5 }),
        fc.nat(4),
        fc.double({ min: 0, max: 1, noNaN: true }),
        fc.double({ min: 0, max: 1, noNaN: true }),
        (stock, k, a, b) => {
          const one = stock[k % stock.length];
          const used = { roll: one, length: a * one.lengthLeft, beside: b * one.width };
          expect(area(after(stock, used).rolls)).toBeLessThanOrEqual(area(stock) + 1e-6);
        },
      ),
    );
  });
});
