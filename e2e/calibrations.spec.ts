/** Calibrations on simulated cutters that are off by amounts set here: each is run, what was found is read back, earlier ones are gone back to. */
import type { Page } from '@playwright/test';
import type { Calibration } from '../contracts/calibrations';
import type { ShopNow } from '../contracts/shop';
import type { Shop } from './shop';
import { expect, given, pace, QUICK, test } from './shop';

const post = (url: string, body?: unknown): Promise<Response> =>
  fetch(url, { method: 'POST', body: body === undefined ? undefined : JSON.stringify(body) });
const machine = async (shop: Shop, id: string): Promise<ShopNow['cutters'][number]> =>
  (await given<ShopNow>(shop, '/api/shop')).cutters.find((one) => one.id === id)!;
const newest = async (shop: Shop, id: string): Promise<Calibration> =>
  (await given<Calibration[]>(shop, `/api/cutters/${id}/calibrations`))[0];
const keep = (page: Page) => page.getByRole('button', { name: /^Keep/ });
const tried = (page: Page) => page.getByRole('region', { name: 'Tried before' });
/** Switches to another way of finding the same. */
const goAbout = (page: Page, way: string): Promise<void> =>
  page.getByRole('button', { name: way, exact: true }).click();
const type = async (page: Page, name: string, text: string): Promise<void> => {
  const field = page.getByRole('textbox', { name, exact: true });
  await field.fill(text);
  await field.press('Enter');
};

test('pen and read: the sensor is found where it was put, kept, and an earlier place gone back to', async ({
  page,
  shop,
}) => {
  const panel = shop.panels.curlew;
  await post(`${panel}/set-up`, { sensorOffset: [11.3, -0.4], holder: { kind: 'pen' } });
  await page.goto('/machines/curlew');
  await page.getByRole('link', { name: /^Sensor never done/ }).click();
  await page.getByRole('button', { name: 'Draw and read' }).click();
  await expect(page.getByRole('status').filter({ hasText: /Curlew is at/ })).toBeVisible();
  await expect(keep(page)).toBeEnabled({ timeout: 60_000 });
  await expect(page.getByText('10.00 → 11.30 mm')).toBeVisible();
  await expect(page.getByText(/1\.30 mm to the left and 1\.20 mm to the back/)).toBeVisible();
  await keep(page).click();
  await expect(page.getByRole('link', { name: /^Sensor today/ })).toBeVisible();
  const [x, y] = (await machine(shop, 'curlew')).sensor!.offset;
  expect(Math.hypot(x - 11.3, y + 0.4)).toBeLessThan(0.02);

  // it is carried to another place, and then it is not
  await page.getByRole('button', { name: 'It was moved' }).click();
  await expect(page.getByRole('link', { name: /^Sensor today moved since/ })).toBeVisible();
  await page.getByRole('button', { name: 'Not moved after all' }).click();
  await expect(page.getByRole('link', { name: /^Sensor today$/ })).toBeVisible();

  // cut once more: nothing that is worth a change
  await page.getByRole('button', { name: 'Draw and read' }).click();
  await expect(keep(page)).toHaveText(/Keep it as it is/, { timeout: 60_000 });
  await keep(page).click();
  await expect(tried(page).getByText('in use')).toHaveCount(1);

  // somebody bumps into it; it is found again, and the place before gone back to
  await post(`${panel}/set-up`, { sensorOffset: [9.1, 0.2] });
  await page.getByRole('button', { name: 'Draw and read' }).click();
  await expect(keep(page)).toHaveText(/Keep this correction/, { timeout: 60_000 });
  await keep(page).click();
  await expect.poll(async () => (await machine(shop, 'curlew')).sensor!.offset[0]).toBeCloseTo(9.1, 1);
  await tried(page)
    .getByRole('button', { name: /^Go back to the run of/ })
    .first()
    .click();
  await expect.poll(async () => (await machine(shop, 'curlew')).sensor!.offset[0]).toBeCloseTo(11.3, 1);
  await post(`${panel}/set-up`, { sensorOffset: [10, 0.8], holder: { kind: 'knife' } });
});

