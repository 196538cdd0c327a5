/** A customer's SVG becomes cut film: all of it through the real interface. */
import { readFileSync } from 'node:fs';
import type { Order } from '../contracts/api';
import { expect, given, loadFilm, saved, section, test } from './shop';
import type { Page } from '@playwright/test';
import { largeDrawing } from '../bench/largeDrawing';

/** Drops files on the page as a hand does. */
async function dropAll(
  page: Page,
  files: readonly (readonly [name: string, content: Buffer | string])[],
  says = 'Drop drawings to start an order',
): Promise<void> {
  const data = await page.evaluateHandle(
    (given) => {
      const transfer = new DataTransfer();
      for (const [fileName, base64] of given) {
        const bytes = Uint8Array.from(atob(base64), (c) => c.charCodeAt(0));
        transfer.items.add(new File([bytes], fileName, { type: 'image/svg+xml' }));
      }
      return transfer;
    },
    files.map(([name, content]) => [name, Buffer.from(content).toString('base64')] as const),
  );
  await page.dispatchEvent('body', 'dragenter', { dataTransfer: data });
  await expect(page.getByText(says)).toBeVisible();
  await page.dispatchEvent('body', 'drop', { dataTransfer: data });
}
const drop = (page: Page, name: string, content: Buffer | string): Promise<void> =>
  dropAll(page, [[name, content]]);

