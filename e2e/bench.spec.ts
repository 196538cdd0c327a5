/** What measures the pages runs, with little of everything. */
import { execFile } from 'node:child_process';
import { promisify } from 'node:util';
import { expect, test } from './shop';

test('the pages are measured', async ({ shop }) => {
  const { stdout } = await promisify(execFile)(process.execPath, ['scripts/program.mjs', 'bench/page.ts'], {
    env: { ...process.env, SMALL: '1', SHOP: shop.url },
    timeout: 170_000,
  });
  expect(stdout).toMatch(/script of the first page, gzipped +\d+ kB/);
  expect(stdout).toMatch(/frames a second, .* \d+ found +\d+/);
  expect(stdout).toMatch(/until another’s page shows what was pressed/);
});
