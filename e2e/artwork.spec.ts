/** Every kind of file comes in, is tidied and cut: all of it through the real interface. */
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { choose, expect, loadFilm, saved, section, settled, test } from './shop';
import type { Page } from '@playwright/test';
import PDFDocument from 'pdfkit';
import sharp from 'sharp';

const dir = mkdtempSync(join(tmpdir(), 'jam-pan-art-'));
const file = (name: string, content: string | Buffer): string => {
  const path = join(dir, name);
  writeFileSync(path, content);
  return path;
};
const size = (page: Page) => page.locator('.open .answer');

/** Starts an order from a file and opens its artwork. */
async function begin(page: Page, path: string): Promise<void> {
  await page.goto('/orders');
  await page.locator('input[type=file]').setInputFiles(path);
  await page.waitForURL(/orders\/\d+$/, { timeout: 30_000 });
  // once the order is there, sections stay where they are
  await saved(page);
  await section(page, 'Artwork').click();
  await expect(page.getByLabel('Finished width', { exact: true })).toBeVisible();
}

/** Goes to the finding that says something. */
const finding = (page: Page, says: string | RegExp) => page.locator('.list > li').filter({ hasText: says });

function pdf(): Promise<Buffer> {
  const doc = new PDFDocument({ size: [288, 144], margin: 0 });
  const chunks: Buffer[] = [];
  doc.on('data', (chunk: Buffer) => chunks.push(chunk));
  const done = new Promise<Buffer>((give) => doc.on('end', () => give(Buffer.concat(chunks))));
  doc.rect(72, 36, 72, 72).fill('#1d3f86');
  doc
    .addPage({ size: [288, 144] })
    .rect(36, 36, 144, 36)
    .fill('#b0202f');
  doc.end();
  return done;
}

const DXF = `0\nSECTION\n2\nENTITIES\n${[
  '0\nCIRCLE\n8\nOutline\n10\n0\n20\n0\n40\n4',
  '0\nCIRCLE\n8\nOutline\n10\n0\n20\n0\n40\n2',
  '0\nLINE\n8\nFold\n62\n1\n10\n-2\n20\n0\n11\n2\n21\n0',
].join('\n')}\n0\nENDSEC\n0\nEOF\n`;

test('PDF: the page is picked; several pages, each with its size', async ({ page }) => {
  await begin(page, file('sheet.pdf', await pdf()));
  await expect(size(page)).toHaveText('25.4 × 25.4 mm');
  await choose(page, 'Page', /^2 ·/);
  await expect(size(page)).toHaveText('50.8 × 12.7 mm');
  await expect(page.getByText('#b0202f')).toHaveCount(0);
  await saved(page);
  await page.keyboard.press('Control+z');
  await expect(size(page)).toHaveText('25.4 × 25.4 mm');
});

test('EPS and HP-GL come in at their own size', async ({ page }) => {
  const eps =
    '%!PS-Adobe-3.0 EPSF-3.0\n%%BoundingBox: 0 0 144 72\n%%EndComments\n1 0 0 setrgbcolor\n0 0 144 72 rectfill\nshowpage\n%%EOF\n';
  await begin(page, file('plate.eps', eps));
  await expect(size(page)).toHaveText('50.8 × 25.4 mm');
  await begin(
    page,
    file('plate.plt', 'IN;SP1;PU0,0;PD4000,0,4000,2000,0,2000,0,0;PU2000,1000;CI400;PU;SP0;'),
  );
  await expect(size(page)).toHaveText('100.0 × 50.0 mm');
  await expect(page.getByText('Outlines close, nothing is cut twice')).toBeVisible();
});

