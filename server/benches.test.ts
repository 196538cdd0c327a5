/** Every program that measures is started with little of everything: none breaks unnoticed. Those of pages are started in `e2e`. */
import { expect, test } from '@jest/globals';
import { execFile } from 'node:child_process';
import { promisify } from 'node:util';
import { freshDatabase } from './db/freshDatabase.testing';

const run = promisify(execFile);
const bench = (program: string, env: NodeJS.ProcessEnv, ...args: string[]) =>
  run(process.execPath, ['scripts/program.mjs', `bench/${program}.ts`, ...args], {
    env: { ...process.env, SMALL: '1', ...env },
    timeout: 110_000,
  });

test('the computation', async () => {
  const { stdout } = await bench('core', {});
  const rows = stdout.trim().split('\n');
  expect(rows.length).toBeGreaterThan(40);
  expect(stdout).not.toMatch(/NaN|undefined/);
  expect(rows.at(-1)).toMatch(/^a sheet of 2 as PDF/);
});

test('machines fed at once', async () => {
  const { stdout } = await bench('floor', { DATABASE_URL: await freshDatabase('jampan_bench_floor') });
  expect(stdout).toMatch(/still cutting +cutting /);
  expect(stdout).toMatch(/answered after that +200/);
});

test('cuts that meet faults', async () => {
  const { stdout, stderr } = await bench('soak', {}, '2', '7');
  expect(stdout).toContain('2 runs, seed 7');
  expect(stderr).toMatch(/Tests: +\d+ passed, \d+ total/);
});
