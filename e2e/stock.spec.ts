/** What of each film is left, wanted, ordered and used; and a cut found by what is written down of it. */
import type { ShopNow } from '../contracts/shop';
import { smallest } from '../core/geometry/lists';
import { expect, given, loadFilm, queueOrder, test } from './shop';

test('film that runs low is seen before it is queued, is ordered, comes, and lies on the shelf', async ({
  page,
  shop,
}) => {
  // little of it is left
  await page.request.patch('/api/films/tar', {
    headers: { Origin: shop.url },
    data: { rolls: [{ width: 610, lengthLeft: 3000 }], price: 4 },
  });
  await page.goto('/orders');
  await page.getByRole('link', { name: /Class numbers/ }).click();
  const low = page.getByRole('list', { name: 'Film that runs low' });
  await expect(low).toContainText(/Leaves 0\.\d+ m of Tar black\./);
  await page.getByRole('button', { name: 'Queue 1 cut' }).click();
  await expect(page.getByRole('heading', { name: 'Load Tar black' })).toBeVisible();

  await page.goto('/materials');
  await page.getByRole('link', { name: /^To order/ }).click();
  const row = page.getByRole('row').filter({ hasText: 'Tar black' });
  await expect(row).toContainText('2.81 m');
  await row.getByLabel('Packs of Tar black to order').fill('2');
  await row.getByLabel('Packs of Tar black to order').press('Enter');
  await expect(row).toContainText('200.00');
  await row.getByRole('button', { name: /^It is ordered/ }).click();
  await expect(row).toHaveCount(0);
  const come = page
    .getByRole('listitem')
    .filter({ hasText: 'Tar black' })
    .getByRole('button', { name: /^It has come/ });
  await come.click();
  await expect(come).toHaveCount(0);
  const lengths = async (): Promise<number[]> =>
    (await given<ShopNow>(shop, '/api/shop')).films
      .find(({ id }) => id === 'tar')!
      .rolls.map(({ lengthLeft }) => lengthLeft);
  await expect.poll(lengths).toEqual([3000, 25_000, 25_000]);
});

test('a cut is found by its number while it waits and once it is cut; its film is in the figures', async ({
  page,
  shop,
}) => {
  const [{ id }] = await given<{ id: number }[]>(shop, '/api/cuts');
  const search = async (): Promise<void> => {
    await page.goto('/orders');
    await page.getByLabel('Search orders').fill(`cut ${id}`);
  };
  const found = page.getByRole('list', { name: 'Cuts found' }).getByRole('link');
  await search();
  await expect(found).toContainText('at Curlew');
  await found.click();
  await expect(page.getByRole('heading', { name: `Cut ${id}` })).toBeVisible();
  await loadFilm(shop, 610);
  await page.getByRole('button', { name: 'Tar black is loaded' }).click();
  await expect(page.getByRole('heading', { name: 'Tar black is done' })).toBeVisible({ timeout: 90_000 });
  await search();
  await expect(found).toContainText(/cut on Curlew, \d/);
  await found.click();
  await expect(page.getByText(new RegExp(`Cut ${id} lies at most`))).toBeVisible();
  // where it was cut from, and what it came to
  await page.goto('/materials');
  await expect(page.getByRole('row').filter({ has: page.getByLabel('Name of Tar black') })).toContainText('in Curlew'); // prettier-ignore
  await page.goto('/usage');
  await expect(page.getByRole('listitem').filter({ hasText: 'Class numbers' })).toBeVisible();
  await expect(page.locator('dl div').filter({ hasText: 'orders cut' }).or(page.locator('dl div').filter({ hasText: 'order cut' })).locator('dt')).toHaveText('1'); // prettier-ignore
  await page.getByRole('button', { name: 'As tables' }).click();
  await expect(page.getByRole('region', { name: 'By order' })).toContainText('Class numbers');
  await page.getByRole('button', { name: 'Earlier' }).click();
  await expect(page.getByText('Nothing in these weeks.').first()).toBeVisible();
});

test('film that ends in the middle of a cut: what is left is cut from the start of new film', async ({
  page,
  shop,
}) => {
  await queueOrder(page, /Class numbers/);
  await expect(page.getByRole('heading', { name: 'Load Tar black' })).toBeVisible();
  const front = (path: string, body?: object): Promise<Response> =>
    fetch(`${shop.panels.curlew}${path}`, body && { method: 'POST', body: JSON.stringify(body) });
  await front('/load', { width: 610, length: 22_000, ends: 1500 });
  await page.getByRole('button', { name: 'Tar black is loaded' }).click();
  await expect
    .poll(async () => ((await (await front('/status')).json()) as { display: string }).display)
    .toBe('END OF FILM');
  await page.getByRole('button', { name: 'Stop' }).click();
  const line = page.getByRole('textbox', { name: 'Go on at line' });
  const next = Number(await line.inputValue());
  expect(next).toBeGreaterThan(1);
  await loadFilm(shop, 610);
  await expect(page.getByRole('checkbox', { name: /^The roll is at its end: nothing is left of the [\d.]+ m/ })).toBeChecked(); // prettier-ignore
  await page.getByRole('button', { name: 'This line on, on new film' }).click();
  await expect(page.getByRole('heading', { name: 'Tar black is done' })).toBeVisible({ timeout: 90_000 });
  await expect(page.getByRole('list', { name: 'Who did what' })).toContainText(
    `gone on with on new film, from line ${next}, the roll at its end by Thrift`,
  );
  // what is left begins where film begins, not a metre and a half along it
  const { lines } = (await (await front('/record')).json()) as {
    lines: { film: number; points: number[] }[];
  };
  const newest = Math.max(...lines.map(({ film }) => film));
  const along = lines.flatMap(({ film, points }) =>
    film === newest ? points.filter((_, i) => i % 2 === 0) : [],
  );
  expect(smallest(along)).toBeLessThan(60);
  // and by its record all of it is cut, and none of it twice
  await page.getByRole('link', { name: 'See it as cut' }).click();
  await page.getByRole('button', { name: 'As cut' }).click();
  const card = page.locator('.card', { hasText: 'lies at most' });
  await expect(card).toContainText('Every line is cut once.');
  // the shelf counts nothing of the roll any more
  await page.goto('/materials');
  await expect(page.getByRole('row', { name: /Tar black/ })).toContainText('0.00 m');
});
