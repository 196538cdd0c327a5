import { expect, test } from '@jest/globals';
import { oneAtATime } from './oneAtATime';

test('what is asked for while it is done is done once more, and never beside itself', async () => {
  let [now, most, times] = [0, 0, 0];
  const ends: (() => void)[] = [];
  const { ask, isBusy } = oneAtATime(async () => {
    times++;
    most = Math.max(most, ++now);
    await new Promise<void>((done) => ends.push(done));
    now--;
  });
  const settled = (): Promise<void> => new Promise((done) => setImmediate(done));
  const all = [ask(), ask(), ask()];
  expect([times, isBusy()]).toEqual([1, true]);
  ends[0]();
  await settled();
  expect(times).toBe(2);
  ends[1]();
  await Promise.all(all);
  expect([times, most, isBusy()]).toEqual([2, 1, false]);
  void ask();
  expect(times).toBe(3);
});

test('work that failed can be asked for again', async () => {
  let times = 0;
  const { ask, isBusy } = oneAtATime(async () => {
    await null;
    if (times++ === 0) throw new Error('no answer');
  });
  await expect(ask()).rejects.toThrow('no answer');
  expect(isBusy()).toBe(false);
  await ask();
  expect(times).toBe(2);
});