test('from the dropped file to the cut and its measured deviation', async ({ page, shop }) => {
  await page.goto('/orders');

  // 1 the demo shop's orders are there with their pictures
  await expect(page.getByRole('link', { name: /Marsh Wren hull names/ })).toBeVisible();
  const thumb = page.locator('img[src*="thumbnail"]').first();
  await expect.poll(() => thumb.evaluate((img: HTMLImageElement) => img.naturalWidth)).toBeGreaterThan(100);
  await page.getByLabel('Search orders').fill('sail 4127');
  await expect(page.locator('.rows li')).toHaveCount(1);
  await page.getByLabel('Search orders').fill('');
  await drop(page, 'pennant.svg', readFileSync('e2e/art/pennant.svg'));
  await page.waitForURL(/orders\/\d+$/);
  await expect(page.getByLabel('Name of the order')).toHaveValue('pennant');

  // when it is due, typed as a date is said
  await page.getByRole('combobox', { name: 'Due' }).click();
  await page.getByRole('button', { name: 'Today' }).click();
  await expect(page.getByRole('combobox', { name: 'Due' })).toHaveValue(/^due \w{3} \d{1,2} \w{3}$/);

  // 2 the finished size, exactly, in either unit
  await section(page, 'Artwork').click();
  const width = page.getByLabel('Finished width', { exact: true });
  await expect(width).toHaveValue('180.0 mm');
  await width.fill('3 1/2"');
  await width.press('Enter');
  await expect(width).toHaveValue('88.9 mm');
  await width.fill('wide');
  await width.press('Enter');
  await expect(page.getByRole('alert')).toContainText('Not a length');
  await width.fill('2*(200+50)');
  await width.press('Enter');
  await expect(width).toHaveValue('500.0 mm');
  await expect(page.getByLabel('Finished height', { exact: true })).toHaveValue('277.8 mm');
  await page.getByRole('button', { name: 'in', exact: true }).click();
  await expect(width).toHaveValue('19.685 in');
  await page.reload();
  await section(page, 'Artwork').click();
  await expect(width).toHaveValue('19.685 in');
  await page.getByRole('button', { name: 'mm', exact: true }).click();

  // 3 colours found by themselves, as seen, each with its film and ΔE
  await section(page, 'Films').click();
  await expect(page.getByText('4 colours seen')).toBeVisible();
  await expect(page.getByText(/1 shape · #1d3f86 · ΔE 0\.0/)).toBeVisible();
  await expect(page.getByText(/2 shapes · #e2a11d · ΔE 0\.0/)).toBeVisible();
  await page.getByLabel('Film for #b0202f').click();
  await page.getByRole('option', { name: /Lantern orange/ }).click();
  await expect(page.getByRole('button', { name: /Lantern orange.*610/ })).toBeVisible();
  await page.getByLabel('Cut #fbfbf8').uncheck();
  await expect(section(page, 'Films')).toContainText('3 films');
  await page.getByRole('button', { name: 'Cut Quince earlier' }).click();
  await expect(page.locator('.strip .label strong').nth(1)).toHaveText(/Quince/);
  await saved(page);

  // 4 layout: copies, turn, mirror, border; too wide is refused with both widths and ways out
  await section(page, 'Layout').click();
  await page.getByLabel('Copies', { exact: true }).fill('2');
  await page.getByLabel('Copies', { exact: true }).press('Enter');
  await expect(section(page, 'Layout')).toContainText('2 copies');
  await page.getByLabel('Mirror', { exact: true }).click();
  await page.getByRole('option', { name: 'mirrored', exact: true }).click();
  await expect(page.getByText(/cut from the front but is mirrored/).first()).toBeVisible();
  await section(page, 'Artwork').click();
  await width.fill('4 m');
  await width.press('Enter');
  // taken apart by itself; without seams it is refused, with both widths and what to do
  await expect(section(page, 'Panels')).toContainText('seam');
  await section(page, 'Panels').click();
  await page.getByRole('radio', { name: /No seams/ }).click();
  await expect(
    page.getByText(/needs .* across, but the knife reaches 583\.6 mm \(22\.98 in\)/).first(),
  ).toBeVisible();
  await expect(page.getByText(/% of this size fits/).first()).toBeVisible();
  await expect(page.getByRole('button', { name: /^Queue/ })).toBeDisabled();

  // 9 undo and redo, by key and by button
  await page.getByRole('heading', { name: 'Artwork' }).click();
  await saved(page);
  await page.keyboard.press('Control+z');
  await expect(page.getByText(/% of this size fits/)).toHaveCount(0);
  await page.keyboard.press('Control+z');
  await expect(section(page, 'Artwork')).toContainText('500.0');
  await page.keyboard.press('Control+z');
  await expect(page.getByText(/but is mirrored/)).toHaveCount(0);
  await page.getByRole('button', { name: 'Redo' }).click();
  await expect(page.getByText(/but is mirrored/).first()).toBeVisible();
  await page.getByRole('button', { name: /^Undo/ }).click();
  await expect(page.getByText(/but is mirrored/)).toHaveCount(0);

  // 5 cut settings: the recipe of each film, changed for this order only
  await section(page, 'Cut settings').click();
  await page.getByRole('button', { name: 'Harbour blue', exact: true }).first().click();
  await expect(page.getByText('80 g')).toBeVisible();
  await page.getByRole('button', { name: 'More force' }).click();
  await expect(page.getByText('85 g')).toBeVisible();
  await expect(page.getByLabel('Blade offset', { exact: true })).toHaveValue('0.25 mm');
  await saved(page);

  // 8 the cut as files
  const [plt] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('link', { name: 'HP-GL' }).click(),
  ]);
  expect(readFileSync(await plt.path(), 'latin1')).toMatch(/^IN;PA;SP1;VS40;FS85;PU/);
  const [svg] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('link', { name: 'SVG', exact: true }).click(),
  ]);
  expect(readFileSync(await svg.path(), 'utf8')).toContain('id="weed-border"');

  // 9 reload loses nothing
  await page.reload();
  await expect(section(page, 'Artwork')).toContainText('500.0 × 277.8 mm');
  await expect(section(page, 'Layout')).toContainText('2 copies');
  await expect(section(page, 'Films')).toContainText('3 films');

  // 6 queue, load, refuse the wrong roll, cut, next film
  await loadFilm(shop, 1220);
  await page.getByRole('button', { name: 'Queue 3 cuts' }).click();
  await page.waitForURL(/cutters\/curlew/);
  await expect(page.getByRole('heading', { name: 'Load Harbour blue' })).toBeVisible();
  await page.getByRole('button', { name: 'Harbour blue is loaded' }).click();
  await expect(page.getByRole('alert')).toContainText('1220.0 mm wide, Harbour blue is 610.0 mm');
  await loadFilm(shop, 610);
  await page.getByRole('button', { name: 'Harbour blue is loaded' }).click();
  await expect(page.getByRole('heading', { name: /Cutting line \d+ of \d+/ })).toBeVisible();
  await expect(page.getByText('not moving')).toHaveCount(0);
  await expect(page.getByRole('heading', { name: 'Load Quince' })).toBeVisible({ timeout: 60_000 });
  await expect(page.getByText(/within 0\.0[0-3]\d mm/).first()).toBeVisible();
  await page.getByRole('button', { name: 'Quince is loaded' }).click();
  await expect(page.getByRole('heading', { name: 'Load Lantern orange' })).toBeVisible({ timeout: 60_000 });
  await page.getByRole('button', { name: 'Lantern orange is loaded' }).click();
  await expect(page.getByRole('heading', { name: 'Nothing to do here' })).toBeVisible({ timeout: 60_000 });

  // 7 as cut: the blade's own way over the design, with the largest deviation
  // what is said is said of the one that is shown
  await expect(page.getByRole('heading', { name: 'Lantern orange is done' })).toBeVisible();
  const clean = page.getByRole('group', { name: 'How it was' }).getByRole('button', { name: 'Clean' });
  await clean.click();
  await expect(clean).toHaveAttribute('aria-pressed', 'true');
  await page.getByRole('link', { name: 'See it as cut' }).click();
  await page.getByRole('button', { name: 'As cut' }).click();
  const worst = page.locator('.card', { hasText: 'lies at most' }).locator('b');
  await expect(worst).toHaveText(/0\.\d{3} mm/);
  expect(parseFloat(await worst.innerText())).toBeLessThanOrEqual(0.03);
  await expect(page.getByText('Every line is cut once.')).toBeVisible();
  await page.getByRole('button', { name: 'Look there' }).click();
  await page.goto('/orders');
  await expect(page.getByRole('link', { name: /pennant/ }).getByText('Cut', { exact: true })).toBeVisible();
});

