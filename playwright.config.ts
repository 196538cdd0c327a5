import { readdirSync } from 'node:fs';
import { basename } from 'node:path';
import { defineConfig } from '@playwright/test';
import { BROWSER } from './scripts/browser.mjs';

/** Files that take longest begin, so that none is left running alone at the end. */
const LONG = ['artwork', 'walk', 'print', 'panels', 'first-slice', 'layout', 'films'].map(
  (name) => `${name}.spec.ts`,
);
const place = (file: string): number => (LONG.includes(file) ? LONG.indexOf(file) : LONG.length);

/** A project is a process of its own, and so has a shop of its own: files share nothing and run side by side. */
const projects = readdirSync('e2e')
  .filter((file) => file.endsWith('.spec.ts'))
  .sort((a, b) => place(a) - place(b))
  .map((file) => ({ name: basename(file, '.spec.ts'), testMatch: file }));

/** Debian's Chromium against servers, simulated cutters and databases of the run's own. */
export default defineConfig({
  testDir: 'e2e',
  globalSetup: './e2e/seeded.ts',
  outputDir: 'test-results',
  // on a machine that stalls, a test is given a second go; the report says so
  retries: 1,
  // more than there are cores: many of them wait for machines
  workers: 3,
  projects,
  // a machine that is busy with other work must not fail a test
  timeout: 180_000,
  expect: { timeout: 40_000 },
  reporter: [['line'], ['json']],
  use: {
    actionTimeout: 60_000,
    viewport: { width: 1280, height: 800 },
    acceptDownloads: true,
    launchOptions: BROWSER,
  },
});
