/** A trial grid is cut and judged, and its recipe used in the next cut; what a recipe was is gone back to. */
import { readFileSync } from 'node:fs';
import type { Page } from '@playwright/test';
import type { ShopNow } from '../contracts/shop';
import type { Shop } from './shop';
import { expect, given, saved, section, test } from './shop';

const post = (url: string, body?: unknown): Promise<Response> =>
  fetch(url, { method: 'POST', body: body === undefined ? undefined : JSON.stringify(body) });
const recipe = async (shop: Shop, key: string) => (await given<ShopNow>(shop, '/api/shop')).recipes[key];
const cells = (page: Page) => page.getByRole('group', { name: 'Cells' });

test('a grid is cut and judged cell by cell; its force is in the HP-GL of the next cut', async ({
  page,
  shop,
}) => {
  await post(`${shop.panels.curlew}/load`, { name: 'Damson', width: 610, length: 20_000, toughness: 78 });
  await page.goto('/materials');
  await page.getByRole('button', { name: 'Rolls, colour and limits of Damson' }).click();
  await page.getByRole('link', { name: 'Recipes' }).click();
  await page.waitForURL(/materials\/damson\/recipes$/);
  await expect(page.getByText(/cells fit on what is in Curlew/)).toBeVisible();
  await page.getByRole('button', { name: 'Cut a grid' }).click();
  await expect(page.getByRole('status').filter({ hasText: 'Curlew is at' })).toBeVisible();
  await expect(page.getByRole('radiogroup', { name: 'What a tapped cell is' })).toBeVisible({
    timeout: 90_000,
  });
  await expect(page.getByRole('button', { name: 'Use it' })).toBeDisabled();

  // what is seen is what the machine's own record says
  const record = (await (await fetch(`${shop.panels.curlew}/record`)).json()) as {
    lines: { depth: string; points: number[] }[];
  };
  expect(new Set(record.lines.map(({ depth }) => depth))).toContain('not-through');
  const looks = [
    ['not through', (force: number) => force < 72],
    ['clean', (force: number) => force >= 72],
  ] as const;
  const names = await cells(page)
    .getByRole('button')
    .evaluateAll((all) => all.map((one) => one.getAttribute('aria-label')!));
  expect(names).toHaveLength(35);
  for (const [brush, isSo] of looks) {
    await page.getByRole('radio', { name: brush }).click();
    for (const name of names.filter((one) => isSo(Number(one.split(' ')[0]))))
      await cells(page).getByRole('button', { name, exact: true }).click();
  }
  await expect(page.getByText(/Cuts cleanly from (6[4-9]|7[0-9]) g/)).toBeVisible();
  const use = page.getByRole('button', { name: /^Use \d+ g at 30/ });
  // what is shown is what is kept: while taps are under way neither can be
  await expect(use).toBeEnabled();
  const force = Number(/\d+/.exec((await use.textContent())!)![0]);
  await use.click();
  await expect.poll(async () => (await recipe(shop, 'curlew/damson'))?.force).toBe(force);
  await expect(page.getByRole('button', { name: /^Curlew kiss/ })).toContainText(`${force} g · 30 cm/s`);

  // an order on that film is cut so
  await page.goto('/orders');
  await page
    .getByRole('link', { name: /Marsh Wren/ })
    .first()
    .click();
  await page.waitForURL(/orders\/\d+$/);
  await expect(section(page, 'Films')).toContainText('3 films');
  await section(page, 'Cut settings').click();
  await page.getByRole('group', { name: 'Film' }).getByRole('button', { name: 'Damson' }).click();
  const download = page.waitForEvent('download');
  await page.getByRole('link', { name: 'HP-GL' }).first().click();
  expect(readFileSync(await (await download).path(), 'latin1')).toMatch(
    new RegExp(`^IN;PA;SP1;VS30;FS${force};`),
  );

  // what the order changes is its own, and is offered to the recipe
  await page.getByRole('button', { name: 'More force' }).click();
  await saved(page);
  await page.getByRole('button', { name: 'Into the recipe' }).click();
  await expect.poll(async () => (await recipe(shop, 'curlew/damson')).force).toBe(force + 5);
  await expect(page.getByRole('button', { name: 'Into the recipe' })).toBeHidden();
});

