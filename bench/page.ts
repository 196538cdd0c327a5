/** How light the pages are: script of the first page, and the longest task while a large drawing is re-planned. */
import { readFileSync, writeFileSync, mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { gzipSync } from 'node:zlib';
import { chromium } from '@playwright/test';
import { largeDrawing } from './largeDrawing';

const row = (what: string, figure: string, target: string): void =>
  console.log(`${what.padEnd(58)} ${figure.padStart(16)}   ${target}`);

const html = readFileSync('dist/web/index.html', 'utf8');
const scripts = [...html.matchAll(/(?:src|href)="(\/assets\/[^"]+\.js)"/g)].map(([, path]) =>
  readFileSync(`dist/web${path}`),
);
const size = scripts.reduce((sum, script) => sum + gzipSync(script).length, 0);
row('script of the first page, gzipped', `${(size / 1024).toFixed(0)} kB`, '≤ 350 kB');

const browser = await chromium.launch({
  executablePath: '/usr/bin/chromium',
  args: ['--no-sandbox', '--disable-gpu', '--disable-background-networking'],
});
const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
await page.addInitScript(() => {
  const tasks: number[] = [];
  Object.assign(window, { tasks });
  new PerformanceObserver((list) => tasks.push(...list.getEntries().map((e) => e.duration))).observe({
    entryTypes: ['longtask'],
  });
});
const file = join(mkdtempSync(join(tmpdir(), 'bench-')), 'large.svg');
writeFileSync(file, largeDrawing(500, 200));
await page.goto(`${process.env.SHOP}/orders`);
await page.setInputFiles('input[type=file]', file);
await page.waitForURL(/orders\/\d+$/, { timeout: 60_000 });
await page.getByText('6 films').waitFor({ timeout: 60_000 });
await page.getByRole('button', { name: /^\d Layout/ }).click();
const longest: number[] = [];
for (let copies = 2; copies <= 6; copies++) {
  await page.evaluate(() => ((window as unknown as { tasks: number[] }).tasks.length = 0));
  await page.getByLabel('Copies').fill(String(copies));
  await page.getByLabel('Copies').press('Enter');
  await page.getByText(new RegExp(`^${copies} copies`)).waitFor({ timeout: 60_000 });
  await page.waitForTimeout(1500);
  longest.push(await page.evaluate(() => Math.max(0, ...(window as unknown as { tasks: number[] }).tasks)));
}
row(
  'longest task on the page, five edits of 100 000 vertices',
  longest.map((ms) => (ms ? ms.toFixed(0) : '<50')).join(' '),
  'none over 50 ms',
);
await browser.close();
