/** Two people at once: one prepares and queues, the other runs the machine at its tablet; the lead sees who did what. */
import type { Page } from '@playwright/test';
import Papa from 'papaparse';
import type { Cut, Drawing } from '../contracts/cuts';
import type { ShopNow } from '../contracts/shop';
import type { Usage } from '../contracts/usage';
import { areaOf } from '../core/films/film';
import { componentsOf, placeOn } from '../core/geometry/nesting';
import { regionArea } from '../core/geometry/region';
import { expect, given, loadFilm, pace, pageOf, QUICK, section, test } from './shop';
import type { Shop } from './shop';

const TABLETS = [
  ['upright', { width: 820, height: 1180 }],
  ['lying', { width: 1180, height: 820 }],
] as const;
const atCurlew = (page: Page, name: string | RegExp) => page.getByRole('heading', { name });
const cutsNow = (shop: Shop): Promise<Cut[]> => given<Cut[]>(shop, '/api/cuts');

/** Where the largest shape of a cut is on a stage that shows all of its film, with some room around it. */
function placeOf({ length, rollWidth, edges }: Cut, { design }: Drawing, box: Bounds): [number, number] {
  const shapes = componentsOf(design.map((ring) => Float64Array.from(ring)));
  const { x, y } = placeOn(shapes.reduce((a, b) => (regionArea(a) > regionArea(b) ? a : b)));
  const scale = Math.min((box.width - 2 * ROOM) / length, (box.height - 2 * ROOM) / rollWidth);
  return [
    box.x + (box.width - length * scale) / 2 + x * scale,
    box.y + (box.height - rollWidth * scale) / 2 + (y + edges.far) * scale,
  ];
}
/** The ledger of the shelf, as it is downloaded. */
async function bookings(shop: Shop): Promise<Record<string, string>[]> {
  const asked = `from=${dayOf(-1)}&to=${dayOf(1)}&zone=UTC`;
  const table = await fetch(`${shop.url}/api/usage.csv?${asked}`, { headers: { Cookie: shop.cookie } });
  return Papa.parse<Record<string, string>>(await table.text(), { header: true, skipEmptyLines: true }).data;
}
const dayOf = (days: number): string => new Date(Date.now() + days * 86_400_000).toISOString().slice(0, 10);
const ROOM = 26;
type Bounds = { readonly x: number; readonly y: number; readonly width: number; readonly height: number };