test('a recipe is changed within what the machine can do, left to the machine, and gone back to', async ({
  page,
  shop,
}) => {
  await page.goto('/materials/tar/recipes');
  const editor = page.getByRole('region', { name: 'Recipe of Curlew, kiss' });
  const force = editor.getByRole('textbox', { name: 'Force, g' });
  await expect(force).toHaveValue('90');
  await force.fill('105');
  await force.press('Enter');
  await expect.poll(async () => (await recipe(shop, 'curlew/tar')).force).toBe(105);
  // more than it has: goes back to what it was
  await force.fill('2000');
  await force.press('Enter');
  await expect(force).toHaveValue('105');
  await editor.getByRole('checkbox', { name: 'Leave force to the machine' }).click();
  await expect.poll(async () => (await recipe(shop, 'curlew/tar')).force).toBeNull();
  await expect(editor.getByText('as the machine is set')).toBeVisible();
  await editor.getByText('What it was before').click();
  await expect(editor.getByRole('listitem').first()).toContainText(/by hand, Thrift · /);
  await editor.getByRole('button', { name: 'Go back to 90 g, 40 cm/s' }).click();
  await expect(force).toHaveValue('90');

  // slower in tight curves: said in the bytes of a cut, on the way
  await editor.getByRole('textbox', { name: 'Slower in curves under' }).fill('30');
  await editor.getByRole('textbox', { name: 'Slower in curves under' }).press('Enter');
  await editor.getByRole('textbox', { name: 'Corners turn more than, degrees' }).fill('25');
  await editor.getByRole('textbox', { name: 'Corners turn more than, degrees' }).press('Enter');
  await expect
    .poll(async () => await recipe(shop, 'curlew/tar'))
    .toMatchObject({ slowRadius: 30, cornerAngle: 25 });
  const { rows } = await (await page.request.get(`${shop.url}/api/orders`)).json();
  const sails = rows.find(({ name }: { name: string }) => name.startsWith('Class numbers'));
  const cut = await (await page.request.get(`${shop.url}/api/orders/${sails.id}/strips/tar.plt`)).text();
  expect(cut).toMatch(/PU[\d,]+;VS\d+;PD[^U]*VS\d+;PD/);

  // perforated lines have dashes of their own
  await page.getByRole('combobox', { name: 'Another kind of line on Curlew' }).click();
  await page.getByRole('option', { name: 'perforated' }).click();
  const perforated = page.getByRole('region', { name: 'Recipe of Curlew, perforated' });
  await perforated.getByRole('textbox', { name: 'Dashes' }).fill('2.5');
  await perforated.getByRole('textbox', { name: 'Dashes' }).press('Enter');
  await expect.poll(async () => (await recipe(shop, 'curlew/tar/perforated'))?.dashes).toEqual([2.5, 0.4]);
  await perforated.getByRole('button', { name: 'Cut it as all films' }).click();
  await expect.poll(async () => await recipe(shop, 'curlew/tar/perforated')).toBeUndefined();
});

test('force as a machine’s own panel counts it, as many steps as its record says', async ({ page, shop }) => {
  await page.goto('/materials/shallow/recipes');
  await page.getByRole('button', { name: /^Plover kiss/ }).click();
  const editor = page.getByRole('region', { name: 'Recipe of Plover, kiss' });
  const step = editor.getByRole('textbox', { name: 'Force, step on the machine’s panel' });
  await expect(step).toHaveValue('15');
  await step.fill('16');
  await step.press('Enter');
  await expect.poll(async () => (await recipe(shop, 'plover/shallow'))?.force).toBe(80);
  await expect(editor.getByRole('textbox', { name: 'Force, g' })).toHaveValue('80');
  // counted otherwise: the same force is another step
  await page.goto('/machines/plover');
  const counts = page.getByRole('textbox', { name: 'Force, steps of its own' });
  await counts.fill('83');
  await counts.press('Enter');
  await expect
    .poll(async () => {
      const { cutters } = await given<ShopNow>(shop, '/api/shop');
      return cutters.find(({ id }) => id === 'plover')!.force.steps;
    })
    .toBe(83);
  await page.goto('/materials/shallow/recipes');
  await page.getByRole('button', { name: /^Plover kiss/ }).click();
  await expect(step).toHaveValue('31');
  // two and a half g a step, in whole g
  await step.fill('32');
  await step.press('Enter');
  await expect.poll(async () => (await recipe(shop, 'plover/shallow')).force).toBe(83);
  await expect(step).toHaveValue('32');
});

