import { expect, test } from '@jest/globals';
import { requestKeys } from './requestKeys';

test('a request has its name until it is answered, or is long past', () => {
  let now = 0;
  const { keyFor, answered } = requestKeys(() => now);
  const first = keyFor('queue 7');
  expect(first).toMatch(/^[0-9a-f]{32}$/);
  expect(keyFor('queue 7')).toBe(first);
  expect(keyFor('queue 8')).not.toBe(first);
  now = 5 * 60_000;
  expect(keyFor('queue 7')).toBe(first);
  answered('queue 7');
  const second = keyFor('queue 7');
  expect(second).not.toBe(first);
  now = 60 * 60_000;
  expect(keyFor('queue 7')).not.toBe(second);
});
