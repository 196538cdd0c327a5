import { defineConfig } from '@playwright/test';

/** Debian's Chromium against a server, a simulated cutter and a database of the run's own. */
export default defineConfig({
  testDir: 'e2e',
  outputDir: 'test-results',
  workers: 1,
  timeout: 120_000,
  expect: { timeout: 15_000 },
  reporter: [['line'], ['json']],
  use: {
    baseURL: 'http://127.0.0.1:4281',
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
  webServer: {
    command: 'node --import tsx e2e/serve.ts',
    url: 'http://127.0.0.1:4281/api/health',
    timeout: 60_000,
    reuseExistingServer: false,
  },
});
