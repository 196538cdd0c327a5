/** Logging in, what each role may do, the lead's page of people, and a machine's tablet. */
import type { Page } from '@playwright/test';
import type { People } from '../contracts/people';
import { expect, given, loadFilm, loggedIn, logIn, pace, pageOf, QUICK, saved, section, test } from './shop';

async function logInOn(page: Page, name: string, password: string): Promise<void> {
  await page.getByRole('textbox', { name: 'Name', exact: true }).fill(name);
  await page.getByLabel('Password', { exact: true }).fill(password);
  await page.getByRole('button', { name: 'Log in', exact: true }).click();
}
const account = (page: Page) => page.getByRole('banner').getByRole('button', { name: /·/ });

test('a stranger sees nothing but the log-in; the demo’s people are there to try; logging out shows it again', async ({
  page,
  shop,
}) => {
  const stranger = await pageOf(page, shop, undefined);
  const asked: string[] = [];
  stranger.on('response', (answer) => {
    const { pathname } = new URL(answer.url());
    if (pathname.startsWith('/api/')) asked.push(`${pathname} ${answer.status()}`);
  });
  await stranger.goto('/orders');
  await expect(stranger.getByRole('heading', { name: 'Who is there?' })).toBeVisible();
  await expect(stranger.getByRole('navigation')).toHaveCount(0);
  expect([...new Set(asked)]).toEqual(['/api/session 200']);
  await logInOn(stranger, 'thrift', 'not this');
  await expect(stranger.getByText('That name and that password do not go together.')).toBeVisible();
  await stranger.getByLabel('Password', { exact: true }).fill('thrift at the till');
  await stranger.getByLabel('Password', { exact: true }).press('Enter');
  await expect(stranger.getByRole('link', { name: /Slipway sign/ })).toBeVisible();
  await account(stranger).click();
  await stranger.getByRole('menuitem', { name: 'Log out' }).click();
  await expect(stranger.getByRole('heading', { name: 'Who is there?' })).toBeVisible();
  await stranger.getByRole('button', { name: 'Log in as Marram' }).click();
  await expect(account(stranger)).toHaveText(/Marram · prep/);
});

test('prep sees everything, changes orders, and neither recipes, machines nor films; the operator runs machines', async ({
  page,
  shop,
}) => {
  const prep = await pageOf(page, shop, 'prep');
  await prep.goto('/materials');
  await expect(prep.getByText('Only a lead changes films and what lies on the shelf.')).toBeVisible();
  await expect(prep.getByLabel('Name of Damson')).toBeDisabled();
  await expect(prep.getByLabel('Price per metre of Damson')).toBeDisabled();
  await expect(prep.getByRole('combobox', { name: 'Finish of Damson' })).toHaveAttribute('aria-disabled', 'true'); // prettier-ignore
  await prep.getByRole('button', { name: 'Rolls, colour and limits of Damson' }).click();
  await expect(prep.getByRole('button', { name: 'Add a roll' })).toBeDisabled();
  await prep.goto('/materials/damson/recipes');
  await expect(prep.getByText('Only a lead changes recipes.')).toBeVisible();
  await expect(prep.getByRole('button', { name: 'Cut a grid' })).toBeDisabled();
  await prep.goto('/machines/curlew');
  await expect(prep.getByLabel('Widest film')).toBeDisabled();
  await expect(prep.getByRole('button', { name: 'Add a cutter' })).toHaveCount(0);
  await prep.goto('/people');
  await expect(prep.getByText('They could not be looked up')).toBeVisible();

  await prep.goto('/orders');
  await prep.getByRole('link', { name: /Marsh Wren/ }).click();
  await section(prep, 'Layout').click();
  await prep.getByLabel('Copies', { exact: true }).fill('1');
  await prep.getByLabel('Copies', { exact: true }).press('Enter');
  await saved(prep);
  const order = prep.url();
  // whoever looks at it hears who changed it
  await page.goto(order);
  await expect(page.getByText(/^Saved \d\d:\d\d by Marram$/)).toBeVisible();
  await prep.getByRole('button', { name: /^Queue [1-9]/ }).click();
  await expect(prep.getByRole('heading', { name: /^Load / })).toBeVisible();
  await expect(prep.getByText('Machines are run by operators and leads.')).toBeVisible();
  await expect(prep.getByRole('button', { name: /is loaded$/ })).toHaveCount(0);

  const operator = await pageOf(page, shop, 'operator');
  await loadFilm(shop, 610);
  await pace(shop, 3);
  await operator.goto('/cutters/curlew');
  await operator.getByRole('button', { name: /is loaded$/ }).click();
  await expect(operator.getByText(/^Cutting line/)).toBeVisible();
  // anybody may stop a machine
  await prep.getByRole('button', { name: 'Stop' }).click();
  await operator.getByRole('button', { name: 'Go on' }).click();
  await pace(shop, QUICK);
  await expect(operator.getByText(/ is done$/)).toBeVisible({ timeout: 90_000 });
  const acts = operator.getByRole('list', { name: 'Who did what' });
  await expect(acts).toContainText(/queued by Marram.*loaded by Samphire.*stopped by Marram.*gone on with by Samphire/); // prettier-ignore
  // and the lead sees it in the order, with the cut
  await page.reload();
  await page.getByRole('button', { name: 'As cut' }).click();
  await expect(page.getByRole('list', { name: 'Who did what' })).toContainText('loaded by Samphire');
  // the other cuts of the order are taken back
  for (;;) {
    const cuts = await given<{ id: number }[]>(shop, '/api/cuts');
    if (cuts.length === 0) break;
    await operator.getByRole('button', { name: /^Leave this film out/ }).click();
    await expect
      .poll(async () => (await given<object[]>(shop, '/api/cuts')).length)
      .toBeLessThan(cuts.length);
  }
});

