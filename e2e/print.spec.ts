/** Print and cut: colours sent to print, the line around them, marks, sheets, and what comes out as files. */
import { spawnSync } from 'node:child_process';
import { readFileSync } from 'node:fs';
import type { Download, Page } from '@playwright/test';
import { choose, expect, saved, section, settled, test } from './shop';

const stickers = async (page: Page): Promise<void> => {
  await page.goto('/orders');
  await page.getByRole('link', { name: /Ice-cream stickers/ }).first().click(); // prettier-ignore
  await section(page, 'Print marks').click();
  await settled(page);
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
});
