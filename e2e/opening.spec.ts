/** An order of many parts: there at once, its plan told while it runs, stopped and left at will. */
import { expect, test } from './shop';
import { discs } from '../bench/manyPieces';

/** A pile of discs as a customer would send it. */
function pile(count: number): string {
  const { page, shapes } = discs(count);
  const polygons = shapes.map(
    ({ path: { xy }, colour }) =>
      `<polygon fill="${colour}" points="${xy.map((v) => v.toFixed(2)).join(' ')}"/>`,
  );
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${page.width}mm" height="${page.height}mm" viewBox="0 0 ${page.width} ${page.height}">${polygons.join('')}</svg>`;
}

test('a pile of discs opens at once, tells how far its plan is, and can be stopped and left', async ({
  page,
}) => {
  const buffer = Buffer.from(pile(800));
  await page.goto('/orders');
  await page.setInputFiles('input[type=file]', {
    name: 'pile of discs.svg',
    mimeType: 'image/svg+xml',
    buffer,
  });
  await page.waitForURL(/orders\/\d+/);
  const wait = page.locator('.wait');
  await expect(wait.getByRole('progressbar', { name: 'Planned so far' })).toBeVisible();
  await wait.getByRole('button', { name: 'Stop planning' }).click();
  await expect(wait).toContainText('not planned');
  await expect(page.getByText('Not planned', { exact: true })).toBeVisible();
  await expect(page.getByRole('button', { name: /^Queue/ })).toBeDisabled();
  // leaving it, while it is planned for its row in the list as well
  await page.getByRole('link', { name: 'Orders' }).first().click();
  const row = page.locator('.rows li').filter({ hasText: 'pile of discs' });
  await expect(row).toBeVisible();
  await expect(row.locator('.swatch')).toHaveCount(8, { timeout: 60_000 });
  // and back: from here it is planned to its end
  await row.click();
  await expect(page.getByRole('button', { name: /^Queue/ })).toBeVisible();
  await expect(page.locator('.wait')).toBeHidden({ timeout: 60_000 });
  await expect(page.getByText('Not planned', { exact: true })).toBeHidden();
});
