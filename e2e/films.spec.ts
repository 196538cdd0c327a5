/** From colours to cut layers that line up: through the real interface. */
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { cancelAll, choose, expect, loadFilm, saved, section, test } from './shop';
import type { Page } from '@playwright/test';
import { textOf as pdfText } from './pdf';

const dir = mkdtempSync(join(tmpdir(), 'jam-pan-films-'));
const open = (page: Page, title: string) => page.getByRole('button', { name: title }).click();

test('near-equal colours of an uploaded drawing are folded into one film, and unfolded', async ({ page }) => {
  const path = join(dir, 'blues.svg');
  const square = (x: number, colour: string): string =>
    `<rect x="${x}" width="40" height="40" fill="${colour}"/>`;
  writeFileSync(
    path,
    `<svg xmlns="http://www.w3.org/2000/svg" width="200mm" height="40mm" viewBox="0 0 200 40">${['#1d3f86', '#1e4088', '#1c3e84', '#b0202f'].map((c, i) => square(i * 50, c)).join('')}</svg>`,
  );
  await page.goto('/orders');
  await page.locator('input[type=file]').setInputFiles(path);
  await page.waitForURL(/orders\/\d+$/);
  await expect(page.getByText('4 colours seen')).toBeVisible();
  await open(page, 'Near-equal colours');
  await expect(page.getByText('2 near-equal')).toBeVisible();
  await page.getByRole('button', { name: 'Fold into #1d3f86' }).click();
  await expect(page.getByText('2 colours seen')).toBeVisible();
  await saved(page);
  await page.getByRole('button', { name: 'Unfold' }).first().click();
  await expect(page.getByText('3 colours seen')).toBeVisible();
  await saved(page);
  await page.getByRole('heading', { name: 'Films' }).click();
  await page.keyboard.press('Control+z');
  await expect(page.getByText('2 colours seen')).toBeVisible();
});

test('a colour is given another film, found by its name; it goes to print, to no film, and back', async ({
  page,
}) => {
  await page.goto('/orders');
  await page.locator('input[type=file]').setInputFiles('demo/art/marsh-wren.svg');
  await page.waitForURL(/orders\/\d+$/);
  await expect(section(page, 'Films')).toContainText('3 films');
  const [id] = page.url().match(/\d+$/)!;
  const picker = page.getByRole('combobox', { name: 'Film for #e2a21b' });
  await expect(picker).toContainText('Quince');
  const choose = async (search: string, name: RegExp): Promise<void> => {
    await picker.click();
    await page.getByRole('searchbox').fill(search);
    await page.getByRole('option').filter({ hasText: name }).click();
    await saved(page);
  };
  // by its code, with what is left of it on the shelf
  await choose('G-4325', /Lantern orange.*gloss · 610\.0 mm × 22\.00 m.*ΔE/);
  await expect(page.locator('.strip .label').filter({ hasText: 'Lantern orange' })).toBeVisible();
  await choose('print', /Print/);
  await expect(section(page, 'Films')).toContainText('2 films');
  await expect(picker).toContainText('Print');
  await choose('no film', /No film.*surface shows/);
  await expect(picker).toContainText('No film');
  const choices = await page.evaluate(async (order) => {
    const { choices: stored } = (await (await fetch(`/api/orders/${order}`)).json()) as {
      choices: { films: { off: string[]; print: string[]; film: Record<string, string> } };
    };
    return stored.films;
  }, id);
  expect(choices).toMatchObject({ off: ['#e2a21b'], print: [], film: { '#e2a21b': 'lantern' } });
  await page.getByLabel('Cut #e2a21b').check();
  await expect(section(page, 'Films')).toContainText('3 films');
  await expect(picker).toContainText('Lantern orange');
  await page.getByRole('button', { name: 'Switch all off' }).click();
  await expect(page.getByRole('list', { name: 'To look at' })).toContainText('Every colour is switched off');
  await page.getByRole('button', { name: 'Switch all on' }).click();
  await expect(section(page, 'Films')).toContainText('3 films');
  // two colours on one film are one cut
  await choose('damson', /Damson/);
  await expect(section(page, 'Films')).toContainText('2 films');
});

/** The text of a PDF that the page links to, read by an independent reader. */
async function textOf(page: Page, path: string): Promise<string> {
  const base64 = await page.evaluate(async (address) => {
    const bytes = new Uint8Array(await (await fetch(address)).arrayBuffer());
    return btoa(Array.from(bytes, (byte) => String.fromCharCode(byte)).join(''));
  }, path);
  return pdfText(Buffer.from(base64, 'base64'));
}

