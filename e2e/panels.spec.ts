/** The race-hut wall, larger than any film: seams of every kind, panels chosen, and what lies on the rolls for it. */
import type { Page } from '@playwright/test';
import { choose, expect, saved, section, test } from './shop';

async function openWall(page: Page): Promise<void> {
  await page.goto('/orders');
  await page
    .getByRole('link', { name: /Race hut wall/ })
    .first()
    .click();
  await expect(section(page, 'Panels')).toContainText(/\d+ panels, \d+ seams?/);
  await section(page, 'Panels').click();
  // the shop is one for all tests of this file: each begins with seams as they are placed by themselves
  await way(page, /Where they cut least/).click();
  await expect(way(page, /Where they cut least/)).toBeChecked();
  await expect(section(page, 'Panels')).toContainText('4 panels, 3 seams');
  await saved(page);
}
const way = (page: Page, name: RegExp) => page.getByRole('radio', { name });
const handle = (page: Page, name: string) => page.getByRole('slider', { name: new RegExp(`^${name}`) });

test('a wall is taken apart by itself; each way says beforehand what it comes to', async ({ page }) => {
  await openWall(page);
  const offers = page.getByRole('radiogroup', { name: 'Seams' });
  await expect(offers.getByText(/^\d+ panels, [\d.]+ mm cut, \d+ outlines?$/)).toHaveCount(3);
  const least = await offers.locator('.card').filter({ hasText: 'cut least' }).locator('small').innerText();
  for (const name of [/Equal panels/, /As wide as the film/]) {
    const label = offers.locator('.card').filter({ hasText: name });
    const before = await label.locator('small').innerText();
    await way(page, name).click();
    await expect(way(page, name)).toBeChecked();
    await saved(page);
    // what was offered is what is made
    await expect(section(page, 'Panels')).toContainText(/seam/);
    await expect(label.locator('small')).toHaveText(before);
    const mm = (text: string): number => Number(/([\d.]+) mm/.exec(text)![1]);
    expect(mm(least)).toBeLessThanOrEqual(mm(before));
  }
  await way(page, /Columns and rows/).click();
  await page.getByLabel('Columns', { exact: true }).fill('7');
  await page.keyboard.press('Enter');
  await page.getByLabel('Rows', { exact: true }).fill('3');
  await page.keyboard.press('Enter');
  await expect(section(page, 'Panels')).toContainText('8 seams');
  await expect(page.getByRole('button', { name: /^Panel \d+, is cut$/ })).not.toHaveCount(0);
  // no seams at all: the wall is kept back, with what to do
  await way(page, /No seams/).click();
  await expect(page.getByText('to mend')).toBeVisible();
  await page.locator('.work').click({ position: { x: 300, y: 60 } });
  await page.keyboard.press('Control+z');
  await expect(page.getByText('to mend')).toHaveCount(0);
});

test('seams are added, dragged, typed, moved by keys, taken away, and all of it undone', async ({ page }) => {
  await openWall(page);
  await way(page, /By hand/).click();
  await expect(way(page, /By hand/)).toBeChecked();
  await saved(page);
  const typed = page.getByLabel('Level seam 1', { exact: true });
  const before = await typed.inputValue();

  // by keys: a millimetre, ten with Shift
  await handle(page, 'Level seam 1').focus();
  await page.keyboard.press('ArrowDown');
  await expect(typed).toHaveValue(`${(parseFloat(before) + 1).toFixed(1)} mm`);
  await page.keyboard.press('Shift+ArrowDown');
  await expect(typed).toHaveValue(`${(parseFloat(before) + 11).toFixed(1)} mm`);
  await saved(page);

  // typed, in inches
  await typed.fill('16 in');
  await page.keyboard.press('Enter');
  await expect(typed).toHaveValue('406.4 mm');
  await expect(handle(page, 'Level seam 1')).toHaveAttribute('aria-valuetext', '406.4 mm');

  // dragged: to a whole millimetre or into a gap
  const box = (await handle(page, 'Level seam 1').boundingBox())!;
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
  await page.mouse.down();
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2 + 24, { steps: 6 });
  await page.mouse.up();
  await expect(typed).not.toHaveValue('406.4 mm');
  expect(parseFloat(await typed.inputValue())).toBeGreaterThan(410);
  await saved(page);

  // a new one into the widest panel, and away again
  await page.getByRole('button', { name: 'Add an upright seam' }).click();
  await expect(page.getByLabel('Upright seam 1', { exact: true })).toBeVisible();
  await handle(page, 'Upright seam 1').focus();
  await expect(handle(page, 'Upright seam 1')).toBeFocused();
  await page.keyboard.press('Delete');
  await expect(page.getByLabel('Upright seam 1', { exact: true })).toHaveCount(0);
  await saved(page);

  // one outside the art is told, and does no harm
  await typed.fill('5000');
  await page.keyboard.press('Enter');
  await expect(page.getByText(/The level seam at 5000.0 mm lies outside the art/).first()).toBeVisible();
  await saved(page);
  await page.locator('.work').click({ position: { x: 300, y: 60 } });
  for (let k = 0; k < 8; k++) {
    await page.keyboard.press('Control+z');
    await saved(page);
  }
  await expect(way(page, /Where they cut least/)).toBeChecked();
});

