/** Print and cut: colours sent to print, the line around them, marks, sheets, and what comes out as files. */
import { spawnSync } from 'node:child_process';
import { readFileSync } from 'node:fs';
import type { Download, Page } from '@playwright/test';
import { Resvg } from '@resvg/resvg-js';
import sharp from 'sharp';
import { nearestOn } from '../core/geometry/nearestOnLine.testing';
import { choose, expect, saved, section, settled, test } from './shop';

const stickers = async (page: Page): Promise<void> => {
  await page.goto('/orders');
  await page.getByRole('link', { name: /Ice-cream stickers/ }).first().click(); // prettier-ignore
  // once it is planned, sections stay where they are
  await expect(section(page, 'Print marks')).toContainText('sheet');
  await settled(page);
  await section(page, 'Print marks').click();
};
const field = (page: Page, name: string) => page.getByRole('textbox', { name, exact: true });
async function type(page: Page, name: string, text: string): Promise<void> {
  await field(page, name).fill(text);
  await field(page, name).press('Enter');
}
const file = async (page: Page, name: string): Promise<Download> => {
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('link', { name, exact: true }).first().click(),
  ]);
  return download;
};

test('stickers on sheets: the line, its bleed, the marks and the sheet are chosen, each shows at once, and is undone', async ({
  page,
}) => {
  await stickers(page);
  await expect(page.getByRole('button', { name: 'Sheet', exact: true })).toHaveAttribute(
    'aria-pressed',
    'true',
  );
  await expect(section(page, 'Print marks')).toContainText('5 marks · 2 sheets');
  await expect(page.locator('.sheet .says')).toContainText('420.0 × 297.0 mm · 12 on it');

  // without bleed a line along the edge of the art is told, with the way to mend it
  await type(page, 'Bleed', '0');
  await expect(page.locator('.finding.check')).toContainText('no colour reaches past it');
  await page.getByRole('button', { name: 'Give it 2.0 mm' }).click();
  await expect(page.locator('.finding')).toHaveCount(0);
  await expect(field(page, 'Bleed')).toHaveValue('2.0 mm');

  // a line around single shapes: tapped on the sheet, in and out again
  await page.getByRole('button', { name: 'kiss, 0.0 mm outside' }).click();
  await page.getByRole('button', { name: 'Pick shapes on the sheet' }).click();
  const ask = page.getByRole('group', { name: 'Shapes for cut line 1' });
  await expect(ask).toContainText('Tap what cut line 1 goes around');
  const bounds = (await page.getByLabel('Sheet 1 of 2').boundingBox())!;
  const middle = [bounds.x + bounds.width * 0.31, bounds.y + bounds.height * 0.3] as const;
  await page.mouse.click(...middle);
  await expect(ask).toContainText('goes around 1 shape');
  await settled(page);
  await expect(page.getByRole('combobox', { name: 'Around what cut line 1 goes' })).toContainText('1 picked shape'); // prettier-ignore
  await page.mouse.click(...middle);
  await expect(ask).toContainText('Tap what cut line 1 goes around');
  await page.getByRole('button', { name: 'Done' }).click();
  await expect(page.getByRole('combobox', { name: 'Around what cut line 1 goes' })).toContainText('all that is printed'); // prettier-ignore
  await settled(page);

  // another line, further out: fewer lie on a sheet then
  await page.getByRole('button', { name: 'Add a cut line' }).click();
  await expect(page.getByRole('group', { name: /^Cut line/ })).toHaveCount(3);
  await type(page, 'Cut line 3 outside the art', '14');
  await choose(page, 'Kind of cut line 3', 'through');
  await expect(page.locator('.legend')).toContainText('through');
  await expect(page.locator('.sheet .says')).not.toContainText('12 on it');
  await page.getByRole('button', { name: 'Take cut line 3 out' }).click();
  await expect(page.locator('.sheet .says')).toContainText('12 on it');

  // marks: what the cutter does not read is told; drawn tight, more lie on a sheet
  await page.getByRole('radio', { name: /^Corners out/ }).check();
  await expect(page.locator('.finding.stop')).toContainText('Plover does not read corners that face out');
  await page.getByRole('radio', { name: /^Dots/ }).check();
  await expect(page.locator('.finding.stop')).toHaveCount(0);
  await page.getByRole('button', { name: 'Draw them in tight' }).click();
  await expect(field(page, 'Marks away from the art')).toHaveValue('3.0 mm');
  await type(page, 'Free at the edges of the sheet', '10');
  await expect(page.locator('.sheet .says')).toContainText('15 on it');
  await saved(page);

  await page.getByRole('button', { name: /^Undo/ }).click();
  await expect(page.locator('.sheet .says')).toContainText('12 on it');
  await saved(page);
});