test('each way to lie under another film, marks, another order, copies, and one film cut again', async ({
  page,
  shop,
}) => {
  // a copy of the demo order: other tests want the order itself as it is
  await page.goto('/orders');
  await page.locator('input[type=file]').setInputFiles('demo/art/slipway-sign.svg');
  await page.waitForURL(/orders\/\d+$/);
  await expect(section(page, 'Films')).toContainText('6 films');
  const label = page.locator('.strip .label').first();
  await open(page, 'Overlaps and copies');
  const mode = page.getByRole('combobox', { name: /lies under other films$/ }).first();
  await expect(mode).toHaveText('its edge beneath');
  await page.getByLabel('Show what lies under other films').check();
  for (const way of ['whole beneath', 'edge to edge', 'its edge beneath']) {
    await mode.click();
    await page.getByRole('option', { name: way }).click();
    await saved(page);
    await expect(mode).toHaveText(way);
  }
  await page
    .getByLabel(/^Overlap of /)
    .first()
    .fill('1.5 mm');
  await page.keyboard.press('Enter');
  await expect(page.getByLabel(/^Overlap of /).first()).toHaveValue('1.50 mm');

  // marks make every film as long as the sign with its marks
  const before = await label.innerText();
  await open(page, 'Layer marks');
  await page.getByLabel('The same marks on every film').check();
  await choose(page, 'Shape of the layer marks', 'ring');
  await choose(page, 'How many layer marks', 'four');
  await expect(page.getByText('4 of ring')).toBeVisible();
  await expect(label).not.toHaveText(before);
  await saved(page);
  await page.reload();
  await expect(section(page, 'Films')).toContainText('6 films');
  await expect(page.getByText('4 of ring')).toBeVisible();

  // a mark that is moved stays; on the art it keeps the order back
  const mark = page.getByRole('button', { name: 'Layer mark 1: drag or arrow keys move it' });
  const at = (await mark.boundingBox())!;
  await page.mouse.move(at.x + 14, at.y + 14);
  await page.mouse.down();
  await page.mouse.move(at.x + 110, at.y + 30, { steps: 4 });
  await page.mouse.up();
  await expect(page.getByRole('list', { name: 'To look at' })).toContainText('A layer mark lies on the art');
  await expect(page.getByRole('button', { name: /^Queue / })).toBeDisabled();
  await page.getByRole('button', { name: 'Put them back around the sign' }).click();
  await expect(page.getByRole('button', { name: /^Queue 6/ })).toBeEnabled();
  await mark.press('Shift+ArrowUp');
  await expect(page.getByRole('button', { name: 'Put them back around the sign' })).toBeVisible();
  await saved(page);

  // another order: overlaps follow
  await page.getByRole('button', { name: 'Cut Shallow water later' }).click();
  await expect(page.locator('.strip .label').nth(1)).toContainText('2 Shallow water');
  await page.keyboard.press('BracketRight');
  await expect(page.locator('.strip.picked .label')).toContainText('1 Buoy yellow');
  await page.keyboard.press('BracketRight');
  await page.keyboard.press('Shift+BracketLeft');
  await expect(page.locator('.strip .label').first()).toContainText('1 Shallow water');
  await saved(page);

  // both papers, and the sheet as a page
  const runCard = await textOf(
    page,
    (await page.getByRole('link', { name: 'Run card' }).getAttribute('href'))!,
  );
  for (const words of ['slipway sign', 'Run card', '1 Load Shallow water', '6 Load Tar black', 'G-4002'])
    expect(runCard).toContain(words);
  await page.getByRole('link', { name: 'Weeding and applying' }).click();
  await page.waitForURL(/applying$/);
  await expect(page.getByRole('listitem')).toHaveCount(6);
  await expect(page.getByRole('listitem').first()).toContainText('the top film: nothing lies over it');
  await expect(page.getByText(/^The ring marks of all films meet at /)).toBeVisible();
  const ticked = page.getByRole('listitem').first().getByRole('button');
  await ticked.click();
  await expect(ticked).toHaveText('On the tape');
  await page.reload();
  await expect(ticked).toHaveText('On the tape');
  const sheet = await textOf(
    page,
    (await page.getByRole('link', { name: 'On paper' }).getAttribute('href'))!,
  );
  for (const words of [
    'Weeding, taping, applying',
    'Squeegee from the middle',
    '1 Tar black',
    '6 Shallow water',
  ])
    expect(sheet).toContain(words);
  await page.getByRole('link', { name: 'The order' }).click();
  await expect(section(page, 'Films')).toContainText('6 films');

  // only one film is cut here, to keep the test short: the others are switched off
  const boxes = await page.getByRole('checkbox', { name: /^Cut #/ }).all();
  for (const box of boxes.slice(1)) await box.uncheck();
  await section(page, 'Artwork').click();
  await page.getByLabel('Finished width', { exact: true }).fill('200');
  await page.keyboard.press('Enter');
  await section(page, 'Films').click();
  await saved(page);
  await loadFilm(shop, 610);
  await page.getByRole('button', { name: 'Queue 1 cut' }).click();
  await page.waitForURL(/cutters\/curlew/);
  await page.getByRole('button', { name: /is loaded$/ }).click();
  await expect(page.getByRole('heading', { name: 'Nothing to do here' })).toBeVisible({ timeout: 60_000 });
  await page.goBack();
  await page.getByRole('button', { name: 'Cut again' }).click();
  await page.waitForURL(/cutters\/curlew/);
  await expect(page.getByRole('heading', { name: /^Load / })).toBeVisible();
  await cancelAll(page);
  await page.goBack();

  // and one shape of it
  await page.getByRole('button', { name: 'Some shapes again …' }).click();
  const ask = page.getByRole('group', { name: 'Shapes to cut again' });
  const stage = (await page.getByRole('application', { name: /^The finished sign/ }).boundingBox())!;
  await page.mouse.click(stage.x + 3, stage.y + 3);
  await expect(ask).toContainText('No shape of Shallow water lies there.');
  await page.mouse.click(stage.x + stage.width / 2, stage.y + stage.height / 2);
  await expect(ask).toContainText('1 shape of Shallow water picked');
  await page.getByRole('button', { name: 'Cut it again' }).click();
  await page.waitForURL(/cutters\/curlew/);
  await expect(page.getByRole('heading', { name: /^Load Shallow water/ })).toBeVisible();
  // leaves the cutter free for the tests that follow
  await cancelAll(page);
});

test('the shop’s films: searched, changed, taken out and brought in as a table', async ({ page }) => {
  await page.goto('/materials');
  await expect(page.getByText('44 of 44')).toBeVisible();
  await page.getByRole('button', { name: 'metallic', exact: true }).click();
  await expect(page.getByText('3 of 44')).toBeVisible();
  await page.getByRole('button', { name: 'all', exact: true }).click();
  // sorted and gone through by keyboard
  await page.getByRole('columnheader', { name: 'Film' }).focus();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('textbox', { name: /^Name of/ }).first()).toHaveValue('Bark');
  await page.getByLabel('Code of Bark').focus();
  await page.keyboard.press('ArrowDown');
  await expect(page.getByLabel('Code of Black flock')).toBeFocused();
  await page.getByLabel('Search films').fill('heather');
  const open = page.getByRole('button', { name: 'Rolls, colour and limits of Heather' });
  await open.click();
  const narrowest = page.getByLabel('Narrowest stem of Heather');
  await narrowest.fill('2.2');
  await narrowest.press('Enter');
  await expect(narrowest).toHaveValue('2.20 mm');
  const grain = page.getByRole('checkbox', { name: 'Heather has a grain' });
  await expect(grain).not.toBeChecked();
  // a second roll while the first change is still under way, and a colour typed as Lab
  await page.route('**/api/films/heather', async (route) => {
    await new Promise((go) => setTimeout(go, 400));
    await route.continue();
  });
  await grain.check();
  await page.getByRole('button', { name: 'Add a roll' }).click();
  const second = page.getByLabel('Width of roll 2 of Heather');
  await second.fill('1220');
  await second.press('Enter');
  await expect(second).toHaveValue('1220.0 mm');
  // one taken away by mistake comes back
  await page.getByRole('button', { name: 'Take roll 2 of Heather away' }).click();
  await expect(second).toBeHidden();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(second).toHaveValue('1220.0 mm');
  const light = page.getByLabel('L* of Heather');
  await light.fill('50');
  await light.press('Enter');
  await expect(light).toHaveValue('50.0');
  await expect(page.getByLabel('Hex of Heather')).not.toHaveValue('#8d5a9b');
  await page.getByLabel('Hex of Heather').fill('8D5A9B');
  await page.getByLabel('Hex of Heather').press('Enter');
  await expect(page.getByLabel('Hex of Heather')).toHaveValue('#8d5a9b');
  await expect(page.getByText('Saving …')).toBeHidden();
  // film that is used up meanwhile is gone from the page too
  await page.evaluate(async () => {
    const { films } = (await (await fetch('/api/shop')).json()) as {
      films: { id: string; rolls: object[] }[];
    };
    const [first, ...others] = films.find(({ id }) => id === 'heather')!.rolls;
    const body = JSON.stringify({ rolls: [{ ...first, lengthLeft: 1234 }, ...others] });
    await fetch('/api/films/heather', {
      method: 'PATCH',
      headers: { 'content-type': 'application/json' },
      body,
    });
  });
  await expect(page.getByLabel('Length left on roll 1 of Heather')).toHaveValue('1234.0 mm');
  await page.reload();
  await page.getByLabel('Search films').fill('heather');
  await open.click();
  await expect(narrowest).toHaveValue('2.20 mm');
  await expect(grain).toBeChecked();
  await expect(second).toHaveValue('1220.0 mm');
  const [table] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('link', { name: 'As a table' }).click(),
  ]);
  const text = readFileSync(await table.path(), 'utf8');
  await page.getByLabel('Search films').fill('');
  // a line a roll: four films have two, one has three, one has two offcuts
  expect(text.split('\r\n')).toHaveLength(54);
  const path = join(dir, 'films.csv');
  writeFileSync(path, `${text}dusk,Dusk,G-4999,#3b2a4a,opaque,matt,sign,610,5000,,,no,1.5,3,0.3,3,8000,\r\n`);
  await page.locator('[data-test=film-table]').setInputFiles(path);
  await expect(page.getByText('45 of 45')).toBeVisible();
  writeFileSync(path, text.replace('#2c6e7c', 'teal'));
  await page.locator('[data-test=film-table]').setInputFiles(path);
  await expect(page.getByRole('alert')).toContainText('Line 5: “teal” is no colour such as #1d3f86.');
  await expect(page.getByText('45 of 45')).toBeVisible();
});
