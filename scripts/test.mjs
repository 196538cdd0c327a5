// The whole test run: set-up, lint, types, dependency rules, unused code, unit, server and browser tests.
// Ends with a line `N passed, N failed`.
import { spawn, spawnSync } from 'node:child_process';
import { existsSync, mkdtempSync, readFileSync } from 'node:fs';
import { availableParallelism, tmpdir } from 'node:os';
import { join } from 'node:path';
import { installBrowser } from './browser.mjs';
import { installPackages } from './packages.mjs';
import { startPostgres } from './postgres.mjs';
import { aptForTests } from './run.mjs';

installPackages();
installBrowser();
aptForTests();
// what tests draw by chance, so that a run can be gone through again: JAM_PAN_SEED=7 npm test
process.env.JAM_PAN_SEED ??= String(Date.now() % 1_000_000);
console.log(`seed ${process.env.JAM_PAN_SEED}`);
const postgres = await startPostgres('test', { fast: true });
const out = mkdtempSync(join(tmpdir(), 'jam-pan-test-'));

let passed = 0;
let failed = 0;

function step(name, command, args, env = {}) {
  console.log(`\n── ${name}`);
  const started = Date.now();
  const { status } = spawnSync(command, args, { stdio: 'inherit', env: { ...process.env, ...env } });
  console.log(
    `   ${status === 0 ? 'ok' : `failed (${status})`}, ${((Date.now() - started) / 1000).toFixed(1)} s`,
  );
  return status === 0;
}

/** Runs checks side by side, as many as there are cores; each says what it has to when it is done. */
async function checks(all) {
  const left = [...all];
  const lane = async () => {
    for (let next = left.shift(); next; next = left.shift()) await check(...next);
  };
  await Promise.all(Array.from({ length: Math.max(1, availableParallelism()) }, lane));
}

function check(name, command, args) {
  const started = Date.now();
  const child = spawn(command, args, { stdio: ['ignore', 'pipe', 'pipe'] });
  let said = '';
  for (const stream of [child.stdout, child.stderr]) stream.on('data', (chunk) => (said += chunk));
  return new Promise((done) => {
    child.on('close', (status) => {
      const seconds = ((Date.now() - started) / 1000).toFixed(1);
      console.log(`\n── ${name}\n${said}   ${status === 0 ? 'ok' : `failed (${status})`}, ${seconds} s`);
      if (status === 0) passed++;
      else failed++;
      done();
    });
  });
}

/** Counts from a runner's own report; a run that leaves none has failed. */
function count(ok, file, read) {
  if (!existsSync(file)) return void failed++;
  const counts = read(JSON.parse(readFileSync(file, 'utf8')));
  passed += counts.passed;
  failed += counts.failed;
  if (!ok && counts.failed === 0) failed++;
}

const jest = (project, workers, env) => {
  const file = join(out, `${project}.json`);
  const ok = step(
    `${project} tests`,
    'npx',
    ['jest', '--selectProjects', project, `--maxWorkers=${workers}`, '--json', `--outputFile=${file}`],
    env,
  );
  count(ok, file, (report) => ({
    passed: report.numPassedTests,
    failed: report.numFailedTests + report.numRuntimeErrorTestSuites,
  }));
};

try {
  await checks([
    ['types', 'npx', ['vue-tsc', '--noEmit', '-p', 'tsconfig.json']],
    ['lint', 'npx', ['eslint', '.']],
    ['format', 'npx', ['prettier', '--check', '--log-level', 'warn', '.']],
    ['dependency rules', 'npm', ['run', '--silent', 'rules']],
    ['pages', 'npx', ['vite', 'build', '--logLevel', 'error']],
    ['unused code', 'npx', ['knip', '--no-config-hints']],
  ]);
  jest('unit', 2);
  // more than there are cores: many of them wait, for machines and for what must not answer
  jest('server', 3, { DATABASE_URL: postgres.fresh('jampan_server') });
  const report = join(out, 'browser.json');
  const ok = step('browser tests', 'npx', ['playwright', 'test'], {
    DATABASE_URL: postgres.fresh('jampan_browser'),
    PLAYWRIGHT_JSON_OUTPUT_NAME: report,
  });
  count(ok, report, ({ stats }) => ({ passed: stats.expected + stats.flaky, failed: stats.unexpected }));
} finally {
  postgres.stop();
}
console.log(`\n${passed} passed, ${failed} failed`);
process.exit(failed === 0 ? 0 : 1);
