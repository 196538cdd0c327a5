/** A whole job without a pointer: every section of the run card, the catalogue and the machine, by keys alone. */
import type { Locator, Page } from '@playwright/test';
import { expect, loadFilm, saved, section, test } from './shop';

/** How a control and what it stands in look, as far as focus may show there. */
const lookOf = (control: Locator): Promise<string> =>
  control.evaluate((e) =>
    // a switch or tick draws its focus on the box behind it, a list on what it stands in
    [e, e.parentElement, e.parentElement?.parentElement, e.nextElementSibling]
      .filter((element) => element instanceof Element)
      .map((element) => {
        const { outline, boxShadow, borderColor, backgroundColor } = getComputedStyle(element);
        return [outline, boxShadow, borderColor, backgroundColor].join();
      })
      .join(),
  );

/** Puts the focus somewhere as Tab does, without the stops on the way, and sees that it shows (WCAG 2.2, 2.4.7). */
async function to(control: Locator): Promise<void> {
  if (await control.evaluate((e) => e === document.activeElement)) return;
  const before = await lookOf(control);
  await control.focus();
  await expect(control).toBeFocused();
  await expect.poll(() => lookOf(control)).not.toBe(before);
}

/** Presses a control as a person at the keyboard does. */
async function press(page: Page, control: Locator, key = 'Enter'): Promise<void> {
  await to(control);
  await page.keyboard.press(key);
}

/** Types into a field what is to stand there, and leaves it. */
async function type(page: Page, field: Locator, text: string): Promise<void> {
  await to(field);
  await page.keyboard.press('Control+a');
  await page.keyboard.type(text);
  await page.keyboard.press('Tab');
}

/** Picks an option of a list by the letters it begins with. */
async function pick(page: Page, label: string, option: string): Promise<void> {
  await press(page, page.getByRole('combobox', { name: label, exact: true }), 'ArrowDown');
  const wanted = page.getByRole('option', { name: option });
  await expect(wanted).toBeVisible();
  for (let k = 0; k < 30; k++) {
    const now = page.locator('[role=option][data-p-focused=true]');
    if ((await now.count()) > 0 && (await now.innerText()).includes(option)) break;
    await page.keyboard.press(k < 15 ? 'ArrowDown' : 'ArrowUp');
  }
  await page.keyboard.press('Enter');
  await expect(wanted).toHaveCount(0);
}

async function open(page: Page, name: RegExp): Promise<void> {
  await page.goto('/orders');
  await press(page, page.getByRole('link', { name }).first());
  await expect(section(page, 'Films')).toContainText(/\d films?/);
}

test('the list of orders: searched, and one opened', async ({ page }) => {
  await page.goto('/orders');
  await to(page.getByLabel('Search orders'));
  await page.keyboard.type('wren');
  await expect(page.getByRole('link', { name: /Marsh Wren/ })).toBeVisible();
  await expect(page.getByRole('link', { name: /Crew shirt/ })).toHaveCount(0);
  await press(page, page.getByRole('link', { name: /Marsh Wren/ }).first());
  await expect(page).toHaveURL(/orders\/\d+/);
});

test('Artwork and Films', async ({ page }) => {
  await open(page, /Marsh Wren/);
  await press(page, section(page, 'Artwork'));
  const width = page.getByLabel('Finished width', { exact: true });
  await type(page, width, '20 in');
  await expect(width).toHaveValue('508.0 mm');
  await saved(page);
  await page.locator('body').click({ position: { x: 700, y: 20 } });
  await page.keyboard.press('Control+z');
  await expect(width).not.toHaveValue('508.0 mm');

  await press(page, section(page, 'Films'));
  const first = page.locator('.strip .label strong').first();
  const before = await first.innerText();
  await press(page, page.getByRole('button', { name: /later|down/i }).first());
  await expect(first).not.toHaveText(before);
  await press(page, page.getByRole('checkbox').first(), 'Space');
  await expect(section(page, 'Films')).toContainText('2 films');
  await saved(page);
});

