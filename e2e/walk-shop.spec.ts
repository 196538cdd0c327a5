/** Pages of the shop itself, and At the cutter. */
import { expect, loggedIn, logIn, test } from './shop';
import { barriers, faults, TABLETS, walk } from './walk';

walk('films and cutters', async (page, look) => {
  await page.goto('/materials');
  await page.getByRole('button', { name: 'Rolls, colour and limits of Damson' }).click();
  await look('materials');
  await page.goto('/materials/to-order');
  await page.getByRole('columnheader', { name: 'Leaves' }).waitFor();
  await look('to order');
  await page.goto('/machines');
  await page.getByRole('button', { name: 'Test the link' }).click();
  await page.getByText(/answers in/).waitFor();
  await page.getByRole('button', { name: 'Add a cutter' }).click();
  await look('cutters as records');
  await page.goto('/materials/damson/recipes');
  await page.getByRole('button', { name: 'Cut a grid' }).waitFor();
  await look('recipes');
  await page.goto('/cutters');
  await expect(page.getByText('Answers').first()).toBeVisible();
  await look('cutters');
});

walk('the floor', async (page, look) => {
  await page.goto('/orders');
  await page.getByRole('link', { name: /Crew shirts/ }).click();
  const go = page.getByRole('link', { name: /go to the floor/ });
  await page.getByRole('button', { name: 'Hold', exact: true }).or(go).click();
  await page.waitForURL(/floor$/);
  await page
    .getByRole('region', { name: /^Shelf/ })
    .getByRole('button')
    .first()
    .click();
  await page.getByRole('button', { name: 'Fewest swaps' }).click();
  await page.getByText('No lane can do').waitFor();
  await look('floor');
});

walk('people', async (page, look) => {
  const name = 'Campion';
  await page.goto('/people');
  await page.getByRole('textbox', { name: 'Name', exact: true }).fill(name);
  await page.getByRole('button', { name: 'Add them' }).click();
  await page.getByText(`${name} logs in with`).waitFor();
  await page.getByRole('button', { name: `Remove ${name}` }).click();
  await page.getByRole('button', { name: `Bring back ${name}` }).waitFor();
  await look('people');
  await page.getByRole('banner').getByRole('button', { name: /·/ }).click();
  await page.getByRole('menuitem', { name: 'Your password' }).click();
  await look('own password');
});

walk('usage', async (page, look) => {
  await page.goto('/usage');
  await page.getByRole('heading', { name: 'Where the hours went' }).waitFor();
  await look('usage');
  await page.getByRole('button', { name: 'As tables' }).click();
  await look('usage as tables');
});

walk('the log-in', async (page, look) => {
  await page.context().clearCookies();
  await page.goto('/');
  await page.getByText('Who is there?').waitFor();
  await look('log-in');
});

walk('calibrations', async (page, look) => {
  for (const quantity of ['sensor', 'contrast', 'length', 'blade', 'overcut']) {
    await page.goto(`/machines/curlew/${quantity}`);
    await page.getByRole('heading', { name: 'Tried before' }).waitFor();
    await look(quantity);
  }
  // a run that was judged, and its place among those before
  await page.goto('/machines/curlew/overcut');
  await page.getByRole('button', { name: 'Cut the row' }).click();
  await page.getByRole('button', { name: /^Shape 5\b/ }).click();
  await page.getByText('sure to within').waitFor();
  await look('overcut, judged');
  await page.getByRole('button', { name: 'Drop' }).click();
});

for (const size of TABLETS) {
  test(`at the cutter at ${size.width} × ${size.height}`, async ({ page, shop }) => {
    await page.setViewportSize(size);
    await page.goto('/cutters');
    await expect(page.getByText('Answers').first()).toBeVisible();
    const both = async (): Promise<string[]> => [...(await faults(page)), ...(await barriers(page))];
    const wrong = { list: await both(), idle: [] as string[], asks: [] as string[] };
    await page.goto('/cutters/plover');
    await expect(page.getByText('Answers; no film is in it')).toBeVisible();
    wrong.idle = await both();
    await page.goto('/orders');
    // not the one that lies on the shelf since the walk over the floor
    await page.getByRole('link', { name: /Class numbers/ }).click();
    const queue = page.getByRole('button', { name: /^Queue [1-9]/ });
    const waiting = page.getByRole('link', { name: 'In the queue: go to the cutter' });
    await queue.or(waiting).click();
    await expect(page.getByRole('heading', { name: /^Load / })).toBeVisible();
    await page.waitForTimeout(400);
    wrong.asks = await both();
    await page.getByRole('button', { name: 'Dark colours' }).click();
    const night = await both();
    await page.getByRole('button', { name: 'Light colours' }).click();
    // as a tablet it asks who is there
    const tablet = page.getByRole('banner').getByRole('button', { name: /·/ });
    await page.context().addCookies(loggedIn(shop, await logIn(shop.url, 'lead')).cookies);
    await page.reload();
    await page.getByRole('button', { name: /^Make this the tablet of/ }).click();
    await tablet.click();
    await page.getByRole('menuitem', { name: 'Somebody else' }).click();
    await page.getByRole('radio', { name: /Thrift/ }).click();
    await page.waitForTimeout(300);
    const pad = await both();
    await page.getByRole('button', { name: /close/i }).click();
    await tablet.click();
    await page.getByRole('menuitem', { name: /^No longer/ }).click();
    await page.getByText('Who is there?').waitFor();
    const nothing = { list: [], idle: [], asks: [], night: [], pad: [] };
    expect({ ...wrong, night, pad }).toEqual(nothing);
  });
}