test('print and cut: a person says where the cut lies, in words, with a slip that is asked about', async ({
  page,
  shop,
}) => {
  const panel = shop.panels.plover;
  await post(`${panel}/set-up`, { sensorOffset: [-8.4, 0.9] });
  await page.goto('/machines/plover/sensor');
  await goAbout(page, 'Print and cut');
  await page.getByRole('button', { name: 'Make the sheet' }).click();
  // what is under way is what is shown when somebody comes back
  await expect(page.getByRole('button', { name: 'Print it' })).toBeVisible();
  await page.reload();
  // not loaded yet: nothing is begun
  await page.getByRole('button', { name: /^It is loaded/ }).click();
  await expect(page.getByRole('alert')).toContainText('No film is in Plover');
  await page.getByRole('button', { name: 'Print it' }).click();
  const tray = async (): Promise<{ id: number; name: string }[]> =>
    (await (await fetch(`${panel}/tray`)).json()) as { id: number; name: string }[];
  await expect
    .poll(async () => (await tray()).map(({ name }) => name))
    .toContain(`Plover calibration ${(await newest(shop, 'plover')).id}`);
  await post(`${panel}/load-print`, { print: (await tray()).at(-1)!.id, turn: 0.4 });
  await page.getByRole('button', { name: /^It is loaded/ }).click();
  await expect(page.getByRole('textbox', { name: 'Cross 1' })).toBeVisible({ timeout: 60_000 });

  // what is seen on the print: how far each cut's middle lies from its cross
  const { seen } = await newest(shop, 'plover');
  expect(seen!.places).toHaveLength(5);
  // the record says −8 and 0.6: on the strip the cut lies 0.4 to the left and 0.3 to the front
  for (const [i, off] of [
    '0.4 left, 0.3 front',
    '0.45 left, 0.3 front',
    '4 left, 0.3 front',
    '0.4 left, 0.25 front',
  ].entries())
    await type(page, `Cross ${i + 1}`, off);
  await expect(page.getByRole('alert')).toContainText('Number 3 lies 3.60 mm off the others');
  await expect(keep(page)).toBeDisabled();
  await page.getByRole('button', { name: 'Leave it out' }).click();
  await expect(keep(page)).toBeEnabled();
  await type(page, 'Cross 3', '0.35 left, 0.3 front');
  // the last one by keys: eight steps to the left, six to the front
  const last = page.getByRole('button', { name: /^Cut 5:/ });
  await last.focus();
  for (let k = 0; k < 8; k++) await page.keyboard.press('ArrowLeft');
  for (let k = 0; k < 6; k++) await page.keyboard.press('ArrowDown');
  await expect(page.getByRole('textbox', { name: 'Cross 5' })).toHaveValue('0.40 left, 0.30 front');
  await expect(page.getByText(/The cut lay 0\.40 mm to the left and 0\.29 mm to the front/)).toBeVisible();
  await keep(page).click();
  await expect.poll(async () => (await machine(shop, 'plover')).sensor!.offset[0]).toBeCloseTo(-8.4, 1);
  expect((await machine(shop, 'plover')).sensor!.offset[1]).toBeCloseTo(0.9, 1);
  await page.reload();
  await expect(tried(page).getByText('in use')).toBeVisible();
  await post(`${panel}/set-up`, { sensorOffset: [-8, 0.6] });
  await post(`${panel}/unload`);
});

test('contrast: a tinted stock is looked at, and marks on it are told by what it really shows', async ({
  page,
  shop,
}) => {
  const panel = shop.panels.plover;
  const tray = async (): Promise<{ id: number; name: string }[]> =>
    (await (await fetch(`${panel}/tray`)).json()) as { id: number; name: string }[];
  await page.goto('/machines/plover/contrast');
  await page.getByRole('button', { name: 'Make the sheet' }).click();
  await page.getByRole('button', { name: 'Print it' }).click();
  const { id, setup } = await newest(shop, 'plover');
  await expect.poll(async () => (await tray()).map(({ name }) => name)).toContain(`Plover calibration ${id}`);
  // so rough that no mark stands out: that is said, and tried again with another sheet
  const print = (await tray()).at(-1)!.id;
  await post(`${panel}/load-print`, { print, ground: 0.5, grain: 0.3 });
  await page.getByRole('button', { name: /^It is loaded/ }).click();
  await expect(page.getByRole('alert')).toContainText('was not found', { timeout: 60_000 });
  await post(`${panel}/load-print`, { print, ground: 0.22, turn: 0.3 });
  await page.getByRole('button', { name: /^It is loaded/ }).click();
  await expect(page.getByRole('img', { name: /Mark 1: \d %, the stock beside it (21|22|23) %/ })).toBeVisible(
    {
      timeout: 60_000,
    },
  );
  await keep(page).click();
  const { film } = setup as Extract<typeof setup, { kind: 'contrast' }>;
  const stock = async () => (await machine(shop, 'plover')).sensor!.stocks?.[film];
  await expect.poll(async () => (await stock())?.threshold).toBeCloseTo(0.15, 1);
  expect((await stock())!.least).toBeLessThan(0.08);
  await expect(tried(page).getByText('in use')).toBeVisible();
  await post(`${panel}/unload`);
});

