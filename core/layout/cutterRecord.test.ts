import { expect, test } from '@jest/globals';
import { DEMO_SHOP } from '../../demo/shop';
import type { Cutter } from './cutter';
import { cutterTrouble, newCutter } from './cutterRecord';

test('every kind begins as a machine that can be, and so are those of the shop', () => {
  for (const kind of ['roll', 'desk', 'flatbed'] as const)
    expect(cutterTrouble(newCutter('grebe', 'Grebe', kind))).toBeUndefined();
  for (const cutter of DEMO_SHOP.cutters) expect(cutterTrouble(cutter)).toBeUndefined();
});

test.each<[string, Partial<Cutter>, RegExp]>([
  [
    'film narrower than narrowest',
    { narrowest: 400 },
    /narrowest film \(400\.0 mm\) is wider than the widest \(320\.0 mm\)/,
  ],
  [
    'margins wider than film',
    { margins: { far: 60, near: 40, lead: 8, tail: 8 } },
    /leave nothing: they take 100\.0 mm/,
  ],
  [
    'margins longer than the bed',
    { margins: { far: 8, near: 8, lead: 900, tail: 600 } },
    /length .* leave nothing/,
  ],
  ['forces the wrong way round', { force: { least: 400, most: 300 } }, /least force \(400 g\)/],
  ['speeds the wrong way round', { speed: { least: 70, most: 60 } }, /least speed/],
  ['faster by itself than it goes', { ownSpeed: 61 }, /own speed \(61 cm\/s\)/],
])('%s is told', (_, change, message) => {
  expect(cutterTrouble({ ...newCutter('grebe', 'Grebe', 'desk'), ...change })).toMatch(message);
});