test('an order is put away, brought back, put away again and cleared for good', async ({ page }) => {
  await page.goto('/orders');
  await drop(page, 'spare.svg', readFileSync('e2e/art/pennant.svg'));
  await page.waitForURL(/orders\/\d+$/);
  await page.getByRole('link', { name: 'Orders' }).click();
  const row = page.getByRole('link', { name: /spare/ });
  await page.getByRole('button', { name: 'Put spare away' }).click();
  await expect(row).toBeHidden();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(row).toBeVisible();
  await page.getByRole('button', { name: 'Put spare away' }).click();
  await expect(row).toBeHidden();
  await page.getByRole('button', { name: /^Put away/ }).click();
  await expect(row).toBeVisible();
  await page.getByRole('button', { name: 'Clear for good' }).click();
  await page.getByRole('dialog').getByRole('button', { name: 'Clear for good' }).click();
  await expect(page.getByText('No order matches.')).toBeVisible();
});

test('several files make one order or one each, as is said; on an open order they are added to it', async ({
  page,
  shop,
}) => {
  const square = (side: number): string =>
    `<svg xmlns="http://www.w3.org/2000/svg" width="${side}mm" height="${side}mm"><path fill="#4b1f4a" d="M0 0h${side * 3}v${side * 3}h-${side * 3}z"/></svg>`;
  const three = [20, 30, 40].map((side) => [`square-${side}.svg`, square(side)] as const);
  await page.goto('/orders');
  await dropAll(page, three);
  const asked = page.getByRole('dialog', { name: '3 files: one order, or one each?' });
  await expect(asked).toContainText('square-30.svg');
  await asked.getByRole('button', { name: 'One order with all of them' }).click();
  await page.waitForURL(/orders\/\d+$/);
  await section(page, 'Artwork').click();
  const pieces = page.locator('.piece .name');
  await expect(pieces).toHaveCount(3);

  // one more, and one that is none: what can be added is, and the other is named
  await dropAll(
    page,
    [
      ['letter.txt', 'Dear Tern Lane Signs'],
      ['last.svg', square(10)],
    ],
    'Drop drawings to add them to this order',
  );
  await expect(pieces).toHaveCount(4);
  await expect(page.getByRole('alert').filter({ hasText: 'letter.txt' })).toBeVisible();
  await saved(page);
  const { choices } = await given<Order>(shop, `/api${new URL(page.url()).pathname}`);
  const places = choices.artwork.pieces.map(({ y }) => y);
  // each below those before it
  expect(places).toEqual(places.toSorted((a, b) => a - b));
  expect(new Set(places).size).toBe(4);

  await page.goto('/orders');
  await dropAll(page, three.slice(0, 2).map(([name, content]) => [`own-${name}`, content] as const)); // prettier-ignore
  await page.getByRole('dialog').getByRole('button', { name: '2 orders, one each' }).click();
  await expect(page.getByRole('link', { name: /own square 20/ })).toBeVisible();
  await expect(page.getByRole('link', { name: /own square 30/ })).toBeVisible();
});