test('marks are dragged to where they shall be, all corners with them, and keys move them', async ({
  page,
}) => {
  await stickers(page);
  await type(page, 'Free at the edges of the sheet', '10');
  await settled(page);
  const first = page.getByRole('button', { name: /^Mark 1:/ });
  const third = page.getByRole('button', { name: /^Mark 3:/ });
  const [from, stays] = [(await first.boundingBox())!, (await third.boundingBox())!];
  await page.mouse.move(from.x + 11, from.y + 11);
  await page.mouse.down();
  await page.mouse.move(from.x - 3, from.y - 3, { steps: 4 });
  await page.mouse.up();
  await expect(field(page, 'Marks away from the art')).toHaveCount(0);
  await settled(page);
  const now = (await first.boundingBox())!;
  expect(now.x - from.x).toBeLessThan(-9);
  expect(Math.abs((await third.boundingBox())!.x - stays.x)).toBeLessThan(2);
  await first.focus();
  await page.keyboard.press('Shift+ArrowLeft');
  await settled(page);
  await expect.poll(async () => (await first.boundingBox())!.x).toBeLessThan(now.x - 5);
  // far out they come where the printer does not print
  await page.keyboard.press('Shift+ArrowLeft');
  await page.keyboard.press('Shift+ArrowLeft');
  await expect(page.locator('.finding.stop').first()).toContainText('at the edge of the sheet');
  await page.getByRole('button', { name: 'Draw them in tight' }).or(page.getByRole('button', { name: 'Let them keep their distance' })).click(); // prettier-ignore
  await expect(page.locator('.finding.stop')).toHaveCount(0);
  await saved(page);
});

test('a new drawing is sent to print; its sheets come as PDF without the cut, and the cut as drawings', async ({
  page,
}) => {
  await page.goto('/orders');
  await page.locator('input[type=file]').setInputFiles({
    name: 'tide-badge.svg',
    mimeType: 'image/svg+xml',
    buffer: Buffer.from(
      `<svg xmlns="http://www.w3.org/2000/svg" width="50mm" height="30mm" viewBox="0 0 50 30">
        <path fill="#b0202f" d="M0 0H50V30H0Z"/><path fill="#f5cf1b" d="M10 10H40V20H10Z"/></svg>`,
    ),
  });
  await page.waitForURL(/orders\/\d+$/);
  await saved(page);
  await section(page, 'Print marks').click();
  await page.getByRole('button', { name: 'Print all colours' }).click();
  await page.getByRole('button', { name: 'Sheet', exact: true }).click();
  await expect(section(page, 'Films')).toContainText('2 printed');
  await type(page, 'Copies to print', '9');
  await expect(page.locator('.sheet .says')).toContainText('9 on it');
  await saved(page);

  const plain = await (await file(page, 'PDF')).path();
  const info = spawnSync('pdfinfo', ['-box', plain], { encoding: 'utf8' }).stdout;
  expect(info).toMatch(/Page size:\s+1190\.55 x 841\.89 pts/);
  const spots = (path: string): boolean => readFileSync(path, 'latin1').includes('Kiss');
  expect(spots(plain)).toBe(false);
  expect(spots(await (await file(page, 'PDF with cut lines')).path())).toBe(true);
  const drawing = readFileSync(await (await file(page, 'DXF')).path(), 'utf8');
  expect(drawing).toContain('Kiss cut');
  expect(drawing.match(/^LWPOLYLINE$/gm)).toHaveLength(9);
  const png = readFileSync(await (await file(page, 'PNG')).path());
  // 420 mm at 300 dots an inch
  expect(png.readUInt32BE(16)).toBe(Math.round((420 / 25.4) * 300));

  // printed or cut alone: one glance tells which is which
  await page.getByRole('button', { name: 'Cut', exact: true }).click();
  await expect(page.getByRole('button', { name: 'Cut', exact: true })).toHaveAttribute(
    'aria-pressed',
    'true',
  );
  await page.getByRole('button', { name: 'Both', exact: true }).click();

  // larger than a sheet it is taken apart, each panel on a sheet of its own that says which one it is
  await type(page, 'Copies to print', '1');
  await section(page, 'Artwork').click();
  await type(page, 'Finished width', '800');
  await expect(section(page, 'Panels')).toContainText(/\d+ panels, \d+ seams?/);
  await page.getByRole('button', { name: 'Panel 2', exact: true }).click();
  await section(page, 'Print marks').click();
  await settled(page);
  await saved(page);
  const second = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('link', { name: 'PDF', exact: true }).nth(1).click(),
  ]);
  const said = spawnSync('pdftotext', [await second[0].path(), '-'], { encoding: 'utf8' }).stdout;
  expect(said).toMatch(/sheet 2 of \d+ · panel 2 · this side up/);
});

