import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { bothSaid } from './bothSaid';
import type { Measured } from './run';

const look = fc.constantFrom('clean' as const, 'not-through' as const, null);
const measured: fc.Arbitrary<Measured> = fc.record(
  {
    looks: fc.array(look, { minLength: 6, maxLength: 6 }),
    picked: fc.option(fc.nat(5)),
    off: fc.array(fc.option(fc.tuple(fc.nat(9), fc.nat(9))), { minLength: 5, maxLength: 5 }),
    leftOut: fc.uniqueArray(fc.nat(4)),
  },
  { requiredKeys: [] },
);

test('by oneself it is what one said', () => {
  fc.assert(
    fc.property(measured, measured, (was, now) => {
      const both = bothSaid(was, was, now);
      for (const [key, value] of Object.entries(now))
        if (key !== 'leftOut') expect(both[key as keyof Measured]).toEqual(value);
      expect(new Set(both.leftOut)).toEqual(new Set(now.leftOut));
    }),
  );
});

test('two who tap other cells of one grid are both heard, in whichever order they come', () => {
  const none: Measured = { looks: [null, null, null] };
  const [first, second]: Measured[] = [
    { looks: ['clean', null, null] },
    { looks: [null, null, 'not-through'], picked: 2 },
  ];
  const both = { looks: ['clean', null, 'not-through'], picked: 2 };
  expect(bothSaid(first, none, second)).toEqual(both);
  expect(bothSaid(second, none, first)).toEqual(both);
  // the later one of two who say otherwise of the same cell
  expect(bothSaid(first, none, { looks: ['into-backing', null, null] }).looks![0]).toBe('into-backing');
  // taken back by one, left by the other
  expect(bothSaid({ ...both, looks: ['clean', 'clean', null] } as Measured, first, none)).toEqual({
    looks: [null, 'clean', null],
    picked: 2,
  });
});

test('what one leaves out stays left out when the other trusts another', () => {
  expect(bothSaid({ leftOut: [3] }, {}, { trusted: [1] })).toEqual({ leftOut: [3], trusted: [1] });
  expect(bothSaid({ leftOut: [3, 1] }, { leftOut: [3] }, {})).toEqual({ leftOut: [1] });
});