test('a file that cannot be taken is told in a sentence and nothing is lost', async ({ page }) => {
  await page.goto('/orders');
  await expect(page.locator('.rows li').first()).toBeVisible();
  const before = await page.locator('.rows li').count();
  await drop(page, 'letter.txt', 'Dear Tern Lane Signs');
  await expect(page.getByRole('alert')).toContainText('letter.txt: This is no drawing that can be read');
  await page.getByRole('button', { name: 'Close' }).click();
  await drop(page, 'half.svg', '<svg xmlns="http://www.w3.org/2000/svg"><path d="M0');
  await expect(page.getByRole('alert')).toContainText('stops in the middle');
  await expect(page.locator('.rows li')).toHaveCount(before);
});

test('a change made while the server is away is kept and saved when it is back', async ({
  page,
  context,
}) => {
  await page.goto('/orders');
  await page.getByRole('link', { name: /Class numbers/ }).click();
  await section(page, 'Layout').click();
  await expect(page.getByLabel('Copies', { exact: true })).toBeVisible();
  await context.setOffline(true);
  await page.getByLabel('Copies', { exact: true }).fill('5');
  await page.getByLabel('Copies', { exact: true }).press('Enter');
  await expect(page.getByText('Not saved yet: the server is away')).toBeVisible();
  await expect(section(page, 'Layout')).toContainText('5 copies');
  await context.setOffline(false);
  await saved(page);
  await page.reload();
  await expect(section(page, 'Layout')).toContainText('5 copies');
});

test('two people at one order see each other’s changes', async ({ page, browser }) => {
  await page.goto('/orders');
  await page.getByRole('link', { name: /Slipway sign/ }).click();
  await expect(section(page, 'Films')).toContainText('6 films');
  const other = await (await browser.newContext()).newPage();
  await other.goto(page.url());
  await other.getByRole('button', { name: /^\d Layout/ }).click();
  await other.getByLabel('Copies', { exact: true }).fill('3');
  await other.getByLabel('Copies', { exact: true }).press('Enter');
  await expect(section(page, 'Layout')).toContainText('3 copies');
});

test('two people change the same field: the later one chooses, with both values before them', async ({
  page,
  browser,
}) => {
  await page.goto('/orders');
  await page.getByRole('link', { name: /Slipway sign/ }).click();
  await section(page, 'Layout').click();
  const other = await (await browser.newContext()).newPage();
  await other.goto(page.url());
  await section(other, 'Layout').click();
  await expect(other.getByLabel('Between copies')).toBeVisible();
  // the second person's page is cut off for a while
  await other.context().setOffline(true);
  await other.getByLabel('Between copies').fill('3');
  await other.getByLabel('Between copies').press('Enter');
  await page.getByLabel('Between copies').fill('8');
  await page.getByLabel('Between copies').press('Enter');
  await saved(page);
  await other.context().setOffline(false);
  const note = other.getByText('Layout, spacing: somebody else set 8 while you set 3.');
  await expect(note).toBeVisible();
  await expect(other.getByLabel('Between copies')).toHaveValue('8.0 mm');
  await other.getByRole('button', { name: 'Use mine' }).click();
  await expect(note).toBeHidden();
  await saved(other);
  await expect(page.getByLabel('Between copies')).toHaveValue('3.0 mm');
});

test('a film that is changed elsewhere shows in an open order', async ({ page, browser, shop }) => {
  await page.goto('/orders');
  await page.getByRole('link', { name: /Slipway sign/ }).click();
  const label = page.locator('.strip .label').filter({ hasText: 'Currant red' });
  await expect(label).toContainText('610.0 mm');
  await (
    await browser.newContext()
  ).request.patch(`${shop.url}/api/films/currant`, {
    headers: { Origin: shop.url },
    data: { rolls: [{ width: 1220, lengthLeft: 20_000 }] },
  });
  await expect(label).toContainText('1220.0 mm');
});