test('perforated lines are tried with dashes and gaps, and those that bear most forces are kept', async ({
  page,
  shop,
}) => {
  await post(`${shop.panels.curlew}/load`, { name: 'Quince', width: 610, length: 5000, toughness: 60 });
  await page.goto('/materials/quince/recipes');
  await page.getByRole('combobox', { name: 'Another kind of line on Curlew' }).click();
  await page.getByRole('option', { name: 'perforated' }).click();
  const grid = page.getByRole('region', { name: 'Trial grid' });
  await grid.getByRole('textbox', { name: 'Columns' }).fill('3');
  await grid.getByRole('textbox', { name: 'Columns' }).press('Enter');
  await grid.getByRole('button', { name: 'Cut a grid' }).click();
  const names = cells(page).getByRole('button');
  await expect(names).toHaveCount(12, { timeout: 90_000 });
  // as its operator sees it tear: the longer dash with the narrower gap from less force on
  await grid.getByRole('radio', { name: 'does not tear' }).click();
  const all = await names.evaluateAll((list) => list.map((one) => one.getAttribute('aria-label')!));
  const forces = [...new Set(all.map((name) => Number(/^\d+/.exec(name)![0])))];
  for (const name of all.filter((one) => one.startsWith(`${forces[0]} g`) && !/of 4 mm/.test(one)))
    await cells(page).getByRole('button', { name, exact: true }).click();
  await grid.getByRole('radio', { name: 'tears along it' }).click();
  for (const name of all.filter((one) => !one.startsWith(`${forces[0]} g`) || /of 4 mm/.test(one)))
    await cells(page).getByRole('button', { name, exact: true }).click();
  await expect(grid.getByText(/with dashes of 4 mm and gaps of 0.5 mm\./)).toBeVisible();
  await grid.getByRole('button', { name: /^Use \d+ g with dashes of 4 mm, gaps of 0.5 mm/ }).click();
  await expect.poll(async () => (await recipe(shop, 'curlew/quince/perforated'))?.dashes).toEqual([4, 0.5]);
});

test('an order’s own dashes and slow curves stay its own until they go into the recipe', async ({
  page,
  shop,
}) => {
  await page.goto('/orders');
  await page
    .getByRole('link', { name: /Ice-cream/ })
    .first()
    .click();
  await section(page, 'Cut settings').click();
  await page.getByRole('group', { name: 'Kind of line' }).getByRole('button', { name: 'perforated' }).click();
  for (const [name, text] of [
    ['Dashes', '2'],
    ['Slower in curves under', '8'],
  ] as const) {
    await page.getByRole('textbox', { name, exact: true }).fill(text);
    await page.getByRole('textbox', { name, exact: true }).press('Enter');
  }
  await saved(page);
  expect(await recipe(shop, 'plover/print-white/perforated')).toBeUndefined();
  await page.getByRole('button', { name: 'Into the recipe' }).click();
  await expect
    .poll(async () => await recipe(shop, 'plover/print-white/perforated'))
    .toMatchObject({ dashes: [2, 0.4], slowRadius: 8 });
  await expect(page.getByRole('button', { name: 'Into the recipe' })).toBeHidden();
});

test('a machine with a knob: its grid is cut column by column, the knob turned between', async ({
  page,
  shop,
}) => {
  const heron = shop.panels.heron;
  await post(`${heron}/load`, { name: 'Tide blue', width: 610, length: 5000, toughness: 60 });
  await page.goto('/materials/tide-blue/recipes');
  await page.getByRole('button', { name: /^Heron kiss/ }).click();
  const grid = page.getByRole('region', { name: 'Trial grid' });
  await grid.getByRole('textbox', { name: 'Columns' }).fill('2');
  await grid.getByRole('textbox', { name: 'Columns' }).press('Enter');
  await grid.getByRole('textbox', { name: 'Rows' }).fill('2');
  await grid.getByRole('textbox', { name: 'Rows' }).press('Enter');
  await grid.getByRole('button', { name: 'Cut a grid' }).click();
  const depths: string[][] = [];
  for (const column of [1, 2]) {
    const asks = grid
      .getByText(/Set the knob of Heron to \d+ g/)
      .filter({ hasText: `column ${column} of 2` });
    await expect(asks).toBeVisible({ timeout: 90_000 });
    await post(`${heron}/knob`, { force: Number(/to (\d+) g/.exec((await asks.textContent())!)![1]) });
    await grid.getByRole('button', { name: `Cut column ${column}` }).click();
    await expect(asks).toBeHidden();
    if (column === 1) await expect(grid.getByText('column 2 of 2')).toBeVisible({ timeout: 90_000 });
    else await expect(cells(page).getByRole('button')).toHaveCount(4, { timeout: 90_000 });
    const record = (await (await fetch(`${heron}/record`)).json()) as { lines: { depth: string }[] };
    depths.push([...new Set(record.lines.map(({ depth }) => depth))]);
  }
  expect(depths[0]).toEqual(['not-through']);
  expect(depths[1]).not.toContain('not-through');
  await grid.getByRole('radio', { name: 'the best one' }).click();
  await cells(page).getByRole('button').last().click();
  await grid.getByRole('button', { name: /^Use \d+ g at/ }).click();
  await expect.poll(async () => (await recipe(shop, 'heron/tide-blue'))?.force).toBe(119);
});