test('DXF without a unit asks once, says what each answer gives, and keeps its layers', async ({ page }) => {
  await begin(page, file('disc.dxf', DXF));
  await expect(page.getByRole('button', { name: /^Queue/ })).toBeDisabled();
  const inches = page.getByRole('button', { name: /^1 in/ });
  await expect(inches).toContainText('203.2 × 203.2 mm');
  await inches.click();
  await expect(size(page)).toHaveText('203.2 × 203.2 mm');
  await page.getByRole('button', { name: 'Line kinds' }).click();
  await choose(page, 'Line kind of layer Fold', 'perforated');
  await expect(page.getByText('1 not kiss cut')).toBeVisible();
  // it can have none of its own again
  await choose(page, 'Line kind of layer Fold', 'by colour');
  await expect(page.getByText('all kiss cut')).toBeVisible();
  await choose(page, 'Line kind of layer Fold', 'perforated');
  await saved(page);
  await section(page, 'Cut settings').click();
  const [plt] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('link', { name: 'HP-GL' }).click(),
  ]);
  const text = readFileSync(await plt.path(), 'latin1');
  // kiss cut and, with two and a half times its force, dashes
  const [kiss, through] = [...new Set([...text.matchAll(/FS(\d+)/g)].map(([, force]) => Number(force)))];
  expect(through / kiss).toBeCloseTo(2.5, 1);
  expect(text.match(new RegExp(`FS${through};PU`, 'g'))!.length).toBeGreaterThan(10);

  // what this order changes in the dashes leaves what is kiss cut alone
  await page.getByRole('group', { name: 'Kind of line' }).getByRole('button', { name: 'perforated' }).click();
  await page.getByRole('button', { name: 'Less force' }).click();
  await expect(page.getByRole('button', { name: "Shop's recipe" })).toBeEnabled();
  await saved(page);
  const [again] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('link', { name: 'HP-GL' }).click(),
  ]);
  const changed = readFileSync(await again.path(), 'latin1');
  const forces = new Set([...changed.matchAll(/FS(\d+)/g)].map(([, force]) => Number(force)));
  expect([...forces]).toEqual([kiss, through - 5]);
});

test('a picture is traced, tried out over itself while a control moves, and undone', async ({ page }) => {
  const picture = await sharp(
    Buffer.from(
      '<svg xmlns="http://www.w3.org/2000/svg" width="600" height="400"><rect width="600" height="400" fill="#fff"/><circle cx="300" cy="200" r="150"/><circle cx="560" cy="40" r="6"/></svg>',
    ),
  )
    .withMetadata({ density: 96 })
    .png()
    .toBuffer();
  await begin(page, file('stamp.png', picture));
  const width = page.getByLabel('Finished width', { exact: true });
  const whole = await width.inputValue();
  await page.getByRole('button', { name: 'Over the picture' }).click();
  await expect(page.getByText(/0\.\d\d % of pixels differ · \d+ nodes/)).toBeVisible({ timeout: 20_000 });
  await expect(page.locator('.trial path')).toHaveCount(1);
  await page.getByRole('slider', { name: 'Leave specks out' }).focus();
  await page.keyboard.press('End');
  await expect(width).not.toHaveValue(whole);
  // the disc alone: 300 px at 96 px to the inch
  await expect(width).toHaveValue(/^79\.[34] mm$/);
  await saved(page);
  await page.getByRole('heading', { name: 'Artwork' }).click();
  await page.keyboard.press('Control+z');
  await expect(width).toHaveValue(whole);
});

test('text is set by the height of a capital, in several lines, and lies beside a file', async ({ page }) => {
  await page.goto('/orders');
  await page.getByRole('button', { name: 'From text' }).click();
  await page.waitForURL(/orders\/\d+/);
  await page.getByLabel('Text', { exact: true }).fill('HHH');
  await page.getByLabel('Height of a capital').fill('3 in');
  await page.keyboard.press('Enter');
  await expect(page.getByLabel('Finished height', { exact: true })).toHaveValue('76.2 mm');
  // a finished width stretches what was typed, and the field says what a capital has become; typing there ends it
  await page.getByLabel('Finished height', { exact: true }).fill('152.4');
  await page.keyboard.press('Enter');
  await expect(page.getByLabel('Height of a capital')).toHaveValue(/^152\.[34] mm$/);
  await page.getByLabel('Height of a capital').fill('3 in');
  await page.keyboard.press('Enter');
  await expect(page.getByLabel('Finished height', { exact: true })).toHaveValue('76.2 mm');
  await page.getByLabel('Text', { exact: true }).fill('HHH\nHH');
  await page.getByLabel('Line to line').fill('1.5');
  await page.keyboard.press('Tab');
  await expect(page.getByLabel('Finished height', { exact: true })).not.toHaveValue('76.2 mm');
  await choose(page, 'Typeface', 'Bebas Neue');
  await saved(page);

  // a typeface of the shop's own is brought, put away with a way back, and stays where text is set in it
  const anton = 'node_modules/@fontsource/anton/files/anton-latin-400-normal.woff2';
  await page.locator('[data-test=add-font]').setInputFiles(anton);
  await expect(page.getByLabel('Typeface', { exact: true })).toContainText('(own)');
  await page.getByRole('button', { name: 'Put it away' }).click();
  await page.getByRole('button', { name: 'Undo', exact: true }).first().click();
  await page.getByRole('button', { name: 'Put it away' }).click();
  await page.getByRole('button', { name: /Typefaces put away/ }).click();
  await page.getByRole('button', { name: 'Clear for good' }).click();
  await expect(page.getByText('Text of an order is set in this typeface')).toBeVisible();
  await page.getByRole('button', { name: 'Bring back' }).click();
  await expect(page.getByRole('button', { name: 'Put it away' })).toBeVisible();
  await saved(page);

  // a second piece, placed to the millimetre, lined up, grouped, and placed again at a pitch
  await page.locator('[data-test=add-file]').setInputFiles('e2e/art/pennant.svg');
  await expect(page.locator('.piece')).toHaveCount(2);
  await page.getByRole('button', { name: 'Place', exact: true }).first().click();
  await page.getByLabel('x', { exact: true }).fill('250');
  await page.keyboard.press('Enter');
  await expect(page.getByLabel('x', { exact: true })).toHaveValue('250.0 mm');
  await page.getByLabel('w', { exact: true }).fill('90');
  await page.keyboard.press('Enter');
  await expect(page.getByLabel('h', { exact: true })).toHaveValue('50.0 mm');
  await page
    .locator('.piece .name')
    .nth(1)
    .click({ modifiers: ['Shift'] });
  await page.getByRole('button', { name: 'Top edges' }).click();
  await page.getByRole('button', { name: 'Group', exact: true }).click();
  await page.getByLabel('How many more').fill('2');
  await page.getByLabel('Step down').fill('300');
  await page.keyboard.press('Enter');
  await page.getByRole('button', { name: 'Place', exact: true }).last().click();
  await expect(page.locator('.piece')).toHaveCount(6);
  await saved(page);
  await page.reload();
  await expect(section(page, 'Artwork')).toContainText('×');
  await section(page, 'Artwork').click();
  await expect(page.locator('.piece')).toHaveCount(6);
});

