/** Orders, every section open. */
import type { Page } from '@playwright/test';
import { expect, saved, section } from './shop';
import { walk } from './walk';

const FOLDS =
  /^(Near-equal colours|Overlaps and copies|Layer marks|Line kinds|Place|Seams one by one|Kept whole|Overlap and keys|Wall or window|Films by themselves|Margins of)/;

async function openFolds(page: Page): Promise<void> {
  for (const fold of await page.getByRole('button', { name: FOLDS }).all())
    if ((await fold.getAttribute('aria-expanded')) === 'false') await fold.click();
}

walk('an order and its sections', async (page, look) => {
  await page.goto('/orders');
  await expect(page.locator('.rows img').nth(3)).toBeVisible();
  await look('orders');
  await page.getByRole('link', { name: /Slipway sign/ }).click();
  await expect(section(page, 'Films')).toContainText('6 films');
  for (const name of ['Artwork', 'Films', 'Panels', 'Layout', 'Cut settings', 'Cutter']) {
    const heading = section(page, name);
    if ((await heading.getAttribute('aria-expanded')) !== 'true') await heading.click();
    await openFolds(page);
    await look(`order, ${name}`);
  }
  await page.getByRole('button', { name: 'On the film' }).click();
  await expect(page.getByText('fits', { exact: true }).first()).toBeVisible();
  await look('order, on the film');
});

walk('print marks', async (page, look) => {
  await page.goto('/orders');
  await page.getByRole('link', { name: /Ice-cream stickers/ }).click();
  await expect(section(page, 'Films')).toContainText('3 printed');
  await section(page, 'Print marks').click();
  await expect(page.getByRole('button', { name: /^Mark 1:/ })).toBeVisible();
  for (const fold of await page.getByRole('button', { name: /mm outside$/ }).all())
    if ((await fold.getAttribute('aria-expanded')) === 'false') await fold.click();
  await look('order, print marks');
});

walk('panels of a wall', async (page, look) => {
  await page.goto('/orders');
  await page.getByRole('link', { name: /Race hut wall/ }).click();
  await expect(section(page, 'Panels')).toContainText('seam');
  await section(page, 'Panels').click();
  await page.getByRole('radio', { name: /Where they cut least/ }).click();
  await expect(section(page, 'Panels')).toContainText('3 seams');
  await expect(page.getByRole('slider').first()).toBeVisible();
  await look('order, panels of a wall');
  await page.getByRole('radio', { name: /By hand/ }).click();
  await page.getByRole('button', { name: 'Add an upright seam' }).click();
  await saved(page);
  await look('order, panels by hand');
  await page.getByRole('radio', { name: /Whole pieces first/ }).click();
  await openFolds(page);
  await page.getByRole('checkbox', { name: 'The surface is known' }).click();
  await page.getByRole('button', { name: 'Keep a door or window clear' }).click();
  await expect(page.getByLabel('Door 1, wide')).toBeVisible();
  await saved(page);
  await look('order, whole pieces on a wall with a door');
  await page.getByRole('link', { name: 'Fitting map' }).click();
  await expect(page.getByRole('img', { name: /The sign in its panels/ })).toBeVisible();
  await look('fitting map');
});

walk('views of an order', async (page, look) => {
  await page.goto('/orders');
  await page.getByRole('link', { name: /Slipway sign/ }).click();
  await expect(section(page, 'Films')).toContainText('6 films');
  for (const view of ['Films apart', 'Cut lines', 'As cut', 'Play it', 'Face']) {
    await page.getByRole('button', { name: view, exact: true }).click();
    await look(`order, ${view}`);
  }
  await page.getByRole('link', { name: 'Weeding and applying' }).click();
  await expect(page.getByRole('listitem').nth(2)).toBeVisible();
  await look('applying');
});

walk('what comes in', async (page, look) => {
  // findings, a picture and text have panels of their own
  for (const [file, waits] of [
    ['e2e/art/mess.svg', /to check|to mend/],
    ['demo/art/tide-stamp.png', /^\d[\d.]* × /],
  ] as const) {
    await page.goto('/orders');
    await page.locator('input[type=file]').setInputFiles(file);
    await page.waitForURL(/orders\/\d+$/);
    await section(page, 'Artwork').click();
    await expect(page.getByText(waits).first()).toBeVisible();
    await look(file);
  }
  await page.goto('/orders');
  await page.getByRole('button', { name: 'From text' }).click();
  await page.getByLabel('Text', { exact: true }).fill('QUAY\nside');
  await saved(page);
  await look('text');
});
