/**
 * Every page with every section open, at the sizes that pages are made for: nothing is clipped, lies over something else
 * or is wider than its box, and axe (axe-core, WCAG 2.0 to 2.2, A and AA) has nothing against it.
 */
import { readFileSync } from 'node:fs';
import type { Page } from '@playwright/test';
import { expect, saved, section, test } from './shop';

const AXE = readFileSync('node_modules/axe-core/axe.min.js', 'utf8');
const TAGS = ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22a', 'wcag22aa'];
const SIZES = [
  { width: 1280, height: 800 },
  { width: 1024, height: 700 },
];
const TABLETS = [
  { width: 820, height: 1180 },
  { width: 1180, height: 820 },
];

/** What is wrong with what is seen now. */
async function faults(page: Page): Promise<string[]> {
  const overflow = await page.evaluate(() => {
    const name = (e: Element): string =>
      `${e.tagName.toLowerCase()}.${[...e.classList].join('.')} “${(e.getAttribute('aria-label') ?? e.textContent ?? '').trim().slice(0, 40)}”`;
    const isSeen = (e: HTMLElement): boolean =>
      e.checkVisibility({ opacityProperty: true, visibilityProperty: true }) &&
      e.getBoundingClientRect().width > 0;
    const found: string[] = [];
    for (const e of document.querySelectorAll<HTMLElement>('body *')) {
      const { overflowX } = getComputedStyle(e);
      if (/auto|scroll/.test(overflowX) && isSeen(e) && e.scrollWidth > e.clientWidth + 1)
        found.push(`wider than its box: ${name(e)}`);
    }
    const controls = [
      ...document.querySelectorAll<HTMLElement>('button, a[href], input, [role=combobox], [role=slider]'),
    ].filter((e) => isSeen(e) && e.tabIndex >= 0);
    for (const e of controls) {
      const box = e.getBoundingClientRect();
      let clip: Element | null = e.parentElement;
      while (clip && !/auto|scroll|hidden|clip/.test(getComputedStyle(clip).overflowX))
        clip = clip.parentElement;
      const room = (clip ?? document.documentElement).getBoundingClientRect();
      // up and down a list may be scrolled; across nothing may
      if (box.left < room.left - 1 || box.right > room.right + 1) found.push(`clipped: ${name(e)}`);
    }
    const inView = controls.filter((e) => {
      const { top, bottom, left, right } = e.getBoundingClientRect();
      return top >= 0 && bottom <= innerHeight && left >= 0 && right <= innerWidth;
    });
    for (const [i, a] of inView.entries()) {
      for (const b of inView.slice(i + 1)) {
        if (a.contains(b) || b.contains(a)) continue;
        const [p, q] = [a.getBoundingClientRect(), b.getBoundingClientRect()];
        const across = Math.min(p.right, q.right) - Math.max(p.left, q.left);
        const down = Math.min(p.bottom, q.bottom) - Math.max(p.top, q.top);
        // one that is scrolled under a bar is not seen there
        const isOnTop = (e: Element, x: number, y: number): boolean =>
          document.elementsFromPoint(x, y).some((top) => e === top || e.contains(top));
        const [x, y] = [Math.max(p.left, q.left) + across / 2, Math.max(p.top, q.top) + down / 2];
        if (across > 2 && down > 2 && isOnTop(a, x, y) && isOnTop(b, x, y))
          found.push(`over one another: ${name(a)} and ${name(b)}`);
      }
    }
    return found;
  });
  return overflow;
}

/** What axe has against it. */
async function barriers(page: Page): Promise<string[]> {
  await page.evaluate(AXE);
  return page.evaluate(async (tags) => {
    const { axe } = window as unknown as {
      axe: {
        run: (
          what: Document,
          how: object,
        ) => Promise<{
          violations: { id: string; help: string; nodes: { html: string; any: { message: string }[] }[] }[];
        }>;
      };
    };
    const { violations } = await axe.run(document, { runOnly: tags });
    return violations.flatMap(({ id, nodes }) =>
      nodes.slice(0, 3).map(({ html, any }) => `${id}: ${html.slice(0, 160)} ${any[0]?.message ?? ''}`),
    );
  }, TAGS);
}

const FOLDS =
  /^(Near-equal colours|Overlaps and copies|Layer marks|Line kinds|Place|Seams one by one|Kept whole|Overlap and keys|Wall or window|Films by themselves|Margins of)/;

