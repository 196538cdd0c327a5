import { expect, test } from '@jest/globals';
import { nudgedText } from './nudgedText';

const KISS = { kiss: { force: 80, speed: 30 } };

test('what was nudged is told beside what the recipe says; several kinds by their names', () => {
  expect(nudgedText({ nudges: {}, writtenWith: KISS })).toBe('');
  expect(nudgedText({ nudges: { kiss: {} }, writtenWith: KISS })).toBe('');
  expect(nudgedText({ nudges: { kiss: { force: 95 } }, writtenWith: KISS })).toBe('95 g instead of 80 g');
  expect(
    nudgedText({
      nudges: { kiss: { force: 95, speed: 20 }, through: { force: 210 } },
      writtenWith: { ...KISS, through: { force: 200, speed: 30 } },
    }),
  ).toMatch(
    /^95 g instead of 80 g \(.+\) and 20 cm\/s instead of 30 cm\/s \(.+\) and 210 g instead of 200 g \(.+\)$/,
  );
});
