// The whole test run: set-up, lint, types, dependency rules, unused code, unit, server and browser tests.
// `npm test -- core/panels`: only the tests there, with nothing that they do not need.
// Ends with a line `N passed, N failed`.
import { spawn } from 'node:child_process';
import { existsSync, mkdtempSync, readFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, relative } from 'node:path';
import { installBrowser } from './browser.mjs';
import { installPackages } from './packages.mjs';
import { startPostgres } from './postgres.mjs';
import { aptForTests } from './run.mjs';

/** Which folders have which tests. */
const FOLDERS = {
  unit: ['core', 'contracts', 'cli', 'web'],
  server: ['server', 'cutter-sim'],
  browser: ['e2e'],
};
const only = process.argv.slice(2).map((path) => relative('.', path));
const wanted = Object.keys(FOLDERS).filter(
  (kind) =>
    only.length === 0 || only.some((path) => FOLDERS[kind].some((name) => `${path}/`.startsWith(`${name}/`))),
);
if (wanted.length === 0) {
  console.error(`There are no tests in ${only.join(', ')}. They lie in ${Object.values(FOLDERS).flat().join(', ')}.`); // prettier-ignore
  process.exit(2);
}
const needs = (...kinds) => kinds.some((kind) => wanted.includes(kind));

installPackages();
if (needs('browser')) installBrowser();
if (only.length === 0 || needs('server')) aptForTests();
// what tests draw by chance, so that a run can be gone through again: JAM_PAN_SEED=7 npm test
process.env.JAM_PAN_SEED ??= String(Date.now() % 1_000_000);
console.log(`seed ${process.env.JAM_PAN_SEED}`);
const postgres = needs('server', 'browser') ? await startPostgres('test', { fast: true }) : undefined;
const out = mkdtempSync(join(tmpdir(), 'jam-pan-test-'));

let passed = 0;
let failed = 0;
/** [seconds, what took them] */
const stages = [];
const files = [];

const seconds = (since) => (Date.now() - since) / 1000;

/** Runs a command to its end, beside whatever else is run. @param shows everything as it comes, not when it is over */
async function step(name, command, args, { env = {}, shows = true } = {}) {
  const started = Date.now();
  if (shows) console.log(`\n── ${name}`);
  const child = spawn(command, args, {
    stdio: ['ignore', shows ? 'inherit' : 'pipe', shows ? 'inherit' : 'pipe'],
    env: { ...process.env, ...env },
  });
  let said = '';
  for (const stream of [child.stdout, child.stderr]) stream?.on('data', (chunk) => (said += chunk));
  const status = await new Promise((done) => child.on('close', done));
  const took = seconds(started);
  stages.push([took, name]);
  if (!shows) console.log(`\n── ${name}\n${said}`);
  console.log(`   ${name}: ${status === 0 ? 'ok' : `failed (${status})`}, ${took.toFixed(1)} s`);
  return status === 0;
}

async function check(name, command, args) {
  if (await step(name, command, args, { shows: false })) passed++;
  else failed++;
}

/** Counts from a runner's own report; a run that leaves none has failed. */
function count(ok, file, read) {
  if (!existsSync(file)) return void failed++;
  const counts = read(JSON.parse(readFileSync(file, 'utf8')));
  passed += counts.passed;
  failed += counts.failed;
  if (!ok && counts.failed === 0) failed++;
}

async function jest(project, workers, env) {
  const file = join(out, `${project}.json`);
  const patterns = only.length > 0 ? ['--passWithNoTests', '--testPathPatterns', ...only] : [];
  const args = [
    'jest',
    '--selectProjects',
    project,
    `--maxWorkers=${workers}`,
    '--json',
    `--outputFile=${file}`,
  ];
  const ok = await step(`${project} tests`, 'npx', [...args, ...patterns], { env });
  count(ok, file, (report) => {
    for (const { name, startTime, endTime } of report.testResults)
      files.push([(endTime - startTime) / 1000, relative('.', name)]);
    return {
      passed: report.numPassedTests,
      failed: report.numFailedTests + report.numRuntimeErrorTestSuites,
    };
  });
}

async function browser() {
  const file = join(out, 'browser.json');
  const ok = await step(
    'browser tests',
    'npx',
    ['playwright', 'test', ...only.filter((path) => path.startsWith('e2e'))],
    {
      env: { DATABASE_URL: postgres.fresh('jampan_browser'), PLAYWRIGHT_JSON_OUTPUT_NAME: file },
    },
  );
  count(ok, file, ({ stats, suites }) => {
    for (const suite of suites) files.push([tookBy(suite), join('e2e', suite.file)]);
    return { passed: stats.expected + stats.flaky, failed: stats.unexpected };
  });
}
/** Seconds that the tests of a suite took, one after the other. */
const tookBy = ({ specs = [], suites = [] }) =>
  specs
    .flatMap(({ tests }) => tests.flatMap(({ results }) => results))
    .reduce((sum, { duration }) => sum + duration / 1000, 0) +
  suites.reduce((sum, suite) => sum + tookBy(suite), 0);

const pages = () => check('pages', 'npx', ['vite', 'build', '--logLevel', 'error']);
async function checks() {
  await check('types', 'npx', ['vue-tsc', '--noEmit', '-p', 'tsconfig.json']);
  await check('lint', 'npx', ['eslint', '.']);
  await check('format', 'npx', ['prettier', '--check', '--log-level', 'warn', '.']);
  await check('dependency rules', 'npm', ['run', '--silent', 'rules']);
  await check('unused code', 'npx', ['knip', '--no-config-hints']);
}
async function tests() {
  if (needs('unit')) await jest('unit', 2);
  // more than there are cores: many of them wait, for machines and for what must not answer
  if (needs('server')) await jest('server', 3, { DATABASE_URL: postgres.fresh('jampan_server') });
}

const began = Date.now();
try {
  // tests that wait leave the checks time
  await Promise.all([tests(), only.length === 0 ? checks() : undefined]);
  if (needs('browser')) {
    await pages();
    await browser();
  }
} finally {
  postgres?.stop();
}
const listed = (rows) => rows.map(([took, name]) => `${took.toFixed(0).padStart(6)} s  ${name}`).join('\n');
console.log(`\n${listed([...stages, [seconds(began), 'all of it']])}`);
console.log(`\nThe files that took longest:\n${listed(files.sort(([a], [b]) => b - a).slice(0, 10))}`);
console.log(`\n${passed} passed, ${failed} failed`);
process.exit(failed === 0 ? 0 : 1);
