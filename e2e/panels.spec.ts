/** The race-hut wall, larger than any film: seams of every kind, panels chosen, and what lies on the rolls for it. */
import type { Page } from '@playwright/test';
import sharp from 'sharp';
import { textOf } from './pdf';
import { cancelAll, choose, expect, saved, section, settled, test } from './shop';

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
  await unfold(page, /^Overlap and keys/);
  await page.getByLabel('Overlap', { exact: true }).fill('0');
  await page.keyboard.press('Enter');
  await expect(section(page, 'Panels')).toContainText('4 panels, 3 seams');
  await saved(page);
}
const way = (page: Page, name: RegExp) => page.getByRole('radio', { name });
/** Opens a fold of the section, as it may be remembered closed. */
async function unfold(page: Page, name: RegExp): Promise<void> {
  const fold = page.getByRole('button', { name });
  if ((await fold.getAttribute('aria-expanded')) === 'false') await fold.click();
}
const handle = (page: Page, name: string) => page.getByRole('slider', { name: new RegExp(`^${name}`) });

test('a wall is taken apart by itself; each way says beforehand what it comes to', async ({ page }) => {
  await openWall(page);
  const offers = page.getByRole('radiogroup', { name: 'Seams' });
  await expect(offers.getByText(/^\d+ panels, [\d.]+ mm cut, \d+ outlines?$/)).toHaveCount(4);
  await expect(offers.getByText(/^\d+ to put up, [\d.]+ mm cut/)).toHaveCount(1);
  const least = await offers.locator('.card').filter({ hasText: 'cut least' }).locator('small').innerText();
  for (const name of [/Equal panels/, /As wide as the film/]) {
    const label = offers.locator('.card').filter({ hasText: name });
    // what stood there may be reckoned anew just now
    let before = '';
    await expect.poll(async () => (before = await label.locator('small').innerText())).toContain('mm cut');
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
  await unfold(page, /^Overlap and keys/);
  await page.getByLabel('Overlap', { exact: true }).fill('20');
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

test('seams that wander cut less than straight ones; one shares more than the others, and all have keys', async ({
  page,
}) => {
  await openWall(page);
  const offers = page.getByRole('radiogroup', { name: 'Seams' });
  const cut = async (name: string): Promise<number> => {
    const says = offers.locator('.card').filter({ hasText: name }).locator('small');
    // while it is reckoned anew it says so
    let mm: string | undefined;
    await expect.poll(async () => (mm = /([\d.]+) mm cut/.exec(await says.innerText())?.[1])).toBeDefined();
    return Number(mm);
  };
  expect(await cut('Wandering')).toBeLessThan((await cut('cut least')) * 0.75);
  await way(page, /Wandering/).click();
  await expect(way(page, /Wandering/)).toBeChecked();
  const turns = async (): Promise<number> =>
    ((await page.locator('svg.seams path.line').first().getAttribute('d')) ?? '').split('L').length;
  await expect.poll(turns).toBeGreaterThan(4);
  await saved(page);

  // a handle that is pulled sets its seam by hand, and straight
  await handle(page, 'Level seam 3').focus();
  await page.keyboard.press('ArrowUp');
  await expect(way(page, /By hand/)).toBeChecked();
  await expect.poll(turns).toBe(1);
  await unfold(page, /^Seams one by one/);
  await page.getByLabel('Overlap at level seam 2').fill('25');
  await page.keyboard.press('Enter');
  await saved(page);
  await page.reload();
  await section(page, 'Panels').click();
  await expect(page.getByLabel('Overlap at level seam 2')).toHaveValue('25.0 mm');
  await expect(page.getByLabel('Overlap at level seam 1')).toHaveValue('0.0 mm');
  await page.getByLabel('Overlap at level seam 2').fill('0');
  await page.keyboard.press('Enter');
  await saved(page);

  // keys and numbers lie on the strips, and can be left out
  const waste = page.locator('svg.seams .waste path');
  await expect(waste.first()).toHaveAttribute('d', /M.+M.+M/);
  await unfold(page, /^Overlap and keys/);
  await page.getByRole('checkbox', { name: 'Keys across seams' }).click();
  await choose(page, 'Numbers in the waste', 'none');
  await expect(waste.first()).toHaveAttribute('d', '');
  await saved(page);
  await page.getByRole('checkbox', { name: 'Keys across seams' }).click();
  await choose(page, 'Numbers in the waste', 'cut');
  await expect(waste.first()).toHaveAttribute('d', /M/);
});

test('whole pieces first: put together, alone, and a bird that no seam shall cross', async ({ page }) => {
  await openWall(page);
  await way(page, /Whole pieces first/).click();
  await expect(way(page, /Whole pieces first/)).toBeChecked();
  const list = page.getByRole('list', { name: 'Panels' });
  await expect(list.getByRole('checkbox', { name: /^Cut piece/ })).not.toHaveCount(0);
  await expect(page.getByRole('slider', { name: /seam/ })).toHaveCount(1);
  await saved(page);
  const pieces = list.getByRole('checkbox', { name: /^Cut piece/ });
  const asLines = await pieces.count();
  await choose(page, 'Taken as one', 'words');
  // RACE HUT is two words
  await expect(pieces).toHaveCount(asLines + 1);
  await choose(page, 'Taken as one', 'single shapes');
  await expect(pieces).not.toHaveCount(asLines + 1);
  expect(await pieces.count()).toBeGreaterThan(25);
  await choose(page, 'Taken as one', 'whole lines');
  await expect(pieces).toHaveCount(asLines);
  await saved(page);

  // both birds as one: tapped on their necks, above their numbers
  await page.getByRole('button', { name: 'Put shapes together' }).click();
  const tap = async (number: number): Promise<void> => {
    const badge = page.getByRole('button', { name: `Panel ${number}, is cut`, exact: true });
    const { x, y, width } = (await badge.boundingBox())!;
    await page.mouse.click(x + width / 2, y - 3);
  };
  const ask = page.getByRole('group', { name: 'Shapes on the sign' });
  await tap(4);
  await expect(ask.getByRole('status')).toHaveText('1 shape picked.');
  await tap(5);
  await expect(ask.getByRole('status')).toHaveText('2 shapes picked.');
  await ask.getByRole('button', { name: 'Put them together' }).click();
  await expect(pieces).toHaveCount(asLines - 1);
  await saved(page);
  await page.getByRole('button', { name: 'Take group 1 apart' }).click();
  await expect(pieces).toHaveCount(asLines);

  // by hand through a bird: told once it is to be kept whole
  await way(page, /By hand/).click();
  await expect(way(page, /By hand/)).toBeChecked();
  await saved(page);
  await unfold(page, /^Kept whole/);
  await page.getByRole('button', { name: 'Pick shapes on the sign' }).click();
  const at = (await page.getByRole('slider', { name: /^Upright seam 1/ }).boundingBox())!;
  await page.keyboard.press('Escape');
  await expect(ask).toHaveCount(0);
  const upright = page.getByLabel('Upright seam 1', { exact: true });
  await upright.fill('1455');
  await page.keyboard.press('Enter');
  await page.getByRole('button', { name: 'Add a level seam' }).click();
  await page.getByLabel('Level seam 1', { exact: true }).fill('1064');
  await page.keyboard.press('Enter');
  await saved(page);
  await expect(page.getByRole('slider', { name: /^Upright seam 1/ })).toHaveAttribute(
    'aria-valuenow',
    '1455',
  );
  await expect(page.getByRole('slider', { name: /^Level seam 1/ })).toHaveAttribute('aria-valuenow', '1064');
  await settled(page);
  const x = (await page.getByRole('slider', { name: /^Upright seam 1/ }).boundingBox())!;
  const y = (await page.getByRole('slider', { name: /^Level seam 1/ }).boundingBox())!;
  expect(x.x).not.toBe(at.x);
  await page.getByRole('button', { name: 'Pick shapes on the sign' }).click();
  await page.mouse.click(x.x + x.width / 2 + 3, y.y + y.height / 2 + 3);
  await expect(ask.getByRole('status')).toHaveText('1 shape picked.');
  await ask.getByRole('button', { name: 'Keep them whole' }).click();
  await expect(
    page.getByText(/^Seams cross \d* ?shapes? to be kept whole|^Seams cross a shape/).first(),
  ).toBeVisible();
  await saved(page);
  // where they cut least they go around it
  await way(page, /Where they cut least/).click();
  await expect(page.getByText(/^Seams cross/)).toHaveCount(0);
  await page.getByRole('button', { name: 'None of them' }).click();
});

test('the wall: a door in the way, a picture to scale, a file that is none, and the map from its ceiling', async ({
  page,
}) => {
  await openWall(page);
  await unfold(page, /^Wall or window/);
  await page.getByRole('checkbox', { name: 'The surface is known' }).click();
  await expect(page.getByLabel('Width of the surface')).toHaveValue('3700.0 mm');
  await page.getByRole('button', { name: 'Keep a door or window clear' }).click();
  await page.getByLabel('Door 1, from the left').fill('200');
  await page.keyboard.press('Enter');
  await expect(page.getByText('Art lies on Door 1 that is to be kept clear.').first()).toBeVisible();
  await page.getByLabel('Door 1, wide').fill('120');
  await page.keyboard.press('Enter');
  await page.getByLabel('Door 1, from the left').fill('0');
  await page.keyboard.press('Enter');
  await expect(page.getByText('Art lies on Door 1')).toHaveCount(0);
  await saved(page);

  const picture = page.getByLabel('Picture of the wall');
  await picture.setInputFiles({
    name: 'notes.txt',
    mimeType: 'text/plain',
    buffer: Buffer.from('no picture'),
  });
  await expect(page.getByRole('alert').filter({ hasText: 'notes.txt' })).toBeVisible();
  await picture.setInputFiles({
    name: 'wall.png',
    mimeType: 'image/png',
    buffer: await sharp({ create: { width: 400, height: 200, channels: 3, background: '#cdbfa6' } })
      .png()
      .toBuffer(),
  });
  await expect(page.getByRole('img', { name: 'The wall' })).toBeVisible();
  await expect(page.getByLabel('From A to B on the wall')).toHaveValue('3700.0 mm');
  await page.getByRole('button', { name: 'Place B in the picture' }).focus();
  for (let k = 0; k < 3; k++) await page.keyboard.press('Shift+ArrowLeft');
  await saved(page);

  const link = page.getByRole('link', { name: 'Fitting map' });
  const href = (await link.getAttribute('href'))!;
  await link.click();
  await expect(page).toHaveURL(new RegExp(href));
  await choose(page, 'Measured across from', 'the left edge');
  await choose(page, 'Measured down from', 'the floor');
  await expect(page.getByRole('columnheader', { name: 'Top edge from the floor' })).toBeVisible();
  await expect(page.locator('.map image')).toHaveCount(1);
  await expect(page.locator('.map')).toContainText('Door 1');
  const paper = await page.request.get(
    (await page.getByRole('link', { name: 'On paper' }).getAttribute('href'))!,
  );
  const text = await textOf(await paper.body());
  expect(text).toContain('The surface is 3700.0 mm');
  expect(text).toContain('the left edge and the floor');
  expect(text).toContain('Door 1');
  await page.goBack();
  await section(page, 'Panels').click();
  await unfold(page, /^Wall or window/);
  await page.getByRole('checkbox', { name: 'The surface is known' }).click();
  await expect(page.getByLabel('Width of the surface')).toHaveCount(0);
  await saved(page);
});

test('what is kept in hand of a cutter is the shop’s, until an order says otherwise', async ({ page }) => {
  await openWall(page);
  const field = page.getByLabel('Kept in hand across');
  const usual = await field.inputValue();
  await field.fill('30');
  await page.keyboard.press('Enter');
  await saved(page);
  // what is typed while the cutter is told of it is the order's own again
  let tell = (): void => {};
  const told = new Promise<void>((done) => (tell = done));
  await page.route('**/api/cutters/curlew', async (route) => {
    await told;
    await route.continue();
  });
  await page.getByRole('button', { name: 'Always on Curlew' }).click();
  await field.fill('45');
  await page.keyboard.press('Enter');
  tell();
  await expect(page.getByRole('button', { name: /^As Curlew has it, 30.0 mm/ })).toBeVisible();
  await saved(page);
  await expect(field).toHaveValue('45.0 mm');
  await page.unroute('**/api/cutters/curlew');
  await field.fill(usual);
  await page.keyboard.press('Enter');
  await expect(page.getByRole('button', { name: /^As Curlew has it, 30.0 mm/ })).toBeVisible();
  await page.getByRole('button', { name: 'Always on Curlew' }).click();
  await expect(page.getByRole('button', { name: 'Always on Curlew' })).toHaveCount(0);
  await expect(field).toHaveValue(usual);
});

test('a seam is dragged on the ink; panel 3 is cut again, of the films that have something on it', async ({
  page,
}) => {
  await openWall(page);
  // what a grid would come to is said beforehand too
  const grid = page.locator('.cards .card').filter({ hasText: 'Columns and rows' }).locator('small');
  await expect(grid).toContainText(/\d+ panels, [\d.]+ mm cut/);
  const films = await page
    .getByRole('list', { name: 'Panels' })
    .getByRole('listitem')
    .nth(2)
    .locator('small')
    .innerText();

  const before = await handle(page, 'Level seam 1').getAttribute('aria-valuetext');
  const grip = (await page.locator('.grip.level').first().boundingBox())!;
  await page.mouse.move(grip.x + grip.width / 2, grip.y + grip.height / 2);
  await page.mouse.down();
  await page.mouse.move(grip.x + grip.width / 2, grip.y + grip.height / 2 - 20, { steps: 5 });
  await page.mouse.up();
  await expect(way(page, /By hand/)).toBeChecked();
  await expect(handle(page, 'Level seam 1')).not.toHaveAttribute('aria-valuetext', before!);
  await saved(page);
  await page.locator('.work').click({ position: { x: 300, y: 60 } });
  await page.keyboard.press('Control+z');
  await expect(way(page, /Where they cut least/)).toBeChecked();
  await saved(page);

  await expect(page.getByRole('button', { name: /again$/ })).toHaveCount(0);
  const order = page.url();
  await page.getByRole('button', { name: /^Queue \d+ cuts$/ }).click();
  await page.waitForURL(/cutter/);
  await cancelAll(page);
  await page.goto(order);
  await section(page, 'Panels').click();
  await page.getByRole('button', { name: 'Cut panel 3 again' }).click();
  await page.waitForURL(/cutter/);
  const queued = await page.evaluate(async () => {
    const cuts = (await (await fetch('/api/cuts')).json()) as { film: { name: string }; copies: number }[];
    return cuts.map(({ film, copies }) => `${film.name} ${copies}`);
  });
  expect(queued.map((one) => one.replace(/ 1$/, '')).join(', ')).toBe(films.split('· ')[1]);
  await cancelAll(page);
});
