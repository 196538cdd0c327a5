import { expect, test } from '@jest/globals';
import { setFlagsFromString } from 'node:v8';
import { runInNewContext } from 'node:vm';
import { createWaiting } from './untilStopped';

setFlagsFromString('--expose_gc');
const collectGarbage = runInNewContext('gc') as () => void;

test('results are not kept when they were given', async () => {
  const { until } = createWaiting();
  const results: WeakRef<object>[] = [];
  for (let k = 0; k < 50; k++) {
    const result = { plan: new Float64Array(1000) };
    results.push(new WeakRef(result));
    await until(Promise.resolve(result));
  }
  await new Promise((done) => setTimeout(done, 20));
  collectGarbage();
  // the last one may still lie on the stack
  expect(results.filter((one) => one.deref() !== undefined).length).toBeLessThan(3);
});

test('a stop answers everybody who waits, later ones too, and errors come through', async () => {
  const { until, stop } = createWaiting();
  const never = new Promise<number>(() => {});
  const two = [until(never), until(never)];
  await expect(until(Promise.reject(new Error('no plan')))).rejects.toThrow('no plan');
  expect(await until(Promise.resolve(7))).toBe(7);
  stop();
  expect(await Promise.all([...two, until(never)])).toEqual([undefined, undefined, undefined]);
});
