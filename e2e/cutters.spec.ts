/** Several machines: which asks for what, what it answers, and an order that goes to more than one. */
import type { OrderList } from '../contracts/api';
import type { Shop } from './shop';
import {
  cancelAll,
  choose,
  expect,
  given,
  loadFilm,
  pace,
  queueOrder,
  QUICK,
  saved,
  section,
  test,
} from './shop';

test('an order’s films go to two machines; each asks for its own, and one is cut there', async ({
  page,
  shop,
}) => {
  await page.goto('/cutters');
  const machine = (name: string) =>
    page.getByRole('listitem').filter({ has: page.getByRole('heading', { name }) });
  await expect(machine('Heron')).toContainText('Answers; film in it 610.0 mm × 14.00 m');
  await expect(machine('Plover')).toContainText('Answers; no film is in it');
  await expect(machine('Saltpan')).toContainText('flatbed · 900.0 × 600.0 mm · two tools');
  await expect(machine('Plover').getByRole('link', { name: /front panel/ })).toHaveAttribute(
    'href',
    shop.panels.plover,
  );
  // a roll is put in at the machine: the page follows by itself
  await loadFilm(shop, 300, { cutter: 'plover' });
  await expect(machine('Plover')).toContainText('film in it 300.0 mm × 22.00 m');

  await page.getByRole('link', { name: 'Orders' }).click();
  await page.getByText('Marsh Wren hull names').first().click();
  await expect(section(page, 'Films')).toContainText('3 films');
  await section(page, 'Cutter').click();
  await page.getByRole('combobox', { name: 'Cutter for Quince' }).click();
  await page.getByRole('option', { name: 'Heron' }).click();
  await saved(page);
  // speed is left to the machine, and taken back
  await section(page, 'Cut settings').click();
  await page.getByLabel('Speed left to the machine').check();
  await expect(page.getByText('as set at the machine')).toBeVisible();
  await page.getByRole('heading', { name: 'Cut settings' }).click();
  await page.keyboard.press('Control+z');
  await expect(page.getByText('as set at the machine')).toBeHidden();
  await saved(page);
  // gone over twice it is about twice as much to cut
  const metres = async (): Promise<number> =>
    parseFloat((await page.getByText(/m of cutting/).textContent())!);
  const once = await metres();
  await choose(page, 'Each line is cut', 'twice');
  await expect.poll(metres).toBeGreaterThan(1.8 * once);
  await choose(page, 'Each line is cut', 'once');
  await expect.poll(metres).toBe(once);
  await saved(page);
  await page.getByRole('button', { name: 'Queue 3 cuts' }).click();
  // two machines: all of them are shown
  await page.waitForURL(/cutters$/);
  await expect(machine('Curlew')).toContainText('Load Damson');
  await expect(machine('Curlew')).toContainText('1 cut waits');
  await expect(machine('Heron')).toContainText('Load Quince');
  // what is cut is drawn, also where the cut was known before its page was opened
  const drawn = page.waitForResponse((answer) => /\/api\/cuts\/\d+\/drawing$/.test(answer.url()));
  await machine('Heron')
    .getByRole('link', { name: /Load Quince/ })
    .click();
  expect((await drawn).status()).toBe(200);
  await expect(page.getByText('Turn the force to 85 g.')).toBeVisible();
  await loadFilm(shop, 610, { cutter: 'heron' });
  await page.getByRole('button', { name: 'Quince is loaded' }).click();
  await expect(page.getByText(/^Cutting line/)).toBeVisible();
  await expect(page.getByText('Nothing to do here')).toBeVisible({ timeout: 60_000 });
  await expect(page.getByText('Quince is done')).toBeVisible();
  await page.getByRole('link', { name: 'All machines' }).click();
  await expect(machine('Heron')).toContainText('Nothing to do');
});