test('each kind of finding is mended with one click, all of it undone, and the result is cut', async ({
  page,
  shop,
}) => {
  await begin(page, 'e2e/art/mess.svg');
  const mend = async (says: RegExp, button: string): Promise<void> => {
    const before = await finding(page, says).count();
    expect(before).toBeGreaterThan(0);
    await finding(page, says).first().getByRole('button', { name: button, exact: true }).click();
    await expect(finding(page, says)).toHaveCount(before - 1);
    // rows move while the check-over looks again
    await saved(page);
    await settled(page);
  };
  // the check-over comes after the plan
  await expect(finding(page, /A stem is/).first()).toBeVisible();
  await page.keyboard.press('p');
  await expect(page.locator('.list > li.now')).toHaveCount(1);
  const first = await page.locator('.list > li.now .what').innerText();
  await page.keyboard.press('p');
  await expect(page.locator('.list > li.now .what')).not.toHaveText(first);

  await expect(finding(page, /A stem is 0\.90 mm wide; Harbour blue weeds down to 1\.50 mm/)).toBeVisible();
  await mend(/A stem is/, 'Thicken');
  await mend(/A loose shape of 1\.\d\d mm²; Harbour blue holds shapes from 3 mm²/, 'Leave it out');
  await mend(/open by 3\.00 mm/, 'Close it');
  await mend(/lies on another/, 'Remove the double');
  await mend(/Two outlines in .* overlap/, 'Weld');
  await mend(/A line without a width/, 'Give it a width');
  await mend(/A colour gradient/, 'One colour');
  // a see-through shape stays as it is, for a reason that is kept
  const clear = finding(page, /see-through/);
  const why = clear.getByLabel('Why it stays');
  const leave = clear.getByRole('button', { name: 'Leave it as it is …' });
  await saved(page);
  await settled(page);
  // a row that moves between press and release of the button takes no click
  await expect(async () => {
    if (await leave.isVisible()) await leave.click({ timeout: 3000 });
    await why.fill('customer knows', { timeout: 3000 });
    await clear.getByRole('button', { name: 'Leave it' }).click({ timeout: 3000 });
  }).toPass({ timeout: 60_000 });
  await expect(page.getByText('customer knows')).toBeVisible();
  await saved(page);
  await page.reload();
  await section(page, 'Artwork').click();
  await expect(page.getByText('customer knows')).toBeVisible();
  await expect(finding(page, /A stem is|loose shape|open by|lies on another|overlap|gradient/)).toHaveCount(
    0,
  );

  // one step of undo each
  for (let i = 0; i < 8; i++) {
    await page.getByRole('button', { name: /^Undo/ }).click();
    await saved(page);
  }
  await expect(finding(page, /A stem is/)).toHaveCount(1);
  await expect(finding(page, /A colour gradient/)).toHaveCount(1);
  for (let i = 0; i < 8; i++) {
    await page.getByRole('button', { name: 'Redo' }).click();
    await saved(page);
  }
  await expect(finding(page, /A stem is|A colour gradient/)).toHaveCount(0);

  // only the blue film is cut, to keep the test short
  await section(page, 'Films').click();
  for (const box of await page.getByRole('checkbox', { name: /^Cut #/ }).all()) {
    if ((await box.getAttribute('aria-label')) !== 'Cut #1d3f86') await box.uncheck();
  }
  await saved(page);
  await loadFilm(shop, 610);
  await page.getByRole('button', { name: 'Queue 1 cut' }).click();
  await page.waitForURL(/cutters\/curlew/);
  await page.getByRole('button', { name: 'Harbour blue is loaded' }).click();
  await expect(page.getByRole('heading', { name: 'Nothing to do here' })).toBeVisible({ timeout: 60_000 });
});

test('a gradient is left uncut, and points that crowd are thinned', async ({ page }) => {
  const crowded = Array.from({ length: 4000 }, (_, i) => {
    const t = (i / 4000) * 2 * Math.PI;
    return `${(50 + 4 * Math.cos(t)).toFixed(5)},${(50 + 4 * Math.sin(t)).toFixed(5)}`;
  }).join(' ');
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="100mm" height="100mm" viewBox="0 0 100 100"><defs><linearGradient id="g"><stop offset="0" stop-color="#000"/><stop offset="1" stop-color="#fff"/></linearGradient></defs><polygon points="${crowded}" fill="#1d3f86"/><rect x="70" y="10" width="20" height="20" fill="url(#g)"/></svg>`;
  await begin(page, file('crowded.svg', svg));
  await finding(page, /points of a shape lie closer together/)
    .getByRole('button', { name: 'Simplify' })
    .click();
  await expect(finding(page, /points of a shape/)).toHaveCount(0);
  await finding(page, /A colour gradient/)
    .getByRole('button', { name: 'Do not cut it' })
    .click();
  await expect(finding(page, /A colour gradient/)).toHaveCount(0);
  await expect(section(page, 'Films')).toContainText('1 film');
});

test('two points are measured in mm and in inches, drawn to corners', async ({ page }) => {
  await begin(
    page,
    file(
      'square.svg',
      '<svg xmlns="http://www.w3.org/2000/svg" width="200mm" height="100mm" viewBox="0 0 200 100"><rect width="200" height="100" fill="#1d3f86"/></svg>',
    ),
  );
  await page.getByRole('button', { name: /^Measure/ }).click();
  const stage = page.getByRole('application', { name: /finished sign/ });
  const box = (await stage.boundingBox())!;
  const dims = await page.locator('.size.number').first().boundingBox();
  expect(dims).not.toBeNull();
  // the corners of the sign as the dimension lines show them
  const [left, right] = await page
    .locator('svg.dims path')
    .first()
    .evaluate((path) => {
      const b = path.getBoundingClientRect();
      return [b.left, b.right];
    });
  const top = await page
    .locator('svg.dims path')
    .nth(1)
    .evaluate((path) => path.getBoundingClientRect().top);
  await page.mouse.click(left + 3, top + 3);
  await page.mouse.click(right - 3, top + 3);
  await expect(page.getByText('200.0 mm · 7.874 in').first()).toBeVisible();
  expect(box.width).toBeGreaterThan(100);
});

test('a file replaced keeps the film that was picked for its colours', async ({ page }) => {
  const svg = (w: number): string =>
    `<svg xmlns="http://www.w3.org/2000/svg" width="${w}mm" height="50mm" viewBox="0 0 ${w} 50"><rect width="${w}" height="50" fill="#1d3f86"/></svg>`;
  await begin(page, file('first.svg', svg(80)));
  await section(page, 'Films').click();
  await page.getByLabel('Film for #1d3f86').click();
  await page.getByRole('option', { name: /Lantern orange/ }).click();
  await saved(page);
  await section(page, 'Artwork').click();
  await page.locator('[data-test=replace-file]').setInputFiles(file('second.svg', svg(120)));
  await expect(size(page)).toHaveText('120.0 × 50.0 mm');
  await expect(page.locator('.strip .label strong').first()).toHaveText(/Lantern orange/);
  await saved(page);
  await page.getByRole('button', { name: /^Undo/ }).click();
  await expect(size(page)).toHaveText('80.0 × 50.0 mm');
});