test('length: measured by tape, the machine then moves what it is told; cuts that wait are not changed under it', async ({
  page,
  shop,
}) => {
  await post(`${shop.panels.heron}/set-up`, { trueness: [1.0025, 1] });
  await page.goto('/machines/heron/length');
  await type(page, 'As long as', '1000');
  await page.getByRole('button', { name: 'Cut the line' }).click();
  const to = (mm: number): string => `To tick ${[300, 600, 1000].indexOf(mm) + 1}, told ${mm}.0 mm`;
  await expect(page.getByRole('textbox', { name: to(300) })).toBeVisible({ timeout: 60_000 });
  await type(page, to(300), '300.8');
  await type(page, to(600), '601.5');
  // inches for mm
  await type(page, to(1000), '39.47');
  await expect(page.getByRole('alert')).toContainText('Number 3 lies');
  await type(page, to(1000), '39.468 in');
  await expect(page.getByText(/\+0\.000 → \+0\.2\d\d %/)).toBeVisible();
  await keep(page).click();
  await expect.poll(async () => (await machine(shop, 'heron')).device.lengths?.[0]).toBeCloseTo(1.0025, 3);

  // it is told less now, and moves as far as it should
  await page.getByRole('button', { name: 'Cut the line' }).click();
  await expect(page.getByRole('textbox', { name: to(1000) })).toBeVisible({ timeout: 60_000 });
  await type(page, to(1000), '1000');
  await expect(keep(page)).toHaveText(/Keep it as it is/);
  await page.getByRole('button', { name: 'Drop' }).click();
  await expect(page.getByRole('button', { name: 'Cut the line' })).toBeVisible();
});

test('blade offset: the best of a row goes into the recipes; one is stopped in the middle and begun again', async ({
  page,
  shop,
}) => {
  await page.goto('/machines/curlew/blade');
  await pace(shop, 0.5);
  await page.getByRole('button', { name: 'Cut the row' }).click();
  await page.getByRole('button', { name: 'Stop' }).click();
  await pace(shop, QUICK);
  await expect(page.getByRole('alert')).toContainText(/Stopped/, { timeout: 60_000 });
  await page.getByRole('button', { name: 'Cut the row' }).click();
  await page.getByRole('button', { name: /^Shape 5\b.*0\.30 mm/ }).click({ timeout: 60_000 });
  await expect(page.getByText('0.25 → 0.30 mm')).toBeVisible();
  await keep(page).click();
  const offsets = async (): Promise<number[]> => {
    const { recipes } = await given<ShopNow>(shop, '/api/shop');
    return ['curlew/*', 'curlew/chalk', 'curlew/flock-coral'].map((key) => recipes[key].bladeOffset);
  };
  // only what is cut with that blade
  await expect.poll(offsets).toEqual([0.3, 0.3, 0.5]);

  // the gaps tell the same quantity, and agree or do not
  await goAbout(page, 'Gaps');
  await page.getByRole('button', { name: 'Cut the lines' }).click();
  await expect(page.getByRole('textbox', { name: 'Gap 1' })).toBeVisible({ timeout: 60_000 });
  for (let i = 1; i <= 4; i++) await type(page, `Gap ${i}`, i % 2 === 0 ? '0.5' : '0.52');
  await expect(page.getByText(/0\.30 → 0\.2\d mm/)).toBeVisible();
  await keep(page).click();
  await expect.poll(async () => (await offsets())[0]).toBeCloseTo(0.255, 2);
});

test('overcut: the first square that comes free goes into the recipes of that blade', async ({
  page,
  shop,
}) => {
  await page.goto('/machines/curlew/overcut');
  await page.getByRole('button', { name: 'Cut the row' }).click();
  await page.getByRole('button', { name: /^Shape 8\b.*1\.05 mm/ }).click({ timeout: 60_000 });
  await keep(page).click();
  await expect
    .poll(async () => {
      const { recipes } = await given<ShopNow>(shop, '/api/shop');
      return ['curlew/*', 'curlew/flock-coral'].map((key) => recipes[key].overcut);
    })
    .toEqual([1.05, 1]);
});