test('when a machine asks for something it is heard, and the screen stays on; both can be switched off', async ({
  page,
  shop,
}) => {
  await page.addInitScript(() => {
    const seen = Object.assign(window, { tones: 0, lit: 0 });
    const tone = AudioContext.prototype.createOscillator;
    AudioContext.prototype.createOscillator = function (): OscillatorNode {
      seen.tones++;
      return tone.call(this);
    };
    const request = (): Promise<unknown> => {
      seen.lit++;
      const release = (): Promise<void> => Promise.resolve(void seen.lit--);
      return Promise.resolve(Object.assign(new EventTarget(), { release }));
    };
    Object.defineProperty(navigator, 'wakeLock', { value: { request } });
  });
  const seen = (): Promise<{ tones: number; lit: number }> =>
    page.evaluate(() => {
      const { tones, lit } = window as unknown as { tones: number; lit: number };
      return { tones, lit };
    });
  await page.goto('/cutters/curlew');
  await cancelAll(page);
  await expect(page.getByText('Nothing to do here')).toBeVisible();
  // what was asked for by the cuts of another test was heard
  await page.reload();
  await expect(page.getByText('Nothing to do here')).toBeVisible();
  expect(await seen()).toEqual({ tones: 0, lit: 1 });
  const { rows } = await given<OrderList>(shop, '/api/orders');
  const { id } = rows.find(({ name }) => name.startsWith('Crew shirts'))!;
  const queue = (): Promise<unknown> =>
    page.request.post(`/api/orders/${id}/queue`, { headers: { Origin: shop.url }, data: { revision: 0 } });
  await queue();
  await expect(page).toHaveTitle(/^Load Coral flock · Jam Pan/);
  expect(await seen()).toEqual({ tones: 2, lit: 1 });
  await page.getByRole('button', { name: 'Sounds are on' }).click();
  await page.getByRole('button', { name: 'The screen stays on' }).click();
  await cancelAll(page);
  await expect(page).toHaveTitle('Jam Pan');
  // and it stays so
  await page.reload();
  await expect(page.getByRole('button', { name: 'Sounds are off' })).toBeVisible();
  await queue();
  await expect(page).toHaveTitle(/^Load /);
  expect(await seen()).toEqual({ tones: 0, lit: 0 });
  await cancelAll(page);
});

/** Turns Curlew's clock on until its head is at a place of its line where it has been before. */
async function untilPassedTwice({ panels }: Shop): Promise<void> {
  const seen = new Set<string>();
  for (let k = 0; k < 20_000; k++) {
    await fetch(`${panels.curlew}/advance`, { method: 'POST', body: JSON.stringify({ seconds: 0.004 }) });
    const status = await (await fetch(`${panels.curlew}/status`)).json();
    const { x, y, down } = status as { x: number; y: number; down: boolean };
    const key = `${x.toFixed(3)} ${y.toFixed(3)}`;
    if (!down) seen.clear();
    // it stands at a place for longer than one look
    else if (seen.has(key) && [...seen].at(-1) !== key) return;
    else seen.add(key);
  }
  throw new Error('no line passed a place twice');
}

test('power lost where a ring closes: a person looks, and says whether it is cut', async ({ page, shop }) => {
  await queueOrder(page, /Class numbers/);
  await loadFilm(shop, 610);
  await pace(shop, 4);
  await page.getByRole('button', { name: 'Tar black is loaded' }).click();
  await expect(page.getByText(/^Cutting line [3-9]/)).toBeVisible();
  await pace(shop, 0);
  await untilPassedTwice(shop);
  await fetch(`${shop.panels.curlew}/switch-off`, { method: 'POST' });
  const goOn = page.getByRole('button', { name: 'Go on', exact: true });
  await expect(goOn).toBeVisible();
  await pace(shop, QUICK);
  await goOn.click();
  await expect(page.getByRole('heading', { name: /^Is line \d+ cut\?$/ })).toBeVisible();
  await expect(
    page.getByText(/came to a stand at a place that line \d+ passes more than once/),
  ).toBeVisible();
  await expect(goOn).toHaveCount(0);
  await expect(page.getByRole('button', { name: /^It is not: cut line \d+$/ })).toBeVisible();
  await page.getByRole('button', { name: 'It is cut: go on there' }).click();
  await expect(page.getByRole('heading', { name: 'Tar black is done' })).toBeVisible({ timeout: 60_000 });
  await expect(page.getByText(/Every line is cut once/)).toBeVisible();
});

test('what was cut comes once more: the same in every byte, until a recipe is another one', async ({
  page,
  shop,
}) => {
  await queueOrder(page, /Class numbers/);
  await loadFilm(shop, 610);
  await page.getByRole('button', { name: 'Tar black is loaded' }).click();
  await expect(page.getByRole('heading', { name: 'Tar black is done' })).toBeVisible({ timeout: 90_000 });
  // whose steps these are is still said
  await expect(page.getByRole('heading', { name: 'Nothing to do here' })).toBeVisible();
  await expect(page.getByRole('link', { name: 'Class numbers, sail 4127' })).toBeVisible();

  await page.goto('/orders');
  const row = page.getByRole('listitem').filter({ hasText: 'Class numbers' });
  await row.hover();
  await row.getByRole('button', { name: 'Order Class numbers, sail 4127 once more' }).click();
  await page.waitForURL(/orders\/\d+$/);
  await expect(page.getByText(/Once more\s+#\d+, cut .*: the same in every byte\./)).toBeVisible();
  const changed = await page.request.patch('/api/cutters/curlew/recipes/tar/kiss', {
    headers: { Origin: shop.url },
    data: { force: 105 },
  });
  expect(changed.status()).toBe(200);
  await page.getByText('1 thing differs').click();
  await expect(page.getByText('Tar black is cut with 105 g instead of 90 g.')).toBeVisible();
});
