import { expect, test } from '@jest/globals';
import { clashSentence } from './clashWords';

test.each([
  [
    { path: ['layout', 'copies'], theirs: 3, mine: 7 },
    'Layout, copies: somebody else set 3 while you set 7.',
  ],
  [
    { path: ['artwork', 'pieces', { id: 'p2' }, 'lockAspect'], theirs: true, mine: false },
    'Artwork, pieces p2 lock aspect: somebody else set yes while you set no.',
  ],
  [
    { path: ['films', 'film', '#1d3f86'], theirs: 'tar' },
    'Films, film #1d3f86: somebody else set “tar” while you set nothing.',
  ],
  [
    { path: ['films', 'order'], theirs: ['a', 'b'], mine: ['b'] },
    'Films, order: somebody else set 2 entries while you set 1 entry.',
  ],
])('%#', (clash, says) => expect(clashSentence({ ...clash, met: 'change' })).toBe(says));

test('what a step left says what it would be', () => {
  const clash = { path: ['layout', 'copies'], theirs: 3, mine: 1, met: 'undo' } as const;
  expect(clashSentence(clash)).toBe(
    'Layout, copies: somebody else has set 3 since, so undo left it. It would be 1.',
  );
});
