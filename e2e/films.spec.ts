/** From colours to cut layers that line up: through the real interface. */
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, test } from '@playwright/test';
import type { Page } from '@playwright/test';

const PANEL = 'http://127.0.0.1:4282';
const dir = mkdtempSync(join(tmpdir(), 'jam-pan-films-'));
const section = (page: Page, name: string) => page.getByRole('button', { name: new RegExp(`^\\d ${name}`) });
const saved = (page: Page) => expect(page.getByText(/^Saved \d\d:\d\d$/)).toBeVisible();
const open = (page: Page, title: string) => page.getByRole('button', { name: title }).click();

test.beforeEach(async ({ page }) => {
  page.on('pageerror', (error) => {
    throw error;
  });
});

test('near-equal colours of an uploaded drawing are folded into one film, and unfolded', async ({ page }) => {
  const path = join(dir, 'blues.svg');
  const square = (x: number, colour: string): string =>
    `<rect x="${x}" width="40" height="40" fill="${colour}"/>`;
  writeFileSync(
    path,
    `<svg xmlns="http://www.w3.org/2000/svg" width="200mm" height="40mm" viewBox="0 0 200 40">${['#1d3f86', '#1e4088', '#1c3e84', '#b0202f'].map((c, i) => square(i * 50, c)).join('')}</svg>`,
  );
  await page.goto('/orders');
  await page.locator('input[type=file]').setInputFiles(path);
  await page.waitForURL(/orders\/\d+$/);
  await expect(page.getByText('4 colours seen')).toBeVisible();
  await open(page, 'Near-equal colours');
  await expect(page.getByText('2 near-equal')).toBeVisible();
  await page.getByRole('button', { name: 'Fold into #1d3f86' }).click();
  await expect(page.getByText('2 colours seen')).toBeVisible();
  await saved(page);
  await page.getByRole('button', { name: 'Unfold' }).first().click();
  await expect(page.getByText('3 colours seen')).toBeVisible();
  await saved(page);
  await page.getByRole('heading', { name: 'Films' }).click();
  await page.keyboard.press('Control+z');
  await expect(page.getByText('2 colours seen')).toBeVisible();
});

test('each way to lie under another film, marks, another order, copies, and one film cut again', async ({
  page,
}) => {
  // a copy of the demo order: other tests want the order itself as it is
  await page.goto('/orders');
  await page.locator('input[type=file]').setInputFiles('demo/art/slipway-sign.svg');
  await page.waitForURL(/orders\/\d+$/);
  await expect(section(page, 'Films')).toContainText('6 films');
  const label = page.locator('.strip .label').first();
  await open(page, 'Overlaps and copies');
  const mode = page.getByLabel(/lies under other films$/).first();
  await expect(mode).toHaveValue('trap');
  await page.getByLabel('Show what lies under other films').check();
  for (const way of ['full', 'butt', 'trap']) {
    await mode.selectOption(way);
    await saved(page);
    await expect(mode).toHaveValue(way);
  }
  await page
    .getByLabel(/^Overlap of /)
    .first()
    .fill('1.5 mm');
  await page.keyboard.press('Enter');
  await expect(page.getByLabel(/^Overlap of /).first()).toHaveValue('1.50 mm');

  // marks make every film as long as the sign with its marks
  const before = await label.innerText();
  await open(page, 'Layer marks');
  await page.getByLabel('The same marks on every film').check();
  await page.getByLabel('Shape of the layer marks').selectOption('ring');
  await page.getByLabel('How many layer marks').selectOption('4');
  await expect(page.getByText('4 of ring')).toBeVisible();
  await expect(label).not.toHaveText(before);
  await saved(page);
  await page.reload();
  await expect(section(page, 'Films')).toContainText('6 films');
  await expect(page.getByText('4 of ring')).toBeVisible();

  // only one film is cut here, to keep the test short: the others are switched off
  const boxes = await page.getByRole('checkbox', { name: /^Cut #/ }).all();
  for (const box of boxes.slice(1)) await box.uncheck();
  await section(page, 'Artwork').click();
  await page.getByLabel('Finished width', { exact: true }).fill('200');
  await page.keyboard.press('Enter');
  await section(page, 'Films').click();
  await saved(page);
  await fetch(`${PANEL}/load`, { method: 'POST', body: JSON.stringify({ width: 610, length: 22_000 }) });
  await page.getByRole('button', { name: 'Queue 1 cut' }).click();
  await page.waitForURL(/cutters\/curlew/);
  await page.getByRole('button', { name: /is loaded$/ }).click();
  await expect(page.getByRole('heading', { name: 'Nothing to do here' })).toBeVisible({ timeout: 60_000 });
  await page.goBack();
  await page.getByRole('button', { name: 'Cut again' }).click();
  await page.waitForURL(/cutters\/curlew/);
  await expect(page.getByRole('heading', { name: /^Load / })).toBeVisible();
  // leaves the cutter free for the tests that follow
  await page.evaluate(async () => {
    const cuts = (await (await fetch('/api/cuts')).json()) as { id: number }[];
    for (const { id } of cuts) await fetch(`/api/cuts/${id}/cancel`, { method: 'POST' });
  });
});

test('the shop’s films: searched, changed, taken out and brought in as a table', async ({ page }) => {
  await page.goto('/materials');
  await expect(page.getByText('40 of 40')).toBeVisible();
  await page.getByRole('button', { name: 'metallic', exact: true }).click();
  await expect(page.getByText('3 of 40')).toBeVisible();
  await page.getByRole('button', { name: 'all', exact: true }).click();
  await page.getByLabel('Search films').fill('heather');
  const narrowest = page.getByLabel('Narrowest stem of Heather');
  await narrowest.fill('2.2');
  await narrowest.press('Enter');
  await expect(narrowest).toHaveValue('2.20 mm');
  await page.reload();
  await expect(page.getByLabel('Narrowest stem of Heather')).toHaveValue('2.20 mm');
  const [table] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('link', { name: 'As a table' }).click(),
  ]);
  const text = readFileSync(await table.path(), 'utf8');
  expect(text.split('\r\n')).toHaveLength(42);
  const path = join(dir, 'films.csv');
  writeFileSync(path, `${text}dusk,Dusk,G-4999,#3b2a4a,opaque,sign,610,5000,no,1.5,3,0.3,\r\n`);
  await page.locator('[data-test=film-table]').setInputFiles(path);
  await expect(page.getByText('41 of 41')).toBeVisible();
  writeFileSync(path, text.replace('#2c6e7c', 'teal'));
  await page.locator('[data-test=film-table]').setInputFiles(path);
  await expect(page.getByRole('alert')).toContainText('Line 3: “teal” is no colour such as #1d3f86.');
  await expect(page.getByText('41 of 41')).toBeVisible();
});