/** What was cut of a sheet, and how far beside its print; mm on the page. */
async function besidePrint(page: Page, panel: string, order: number): Promise<number> {
  const { lines } = (await (await fetch(`${panel}/on-print`)).json()) as { lines: number[][] };
  const svg = await page.evaluate(
    async (id) => (await fetch(`/api/orders/${id}/sheets/sheet-1?as=svg`)).text(),
    order,
  );
  const outlines = [...svg.matchAll(/ d="M([^"Z]+)Z?"/g)].map(([, d]) => d.split(/[L ]/).map(Number));
  const near = nearestOn(outlines);
  const off = lines
    .slice(1)
    .flatMap((line) =>
      Array.from({ length: Math.floor(line.length / 60) }, (_, i) => near([line[60 * i], line[60 * i + 1]])),
    );
  expect(off.length).toBeGreaterThan(50);
  return Math.max(...off);
}
const lay = async (panel: string, body: object): Promise<void> =>
  expect((await fetch(`${panel}/load-print`, { method: 'POST', body: JSON.stringify(body) })).ok).toBe(true);
/** Number of the newest print in the tray. */
const newest = async (panel: string): Promise<number> =>
  ((await (await fetch(`${panel}/tray`)).json()) as { id: number }[]).at(-1)!.id;

/** Where the head is put: on the first mark of the sheet that is asked for, by the cutter's own edge. */
const onFirstMark = (page: Page): Promise<number[]> =>
  page.evaluate(async () => {
    const [cut] = (await (await fetch('/api/cuts')).json()) as { sheet: { marks: { at: [number, number] }[] }; edges: { far: number } }[]; // prettier-ignore
    const [x, y] = cut.sheet.marks[0].at;
    return [x, y + cut.edges.far];
  });