test('the lead adds somebody, who chooses a password; a role counts at once; what was not saved outlives a lost log-in', async ({
  page,
  shop,
}) => {
  await page.goto('/orders');
  await account(page).click();
  await page.getByRole('menuitem', { name: 'People' }).click();
  await page.getByRole('textbox', { name: 'Name', exact: true }).fill('Campion');
  await page.getByRole('button', { name: 'Add them' }).click();
  const made = page.getByRole('status').filter({ hasText: 'Campion logs in with' });
  const password = await made.locator('b').innerText();

  const theirs = await pageOf(page, shop, undefined);
  await theirs.goto('/materials');
  await logInOn(theirs, 'Campion', password);
  const dialog = theirs.getByRole('dialog', { name: 'Your password and PIN' });
  await expect(dialog).toContainText('A lead chose your password.');
  await dialog.getByLabel('Password now').fill(password);
  await dialog.getByLabel('New password').fill('short');
  await dialog.getByRole('button', { name: 'Keep' }).click();
  await expect(dialog.getByRole('alert')).toContainText('at least 10 letters');
  await dialog.getByLabel('New password').fill('red campion flowers');
  await dialog.getByRole('button', { name: 'Keep' }).click();
  await expect(dialog).toBeHidden();
  await expect(theirs.getByLabel('Name of Damson')).toBeDisabled();
  await page.getByRole('combobox', { name: 'Role of Campion' }).click();
  await page.getByRole('option', { name: 'lead' }).click();
  await expect(theirs.getByLabel('Name of Damson')).toBeEnabled();
  await expect(account(theirs)).toHaveText(/Campion · lead/);

  // they change an order while their line is cut, and their log-in ends meanwhile
  await theirs.goto('/orders');
  await theirs.getByRole('link', { name: /Slipway sign/ }).click();
  await section(theirs, 'Layout').click();
  await expect(theirs.getByLabel('Between copies')).toBeVisible();
  await theirs.context().setOffline(true);
  await theirs.getByLabel('Between copies').fill('7');
  await theirs.getByLabel('Between copies').press('Enter');
  await page.getByRole('button', { name: 'New password for Campion' }).click();
  const again = page.getByRole('status').filter({ hasText: 'Campion logs in with' }).locator('b');
  await expect(again).not.toHaveText(password);
  const next = await again.innerText();
  await theirs.context().setOffline(false);
  await expect(theirs.getByRole('heading', { name: 'Log in again' })).toBeVisible();
  await logInOn(theirs, 'Campion', next);
  // nothing is saved under a password that somebody else knows
  await dialog.getByLabel('Password now').fill(next);
  await dialog.getByLabel('New password').fill('white campion flowers');
  await dialog.getByRole('button', { name: 'Keep' }).click();
  await saved(theirs);
  await expect(theirs.getByLabel('Between copies')).toHaveValue('7.0 mm');
  const order = Number(theirs.url().split('/').at(-1));
  const kept = await given<{ choices: { layout: { spacing: number } }; savedBy: string }>(shop, `/api/orders/${order}`); // prettier-ignore
  expect([kept.choices.layout.spacing, kept.savedBy]).toEqual([7, 'Campion']);

  await page.getByRole('button', { name: 'Remove Campion' }).click();
  await expect(theirs.getByRole('heading', { name: 'Log in again' })).toBeVisible();
  await expect(page.getByRole('button', { name: 'Bring back Campion' })).toBeVisible();
  const { people } = await given<People>(shop, '/api/people');
  expect(people.find(({ name }) => name === 'Campion')).toMatchObject({ removed: true });
});