test('an answer that was asked for before a change was made does not take the change back', async ({
  page,
  browser,
}) => {
  await page.goto('/orders');
  await page.getByRole('link', { name: /Class numbers/ }).click();
  await section(page, 'Layout').click();
  const address = page.url();
  // the next look at the order is on its way for long: what it brings is older than what is done meanwhile
  let held: (() => void) | undefined;
  await page.route(/\/api\/orders\/\d+$/, async (route) => {
    if (route.request().method() !== 'GET' || held) return route.continue();
    const answer = await route.fetch();
    await new Promise<void>((done) => (held = done));
    await route.fulfill({ response: answer });
  });
  const other = await (await browser.newContext()).newPage();
  await other.goto(address);
  await other.getByLabel('Name of the order').fill('Class numbers, both sides');
  await other.getByLabel('Name of the order').press('Enter');
  await expect.poll(() => held !== undefined).toBe(true);
  await page.getByLabel('Copies', { exact: true }).fill('7');
  await page.getByLabel('Copies', { exact: true }).press('Enter');
  await saved(page);
  held!();
  await expect(page.getByLabel('Name of the order')).toHaveValue('Class numbers, both sides');
  await expect(section(page, 'Layout')).toContainText('7 copies');
  await page.getByLabel('Between copies').fill('12');
  await page.getByLabel('Between copies').press('Enter');
  await saved(page);
  await page.reload();
  await expect(section(page, 'Layout')).toContainText('7 copies');
});

test('films are put in another cutting order by dragging their labels', async ({ page }) => {
  await page.goto('/orders');
  await page.getByRole('link', { name: /Marsh Wren/ }).click();
  const labels = page.locator('.strip .label strong');
  await expect(labels).toHaveText([/1 Damson/, /2 Tide blue/, /3 Quince/]);
  await page.locator('.strip .label').nth(0).dragTo(page.locator('.strip .label').nth(2));
  await expect(labels).toHaveText([/1 Tide blue/, /2 Quince/, /3 Damson/]);
  await saved(page);
  await page.keyboard.press('Control+z');
  await expect(labels).toHaveText([/1 Damson/, /2 Tide blue/, /3 Quince/]);
});

test('the whole order page by keyboard', async ({ page }) => {
  await page.goto('/orders');
  await page.getByRole('link', { name: /Marsh Wren/ }).click();
  await expect(section(page, 'Films')).toContainText('3 films');
  await page.keyboard.press('?');
  await expect(page.getByRole('dialog')).toContainText('undo the last choice');
  await page.keyboard.press('Escape');
  await expect(page.getByRole('dialog')).toHaveCount(0);
  await page.keyboard.press('4');
  await expect(page.getByRole('button', { name: 'Cut lines' })).toHaveAttribute('aria-pressed', 'true');
  await page.keyboard.press(']');
  await expect(page.locator('.strip .label').first()).toHaveAttribute('aria-pressed', 'true');
  await page.keyboard.press('Shift+]');
  await expect(page.locator('.strip .label strong').first()).toHaveText(/Tide blue/);
  await saved(page);
  await page.keyboard.press('Control+z');
  await expect(page.locator('.strip .label strong').first()).toHaveText(/Damson/);
});

test('a drawing of a hundred thousand vertices is planned and re-planned', async ({ page }) => {
  await page.goto('/orders');
  await drop(page, 'large.svg', largeDrawing(500, 200));
  await page.waitForURL(/orders\/\d+$/, { timeout: 60_000 });
  await expect(section(page, 'Films')).toContainText('6 films', { timeout: 60_000 });
  await section(page, 'Layout').click();
  await page.getByLabel('Copies', { exact: true }).fill('2');
  await page.getByLabel('Copies', { exact: true }).press('Enter');
  await expect(section(page, 'Layout')).toContainText('2 copies', { timeout: 60_000 });
  await expect(page.getByText('planning …')).toHaveCount(0, { timeout: 60_000 });
});