test('a drawing with a photograph and a gradient is printed as it is, read as it lies, and cut around all of it', async ({
  page,
  shop,
}) => {
  const grey = { width: 60, height: 40, channels: 3, background: '#7a8a90' } as const;
  const photo = await sharp({ create: grey }).jpeg().toBuffer();
  const lagoon = Buffer.from(
    `<svg xmlns="http://www.w3.org/2000/svg" width="60mm" height="60mm" viewBox="0 0 60 60"><linearGradient id="g"><stop stop-color="#f5cf1b"/>
      <stop offset="1" stop-color="#b0202f"/></linearGradient><circle cx="30" cy="30" r="28" fill="url(#g)"/>
      <image x="15" y="20" width="30" height="20" href="data:image/jpeg;base64,${photo.toString('base64')}"/></svg>`,
  );
  await page.goto('/orders');
  await page
    .locator('input[type=file]')
    .setInputFiles({ name: 'lagoon.svg', mimeType: 'image/svg+xml', buffer: lagoon });
  await page.waitForURL(/orders\/\d+$/);
  await saved(page);
  await section(page, 'Artwork').click();
  await expect(page.getByText('a knife cannot cut a picture').first()).toBeVisible();
  await choose(page, 'Drawing', 'printed as it is');
  await settled(page);
  await expect(page.getByText('a knife cannot cut a picture')).toHaveCount(0);
  await expect(section(page, 'Films')).toContainText('1 printed');
  await section(page, 'Print marks').click();
  await type(page, 'Bleed', '2');
  await settled(page);
  await saved(page);
  await page.getByRole('button', { name: 'Sheet', exact: true }).click();
  const pdf = readFileSync(await (await file(page, 'PDF')).path());
  // the photograph as it came
  expect(pdf.includes(photo)).toBe(true);
  // what it is cut around: a disc of 56 mm and the usual 2 mm
  const drawing = readFileSync(await (await file(page, 'DXF')).path(), 'utf8');
  const [, line] = drawing.split('LWPOLYLINE');
  const xs = [...line.matchAll(/^ *10\n(-?[\d.]+)$/gm)].map(([, x]) => Number(x));
  expect(Math.max(...xs) - Math.min(...xs)).toBeCloseTo(60, 0);
  await page.getByRole('button', { name: /^Undo/ }).click();
  await page.getByRole('button', { name: /^Undo/ }).click();
  await expect(page.getByText('a knife cannot cut a picture').first()).toBeVisible();
  await page.getByRole('button', { name: /^Redo/ }).click();
  await page.getByRole('button', { name: /^Redo/ }).click();
  await expect(section(page, 'Films')).toContainText('1 printed');
  await settled(page);
  await saved(page);

  const panel = shop.panels.plover;
  const order = Number(page.url().split('/').at(-1));
  await page.getByRole('button', { name: 'Print the sheet' }).click();
  await expect(page.getByText('in Siskin’s tray')).toBeVisible();
  await page.getByRole('button', { name: 'Queue 1 cut' }).click();
  await expect(page.getByRole('heading', { name: 'Load the printed sheet' })).toBeVisible();
  await lay(panel, {
    print: await newest(panel),
    turn: 1.1,
    stretch: [1.001, 0.999],
    head: await onFirstMark(page),
  });
  await page.getByRole('button', { name: 'The sheet is loaded' }).click();
  await expect(page.getByText(/kept within/)).toBeVisible({ timeout: 90_000 });
  expect(await besidePrint(page, panel, order)).toBeLessThan(0.1);
});

