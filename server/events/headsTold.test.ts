import { afterEach, beforeEach, expect, jest, test } from '@jest/globals';
import type { HeadNow } from '../../contracts/api';
import { tellHeads } from './headsTold';

beforeEach(() => void jest.useFakeTimers());
afterEach(() => void jest.useRealTimers());

const head = (cutId: number, x: number): HeadNow => ({ cutId, x, y: 1 / 3, down: true, linesDone: 4, secondsDone: 5.55555 }); // prettier-ignore

test('of each cut the newest is told, all of them together', () => {
  const told: (readonly HeadNow[])[] = [];
  const { note } = tellHeads(async (heads) => void told.push(heads));
  note(head(1, 10));
  note(head(2, 20));
  note(head(1, 11.12345));
  expect(told).toEqual([]);
  jest.advanceTimersByTime(200);
  expect(told).toEqual([
    [
      { cutId: 1, x: 11.123, y: 0.333, down: true, linesDone: 4, secondsDone: 5.556 },
      { cutId: 2, x: 20, y: 0.333, down: true, linesDone: 4, secondsDone: 5.556 },
    ],
  ]);
  // nothing moved: nothing is told
  jest.advanceTimersByTime(1000);
  expect(told).toHaveLength(1);
});

test('heads of fifty machines go in one notice: each is sent to every page by itself', () => {
  const told: (readonly HeadNow[])[] = [];
  const { note } = tellHeads(async (heads) => void told.push(heads));
  for (let k = 0; k < 50; k++)
    note({ ...head(123_456 + k, 12_345.678), y: 1234.567, secondsDone: 12_345.678 });
  jest.advanceTimersByTime(200);
  expect(told.map((heads) => heads.length)).toEqual([50]);
});

test('a notice is never larger than PostgreSQL takes, and none that fails stops the next', () => {
  const sizes: number[] = [];
  const told = new Set<number>();
  const { note, close } = tellHeads((heads) => {
    for (const { cutId } of heads) told.add(cutId);
    sizes.push(JSON.stringify({ kind: 'heads', heads }).length);
    return Promise.reject(new Error('away'));
  });
  for (let k = 0; k < 200; k++) note({ ...head(1_000_000_000 + k, -123_456.789), y: -123_456.789, linesDone: 1_000_000, secondsDone: 1_234_567.891 }); // prettier-ignore
  jest.advanceTimersByTime(200);
  expect([sizes.length, told.size]).toEqual([3, 200]);
  // its documentation of NOTIFY: in the default configuration it must be shorter than 8000 bytes
  expect(Math.max(...sizes)).toBeLessThan(8000);
  note(head(1, 1));
  jest.advanceTimersByTime(200);
  expect(sizes).toHaveLength(4);
  note(head(1, 2));
  close();
  jest.advanceTimersByTime(200);
  expect(sizes).toHaveLength(4);
});
