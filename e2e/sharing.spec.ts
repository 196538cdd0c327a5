/** Two orders on one film: offered, joined, seen apart on the strip, cut as one, found in both, and taken apart again. */
import type { Page } from '@playwright/test';
import { cancelAll, expect, loadFilm, saved, section, settled, test } from './shop';

/** Brings a bird of which only Damson is cut, so wide. */
async function newBird(page: Page, name: string, width: number): Promise<void> {
  await page.goto('/orders');
  await page.locator('input[type=file]').setInputFiles({
    name: `${name}.svg`,
    mimeType: 'image/svg+xml',
    buffer: Buffer.from(
      `<svg xmlns="http://www.w3.org/2000/svg" width="${width}mm" height="${width / 2}mm" viewBox="0 0 200 100">
        <path fill="#4b1f4a" d="M0 0H70L40 40L70 100H0ZM90 100L120 0L150 100ZM160 0H200V100Z"/></svg>`,
    ),
  });
  await page.waitForURL(/orders\/\d+$/);
  await saved(page);
  await settled(page);
}
const openOrder = async (page: Page, name: string): Promise<void> => {
  await page.goto('/orders');
  await page
    .getByRole('link', { name: new RegExp(name) })
    .first()
    .click();
  await section(page, 'Layout').click();
  await settled(page);
};
const others = (page: Page) => page.getByRole('button', { name: 'With this film' });
const strips = (page: Page) => page.locator('.strip');

test('two orders are joined on one film, cut as one, found in both, and each is cut again by itself', async ({
  page,
  shop,
}) => {
  await newBird(page, 'lapwing', 300);
  await newBird(page, 'dunlin', 240);
  const dunlin = page.url();
  await openOrder(page, 'lapwing');
  const film = page.locator('.foot dd').first();
  await expect(film).toHaveText(/^\d/);
  const alone = parseFloat(await film.innerText());

  // what another order would take with it is said before it is taken along
  await others(page).click();
  const wanting = page.getByRole('list', { name: 'Orders that want Damson too' });
  await expect(wanting.getByRole('listitem').filter({ hasText: 'dunlin' })).toContainText(/m more, saves/);
  await wanting.getByRole('listitem').filter({ hasText: 'dunlin' }).getByRole('button').click();
  const along = page.getByRole('list', { name: 'Cut on Damson with this order' });
  await expect(along.getByRole('listitem')).toContainText(/39 % of the film/);
  await expect(strips(page).locator('.label')).toContainText(/with #\d+/);
  expect(parseFloat(await film.innerText())).toBeLessThan(2 * alone);
  await saved(page);

  // whose is whose; each order in a border of its own, by piece
  await page.getByRole('radio', { name: /^By piece/ }).click();
  await page.getByRole('combobox', { name: 'Weed border' }).click();
  await page.getByRole('option', { name: 'around each order' }).click();
  await page.getByRole('button', { name: 'On the film', exact: true }).click();
  await settled(page);
  const whose = page.locator('.whose');
  await expect.poll(async () => new Set(await whose.allInnerTexts()).size).toBe(1);
  await expect(page.locator('.film .says')).toContainText(/#\d+ 61 %, #\d+ 39 %/);
  await saved(page);
  const both = page.url();

  // the other one is told, and has nothing left to queue
  await page.goto(dunlin);
  await section(page, 'Layout').click();
  await expect(page.getByText(/^Damson is cut with/).first()).toContainText('lapwing');
  await expect(page.getByRole('button', { name: /^Cut with #/ })).toBeDisabled();

  await page.goto(both);
  await cancelAll(page);
  await loadFilm(shop, 610);
  await page.getByRole('button', { name: 'Queue 1 cut' }).click();
  await page.waitForURL(/cutters\/curlew/);
  await expect(page.getByRole('link', { name: /dunlin/ })).toBeVisible();
  await page.getByRole('button', { name: 'Damson is loaded' }).click();
  await expect(page.getByRole('heading', { name: 'Nothing to do here' })).toBeVisible({ timeout: 90_000 });

  // both have been cut, and both find it as it was cut
  for (const order of [both, dunlin]) {
    await page.goto(order);
    await page.getByRole('button', { name: 'As cut' }).click();
    await expect(page.locator('.card', { hasText: 'lies at most' }).locator('b')).toHaveText(/^0\.0/);
  }
  await page.goto('/orders');
  for (const name of ['lapwing', 'dunlin'])
    await expect(page.getByRole('link', { name: new RegExp(name) })).toContainText('Cut');

  // spoilt: the guest alone once more
  await page.goto(dunlin);
  await section(page, 'Films').click();
  await page.getByRole('button', { name: 'Overlaps and copies' }).click();
  await page.getByRole('button', { name: 'Cut again' }).click();
  await page.waitForURL(/cutters\/curlew/);
  await expect(page.getByRole('link', { name: /dunlin/ })).toBeVisible();
  await expect(page.getByRole('link', { name: /lapwing/ })).toHaveCount(0);
  await cancelAll(page);

  // cut by itself from now on; undo in the host's order has it along again
  await page.goto(dunlin);
  await section(page, 'Layout').click();
  await page.getByRole('button', { name: 'Cut it by itself' }).click();
  await expect(strips(page)).toHaveCount(1);
  await page.goto(both);
  await settled(page);
  await expect(strips(page).locator('.label')).not.toContainText('with');
  await page.getByRole('button', { name: /^Undo/ }).click();
  await expect(strips(page).locator('.label')).toContainText(/with #\d+/);
});

test('a guest that changes meanwhile is shown so, and is not cut as it was', async ({ page, context }) => {
  await newBird(page, 'godwit', 320);
  const godwit = page.url();
  await newBird(page, 'sanderling', 260);
  const sanderling = page.url();
  await page.goto(godwit);
  await section(page, 'Layout').click();
  await others(page).click();
  await page
    .getByRole('listitem')
    .filter({ hasText: 'sanderling' })
    .getByRole('button', { name: /^Cut with/ })
    .click();
  const label = strips(page).locator('.label');
  await expect(label).toContainText(/with #\d+/);
  await saved(page);
  await settled(page);
  const before = await label.innerText();

  const beside = await context.newPage();
  await beside.goto(sanderling);
  await section(beside, 'Layout').click();
  await beside.getByLabel('Copies', { exact: true }).fill('4');
  await beside.keyboard.press('Enter');
  await saved(beside);
  await expect(label).not.toHaveText(before, { useInnerText: true });
  // put away, it is left out and named
  await beside.goto('/orders');
  await beside.getByRole('button', { name: 'Put sanderling away' }).click();
  await expect(page.getByText(/sanderling is not cut on Damson with this order/).first()).toBeVisible();
  await page.getByRole('button', { name: /^Take #\d+ off/ }).click();
  await expect(page.getByText(/is not cut on Damson with this order/)).toHaveCount(0);
});