test('from the printer to the cut: a sheet of another order is refused, the right one is read as it lies and cut on its print', async ({
  page,
  shop,
}) => {
  const panel = shop.panels.plover;
  await stickers(page);
  await page.getByRole('button', { name: 'Print it' }).first().click();
  await expect(page.getByText('in Siskin’s tray')).toBeVisible();
  const theirs = await newest(panel);

  // a picture with a clear ground, printed as it is and cut around where it is opaque
  await page.goto('/orders');
  const badge = Buffer.from('<svg xmlns="http://www.w3.org/2000/svg" width="360" height="240"><linearGradient id="g"><stop stop-color="#2e6f7e"/><stop offset="1" stop-color="#b0202f"/></linearGradient><ellipse cx="180" cy="120" rx="170" ry="110" fill="url(#g)"/><path d="M150 60h60v120h-60z" fill="#e2a21b"/></svg>'); // prettier-ignore
  await page.locator('input[type=file]').setInputFiles({
    name: 'badge.png',
    mimeType: 'image/png',
    buffer: Buffer.from(
      new Resvg(badge.toString(), { fitTo: { mode: 'width', value: 720 } }).render().asPng(),
    ),
  });
  await page.waitForURL(/orders\/\d+$/);
  await saved(page);
  const order = Number(page.url().split('/').at(-1));
  await section(page, 'Artwork').click();
  await type(page, 'Finished width', '60');
  await choose(page, 'Picture', 'printed as it is');
  await expect(section(page, 'Films')).toContainText('1 printed');
  await settled(page);
  await section(page, 'Print marks').click();
  await type(page, 'Bleed', '2');
  await type(page, 'Copies to print', '6');
  await expect(page.locator('.sheet .says')).toContainText('6 on it');
  await saved(page);
  await page.getByRole('button', { name: 'Print the sheet' }).click();
  await expect(page.getByText('in Siskin’s tray')).toBeVisible();
  const mine = await newest(panel);
  await page.getByRole('button', { name: 'Queue 1 cut' }).click();

  const isLoaded = page.getByRole('button', { name: 'The sheet is loaded' });
  await expect(page.getByRole('heading', { name: 'Load the printed sheet' })).toBeVisible();
  const head = await onFirstMark(page);
  await lay(panel, { print: theirs, head });
  await isLoaded.click();
  await expect(
    page.getByText(/was not found|is no mark of this sheet|not the marks of this sheet/),
  ).toBeVisible();

  await lay(panel, { print: mine, turn: -1.4, shift: [1, 2], stretch: [1.002, 0.9985], bow: 0.3, head });
  await isLoaded.click();
  await expect(page.getByRole('heading', { name: 'Sheet fit' })).toBeVisible();
  await expect(page.locator('.numbers')).toContainText('-1.4');
  await expect(page.getByText(/kept within/)).toBeVisible({ timeout: 90_000 });
  expect(await besidePrint(page, panel, order)).toBeLessThan(0.1);

  // its code, read once more, tells that it is cut; one sheet is cut again from its order
  const code = page.getByLabel('Code on the sheet');
  await code.fill('#2047 1');
  await code.press('Enter');
  await expect(page.getByText('Sheet 1 of #2047 is not in the queue')).toBeVisible();
  await page.goto(`/orders/${order}`);
  await section(page, 'Print marks').click();
  await page.getByRole('button', { name: 'Cut sheet 1 again' }).click();
  await expect(page.getByRole('heading', { name: 'Load the printed sheet' })).toBeVisible();
  await page.getByRole('button', { name: 'Leave this sheet out' }).click();
  await expect(page.getByRole('heading', { name: 'Nothing to do here' })).toBeVisible();
});

test('the tide dial: printed, creased with one tool and cut with the other, on its print', async ({
  page,
  shop,
}) => {
  const panel = shop.panels.saltpan;
  await page.goto('/orders');
  await page.getByRole('link', { name: /Tide dial, creased/ }).first().click(); // prettier-ignore
  await page.waitForURL(/orders\/\d+$/);
  const order = Number(page.url().split('/').at(-1));
  await section(page, 'Artwork').click();
  await type(page, 'Finished width', '180');
  await section(page, 'Print marks').click();
  await page.getByRole('button', { name: 'Print all colours' }).click();
  await choose(page, 'Kind of cut line 1', 'through');
  await type(page, 'Cut line 1 outside the art', '0');
  await type(page, 'Bleed', '2');
  await settled(page);
  await expect(page.locator('.finding.stop')).toHaveCount(0);
  await expect(page.locator('.sheet .says')).toContainText('1 on it');
  await expect(page.locator('.legend')).toContainText('crease');
  await saved(page);
  await page.getByRole('button', { name: 'Print the sheet' }).click();
  await expect(page.getByText('in Siskin’s tray')).toBeVisible();
  await lay(panel, {
    print: await newest(panel),
    turn: 1.1,
    shift: [2, 1],
    stretch: [0.998, 1.001],
    bow: 0.2,
  });
  await page.getByRole('button', { name: 'Queue 1 cut' }).click();
  await page.getByRole('button', { name: 'The sheet is loaded' }).click();
  await expect(page.getByRole('heading', { name: 'Sheet fit' })).toBeVisible();
  await expect(page.getByText(/kept within/)).toBeVisible({ timeout: 90_000 });
  expect(await besidePrint(page, panel, order)).toBeLessThan(0.1);
  // six folds by the wheel, all of them before the blade goes through
  const depths = await page.evaluate(async (id) => {
    const cuts = (await (await fetch(`/api/cuts?order=${id}`)).json()) as { id: number }[];
    const { lines } = (await (await fetch(`/api/cuts/${cuts.at(-1)!.id}/record`)).json()) as { lines: { depth: string }[] }; // prettier-ignore
    return lines.map(({ depth }) => depth);
  }, order);
  expect(depths.slice(1, 7)).toEqual(Array(6).fill('creased'));
  expect(depths.slice(7)).not.toContain('creased');
  expect(depths.slice(7).length).toBeGreaterThan(1);
});

