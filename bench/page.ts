/** How light the pages are: script of the first page, and the longest task while a large drawing is re-planned. */
import { readFileSync, writeFileSync, mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { gzipSync } from 'node:zlib';
import { chromium } from '@playwright/test';
import { DEMO_PEOPLE } from '../demo/people';
import { BROWSER } from '../scripts/browser.mjs';
import { busyDrawing, largeDrawing } from './largeDrawing';
import { row } from './row';
import { ofSize } from './size';
import { seenByOther } from './seenByOther';

const html = readFileSync('dist/web/index.html', 'utf8');
const scripts = [...html.matchAll(/(?:src|href)="(\/assets\/[^"]+\.js)"/g)].map(([, path]) =>
  readFileSync(`dist/web${path}`),
);
const size = scripts.reduce((sum, script) => sum + gzipSync(script).length, 0);
row('script of the first page, gzipped', `${(size / 1024).toFixed(0)} kB`, '≤ 350 kB');

const browser = await chromium.launch(BROWSER);
const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
// as the demo's lead
const { name, password } = DEMO_PEOPLE.find(({ role }) => role === 'lead')!;
const headers = { Origin: process.env.SHOP! };
await page.request.post(`${process.env.SHOP}/api/session`, { headers, data: { name, password } });
await page.addInitScript(() => {
  const tasks: number[] = [];
  Object.assign(window, { tasks });
  new PerformanceObserver((list) => tasks.push(...list.getEntries().map((e) => e.duration))).observe({
    entryTypes: ['longtask'],
  });
});
const file = join(mkdtempSync(join(tmpdir(), 'bench-')), 'large.svg');
writeFileSync(file, largeDrawing(ofSize(500, 12), ofSize(200, 20)));
await page.goto(`${process.env.SHOP}/orders`);
await page.setInputFiles('input[type=file]', file);
await page.waitForURL(/orders\/\d+$/, { timeout: 60_000 });
await page.getByText('6 films').waitFor({ timeout: 60_000 });
await page.getByRole('button', { name: /^\d Layout/ }).click();
const longest: number[] = [];
for (let copies = 2; copies <= ofSize(6, 2); copies++) {
  await page.evaluate(() => ((window as unknown as { tasks: number[] }).tasks.length = 0));
  await page.getByLabel('Copies', { exact: true }).fill(String(copies));
  await page.getByLabel('Copies', { exact: true }).press('Enter');
  await page.getByText(new RegExp(`^${copies} copies`)).waitFor({ timeout: 60_000 });
  await page.waitForTimeout(ofSize(1500, 0));
  longest.push(await page.evaluate(() => Math.max(0, ...(window as unknown as { tasks: number[] }).tasks)));
}
row(
  'longest task on the page, five edits of 100 000 vertices',
  longest.map((ms) => (ms ? ms.toFixed(0) : '<50')).join(' '),
  'none over 50 ms',
);
await panAndZoom();
const seen = (await seenByOther(page, process.env.SHOP!)).toSorted((a, b) => a - b);
row(
  'until another’s page shows what was pressed, longest of 20',
  `${seen.at(-1)!.toFixed(0)} ms`,
  '≤ 1000 ms',
);
await browser.close();

/** Frames a second while a piled drawing of 200 000 segments with its findings is panned and zoomed. */
async function panAndZoom(): Promise<void> {
  const path = join(mkdtempSync(join(tmpdir(), 'bench-')), 'busy.svg');
  writeFileSync(path, busyDrawing(ofSize(2000, 12), ofSize(100, 20)));
  await page.goto(`${process.env.SHOP}/orders`);
  await page.setInputFiles('input[type=file]', path);
  await page.waitForURL(/orders\/\d+$/, { timeout: 120_000 });
  await page.getByRole('button', { name: /^\d Artwork/ }).click();
  await page.getByText(/^\d+ found$/).waitFor({ timeout: 300_000 });
  await page.waitForTimeout(ofSize(4000, 0));
  const found = await page.getByText(/^\d+ found$/).innerText();
  const result = await page.evaluate(async () => {
    const stage = document.querySelector('[role=application]')!;
    const { tasks } = window as unknown as { tasks: number[] };
    tasks.length = 0;
    const { left, top, width, height } = stage.getBoundingClientRect();
    const at = { clientX: left + width / 2, clientY: top + height / 2, bubbles: true };
    const frames: number[] = [];
    for (let i = 0; i < 150; i++) {
      await new Promise((done) => requestAnimationFrame((time) => done(frames.push(time))));
      if (i < 75)
        stage.dispatchEvent(
          new KeyboardEvent('keydown', { key: i % 30 < 15 ? 'ArrowRight' : 'ArrowLeft', bubbles: true }),
        );
      else
        stage.dispatchEvent(
          new WheelEvent('wheel', { ...at, deltaY: i % 30 < 15 ? -60 : 60, cancelable: true }),
        );
    }
    const seconds = (frames.at(-1)! - frames[0]) / 1000;
    return { fps: (frames.length - 1) / seconds, longest: Math.max(0, ...tasks) };
  });
  row(`frames a second, 200 000 segments, ${found}`, result.fps.toFixed(0), '≥ 50');
  row('longest task meanwhile, ms', result.longest ? result.longest.toFixed(0) : '<50', 'none over 50');
}
