import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { formatOff, parseOff } from './seenText';

test.each([
  ['0.3 left, 0.2 front', 'mm', [-0.3, 0.2]],
  ['0.3 to the left and 0.2 mm to the back', 'mm', [-0.3, -0.2]],
  ['0,3 right; 0,25 towards the front', 'mm', [0.3, 0.25]],
  ['0.01 in right', 'mm', [0.254, 0]],
  ['.01 Front', 'in', [0, 0.254]],
  ['1/64" up 0.1 mm left', 'in', [-0.1, -0.396875]],
  ['0', 'mm', [0, 0]],
] as const)('%s', (text, unit, off) => {
  const said = parseOff(text, unit);
  if (!said.ok) throw new Error(said.message);
  expect(said.off[0]).toBeCloseTo(off[0], 9);
  expect(said.off[1]).toBeCloseTo(off[1], 9);
});

test.each(['', '0.3', 'left', '0.3 sideways', '0.3 left, 0.2 right', 'x left'])(
  '“%s” is asked for again',
  (text) => {
    const said = parseOff(text, 'mm');
    expect(said).toMatchObject({ ok: false, message: expect.stringMatching(/\w/) });
  },
);

test('what is written is read back, to a hundredth', () => {
  const mm = fc.integer({ min: -900, max: 900 }).map((hundredths) => hundredths / 100);
  fc.assert(
    fc.property(mm, mm, (along, down) => {
      const said = parseOff(formatOff([along, down], 'mm'), 'mm');
      expect(said.ok && said.off.map((v) => Math.round(100 * v) + 0)).toEqual(
        [along, down].map((v) => Math.round(100 * v) + 0),
      );
    }),
  );
});
