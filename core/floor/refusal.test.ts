import { expect, test } from '@jest/globals';
import { DEMO_SHOP } from '../../demo/shop';
import type { Wanted } from './refusal';
import { laneRefusal } from './refusal';

const cutter = (id: string) => DEMO_SHOP.cutters.find((one) => one.id === id)!;
const film = DEMO_SHOP.films.find(({ id }) => id === 'damson')!;
const wanted: Wanted = { film, rollWidth: 610, length: 2000, needsSecondTool: false };

test('a cutter takes what fits it, and says what of anything else does not', () => {
  expect(laneRefusal(wanted, cutter('curlew'))).toBeUndefined();
  expect(laneRefusal(wanted, cutter('heron'))).toBeUndefined();
  expect(laneRefusal(wanted, cutter('plover'))).toMatch(/610.0 mm \(24.02 in\) wide here; Plover takes/);
  expect(laneRefusal({ ...wanted, rollWidth: 20 }, cutter('curlew'))).toMatch(/none narrower than/);
  expect(laneRefusal(wanted, { ...cutter('saltpan'), widest: 700 })).toMatch(/the bed of Saltpan is/);
  expect(laneRefusal({ ...wanted, film: { ...film, thickness: 3 } }, { ...cutter('heron'), thickest: 0.5 })).toMatch(/3.00 mm thick with its backing; Heron takes 0.50 mm/); // prettier-ignore
  expect(laneRefusal({ ...wanted, needsSecondTool: true }, cutter('curlew'))).toMatch(/holds only a knife/);
  expect(laneRefusal({ ...wanted, marks: ['dots'] }, cutter('heron'))).toMatch(/Heron has no sensor/);
  const { sensor } = cutter('curlew');
  expect(laneRefusal({ ...wanted, marks: [sensor!.kinds[0]] }, cutter('curlew'))).toBeUndefined();
  expect(laneRefusal({ ...wanted, marks: [sensor!.kinds[0]] }, { ...cutter('curlew'), sensor: { ...sensor!, kinds: [] } })).toMatch(/does not read/); // prettier-ignore
  expect(laneRefusal(wanted, { ...cutter('curlew'), isRetired: true })).toBe('Curlew is out of use.');
});
