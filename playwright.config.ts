import { readdirSync } from 'node:fs';
import { basename } from 'node:path';
import { defineConfig } from '@playwright/test';

/** A project is a process of its own, and so has a shop of its own: files share nothing and run side by side. */
const projects = readdirSync('e2e')
  .filter((file) => file.endsWith('.spec.ts'))
  .map((file) => ({ name: basename(file, '.spec.ts'), testMatch: file }));

/** Debian's Chromium against servers, simulated cutters and databases of the run's own. */
export default defineConfig({
  testDir: 'e2e',
  outputDir: 'test-results',
  workers: 2,
  projects,
  timeout: 120_000,
  expect: { timeout: 15_000 },
  reporter: [['line'], ['json']],
  use: {
    viewport: { width: 1280, height: 800 },
    acceptDownloads: true,
    launchOptions: {
      executablePath: '/usr/bin/chromium',
      args: [
        '--no-sandbox',
        '--disable-gpu',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
      ],
    },
  },
});
