import { describe, expect, test } from '@jest/globals';
import { createScan } from './scan';

/** Keys as they come, `apart` ms from one another. @returns codes, and whether each key belonged to one */
function typed(keys: readonly string[], apart: number): { codes: string[]; taken: boolean[] } {
  const codes: string[] = [];
  const scan = createScan((code) => codes.push(code));
  return { taken: keys.map((key, i) => scan(key, 1000 + i * apart)), codes };
}
const CODE = ['J', 'P', ' ', 'Shift', '#', '2', '0', '4', '7', ' ', '1', ' ', 'A', 'Enter'];

describe('a hand scanner', () => {
  test('its keys come right after one another, and are the code of a sheet', () => {
    const { codes, taken } = typed(CODE, 8);
    expect(codes).toEqual(['JP #2047 1 A']);
    expect(taken.at(-1)).toBe(true);
  });

  test('what a hand types is no scan', () => {
    expect(typed(CODE, 120).codes).toEqual([]);
  });

  test('another code, and Enter by itself, are left to the page', () => {
    const { codes, taken } = typed(['4', '0', '1', '2', 'Enter', 'Enter'], 8);
    expect([codes, taken]).toEqual([[], [false, false, false, false, false, false]]);
  });

  test('one code after another', () => {
    expect(typed([...CODE, ...CODE], 8).codes).toEqual(['JP #2047 1 A', 'JP #2047 1 A']);
  });
});
