/**
 * Every page with every section open, at the sizes that pages are made for: nothing is clipped, lies over something else
 * or is wider than its box, and axe (axe-core, WCAG 2.0 to 2.2, A and AA) has nothing against it.
 */
import { readFileSync } from 'node:fs';
import type { Page } from '@playwright/test';
import { expect, test } from './shop';

const AXE = readFileSync('node_modules/axe-core/axe.min.js', 'utf8');
const TAGS = ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22a', 'wcag22aa'];
const SIZES = [
  { width: 1280, height: 800 },
  { width: 1024, height: 700 },
];
export const TABLETS = [
  { width: 820, height: 1180 },
  { width: 1180, height: 820 },
];

/** What is wrong with what is seen now. */
export async function faults(page: Page): Promise<string[]> {
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
    // what lies under a dialog is out of reach
    const reach = document.querySelector('[aria-modal=true]') ?? document;
    const controls = [
      ...reach.querySelectorAll<HTMLElement>('button, a[href], input, [role=combobox], [role=slider]'),
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
    const boxes = inView.map((e) => e.getBoundingClientRect());
    for (const [i, a] of inView.entries()) {
      for (const [k, b] of inView.entries()) {
        if (k <= i || a.contains(b) || b.contains(a)) continue;
        const [p, q] = [boxes[i]!, boxes[k]!];
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
export async function barriers(page: Page): Promise<string[]> {
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

/** A walk through pages; `look` takes down what is wrong where it has come to, at each size that pages are made for. */
export function walk(
  name: string,
  steps: (page: Page, look: (what: string) => Promise<void>) => Promise<void>,
): void {
  test(name, async ({ page }) => {
    const wrong: Record<string, string[]> = {};
    await steps(page, async (what) => {
      for (const size of SIZES) {
        await page.setViewportSize(size);
        await page.waitForTimeout(300);
        // names, contrasts and sizes of targets are the same at either size
        const found = [...(await faults(page)), ...(size === SIZES[0] ? await barriers(page) : [])];
        if (found.length > 0) wrong[`${what} at ${size.width} × ${size.height}`] = [...new Set(found)];
      }
      await page.setViewportSize(SIZES[0]);
    });
    expect(wrong).toEqual({});
  });
}
