import { expect, test } from '@jest/globals';
import type { Outdated } from '../../contracts/cuts';
import { outdatedHead, outdatedSays } from './outdatedText';

const NONE: Outdated = {
  order: { id: 7, number: 2041, name: 'Race hut' },
  changed: [],
  others: [],
  cuts: [],
  more: [],
  begun: [],
  now: '',
};
const cut = (id: number, says: string) => ({ id, film: 'Damson', says: [says] });

test('says which part was changed, and how many cuts differ', () => {
  const cuts = [cut(1, 'a'), cut(2, 'b')];
  expect(outdatedHead({ ...NONE, changed: ['panels'], cuts })).toBe(
    '#2041 was changed since it was queued: seams; 2 cuts differ.',
  );
  expect(outdatedHead({ ...NONE, others: [2043], cuts: cuts.slice(1) })).toBe(
    '#2041 was changed since it was queued: #2043 on the same film; 1 cut differs.',
  );
  expect(outdatedHead({ ...NONE, changed: ['films'], more: ['Willow'] })).toMatch(/films; more is to be cut/);
});

test('a setting of the shop is no change of the order', () => {
  expect(outdatedHead({ ...NONE, cuts: [cut(1, 'a')] })).toBe(
    'Settings of the shop were changed since #2041 was queued: 1 cut differs.',
  );
});

test('the same is said once; what is begun is named', () => {
  const cuts = [cut(1, 'Damson goes.'), cut(2, 'Damson goes.')];
  const says = outdatedSays({ ...NONE, cuts, more: ['Willow', 'Willow'], begun: [cut(3, 'x'), cut(4, 'y')] });
  expect(says).toEqual([
    'Damson goes.',
    'Willow would be cut too.',
    'Damson is begun or cut already and stays as it is: see whether the rest still fits it.',
  ]);
});
