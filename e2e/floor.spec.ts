/** The floor: lanes on one time axis, the shelf, dragging and keys, what a lane refuses, fewest swaps, pausing. */
import type { Locator, Page } from '@playwright/test';
import type { Cut } from '../contracts/cuts';
import { cancelAll, expect, given, loadFilm, loggedIn, logIn, queueOrder, test } from './shop';
import type { Shop } from './shop';

const lane = (page: Page, name: string): Locator => page.getByRole('list', { name: `Cuts at ${name}` });
const cutsIn = (page: Page, name: string): Locator => lane(page, name).getByRole('button');
const shelf = (page: Page): Locator => page.getByRole('region', { name: /^Shelf/ });
const open = (shop: Shop): Promise<Cut[]> => given<Cut[]>(shop, '/api/cuts');

test.beforeEach(async ({ page }) => {
  await page.goto('/floor');
  await expect(page.getByRole('status').filter({ hasText: /4 cutters/ })).toBeVisible();
  await cancelAll(page);
});

test('an order is held, sent, and put back; another is put in order by keys', async ({ page, shop }) => {
  await queueOrder(page, /Crew shirts/, /^Hold$/);
  await expect(page).toHaveURL(/floor$/);
  await expect(shelf(page).getByRole('button')).toHaveCount(2);
  await expect(cutsIn(page, 'Curlew')).toHaveCount(0);
  await shelf(page)
    .getByRole('button', { name: /Coral flock/ })
    .click();
  const card = page.getByRole('region', { name: /^The cut that is picked: Crew shirts/ });
  await card.getByRole('button', { name: 'Send it' }).click();
  await expect(cutsIn(page, 'Curlew')).toHaveCount(1);
  await expect(card).toContainText(/put on the shelf by Thrift.*sent by Thrift/);
  await expect(page.getByRole('list', { name: 'What the machines ask for' })).toContainText(/Curlew ?wants Coral flock .* backing up/); // prettier-ignore
  // back again, by a key
  await cutsIn(page, 'Curlew').first().focus();
  await page.keyboard.press('h');
  await expect(shelf(page).getByRole('button')).toHaveCount(2);

  await queueOrder(page, /Marsh Wren/);
  await page.goto('/floor');
  const films = async (): Promise<string[]> =>
    (await open(shop)).filter(({ state }) => state !== 'held').map(({ film }) => film.name);
  await expect(cutsIn(page, 'Curlew')).toHaveCount(3);
  const [first, second, third] = await films();
  await cutsIn(page, 'Curlew').last().focus();
  await page.keyboard.press('ArrowLeft');
  await expect.poll(films).toEqual([first, third, second]);
  // the focus goes along
  await page.keyboard.press('ArrowLeft');
  await expect.poll(films).toEqual([third, first, second]);
  // to Plover, which is too narrow for it
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('ArrowDown');
  await expect(page.getByRole('status').filter({ hasText: /wide here; \w+ takes/ })).toBeVisible();
});

test('a cut is dragged to another cutter, which is asked for it then; a lane refuses and says why', async ({
  page,
  shop,
}) => {
  await queueOrder(page, /Marsh Wren/);
  await page.goto('/floor');
  await expect(cutsIn(page, 'Curlew')).toHaveCount(3);
  const drag = async (from: Locator, to: Locator): Promise<void> => {
    const [a, b] = [(await from.boundingBox())!, (await to.boundingBox())!];
    await page.mouse.move(a.x + 6, a.y + 20);
    await page.mouse.down();
    await page.mouse.move(a.x + 40, a.y + 50, { steps: 4 });
    await page.mouse.move(b.x + b.width / 2, b.y + b.height / 2, { steps: 4 });
  };
  await drag(cutsIn(page, 'Curlew').last(), lane(page, 'Plover'));
  await expect(page.getByText(/wide here; Plover takes/)).toBeVisible();
  await page.mouse.up();
  await expect(cutsIn(page, 'Curlew')).toHaveCount(3);
  const [, , last] = await open(shop);
  await drag(cutsIn(page, 'Curlew').last(), lane(page, 'Heron'));
  await page.mouse.up();
  await expect(cutsIn(page, 'Heron')).toHaveCount(1);
  await expect(cutsIn(page, 'Curlew')).toHaveCount(2);
  const moved = (await open(shop)).find(({ id }) => id === last.id)!;
  expect(moved).toMatchObject({ cutterId: 'heron', film: { id: last.film.id } });
  // onto the shelf, and Escape leaves everything as it is
  await drag(cutsIn(page, 'Heron').first(), shelf(page));
  await page.keyboard.press('Escape');
  await page.mouse.up();
  await expect(cutsIn(page, 'Heron')).toHaveCount(1);
  await drag(cutsIn(page, 'Heron').first(), shelf(page));
  await page.mouse.up();
  await expect(shelf(page).getByRole('button')).toHaveCount(1);
  // what is chosen in the card does the same
  await shelf(page).getByRole('button').click();
  await page.getByRole('combobox', { name: 'Cut it on' }).click();
  await page.getByRole('option', { name: 'Curlew' }).click();
  await expect(cutsIn(page, 'Curlew')).toHaveCount(3);
});

