import { describe, expect, test } from '@jest/globals';
import type { CutAs } from './differs';
import { differences } from './differs';

const WAS: CutAs = {
  strip: 'damson',
  film: 'Damson',
  cutter: 'Curlew',
  recipe: { force: 80, speed: 30, blade: '45°', bladeOffset: 0.25, overcut: 0.6 },
  rollWidth: 610,
  cuttable: 584.6,
  length: 2520,
  mirrored: false,
  bytes: 'IN;',
};
const now = (change: Partial<CutAs>): readonly string[] => differences([WAS], [{ ...WAS, ...change }]);

describe('an order that is cut once more', () => {
  test('the same bytes differ in nothing', () => {
    expect(differences([WAS], [{ ...WAS }])).toEqual([]);
    expect(differences([], [])).toEqual([]);
  });

  test.each([
    [{ cutter: 'Heron' }, 'Damson goes to Heron instead of Curlew.'],
    [{ rollWidth: 1220, cuttable: 1194.6 }, 'Damson is cut from film 1220.0 mm wide instead of 610.0 mm.'],
    [{ cuttable: 580 }, 'Damson is reached 580.0 mm wide instead of 584.6 mm.'],
    [{ mirrored: true }, 'Damson is mirrored now.'],
    [{ length: 1900 }, 'Damson takes 1.90 m instead of 2.52 m.'],
    [
      { recipe: { ...WAS.recipe, force: 95, speed: null } },
      'Damson is cut with 95 g instead of 80 g, is cut with what the machine is set to instead of 30 cm/s.',
    ],
    [{ recipe: { ...WAS.recipe, passes: 2 } }, 'Damson is gone over 2 times instead of 1.'],
    [{ bytes: 'IN;PU;' }, 'Damson is cut in another way: look at it in Play it.'],
  ] as const)('%j', (change, says) => expect(now(change)).toEqual([says]));

  test('what is cut no more, and what was not', () => {
    expect(differences([WAS], [{ ...WAS, strip: 'quince', film: 'Quince' }])).toEqual([
      'Damson is not cut any more.',
      'Quince was not cut then.',
    ]);
  });
});
