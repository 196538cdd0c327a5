import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { formatArea, formatLength, formatRun, parseLength } from './length';

const mm = (text: string, unit: 'mm' | 'in' = 'mm'): number => {
  const parsed = parseLength(text, unit);
  if (!parsed.ok) throw new Error(parsed.message);
  return parsed.mm;
};

describe('parseLength', () => {
  // the inch is 25.4 mm exactly: international yard and pound agreement, 1959
  test.each([
    ['3 in', 76.2],
    ['3"', 76.2],
    ['3 1/2"', 88.9],
    ['3-1/2 in', 88.9],
    ['1/2"', 12.7],
    ['76.2', 76.2],
    ['76,2', 76.2],
    ['8ft', 2438.4],
    ['300mm', 300],
    ['30 cm', 300],
    ['1.2m', 1200],
    [`3' 6"`, 1066.8],
    ['2*(40+5)', 90],
    ['100 - 1 in', 74.6],
    ['1 in + 5', 30.4],
    ['300mm/4', 75],
    ['10/4', 2.5],
    ['2 x 3 in', 152.4],
    ['-5', -5],
    ['5 inches', 127],
    ['1 inch', 25.4],
    ['2 yd', 1828.8],
    ['1 ft 3 in', 381],
    ['1 foot 3 inches', 381],
    ['1/2 yard', 457.2],
    ['12 millimetres', 12],
    ['2 Meters', 2000],
  ])('%s is %d mm', (text, expected) => expect(mm(text)).toBeCloseTo(expected, 9));

  test('whatever is shown can be typed', () => {
    for (const unit of ['mm', 'in'] as const) {
      for (const length of [0.25, 12.7, 610, 9200, 45_000]) {
        expect(Math.abs(mm(formatLength(length, unit)) - length)).toBeLessThan(0.06);
        expect(Math.abs(mm(formatRun(length, unit)) - length)).toBeLessThan(10);
      }
    }
  });

  test('a bare number takes the unit that is switched on', () => {
    expect(mm('3', 'in')).toBeCloseTo(76.2, 9);
    expect(mm('3 + 1/2', 'in')).toBeCloseTo(88.9, 9);
    expect(mm('300mm', 'in')).toBeCloseTo(300, 9);
  });

  test.each([
    '',
    '  ',
    'wide',
    '3 furlongs',
    '3 +',
    '(3',
    '3)',
    '1/0',
    '3 0/0',
    '2mm*2mm',
    '3 in in',
    '1e9',
    'x',
  ])('%p is refused with a sentence', (text) => {
    const parsed = parseLength(text, 'mm');
    expect(parsed.ok).toBe(false);
    if (!parsed.ok) expect(parsed.message).toMatch(/^Not a length: .+ Type for instance/);
  });

  test('never throws, whatever is typed', () => {
    fc.assert(fc.property(fc.string({ maxLength: 40 }), (text) => void parseLength(text, 'mm')));
  });

  test('what is shown can be typed back to within the shown step', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 20000, noNaN: true }),
        fc.constantFrom('mm' as const, 'in' as const),
        (v, unit) => {
          expect(Math.abs(mm(formatLength(v, unit), unit) - v)).toBeLessThanOrEqual(0.0501);
        },
      ),
    );
  });
});

test('lengths, runs and areas are shown with their unit', () => {
  expect(formatLength(76.2, 'mm')).toBe('76.2 mm');
  expect(formatLength(76.2, 'in')).toBe('3.000 in');
  expect(formatRun(1270, 'mm')).toBe('1.27 m');
  expect(formatRun(3048, 'in')).toBe('10.00 ft');
  expect(formatArea(0.77e6, 'mm')).toBe('0.77 m²');
  expect(formatArea(92903.04, 'in')).toBe('1.00 ft²');
});
