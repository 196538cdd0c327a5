/** Cutters as records: looked at, changed, asked over their links while they are there and while they are not, added, retired. */
import type { Page } from '@playwright/test';
import { choose, expect, test } from './shop';

const type = async (page: Page, name: string, text: string): Promise<void> => {
  const field = page.getByRole('textbox', { name, exact: true });
  await field.fill(text);
  await field.press('Enter');
};

test('a cutter is changed, and what could be no machine is told; its link is tested up and down', async ({
  page,
}) => {
  await page.goto('/machines');
  const list = page.getByRole('navigation', { name: 'Cutters' });
  await list.getByRole('link', { name: /Plover/ }).click();
  await page.waitForURL(/machines\/plover$/);
  await expect(page.getByRole('img', { name: /^Plover from above: cuts 304\.0 mm wide/ })).toBeVisible();

  await expect(page.getByText('How long cuts really take is told once three of them')).toBeVisible();
  // it answers
  await page.getByRole('button', { name: 'Test the link' }).click();
  await expect(page.getByText(/answers in [\d.]+ ms · no film is in it/)).toBeVisible();
  // it is somewhere else: nothing listens there
  await choose(page, 'Reached by', 'Network');
  const port = page
    .getByRole('spinbutton', { name: 'Port of Plover' })
    .or(page.getByRole('textbox', { name: 'Port of Plover' }));
  await port.fill('1');
  await port.press('Enter');
  await page.getByRole('button', { name: 'Test the link' }).click();
  await expect(page.getByText('the port is closed')).toBeVisible();
  await expect(page.getByText(/^Nothing listens at 127\.0\.0\.1, port 1/)).toBeVisible();
  await choose(page, 'Reached by', 'Simulator');
  await page.getByRole('button', { name: 'Test the link' }).click();
  await expect(page.getByText(/answers in [\d.]+ ms/)).toBeVisible();

  // margins are drawn as they are; they are kept
  await type(page, 'Rollers, far edge', '20');
  await expect(page.getByRole('img', { name: /cuts 292\.0 mm wide/ })).toBeVisible();
  await type(page, 'Narrowest film', '400');
  await expect(page.getByText('is wider than the widest (320.0 mm)')).toBeVisible();
  await expect(page.getByRole('textbox', { name: 'Narrowest film' })).toHaveValue('100.0 mm');
  await page.reload();
  await expect(page.getByRole('textbox', { name: 'Rollers, far edge' })).toHaveValue('20.0 mm');
  await type(page, 'Rollers, far edge', '8');
});

test('a cutter is added with what most of its kind have, and taken out of use', async ({ page }) => {
  await page.goto('/machines');
  const list = page.getByRole('navigation', { name: 'Cutters' });
  await list.getByRole('button', { name: 'Add a cutter' }).click();
  const form = page.getByRole('form', { name: 'A new cutter' });
  await form.getByRole('button', { name: 'Add it' }).click();
  await expect(form.getByRole('alert')).toHaveText('Give it a name.');
  await form.getByLabel('Name').fill('Grebe');
  await form.getByRole('button', { name: 'Add it' }).click();
  await expect(form.getByRole('alert')).toContainText('at which address');
  await form.getByLabel('Address').fill('127.0.0.1');
  await form.getByLabel('Port').fill('1');
  await choose(page, 'Kind of the new cutter', 'flatbed');
  await form.getByRole('button', { name: 'Add it' }).click();
  await page.waitForURL(/machines\/grebe$/);
  await expect(page.getByRole('textbox', { name: 'Widest film' })).toHaveValue('600.0 mm');
  await expect(list.getByRole('link', { name: /Grebe/ })).toContainText('does not answer');

  await page.getByRole('button', { name: 'Take out of use' }).click();
  await expect(list.getByRole('link', { name: /Grebe/ })).toContainText('not in use');
  await expect(page.getByText('Nothing is planned for it any more')).toBeVisible();
  await page.getByRole('button', { name: 'Take into use again' }).click();
  await expect(list.getByRole('link', { name: /Grebe/ })).not.toContainText('not in use');
});
