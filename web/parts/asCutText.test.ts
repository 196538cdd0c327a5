import { describe, expect, test } from '@jest/globals';
import { asCutText, isAmiss } from './asCutText';

const length = (mm: number): string => `${mm.toFixed(1)} mm`;
const said = (twice: number[], missing: number[], elsewhere = 0): [string, boolean] => [
  asCutText({ twice, missing, elsewhere }, length),
  isAmiss({ twice, missing, elsewhere }),
];

describe('what a record says of the lines of a cut', () => {
  test('all of it once, and what lies beside them', () => {
    expect(said([], [])).toEqual(['Every line is cut once.', false]);
    expect(said([], [], 0.4)).toEqual(['Every line is cut once.', false]);
    expect(said([], [], 38.25)).toEqual([
      'Every line is cut once. 38.3 mm lie beside the lines: film slipped, or ended before its line did.',
      false,
    ]);
  });

  test('lines are counted from 1, and named while they are few', () => {
    expect(said([], [6])).toEqual(['Line 7 is not whole.', true]);
    expect(said([0, 3, 8], [])).toEqual(['Some of lines 1, 4 and 9 is cut twice.', true]);
    expect(said([2], [4, 5, 6, 7, 8, 9, 10])).toEqual([
      '7 lines are not whole. Some of line 3 is cut twice.',
      true,
    ]);
  });
});