test('overlap, what is kept in hand, and single panels; the strips follow, and a reload changes nothing', async ({
  page,
}) => {
  await openWall(page);
  await way(page, /Equal panels/).click();
  await expect(way(page, /Equal panels/)).toBeChecked();
  await saved(page);
  const sizes = page.getByRole('list', { name: 'Panels' }).locator('.size');
  const without = await sizes.first().innerText();
  await page.getByLabel('Overlap').fill('20');
  await page.keyboard.press('Enter');
  await expect(sizes.first()).not.toHaveText(without);
  await saved(page);

  // more in hand than the knife reaches
  await page.getByLabel('Kept in hand across').fill('900');
  await page.keyboard.press('Enter');
  await expect(page.getByText(/kept in hand leaves nothing of/).first()).toBeVisible();
  await expect(page.getByRole('button', { name: /^Queue/ })).toBeDisabled();
  await page.getByLabel('Kept in hand across').fill('0.5 in');
  await page.keyboard.press('Enter');
  await expect(page.getByText(/kept in hand leaves nothing of/)).toHaveCount(0);

  // one panel is left out on the stage, and brought back in the list
  const all = await page.locator('.foot dd').first().innerText();
  await page.getByRole('button', { name: 'Panel 1, is cut', exact: true }).click();
  await expect(page.getByRole('button', { name: 'Panel 1, is not cut', exact: true })).toBeVisible();
  await expect(page.locator('.foot dd').first()).not.toHaveText(all);
  await saved(page);
  await page.reload();
  await section(page, 'Panels').click();
  await expect(page.getByRole('button', { name: 'Panel 1, is not cut', exact: true })).toBeVisible();
  await page.getByRole('checkbox', { name: 'Cut panel 1', exact: true }).click();
  await expect(page.locator('.foot dd').first()).toHaveText(all);
});

test('the fitting map: from another datum, panel by panel onto the wall, and on paper', async ({ page }) => {
  await openWall(page);
  await way(page, /Equal panels/).click();
  await expect(way(page, /Equal panels/)).toBeChecked();
  await saved(page);
  await page.getByRole('link', { name: 'Fitting map' }).click();
  await expect(page).toHaveURL(/fitting-map$/);
  const map = page.getByRole('img', { name: /The sign in its panels/ });
  await expect(map.locator('.numbers text')).not.toHaveCount(0);
  const left = await map.locator('.figure').first().textContent();
  await choose(page, 'Measured across from', 'the right edge');
  await expect(map.locator('.figure').first()).not.toHaveText(left!);
  await expect(page.getByRole('columnheader', { name: 'Left edge from the right edge' })).toBeVisible();

  // what is up stays ticked over a reload, and the datum is remembered
  const first = page.getByRole('button', { name: /: panel \d+$/ }).first();
  await first.click();
  await expect(first).toHaveAttribute('aria-pressed', 'true');
  await page.reload();
  await expect(first).toHaveAttribute('aria-pressed', 'true');
  await expect(page.getByRole('combobox', { name: 'Measured across from' })).toContainText('the right edge');
  const href = await page.getByRole('link', { name: 'On paper' }).getAttribute('href');
  expect(href).toContain('across=right');
  const paper = await page.request.get(href!);
  expect(paper.headers()['content-type']).toBe('application/pdf');

  // an order in one says so, with the way back
  await page.goto('/orders');
  await page
    .getByRole('link', { name: /Slipway sign/ })
    .first()
    .click();
  await page.waitForURL(/orders\/\d+$/);
  await page.goto(`${page.url()}/fitting-map`);
  await expect(page.getByRole('alert')).toContainText('Nothing in this order is in panels');
});