test('a knife is worn from grid to grid until the page says change it; other recipes are raised alike', async ({
  page,
  shop,
}) => {
  await page.goto('/materials/quince/recipes');
  const knife = page.getByRole('region', { name: 'Knife in Curlew' });
  await knife.getByRole('button', { name: 'Say which knife is in' }).click();
  await knife.getByRole('button', { name: 'It is in' }).click();
  await expect(knife.getByRole('heading', { name: /^Knife \d/ })).toBeVisible();
  await expect(knife.getByText(/No trial grid was kept/)).toBeVisible();
  const before = await recipe(shop, 'curlew/chalk');
  await post(`${shop.panels.curlew}/load`, { name: 'Quince', width: 610, length: 20_000, toughness: 60 });
  // fewer cells than usual tell as much of a knife
  for (const [name, many] of [
    ['Columns', '6'],
    ['Rows', '2'],
  ] as const) {
    await page.getByRole('textbox', { name, exact: true }).fill(many);
    await page.getByRole('textbox', { name, exact: true }).press('Enter');
  }
  for (const wear of [0, 0.2, 0.5]) {
    await post(`${shop.panels.curlew}/set-up`, { holder: { kind: 'knife', bladeOffset: 0.25, wear } });
    await page.getByRole('button', { name: 'Cut a grid' }).click();
    await expect(page.getByRole('radiogroup', { name: 'What a tapped cell is' })).toBeVisible({
      timeout: 90_000,
    });
    // every other cell, as its square was cut
    const { lines } = (await (await fetch(`${shop.panels.curlew}/record`)).json()) as {
      lines: { depth: string; points: number[] }[];
    };
    const squares = lines.filter(({ points: [x, y, ...rest] }) => {
      const [endX, endY] = rest.slice(-2);
      return rest.length > 600 && Math.hypot(endX - x, endY - y) < 2;
    });
    const names = await cells(page)
      .getByRole('button')
      .evaluateAll((all) => all.map((one) => one.getAttribute('aria-label')!));
    expect(squares).toHaveLength(names.length);
    for (const [brush, depth] of [
      ['not through', 'not-through'],
      ['clean', 'clean'],
      ['into the backing', 'into-backing'],
    ] as const) {
      await page.getByRole('radio', { name: brush }).click();
      for (const [i, name] of names.entries())
        if (i % 2 === 0 && squares[i].depth === depth)
          await cells(page).getByRole('button', { name, exact: true }).click();
    }
    await page.getByRole('button', { name: /^Use \d+ g/ }).click();
    await expect(page.getByRole('button', { name: 'Cut a grid' })).toBeVisible();
  }
  await expect(knife.getByRole('alert')).toContainText('Put a new knife in.');
  await expect(knife.getByText(/^Force has crept up by \d+ g/)).toBeVisible();
  await knife.getByRole('button', { name: 'Raise the other recipes alike' }).click();
  await expect.poll(async () => (await recipe(shop, 'curlew/chalk')).force).toBeGreaterThan(before.force!);

  await knife.getByRole('button', { name: 'Another knife is put in' }).click();
  await knife.getByRole('button', { name: 'It is in' }).click();
  await expect(knife.getByText(/0\.0 m cut/)).toBeVisible();
  await expect(knife.getByText(/No trial grid was kept/)).toBeVisible();
});