test('a machine’s tablet asks by touch who is there before anything is done that matters', async ({
  page,
  shop,
}) => {
  const context = await page
    .context()
    .browser()!
    .newContext({
      storageState: loggedIn(shop, await logIn(shop.url, 'operator')),
      hasTouch: true,
      viewport: { width: 820, height: 1180 },
    });
  const tablet = await context.newPage();
  await tablet.goto('/cutters/curlew');
  await tablet.getByRole('button', { name: 'Make this the tablet of Curlew' }).tap();
  await expect(account(tablet)).toHaveText(/Curlew · Samphire/);
  await account(tablet).tap();
  await tablet.getByRole('menuitem', { name: 'Go away from the machine' }).tap();
  await expect(account(tablet)).toHaveText(/Curlew · nobody yet/);

  await page.goto('/orders');
  await page.getByRole('link', { name: /Marsh Wren/ }).click();
  await section(page, 'Layout').click();
  await page.getByLabel('Copies', { exact: true }).fill('9');
  await page.getByLabel('Copies', { exact: true }).press('Enter');
  await saved(page);
  await page.getByRole('button', { name: /^Queue [1-9]/ }).click();
  await loadFilm(shop, 610);
  // at its own pace the cut is not through before it is stopped, however long the taps take
  await pace(shop, 1);
  await tablet.getByRole('button', { name: /is loaded$/ }).tap();
  const pad = tablet.getByRole('dialog', { name: 'Who is at the machine?' });
  await pad.getByRole('radio', { name: /Samphire/ }).tap();
  const press = async (pin: string): Promise<void> => {
    for (const digit of pin) await pad.getByRole('button', { name: digit, exact: true }).tap();
    await pad.getByRole('button', { name: 'It is me' }).tap();
  };
  await press('1234');
  await expect(pad).toContainText('That is not the PIN of this person.');
  await press('3052');
  await expect(pad).toBeHidden();
  // what was pressed is done, without another press
  await expect(tablet.getByText(/^Cutting line/)).toBeVisible();
  await account(tablet).tap();
  await tablet.getByRole('menuitem', { name: 'Go away from the machine' }).tap();
  // stopping asks for nobody's name
  await tablet.getByRole('button', { name: 'Stop' }).tap();
  await expect(tablet.getByRole('button', { name: 'Go on' })).toBeVisible();
  // never mind: nothing is done
  await tablet.getByRole('button', { name: 'Go on' }).tap();
  await pad.getByRole('button', { name: /close/i }).tap();
  await expect(tablet.getByText('Say by your PIN that it is you.')).toBeVisible();
  await expect(tablet.getByRole('button', { name: 'Go on' })).toBeVisible();
  await pace(shop, QUICK);
});