for (const [how, viewport] of TABLETS)
  test(`a cut from prep to the last film, the tablet ${how}, by touch, through a pulled cable`, async ({
    page,
    shop,
  }) => {
    const prep = await pageOf(page, shop, 'prep');
    const operator = await pageOf(page, shop, 'operator', { viewport, hasTouch: true });
    await operator.goto('/cutters/curlew');
    await expect(atCurlew(operator, 'Nothing to do here')).toBeVisible();

    // prep queues three cuts; the other page has them at once
    await prep.goto('/orders');
    await prep.getByText('Marsh Wren hull names').first().click();
    await expect(section(prep, 'Films')).toContainText('3 films');
    await prep.getByRole('button', { name: 'Queue 3 cuts' }).click();
    await expect(atCurlew(operator, 'Load Damson')).toBeVisible();
    await prep.goto('/floor');
    await expect(prep.getByRole('list', { name: 'What the machines ask for' })).toContainText('wants Damson');

    // loaded, cut, nudged
    await loadFilm(shop, 610);
    // as slow as a real one, so that there is time to press
    await pace(shop, 3);
    await operator.getByRole('button', { name: 'Damson is loaded' }).tap();
    await expect(operator.getByText(/^Cutting line [3-9]/)).toBeVisible();
    const force = operator.getByRole('group', { name: 'Force', exact: true });
    await force.getByRole('button', { name: 'More force' }).tap();
    await force.getByRole('button', { name: 'More force' }).tap();
    await expect(operator.getByText('90 g', { exact: true })).toBeVisible();
    await expect.poll(async () => (await cutsNow(shop))[0].nudges).toEqual({ kiss: { force: 90 } });

    // the cable is pulled: it says so, and goes on where it was
    await fetch(`${shop.panels.curlew}/pull-cable`, { method: 'POST' });
    await expect(atCurlew(operator, 'Stopped')).toBeVisible();
    await expect(
      operator.getByText(
        /Stopped after line \d+ of \d+: the (cutter closed the line|line to the cutter broke)/,
      ),
    ).toBeVisible();
    const [stopped] = await cutsNow(shop);
    await pace(shop, QUICK);
    await operator.getByRole('button', { name: 'Go on', exact: true }).tap();
    await expect(operator.getByRole('heading', { name: 'Damson is done' })).toBeVisible({ timeout: 90_000 });
    await expect(operator.getByText('Damson was cut with 90 g instead of 80 g.')).toBeVisible();
    await expect(operator.getByText('A lead may keep that in its recipe.')).toBeVisible();
    const done = await given<Cut>(shop, `/api/cuts/${stopped.id}`);
    expect([done.state, done.linesDone]).toEqual(['done', done.lines]);

    // another film, and the last
    for (const film of ['Tide blue', 'Quince']) {
      await expect(atCurlew(operator, `Load ${film}`)).toBeVisible();
      await loadFilm(shop, 610);
      await operator.getByRole('button', { name: `${film} is loaded` }).tap();
      await expect(operator.getByRole('heading', { name: `${film} is done` })).toBeVisible({
        timeout: 90_000,
      });
    }
    await expect(atCurlew(operator, 'Nothing to do here')).toBeVisible();

    // one shape was torn while it was weeded: it is tapped on its film, and cut again next
    await operator.getByRole('button', { name: 'Cut some of Quince again' }).last().tap();
    const quince = (await given<Cut[]>(shop, `/api/cuts?order=${stopped.orderId}`)).findLast(
      ({ film }) => film.name === 'Quince',
    )!;
    const drawing = await given<Drawing>(shop, `/api/cuts/${quince.id}/drawing`);
    const box = (await operator.getByLabel('What is cut again').boundingBox())!;
    await operator.touchscreen.tap(...placeOf(quince, drawing, box));
    const ask = operator.getByRole('group', { name: 'Cut again' });
    await expect(ask).toContainText('1 shape picked');
    await ask.getByRole('button', { name: 'Cut it again' }).tap();
    await expect(atCurlew(operator, 'Load Quince')).toBeVisible();
    await operator.getByRole('button', { name: 'Quince is loaded' }).tap();
    await expect(atCurlew(operator, 'Nothing to do here')).toBeVisible({ timeout: 90_000 });

    // the lead sees who did it, and keeps what was nudged
    await page.goto('/cutters/curlew');
    const acts = await given<{ act: string; who: string | null; what: string | null }[]>(
      shop,
      `/api/cuts/${stopped.id}/acts`,
    );
    expect(acts.map(({ act, who }) => `${act} ${who}`)).toEqual([
      'queued Marram',
      'loaded Samphire',
      'nudged Samphire',
      'nudged Samphire',
      'resumed Samphire',
    ]);
    await expect(page.getByRole('list', { name: 'Who did what' })).toContainText('by Samphire');

    // what was cut is off the shelf; what was cut again counts as spoilt; all of it adds up
    const ofOrder = (await given<Cut[]>(shop, `/api/cuts?order=${stopped.orderId}`)).filter(
      ({ id }) => id >= stopped.id,
    );
    const used = await given<Usage>(shop, `/api/usage?from=${dayOf(-1)}&to=${dayOf(1)}&zone=UTC`);
    for (const { film, gone, before, came, after } of used.byFilm) {
      const now = (await given<ShopNow>(shop, '/api/shop')).films.find(({ id }) => id === film)!;
      expect(after).toBeCloseTo(areaOf(now.rolls), 3);
      expect(before + came - gone).toBeCloseTo(after, 3);
    }
    const again = ofOrder.find(({ id }) => id > quince.id)!;
    const own = (await bookings(shop)).filter(({ cut }) => ofOrder.some(({ id }) => String(id) === cut));
    expect(own.map(({ what }) => what)).toEqual(['cut', 'cut', 'cut', 'again']);
    expect(Number(own.at(-1)!['off the shelf mm'])).toBeCloseTo(again.length, 6);
    await page.goto('/usage');
    const spoilt = page.locator('dl div').filter({ hasText: 'spoilt or cut again' });
    await expect(spoilt.locator('dt')).toHaveText(`${(used.all.spoilt / 1000).toFixed(2)} m`);
    await expect(page.getByRole('listitem').filter({ hasText: 'Marsh Wren hull names' })).toBeVisible();
    await Promise.all([prep, operator].map((one) => one.context().close()));
  });
