import { expect, test } from '@jest/globals';
import { daysBetween, OLD_DAYS, staleness } from './stale';

const DAY = 24 * 3600 * 1000;
const kept = { keptAt: 100 * DAY };

test('a calibration grows old by days', () => {
  expect(staleness({ quantity: 'sensor', ...kept }, {}, (100 + OLD_DAYS) * DAY)).toBeUndefined();
  expect(staleness({ quantity: 'sensor', ...kept }, {}, (101 + OLD_DAYS) * DAY)).toBe('age');
  expect(daysBetween(kept.keptAt, 103.9 * DAY)).toBe(3);
});

test('a machine that was moved since stands otherwise; one that was moved before does not', () => {
  const at = (movedAt: number, quantity: 'sensor' | 'length' | 'blade') =>
    staleness({ quantity, ...kept }, { movedAt: movedAt * DAY }, 102 * DAY);
  expect([at(101, 'sensor'), at(101, 'length'), at(101, 'blade')]).toEqual(['moved', 'moved', undefined]);
  expect(at(99, 'sensor')).toBeUndefined();
});

test('another knife trails otherwise; where nobody says which is in, nothing is made of it', () => {
  const now = (knife: number | undefined, quantity: 'sensor' | 'blade' | 'overcut', then?: number) =>
    staleness({ quantity, ...kept, knife: then }, { knife }, 102 * DAY);
  expect(now(2, 'blade', 1)).toBe('knife');
  expect(now(2, 'overcut', 1)).toBe('knife');
  expect(now(1, 'blade', 1)).toBeUndefined();
  expect(now(2, 'blade')).toBeUndefined();
  expect(now(undefined, 'blade', 1)).toBeUndefined();
  expect(now(2, 'sensor', 1)).toBeUndefined();
});
