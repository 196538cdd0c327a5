/** Art taken apart to save film: what each way comes to, the search for less, what it found kept, cut and put up. */
import type { Locator, Page } from '@playwright/test';
import type { Cut } from '../contracts/cuts';
import type { Shop } from './shop';
import { cancelAll, choose, expect, given, loadFilm, saved, section, settled, test } from './shop';

async function openLayout(page: Page, order = /Marsh Wren hull names/): Promise<void> {
  await page.goto('/orders');
  await page.getByRole('link', { name: order }).first().click();
  await section(page, 'Layout').click();
}
const way = (page: Page, name: string) => page.getByRole('radio', { name: new RegExp(`^${name}`) });
/** m of film that a way comes to, as it stands on its card. */
const metres = async (page: Page, name: string): Promise<number> => {
  const card = page.locator('.packs .card').filter({ hasText: name });
  await expect(card).toContainText(/\d m$/);
  return parseFloat((await card.locator('small').innerText()).replace(',', '.'));
};

/** Leaves only the hull's own film to be cut. */
async function onlyDamson(page: Page): Promise<void> {
  await section(page, 'Films').click();
  for (const box of await page.getByRole('checkbox', { name: /^Cut #/ }).all())
    if (!/#4b1f4a/i.test((await box.getAttribute('aria-label')) ?? '')) await box.uncheck();
  await saved(page);
  await settled(page);
}
/** Queues it, and loads so much of it. */
async function cutDamson(page: Page, shop: Shop, length?: number): Promise<void> {
  await cancelAll(page);
  await loadFilm(shop, 610, { length });
  await page.getByRole('button', { name: 'Queue 1 cut' }).click();
  await page.waitForURL(/cutters\/curlew/);
  await page.getByRole('button', { name: 'Damson is loaded' }).click();
}

/** How far the cut lies off its design, once it is done. */
async function asCut(page: Page): Promise<Locator> {
  await expect(page.getByRole('heading', { name: 'Nothing to do here' })).toBeVisible({ timeout: 90_000 });
  await page.goBack();
  await page.getByRole('button', { name: 'As cut' }).click();
  return page.locator('.card', { hasText: 'lies at most' }).locator('b');
}

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
    .getByRole('link', { name: /Class numbers/ })
    .first()
    .click();
  await section(page, 'Layout').click();
  await way(page, 'By piece').click();
  await settled(page);
  await expect(page.getByRole('button', { name: 'Pack closer' })).toBeEnabled();
});

test('on the film pieces are dragged, turned and pinned by hand, and stay when the rest is packed', async ({
  page,
}) => {
  await openLayout(page);
  await way(page, 'By piece').click();
  await saved(page);
  await settled(page);
  await page.getByRole('button', { name: 'On the film' }).click();
  const pins = page.locator('.pin');
  await expect(pins.first()).toBeVisible();
  const pinned = page.locator('.pin[aria-pressed=true]');
  // what earlier tests pinned is let go
  while ((await pinned.count()) > 0) {
    await pinned.first().click();
    await settled(page);
  }
  const takes = page.locator('.film .says');
  const before = await takes.innerText();
  // by keyboard: a piece is moved along the film, and turned
  const pin = pins.nth(2);
  await pin.focus();
  for (let k = 0; k < 3; k++) {
    await page.keyboard.press('Shift+ArrowRight');
    await settled(page);
    await expect(pinned).toHaveCount(1);
    await pinned.focus();
  }
  await page.keyboard.press('r');
  await settled(page);
  await expect(pinned).toHaveCount(1);
  // by pointer: onto others, which make way
  const from = (await pinned.boundingBox())!;
  const others = page.locator('.pin[aria-pressed=false]');
  const box = (await others.nth(4).boundingBox())!;
  const held = page.locator('svg.hand');
  for (const [dx, dy] of [
    [-14, 0],
    [14, 0],
    [0, -14],
    [0, 14],
    [-20, -20],
    [20, 20],
  ]) {
    await page.mouse.move(from.x + 11 + dx, from.y + 11 + dy);
    await page.mouse.down();
    if (await held.isVisible()) break;
    // beside the letter there is only film
    await page.mouse.up();
  }
  await expect(held).toBeVisible();
  await page.mouse.move(box.x, box.y, { steps: 4 });
  await expect(page.locator('svg.hand .touched').first()).toBeVisible();
  await page.mouse.up();
  await saved(page);
  await settled(page);
  await expect(held).toBeHidden();
  await expect(pinned).toHaveCount(1);
  await expect(takes).not.toHaveText(before);
  await page.getByRole('button', { name: 'Pack closer' }).click();
  await page.getByRole('button', { name: 'Stop here' }).click();
  await expect(page.getByRole('button', { name: 'Pack closer' })).toBeVisible();
  await settled(page);
  await expect(pinned).toHaveCount(1);
  await page.getByRole('button', { name: /^Undo/ }).click();
  await settled(page);
  await expect(pinned).toHaveCount(1);
});

test('weed lines are laid by themselves, added, moved and taken out, and cut', async ({ page, shop }) => {
  await openLayout(page);
  await way(page, 'As one').click();
  await page.getByLabel('Copies', { exact: true }).fill('1');
  await page.keyboard.press('Enter');
  await choose(page, 'Weed border', 'around all');
  await choose(page, 'Weed lines', 'for easy lifting');
  await saved(page);
  await settled(page);
  await page.getByRole('button', { name: 'On the film' }).click();
  const lines = page.getByRole('slider', { name: /^Weed line \d+, across the film/ });
  await expect(lines.nth(3)).toBeVisible();
  const count = await lines.count();
  await lines.first().focus();
  await page.keyboard.press('Delete');
  await expect(lines).toHaveCount(count - 1);
  await expect(page.getByRole('combobox', { name: 'Weed lines' })).toContainText('by hand');
  await settled(page);
  await page.getByRole('button', { name: /^Add a weed line/ }).click();
  await expect(lines).toHaveCount(count);
  await settled(page);
  const last = lines.last();
  const was = Number(await last.getAttribute('aria-valuenow'));
  const handle = (await last.boundingBox())!;
  await page.mouse.move(handle.x + 6, handle.y + 8);
  await page.mouse.down();
  await page.mouse.move(handle.x + 46, handle.y + 8, { steps: 4 });
  await page.mouse.up();
  await settled(page);
  expect(Number(await last.getAttribute('aria-valuenow'))).toBeGreaterThan(was + 20);
  await last.focus();
  await page.keyboard.press('ArrowLeft');
  await saved(page);
  await settled(page);
  await last.dblclick();
  await expect(lines).toHaveCount(count - 1);
  await saved(page);

  await onlyDamson(page);
  await cutDamson(page, shop);
  await expect(await asCut(page)).toHaveText(/0\.\d{3} mm/);
});

test('packed by piece it is cut, and the application sheet shows where each piece sits', async ({
  page,
  shop,
}) => {
  await openLayout(page);
  await way(page, 'By piece').click();
  await page.getByLabel('Copies', { exact: true }).fill('1');
  await page.keyboard.press('Enter');
  await onlyDamson(page);
  await page.getByRole('link', { name: 'Weeding and applying' }).click();
  const onSign = page.getByRole('img', { name: 'Where pieces of Damson sit on the sign' });
  await expect(onSign.locator('text')).toHaveCount(10);
  await expect(
    page.getByRole('img', { name: 'Pieces of Damson as they are cut' }).locator('text'),
  ).toHaveCount(10);
  await page.getByRole('link', { name: 'The order' }).click();

  await cutDamson(page, shop);
  const worst = await asCut(page);
  await expect(worst).toHaveText(/0\.\d{3} mm/);
  expect(parseFloat(await worst.innerText())).toBeLessThanOrEqual(0.03);
});

test('cut from an offcut: what fits is listed, and what is left of it is on the rack again', async ({
  page,
  shop,
}) => {
  await openLayout(page);
  await way(page, 'By piece').click();
  await page.getByLabel('Copies', { exact: true }).fill('1');
  await page.keyboard.press('Enter');
  await choose(page, 'Weed lines', 'none');
  await onlyDamson(page);
  await page.getByRole('button', { name: 'On the film' }).click();
  const offcut = page.getByRole('listitem').filter({ hasText: 'Offcut D-17' });
  await expect(offcut).toContainText('fits');
  await expect(offcut).toContainText(/leaves 0\.\d\d m/);
  await offcut.getByRole('button', { name: 'Take it' }).click();
  await expect(offcut.getByRole('button', { name: 'Taken' })).toBeVisible();
  await expect(page.locator('.film .says')).toContainText(/^Offcut D-17, 610\.0 mm · 0\.\d\d m of 1\.21 m/);
  await saved(page);
  await settled(page);
  await cutDamson(page, shop, 1210);
  await expect(page.getByText('Write on what is left:')).toBeVisible({ timeout: 90_000 });
  const code = await page.locator('.rest b').first().innerText();
  expect(code).toMatch(/^D-\d+$/);
  await page.getByRole('link', { name: 'Materials' }).click();
  const row = page.getByRole('row').filter({ has: page.getByLabel('Code of Damson') });
  await expect(row).toContainText(code);
  await expect(row).not.toContainText('D-17');
  // the order says that its offcut is used up
  await page.goBack();
  await page.goto('/orders');
  await openLayout(page);
  await expect(page.getByText('The offcut D-17 of Damson is not on the rack any more').first()).toBeVisible();
  await loadFilm(shop, 610);
});

test('copies in rows and as many as fit; an exact place, the film’s whole width, and a cutter’s margins', async ({
  page,
}) => {
  await openLayout(page, /Class numbers/);
  // as another test left it, its pieces are packed
  await way(page, 'As one').click();
  const copies = page.getByLabel('Copies', { exact: true });
  const enter = async (label: string, value: string): Promise<void> => {
    await page.getByLabel(label, { exact: true }).fill(value);
    await page.keyboard.press('Enter');
    await saved(page);
    await settled(page);
  };
  await enter('Copies', '5');
  await enter('Copies side by side', '1');
  await expect(page.getByLabel('Rows of copies')).toHaveValue('5');
  await enter('Rows of copies', '3');
  await expect(copies).toHaveValue('3');
  await enter('Copies side by side', '0');
  await expect(page.getByLabel('Rows of copies')).toBeHidden();
  await enter('Copies', '1');
  await page.getByRole('button', { name: 'As many as fit' }).click();
  await expect(copies).not.toHaveValue('1');
  await saved(page);
  await settled(page);
  await expect(page.locator('.strip')).toHaveCount(await page.locator('.strip').count());
  await expect(page.getByText(/is cut in \d+ strips/)).toHaveCount(0);
  await enter('Copies', '1');

  await page.getByRole('button', { name: 'On the film' }).click();
  const takes = page.locator('.film .says');
  const before = await takes.innerText();
  await choose(page, 'Across the roll', 'at an exact place');
  await enter('Place along the film', '400');
  await expect(takes).not.toHaveText(before);
  await choose(page, 'Across the roll', 'at the edge');
  await expect(takes).toHaveText(before);
  await saved(page);
  await settled(page);
  const size = await section(page, 'Artwork').innerText();
  await page.getByRole('button', { name: 'Fit to the film’s width' }).click();
  await expect(section(page, 'Artwork')).not.toHaveText(size, { useInnerText: true });
  await saved(page);
  await settled(page);
  await expect(page.getByText(/but the knife reaches/)).toHaveCount(0);

  await section(page, 'Cutter').click();
  await page.getByRole('button', { name: /^Margins of Curlew/ }).click();
  const far = page.getByLabel('Far edge, Curlew');
  const reach = page.getByText(/at the edges stay uncut/);
  const [was, says] = [await far.inputValue(), await reach.innerText()];
  await far.fill('40');
  await page.keyboard.press('Enter');
  await expect(reach).not.toHaveText(says, { useInnerText: true });
  await page.reload();
  await section(page, 'Cutter').click();
  await expect(far).toHaveValue('40.0 mm');
  await far.fill(was);
  await page.keyboard.press('Enter');
  await expect(reach).toHaveText(says, { useInnerText: true });
});

test('a heading that moves away between press and release is pressed all the same', async ({ page }) => {
  await openLayout(page);
  // all is there that moves by itself
  await expect(way(page, 'By piece')).toBeVisible();
  await settled(page);
  const { x, y } = (await section(page, 'Films').boundingBox())!;
  await page.mouse.move(x + 20, y + 10);
  await page.mouse.down();
  await page.locator('.sections').evaluate((all) => (all.style.paddingTop = '90px'));
  await page.mouse.up();
  await expect(section(page, 'Films')).toHaveAttribute('aria-expanded', 'true');
});

test('a press that began elsewhere, or left the heading, opens nothing', async ({ page }) => {
  await openLayout(page);
  const open = page.locator('.sections [aria-expanded=true]');
  await expect(open).toContainText('Layout');
  await settled(page);
  const heading = (await section(page, 'Films').boundingBox())!;
  const name = (await page.getByRole('textbox', { name: 'Name of the order' }).boundingBox())!;
  for (const [from, to] of [
    [name, heading],
    [heading, name],
  ]) {
    await page.mouse.move(from.x + 20, from.y + 10);
    await page.mouse.down();
    await page.mouse.move(to.x + 20, to.y + 10, { steps: 3 });
    await page.mouse.up();
    // whatever it does is drawn by then
    await page.evaluate(() => new Promise(requestAnimationFrame));
    await expect(open).toContainText('Layout');
  }
  await section(page, 'Films').click();
  await expect(open).toContainText('Films');
});

test('a section that is opened below a long one shows its heading', async ({ page }) => {
  await page.setViewportSize({ width: 1024, height: 700 });
  await openLayout(page);
  await settled(page);
  for (const name of ['Artwork', 'Films', 'Panels', 'Layout']) {
    await section(page, name).click();
    await expect(section(page, name)).toHaveAttribute('aria-expanded', 'true');
    await expect(section(page, name)).toBeInViewport({ ratio: 0.95 });
  }
});

test('what was typed last is queued as it was typed, by a press that came before it was planned', async ({
  page,
  shop,
}) => {
  await openLayout(page, /Class numbers/);
  await settled(page);
  await page.getByLabel('Copies', { exact: true }).fill('3');
  await page.getByRole('button', { name: /^Queue \d/ }).click();
  await expect(page).toHaveURL(/cutters/);
  const queued = await given<Cut[]>(shop, '/api/cuts');
  expect(queued.reduce((sum, { copies }) => sum + copies, 0)).toBe(3);
  await cancelAll(page);
});
