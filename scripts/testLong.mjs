// What takes long to prove: every case of the tests that `npm test` runs a sample of.
// `npm run test:long`, or `npm run test:long -- --seed 7 --minutes 60`: again and again, with other seeds, until the time is over.
// Ends with a line `N passed, N failed`.
import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, existsSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { parseArgs } from 'node:util';
import { installPackages } from './packages.mjs';
import { startPostgres } from './postgres.mjs';
import { aptForTests, run } from './run.mjs';

const { values } = parseArgs({ options: { seed: { type: 'string' }, minutes: { type: 'string' } } });
const wholeNumber = (name, text) => {
  const value = Number(text);
  if (Number.isInteger(value) && value >= 0) return value;
  console.error(`--${name} takes a whole number, not ${text}`);
  process.exit(2);
};
const first = values.seed === undefined ? Date.now() % 1_000_000 : wholeNumber('seed', values.seed);
const until = Date.now() + 60_000 * wholeNumber('minutes', values.minutes ?? '0');

installPackages();
aptForTests();
const files = run('git', ['grep', '-l', "sample.testing'", '--', '*.ts']).trim().split('\n');
const related = files.flatMap(
  (file) =>
  file.endsWith('.test.ts') ? [file] : run('git', ['grep', '-l', `${stem(file)}'`, '--', '*.test.ts']).trim().split('\n'), // prettier-ignore
);
function stem(file) {
  return file.split('/').at(-1).replace(/\.ts$/, '');
}

const postgres = await startPostgres('test', { fast: true });
const report = join(mkdtempSync(join(tmpdir(), 'jam-pan-long-')), 'report.json');
let [passed, failed] = [0, 0];
try {
  for (let seed = first; seed === first || Date.now() < until; seed++) {
    console.log(`seed ${seed}`);
    const env = {
      ...process.env,
      JAM_PAN_LONG: '1',
      JAM_PAN_SEED: String(seed),
      DATABASE_URL: postgres.fresh('jampan_long'),
    };
    const args = [
      'jest',
      '--maxWorkers=2',
      '--json',
      `--outputFile=${report}`,
      '--runTestsByPath',
      ...related,
    ];
    const { status } = spawnSync('npx', args, { stdio: ['ignore', 'ignore', 'inherit'], env });
    const counts = existsSync(report) ? JSON.parse(readFileSync(report, 'utf8')) : undefined;
    passed += counts?.numPassedTests ?? 0;
    const wrong = counts ? counts.numFailedTests + counts.numRuntimeErrorTestSuites : 1;
    failed += status !== 0 && wrong === 0 ? 1 : wrong;
  }
} finally {
  postgres.stop();
}
console.log(`\n${passed} passed, ${failed} failed`);
process.exit(failed === 0 ? 0 : 1);
