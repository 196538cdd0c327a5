import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { SPANS, todayHere, weeksOf } from './spans';

describe('weeks', () => {
  test('a week is from its Monday to its Sunday, whatever day it is', () => {
    // 23 November 2026 is a Monday
    for (const today of ['2026-11-23', '2026-11-26', '2026-11-29'])
      expect(weeksOf('week', today, 0)).toEqual({
        from: '2026-11-23',
        to: '2026-11-29',
        mondays: ['2026-11-23'],
      });
    expect(weeksOf('four weeks', '2026-11-28', 0)).toEqual({
      from: '2026-11-02',
      to: '2026-11-29',
      mondays: ['2026-11-02', '2026-11-09', '2026-11-16', '2026-11-23'],
    });
  });

  test('spans follow one another without a gap', () => {
    const day = fc.date({ min: new Date('2000-01-01'), max: new Date('2099-12-31'), noInvalidDate: true });
    fc.assert(
      fc.property(day, fc.constantFrom(...SPANS), fc.nat(20), (at, span, back) => {
        const today = at.toISOString().slice(0, 10);
        const now = weeksOf(span, today, back);
        const before = weeksOf(span, today, back + 1);
        expect(new Date(now.from).getTime() - new Date(before.to).getTime()).toBe(86_400_000);
        expect(new Set(now.mondays.map((one) => new Date(one).getUTCDay()))).toEqual(new Set([1]));
        if (back === 0) expect(now.from <= today && today <= now.to).toBe(true);
      }),
    );
  });

  test('today is the day that clocks here say', () => {
    expect(todayHere(new Date(2026, 2, 9, 0, 5))).toBe('2026-03-09');
  });
});
