import { expect, test } from '@jest/globals';
import { CURLEW, DEMO_FILMS } from '../../demo/shop';
import type { Roll } from '../films/film';
import { limitsOf } from '../films/film';
import { DEFAULT_CHOICES } from '../plan/choices';
import { panelRoomOf } from './panelRoom';

const { layout } = DEFAULT_CHOICES;
const room = (rolls: readonly Roll[], more: Partial<typeof layout> = {}) =>
  panelRoomOf({ ...DEMO_FILMS[0], rolls }, { ...layout, border: 'none', ...more }, CURLEW, null);
const { far, near, lead, tail } = CURLEW.margins;

test('is what the knife reaches of the widest roll, less weed borders', () => {
  const bare = room([{ width: 610, lengthLeft: 22_000 }])!;
  expect(bare.across).toBeCloseTo(610 - far - near - 1, 9);
  expect(bare.along).toBeCloseTo(
    Math.min(CURLEW.trackLength, limitsOf(DEMO_FILMS[0]).track) - lead - tail,
    9,
  );
  const bordered = room([{ width: 610, lengthLeft: 22_000 }], { border: 'copy', borderDistance: 5 })!;
  expect(bordered.across).toBeCloseTo(bare.across - 10, 9);
  expect(bordered.along).toBeCloseTo(bare.along - 10, 9);
  const two = room([
    { width: 610, lengthLeft: 22_000 },
    { width: 1220, lengthLeft: 9000 },
  ])!;
  expect(two.across).toBeCloseTo(1220 - far - near - 1, 9);
});

test('a roll that was picked counts, one that the cutter cannot take does not', () => {
  const rolls = [
    { width: 610, lengthLeft: 22_000 },
    { width: 1220, lengthLeft: 9000 },
  ];
  expect(room(rolls, { rolls: { [DEMO_FILMS[0].id]: 610 } })!.across).toBeCloseTo(610 - far - near - 1, 9);
  expect(room([{ width: 3000, lengthLeft: 9000 }])).toBeUndefined();
  expect(room([])).toBeUndefined();
});

test('what is left on the roll counts, unless so little is left that no panel would be laid on it', () => {
  const along = (lengthLeft: number): number => room([{ width: 610, lengthLeft }])!.along + lead + tail;
  expect(along(1500)).toBeCloseTo(1500, 9);
  expect(along(300)).toBe(along(22_000));
  expect(along(0)).toBe(along(22_000));
});