for (const size of SIZES) {
  test(`pages and sections at ${size.width} × ${size.height}`, async ({ page }) => {
    await page.setViewportSize(size);
    const wrong: Record<string, string[]> = {};
    const look = async (what: string): Promise<void> => {
      await page.waitForTimeout(300);
      // names, contrasts and sizes of targets are the same at either size
      const found = [...(await faults(page)), ...(size === SIZES[0] ? await barriers(page) : [])];
      if (found.length > 0) wrong[what] = [...new Set(found)];
    };
    await page.goto('/orders');
    await expect(page.locator('.rows img').nth(3)).toBeVisible();
    await look('orders');
    await page.getByRole('link', { name: /Slipway sign/ }).click();
    await expect(section(page, 'Films')).toContainText('6 films');
    for (const name of ['Artwork', 'Films', 'Panels', 'Layout', 'Cut settings', 'Cutter']) {
      const heading = section(page, name);
      if ((await heading.getAttribute('aria-expanded')) !== 'true') await heading.click();
      for (const fold of await page.getByRole('button', { name: FOLDS }).all())
        if ((await fold.getAttribute('aria-expanded')) === 'false') await fold.click();
      await look(`order, ${name}`);
    }
    await page.getByRole('button', { name: 'On the film' }).click();
    await expect(page.getByText('fits', { exact: true }).first()).toBeVisible();
    await look('order, on the film');
    await page.goto('/orders');
    await page.getByRole('link', { name: /Ice-cream stickers/ }).click();
    await section(page, 'Print marks').click();
    await expect(page.getByRole('button', { name: /^Mark 1:/ })).toBeVisible();
    for (const fold of await page.getByRole('button', { name: /mm outside$/ }).all())
      if ((await fold.getAttribute('aria-expanded')) === 'false') await fold.click();
    await look('order, print marks');
    await page.goto('/orders');
    await page.getByRole('link', { name: /Race hut wall/ }).click();
    await expect(section(page, 'Panels')).toContainText('seam');
    await section(page, 'Panels').click();
    // both sizes share a shop: each begins with seams as they are placed by themselves
    await page.getByRole('radio', { name: /Where they cut least/ }).click();
    await expect(section(page, 'Panels')).toContainText('3 seams');
    await expect(page.getByRole('slider').first()).toBeVisible();
    await look('order, panels of a wall');
    await page.getByRole('radio', { name: /By hand/ }).click();
    await page.getByRole('button', { name: 'Add an upright seam' }).click();
    await saved(page);
    await look('order, panels by hand');
    await page.getByRole('radio', { name: /Whole pieces first/ }).click();
    await page.getByRole('checkbox', { name: 'The surface is known' }).click();
    await page.getByRole('button', { name: 'Keep a door or window clear' }).click();
    await expect(page.getByLabel('Door 1, wide')).toBeVisible();
    await saved(page);
    await look('order, whole pieces on a wall with a door');
    await page.getByRole('link', { name: 'Fitting map' }).click();
    await expect(page.getByRole('img', { name: /The sign in its panels/ })).toBeVisible();
    await look('fitting map');
    await page.goBack();
    await section(page, 'Panels').click();
    await page.getByRole('checkbox', { name: 'The surface is known' }).click();
    await saved(page);
    await page.goto('/orders');
    await page.getByRole('link', { name: /Slipway sign/ }).click();
    await expect(section(page, 'Films')).toContainText('6 films');
    for (const view of ['Films apart', 'Cut lines', 'As cut', 'Face']) {
      await page.getByRole('button', { name: view, exact: true }).click();
      await look(`order, ${view}`);
    }
    await page.getByRole('link', { name: 'Weeding and applying' }).click();
    await expect(page.getByRole('listitem').nth(2)).toBeVisible();
    await look('applying');
    // findings, a picture and text have panels of their own
    for (const [file, waits] of [
      ['e2e/art/mess.svg', /to check|to mend/],
      ['demo/art/tide-stamp.png', /^\d[\d.]* × /],
    ] as const) {
      await page.goto('/orders');
      await page.locator('input[type=file]').setInputFiles(file);
      await page.waitForURL(/orders\/\d+$/);
      await section(page, 'Artwork').click();
      await expect(page.getByText(waits).first()).toBeVisible();
      await look(file);
    }
    await page.goto('/orders');
    await page.getByRole('button', { name: 'From text' }).click();
    await page.getByLabel('Text', { exact: true }).fill('QUAY\nside');
    await saved(page);
    await look('text');
    await page.goto('/materials');
    await page.getByRole('button', { name: 'Rolls, colour and limits of Damson' }).click();
    await look('materials');
    await page.goto('/machines');
    await page.getByRole('button', { name: 'Test the link' }).click();
    await page.getByText(/answers in/).waitFor();
    await page.getByRole('button', { name: 'Add a cutter' }).click();
    await look('cutters as records');
    await page.goto('/cutters');
    await expect(page.getByText('Answers').first()).toBeVisible();
    await look('cutters');
    expect(wrong).toEqual({});
  });
}

for (const size of TABLETS) {
  test(`at the cutter at ${size.width} × ${size.height}`, async ({ page }) => {
    await page.setViewportSize(size);
    await page.goto('/cutters');
    await expect(page.getByText('Answers').first()).toBeVisible();
    const both = async (): Promise<string[]> => [...(await faults(page)), ...(await barriers(page))];
    const wrong = { list: await both(), idle: [] as string[], asks: [] as string[] };
    await page.goto('/cutters/plover');
    await expect(page.getByText('Answers; no film is in it')).toBeVisible();
    wrong.idle = await both();
    await page.goto('/orders');
    await page.getByRole('link', { name: /Crew shirts/ }).click();
    const queue = page.getByRole('button', { name: /^Queue [1-9]/ });
    const waiting = page.getByRole('link', { name: 'In the queue: go to the cutter' });
    await queue.or(waiting).click();
    await expect(page.getByRole('heading', { name: /^Load / })).toBeVisible();
    await page.waitForTimeout(400);
    wrong.asks = await both();
    await page.getByRole('button', { name: 'Dark colours' }).click();
    const night = await both();
    await page.getByRole('button', { name: 'Light colours' }).click();
    expect({ ...wrong, night }).toEqual({ list: [], idle: [], asks: [], night: [] });
  });
}