test('fewest swaps says what it saves before it is taken', async ({ page, shop }) => {
  for (const order of [/Marsh Wren/, /Race hut/]) await queueOrder(page, order);
  await page.goto('/floor');
  await expect(lane(page, 'Curlew')).toBeVisible();
  await page.getByRole('button', { name: 'Fewest swaps' }).click();
  const note = page.getByRole('region', { name: 'Fewest swaps' });
  const saving = note.getByText(/(\d+) changes instead of (\d+)/);
  const [, then, now] = /(\d+) changes instead of (\d+)/.exec((await saving.textContent())!)!.map(Number);
  expect(then).toBeLessThan(now);
  await note.getByRole('button', { name: 'Put in this order' }).click();
  await expect(note).toContainText('No lane can do with fewer changes');
  // each film of the two stands in one run
  const films = (await open(shop)).filter(({ cutterId }) => cutterId === 'curlew').map(({ film }) => film.id);
  const runs = films.filter((film, i) => film !== films[i - 1]);
  expect(runs).toHaveLength(new Set(films).size);
});

test('cuts of one film are joined on one strip for less of it, and taken apart again', async ({
  page,
  shop,
}) => {
  for (const order of [/Slipway sign/, /Class numbers/]) await queueOrder(page, order);
  await page.goto('/floor');
  const before = (await open(shop)).filter(({ cutterId }) => cutterId === 'curlew').length;
  await expect(cutsIn(page, 'Curlew')).toHaveCount(before);
  const tar = async (): Promise<Cut[]> => (await open(shop)).filter(({ film }) => film.id === 'tar');
  const metres = (all: readonly Cut[]): number => all.reduce((sum, { length }) => sum + length, 0) / 1000;
  const apart = metres(await tar());
  await page.getByRole('button', { name: 'Join cuts' }).click();
  const note = page.getByRole('region', { name: 'Joined cuts' });
  const offer = note.locator('div').filter({ hasText: 'Tar black' });
  await expect(offer).toContainText(/Tar black of #\d+ and #\d+: 1 strip instead of 2/);
  await expect(offer).toContainText(`instead of ${apart.toFixed(2)} m`);
  await offer.getByRole('button', { name: 'Join them' }).click();
  await expect(page.getByText(/^Joined on one strip: #\d+, #\d+\.$/)).toBeVisible();
  await expect(cutsIn(page, 'Curlew')).toHaveCount(before - 1);
  const [joined] = await tar();
  expect(joined.length / 1000).toBeLessThan(0.9 * apart);
  // it is picked, says whose it is, and may be taken apart
  const card = page.getByRole('region', { name: /^The cut that is picked: Slipway sign/ });
  await expect(card).toContainText(/With #\d+ Class numbers/);
  await expect(card).toContainText(/joined with cut \d+ by Thrift/);
  await card.getByRole('button', { name: 'Take apart' }).click();
  await expect(cutsIn(page, 'Curlew')).toHaveCount(before);
  expect(metres(await tar())).toBeCloseTo(apart, 6);
  // by a key, and by what is picked in the card
  await lane(page, 'Curlew').getByRole('button', { name: /^Slipway sign, Tar black/ }).focus(); // prettier-ignore
  await page.keyboard.press('j');
  await note.getByRole('button', { name: 'Leave it' }).click();
  await page.getByRole('combobox', { name: 'Join it with' }).click();
  await page.getByRole('option', { name: /Class numbers/ }).click();
  await note.getByRole('button', { name: 'Join them' }).click();
  await expect(cutsIn(page, 'Curlew')).toHaveCount(before - 1);
  // what has no other says so
  const { film } = (await open(shop)).find((cut) => cut.film.id !== 'tar')!;
  await lane(page, 'Curlew')
    .getByRole('button', { name: `Slipway sign, ${film.name}` })
    .focus();
  await page.keyboard.press('j');
  await expect(page.getByText(`No other order waits for ${film.name} here.`)).toBeVisible();
});

test('an order on several strips is joined with all of them, whichever is picked', async ({ page, shop }) => {
  for (const order of [/Race hut/, /Marsh Wren/]) await queueOrder(page, order);
  await page.goto('/floor');
  const damson = async (): Promise<Cut[]> => (await open(shop)).filter(({ film }) => film.id === 'damson');
  const strips = await damson();
  expect(strips.length).toBeGreaterThan(2);
  await lane(page, 'Curlew').getByRole('button', { name: /^Race hut wall, Damson/ }).nth(1).click(); // prettier-ignore
  await page.getByRole('combobox', { name: 'Join it with' }).click();
  await page.getByRole('option', { name: /Marsh Wren/ }).click();
  const note = page.getByRole('region', { name: 'Joined cuts' });
  await expect(note).toContainText(`${strips.length - 1} strips instead of ${strips.length}`);
  await note.getByRole('button', { name: 'Join them' }).click();
  await expect.poll(async () => (await damson()).length).toBe(strips.length - 1);
  expect((await damson()).some(({ shares }) => shares.length === 2)).toBe(true);
});

test('all machines are paused and go on; prep sees the floor and may only hold and send', async ({
  page,
  shop,
}) => {
  await queueOrder(page, /Marsh Wren/);
  await loadFilm(shop, 610);
  await page.goto('/floor');
  await page.getByRole('button', { name: /is loaded$/ }).click();
  await expect.poll(async () => (await open(shop))[0].state).toBe('cutting');
  await page.getByRole('button', { name: 'Pause all' }).click();
  await expect(page.getByText('All machines are paused.')).toBeVisible();
  await expect.poll(async () => (await open(shop))[0].state).toBe('stopped');
  const prep = await page
    .context()
    .browser()!
    .newPage({ storageState: loggedIn(shop, await logIn(shop.url, 'prep')) });
  await prep.goto('/floor');
  await expect(prep.getByText('All machines are paused.')).toBeVisible();
  await expect(prep.getByRole('button', { name: 'Go on' })).toHaveCount(0);
  await cutsIn(prep, 'Curlew').last().click();
  await expect(prep.getByRole('button', { name: 'Earlier' })).toHaveCount(0);
  await prep.getByRole('button', { name: 'Put on the shelf' }).click();
  await expect(shelf(prep).getByRole('button')).toHaveCount(1);
  // the other hears of it at once
  await expect(shelf(page).getByRole('button')).toHaveCount(1, { timeout: 5000 });
  await page.getByRole('button', { name: 'Go on' }).click();
  await expect(prep.getByText('All machines are paused.')).toBeHidden();
  await expect.poll(async () => (await open(shop)).length, { timeout: 90_000 }).toBe(2);
});

test('what is changed after it was queued is told in three places, kept in one, replaced in another', async ({
  page,
  shop,
}) => {
  const change = (film: string, force: number): Promise<unknown> =>
    page.request.patch(`/api/cutters/curlew/recipes/${film}/kiss`, {
      headers: { Origin: shop.url },
      data: { force },
    });
  await queueOrder(page, /Marsh Wren/);
  const [first, second] = await open(shop);
  const was = first.recipe.force!;
  const note = page.getByRole('status', { name: 'Changed since it was queued' });
  await expect(page.getByRole('button', { name: `${first.film.name} is loaded` })).toBeVisible();
  await expect(note).toHaveCount(0);

  // at the cutter it is asked before it begins; kept, it begins as it was queued
  await change(first.film.id, was + 20);
  await expect(note).toContainText(`${first.film.name} is cut with ${was + 20} g instead of ${was} g.`);
  await expect(page.getByRole('button', { name: `${first.film.name} is loaded` })).toHaveCount(0);
  await note.getByRole('button', { name: 'Keep what is queued' }).click();
  await expect(page.getByRole('button', { name: `${first.film.name} is loaded` })).toBeVisible();

  // the floor says it of what comes later too
  await change(second.film.id, was + 30);
  await page.goto('/floor');
  await expect(note).toContainText(`${second.film.name} is cut with ${was + 30} g`);
  await expect(
    cutsIn(page, 'Curlew')
      .filter({ hasText: /changed since/ })
      .first(),
  ).toBeVisible();

  // and so does the run card, where it is replaced
  await page.goto(`/orders/${first.orderId}`);
  await note.getByRole('button', { name: 'Replace the queued cuts' }).click();
  await expect(note).toHaveCount(0);
  const now = await open(shop);
  expect(now.map(({ id, recipe }) => [id, recipe.force])).toEqual(
    [first, second, ...now.slice(2)].map(({ id }, i) => [id, i === 0 ? was + 20 : i === 1 ? was + 30 : was]),
  );
  for (const { film } of [first, second]) await change(film.id, was);
});
