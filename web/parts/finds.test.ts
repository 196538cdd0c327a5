import { expect, test } from '@jest/globals';
import { finds } from './finds';

test.each([
  ['', true],
  ['  ', true],
  ['heather', true],
  ['G-41 HEATH', true],
  ['#8d5', true],
  ['heather slate', false],
])('a search for %j finds the film: %s', (search, found) =>
  expect(finds(search, 'Heather G-4110 #8d5a9b')).toBe(found),
);