test('Layout', async ({ page }) => {
  await open(page, /Marsh Wren/);
  await press(page, section(page, 'Layout'));
  await type(page, page.getByLabel('Copies', { exact: true }), '3');
  await expect(section(page, 'Layout')).toContainText('3 copies');
  await type(page, page.getByLabel('Between copies'), '1/2 in');
  await expect(page.getByLabel('Between copies')).toHaveValue('12.7 mm');
  await pick(page, 'Mirror', 'not mirrored');
  await expect(page.getByRole('combobox', { name: 'Mirror' })).toContainText('not mirrored');
  await pick(page, 'On the film', 'as drawn');
  await expect(page.getByRole('combobox', { name: 'On the film' })).toContainText('as drawn');
  await pick(page, 'Weed border', 'following the art');
  await expect(page.getByRole('combobox', { name: 'Weed border' })).toContainText('following the art');
  await pick(page, 'Weed lines', 'at a step');
  await type(page, page.getByLabel('Weed line step'), '8 cm');
  await expect(page.getByLabel('Weed line step')).toHaveValue('80.0 mm');
  await saved(page);
});

test('Cut settings and Cutter, and the cut itself', async ({ page, shop }) => {
  await open(page, /Marsh Wren/);
  await press(page, section(page, 'Cut settings'));
  const force = page.locator('.nudge b').first();
  const usual = await force.innerText();
  await press(page, page.getByRole('button', { name: 'More force' }), 'Space');
  await expect(force).toHaveText(`${parseFloat(usual) + 5} g`);
  await expect(page.getByRole('button', { name: "Shop's recipe" })).toBeEnabled();
  await press(page, page.getByRole('button', { name: "Shop's recipe" }), 'Space');
  await expect(force).toHaveText(usual);
  await type(page, page.getByLabel('Overcut'), '1.5');
  await expect(page.getByLabel('Overcut')).toHaveValue('1.50 mm');

  await press(page, section(page, 'Cutter'));
  const curlew = page.getByRole('radio', { name: /Curlew/ });
  const heron = page.getByRole('radio', { name: /Heron/ });
  await press(page, heron, 'Space');
  await expect(heron).toBeChecked();
  await expect(section(page, 'Cutter')).toContainText('Heron');
  await press(page, curlew, 'Space');
  await expect(section(page, 'Cutter')).toContainText('Curlew');
  await saved(page);

  await page.keyboard.press('Control+Enter');
  await page.waitForURL(/cutters\/curlew/);
  const loaded = page.getByRole('button', { name: /is loaded$/ });
  await expect(loaded).toBeVisible();
  await loadFilm(shop, 610);
  await press(page, loaded);
  await press(page, page.getByRole('button', { name: 'Stop', exact: true }));
  await expect(page.getByRole('button', { name: 'Go on' })).toBeVisible();
  await press(page, page.getByRole('button', { name: 'Leave this film out' }));
  await expect(page.getByRole('button', { name: 'Go on' })).toHaveCount(0);
});

test('Materials: a film is found, opened and changed', async ({ page }) => {
  await page.goto('/materials');
  await to(page.getByLabel('Search films'));
  await page.keyboard.type('damson');
  await expect(page.getByRole('textbox', { name: /^Name of/ })).toHaveCount(1);
  await press(page, page.getByRole('button', { name: 'Rolls, colour and limits of Damson' }));
  const narrowest = page.getByLabel('Narrowest stem of Damson');
  await type(page, narrowest, '1.4');
  await expect(narrowest).toHaveValue('1.40 mm');
  await type(page, page.getByLabel('Name of Damson', { exact: true }), 'Damson, dark');
  const renamed = page.getByLabel('Name of Damson, dark', { exact: true });
  await expect(renamed).toHaveValue('Damson, dark');
  await page.reload();
  await expect(renamed).toHaveValue('Damson, dark');
});
