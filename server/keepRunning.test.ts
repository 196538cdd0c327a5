/** Programs beside one another: what ends is started again, and stops nothing else. */
import { afterEach, expect, test } from '@jest/globals';
import { spawn } from 'node:child_process';
import type { ChildProcess } from 'node:child_process';
import { once } from 'node:events';
import { keepRunning } from '../scripts/keepRunning.mjs';

const running: { end: () => Promise<unknown> }[] = [];
afterEach(() => Promise.all(running.splice(0).map((one) => one.end())));

const sleeping = (): { child: ChildProcess } => ({ child: spawn('sleep', ['600']) });
const until = async (isSo: () => boolean): Promise<void> => {
  while (!isSo()) await new Promise((done) => setTimeout(done, 5));
};

test('one that is killed runs again, as often as it is', async () => {
  const said: string[] = [];
  const own = await keepRunning(
    'It',
    () => Promise.resolve(sleeping()),
    (text) => said.push(text),
    [5, 40],
  );
  running.push(own);
  for (let k = 0; k < 3; k++) {
    const { child } = own.now();
    child.kill('SIGKILL');
    await until(() => own.now().child.pid !== child.pid);
    expect(own.now().child.exitCode).toBeNull();
  }
  expect(said.filter((text) => text === 'It ended and is started again.')).toHaveLength(3);
});

test('one that cannot start is tried again and again, later each time', async () => {
  const said: string[] = [];
  let [starts, fails] = [0, 0];
  const start = () => {
    if (starts++ > 0 && fails < 4) {
      fails++;
      return Promise.reject(new Error('its port is taken\nand more'));
    }
    return Promise.resolve(sleeping());
  };
  const own = await keepRunning('It', start, (text) => said.push(text), [5, 20]);
  running.push(own);
  own.now().child.kill('SIGKILL');
  await until(() => said.includes('It runs again.'));
  expect(fails).toBe(4);
  expect(
    said.filter((text) => text.startsWith('It could not be started again: its port is taken.')),
  ).toHaveLength(4);
});

test('one that is to end is not started again, even in the middle of a start', async () => {
  let wake = (): void => {};
  let late: { child: ChildProcess } | undefined;
  const start = async () => {
    if (!late) return (late = sleeping());
    await new Promise<void>((done) => (wake = done));
    return (late = sleeping());
  };
  const own = await keepRunning('It', start, () => {}, [5, 20]);
  const first = own.now().child;
  first.kill('SIGKILL');
  await once(first, 'exit');
  await new Promise((done) => setTimeout(done, 30));
  await own.end();
  wake();
  await until(() => late !== undefined && late.child !== first);
  const [, signal] = await once(late!.child, 'exit');
  expect(signal).toBe('SIGKILL');
});