test('without the sensor: marks are taken by hand, by touch and by keys, and the sheet is cut by them', async ({
  page,
  shop,
}) => {
  const panel = shop.panels.plover;
  await stickers(page);
  const order = Number(page.url().split('/').at(-1));
  await type(page, 'Copies to print', '6');
  await expect(page.locator('.sheet .says')).toContainText('6 on it');
  await saved(page);
  await page.getByRole('button', { name: 'Print the sheet' }).click();
  await expect(page.getByText('in Siskin’s tray')).toBeVisible();
  await lay(panel, { print: await newest(panel), turn: 0.8, shift: [1.3, -0.7], stretch: [1.001, 1] });
  await page.getByRole('button', { name: 'Queue 1 cut' }).click();
  await page.getByRole('button', { name: 'By hand' }).click();

  // what the operator sees beneath the pointer, as against where the mark is on the page
  const marks = await page.evaluate(async () => {
    const [cut] = (await (await fetch('/api/cuts')).json()) as { sheet: { marks: { at: [number, number] }[] }; edges: { far: number } }[]; // prettier-ignore
    return cut.sheet.marks.map(({ at: [x, y] }) => [x, y + cut.edges.far] as const);
  });
  const seen = async (): Promise<number[]> =>
    (await (await fetch(`${panel}/head-on-print`)).json()) as number[];
  const pad = page.getByRole('group', { name: 'Move the head' });
  const touch = async (by: number): Promise<void> => {
    await page.getByRole('group', { name: 'Step' }).getByRole('button').nth([10, 1, 0.1].indexOf(by)).click();
  };
  for (const [i, mark] of marks.slice(0, 4).entries()) {
    await page.getByRole('button', { name: `Go to mark ${i + 1}` }).click();
    await expect(page.locator('.at')).not.toHaveText('');
    await expect(page.getByRole('button', { name: `Take mark ${i + 1}` })).toBeEnabled();
    for (const step of [1, 0.1]) {
      await touch(step);
      for (const [axis, back, on] of [
        [0, 'Back', 'Along the sheet'],
        [1, 'Away from you', 'Towards you'],
      ] as const) {
        const off = mark[axis] - (await seen())[axis];
        const presses = Math.round(Math.abs(off) / step);
        for (let k = 0; k < presses; k++) {
          // the first mark by keys, the others by touch
          if (i === 0)
            await page.keyboard.press(['ArrowLeft', 'ArrowRight', 'ArrowUp', 'ArrowDown'][2 * axis + Number(off > 0)]); // prettier-ignore
          else await pad.getByRole('button', { name: off > 0 ? on : back }).click();
          await expect(pad.getByRole('button', { name: on })).toBeEnabled();
        }
      }
    }
    await page.getByRole('button', { name: `Take mark ${i + 1}` }).click();
  }
  await page.getByRole('button', { name: 'Cut by these 4 marks' }).click();
  await expect(page.getByText('4 marks taken by hand')).toBeVisible();
  await expect(page.getByRole('heading', { name: 'Sheet 1 is done' })).toBeVisible({ timeout: 90_000 });
  // a pointer that is put on a mark to a tenth cuts to about as much
  expect(await besidePrint(page, panel, order)).toBeLessThan(0.2);
});
