/** Art taken apart to save film: what each way comes to, the search for less, what it found kept, cut and put up. */
import type { Page } from '@playwright/test';
import { cancelAll, choose, expect, loadFilm, saved, section, settled, test } from './shop';

async function openLayout(page: Page): Promise<void> {
  await page.goto('/orders');
  await page
    .getByRole('link', { name: /Marsh Wren hull names/ })
    .first()
    .click();
  await section(page, 'Layout').click();
}
const way = (page: Page, name: string) => page.getByRole('radio', { name: new RegExp(`^${name}`) });
/** m of film that a way comes to, as it stands on its card. */
const metres = async (page: Page, name: string): Promise<number> => {
  const card = page.locator('.packs .card').filter({ hasText: name });
  await expect(card).toContainText(/\d m$/);
  return parseFloat((await card.locator('small').innerText()).replace(',', '.'));
};

test('each way says beforehand what it comes to; a search takes less, is stopped, kept and undone', async ({
  page,
}) => {
  await openLayout(page);
  const [one, word, piece] = [
    await metres(page, 'As one'),
    await metres(page, 'By word'),
    await metres(page, 'By piece'),
  ];
  expect(word).toBeLessThan(one);
  expect(piece).toBeLessThan(word);
  await way(page, 'By piece').click();
  await expect(way(page, 'By piece')).toBeChecked();
  await saved(page);
  await settled(page);
  const strip = page.locator('.strip').filter({ hasText: 'Damson' }).locator('.label');
  const before = await strip.innerText();
  await page.getByRole('button', { name: 'Pack closer' }).click();
  await expect(page.locator('.search [role=status]')).toContainText(/Packing Damson · \d+\.\d % · \d+ s/);
  // better places are shown while it goes on
  await expect(strip).not.toHaveText(before, { useInnerText: true, timeout: 90_000 });
  await page.getByRole('button', { name: 'Stop here' }).click();
  await expect(page.getByRole('button', { name: 'Pack closer' })).toBeVisible();
  await saved(page);
  await settled(page);
  const packed = await strip.innerText();
  expect(packed).not.toBe(before);

  await page.reload();
  await section(page, 'Layout').click();
  await expect(strip).toHaveText(packed, { useInnerText: true });
  await page.getByRole('button', { name: /^Undo/ }).click();
  await expect(strip).toHaveText(before, { useInnerText: true });
  await page.getByRole('button', { name: 'Redo' }).click();
  await expect(strip).toHaveText(packed, { useInnerText: true });

  // one film by itself; what is given between pieces counts
  await page.getByRole('button', { name: 'Films by themselves' }).click();
  await choose(page, 'Damson', 'as one');
  await expect(page.locator('.strip').filter({ hasText: 'Damson' })).not.toContainText('turned');
  await choose(page, 'Damson', 'as all');
  await expect(strip).toHaveText(packed, { useInnerText: true });
  await page.getByLabel('Between pieces', { exact: true }).fill('400');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('alert')).toContainText('200');
  await page.getByLabel('Between pieces', { exact: true }).fill('20');
  await page.keyboard.press('Enter');
  await expect(strip).not.toHaveText(packed, { useInnerText: true });
  await saved(page);
});

test('a search that is left with its order is over, and the next order can be packed', async ({ page }) => {
  await openLayout(page);
  await way(page, 'By piece').click();
  await saved(page);
  await settled(page);
  await page.getByRole('button', { name: 'Pack closer' }).click();
  await expect(page.getByRole('button', { name: 'Stop here' })).toBeVisible();
  // what is only looked at is not queued
  await expect(page.getByRole('button', { name: /^Queue/ })).toBeDisabled();
  await page.getByRole('link', { name: 'Orders' }).click();
  await page
    .getByRole('link', { name: /Hut bunting/ })
    .first()
    .click();
  await section(page, 'Layout').click();
  await way(page, 'By piece').click();
  await settled(page);
  await expect(page.getByRole('button', { name: 'Pack closer' })).toBeEnabled();
});

test('packed by piece it is cut, and the application sheet shows where each piece sits', async ({
  page,
  shop,
}) => {
  await openLayout(page);
  await way(page, 'By piece').click();
  await page.getByLabel('Copies', { exact: true }).fill('1');
  await page.keyboard.press('Enter');
  await section(page, 'Films').click();
  for (const box of await page.getByRole('checkbox', { name: /^Cut #/ }).all())
    if (!/#4b1f4a/i.test((await box.getAttribute('aria-label')) ?? '')) await box.uncheck();
  await saved(page);
  await settled(page);
  await page.getByRole('link', { name: 'Weeding and applying' }).click();
  const onSign = page.getByRole('img', { name: 'Where pieces of Damson sit on the sign' });
  await expect(onSign.locator('text')).toHaveCount(10);
  await expect(
    page.getByRole('img', { name: 'Pieces of Damson as they are cut' }).locator('text'),
  ).toHaveCount(10);
  await page.getByRole('link', { name: 'The order' }).click();

  await cancelAll(page);
  await loadFilm(shop, 610);
  await page.getByRole('button', { name: 'Queue 1 cut' }).click();
  await page.waitForURL(/cutters\/curlew/);
  await page.getByRole('button', { name: 'Damson is loaded' }).click();
  await expect(page.getByRole('heading', { name: 'Nothing to do here' })).toBeVisible({ timeout: 90_000 });
  await page.goBack();
  await page.getByRole('button', { name: 'As cut' }).click();
  const worst = page.locator('.card', { hasText: 'The cut lies at most' }).locator('b');
  await expect(worst).toHaveText(/0\.\d{3} mm/);
  expect(parseFloat(await worst.innerText())).toBeLessThanOrEqual(0.03);
});
