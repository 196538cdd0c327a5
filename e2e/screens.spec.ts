/** What a card shows fits into it, at the sizes that pages are made for. */
import { expect, test } from './shop';

const SIZES = [
  { width: 1280, height: 800 },
  { width: 1024, height: 700 },
];

for (const size of SIZES) {
  test(`bars and lists fit into the window at ${size.width} × ${size.height}`, async ({ page }) => {
    await page.setViewportSize(size);
    await page.goto('/orders');
    await expect(page.getByText('Marsh Wren hull names').first()).toBeVisible();
    expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(size.width);
    const right = await page.getByRole('button', { name: 'New order' }).boundingBox();
    expect(right!.x + right!.width).toBeLessThanOrEqual(size.width);
    await page.getByText('Marsh Wren hull names').first().click();
    for (const bar of ['.work .bar', '.work footer', '.work .views']) {
      const box = page.locator(bar);
      await expect(box).toBeVisible();
      const over = await box.evaluate((e) => [
        e.scrollWidth - e.clientWidth,
        e.scrollHeight - e.clientHeight,
      ]);
      expect({ bar, over }).toEqual({ bar, over: [0, 0] });
      // in one look: a button of a plan that is under way may be gone at the next
      const out = await box.evaluate(
        (e, width) =>
          [...e.querySelectorAll<HTMLElement>('button, a')]
            .filter((part) => part.getBoundingClientRect().right > width)
            .map((part) => part.innerText),
        size.width,
      );
      expect({ bar, out }).toEqual({ bar, out: [] });
    }
  });
}

/** The tablet beside a machine, upright and lying. */
for (const size of [
  { width: 820, height: 1180 },
  { width: 1180, height: 820 },
]) {
  test(`at the cutter, what to do is said in whole lines at ${size.width} × ${size.height}`, async ({
    page,
  }) => {
    await page.setViewportSize(size);
    await page.goto('/orders');
    await page.getByText('Class numbers, sail 4127').first().click();
    const queue = page.getByRole('button', { name: /^Queue [1-9]/ });
    const waiting = page.getByRole('link', { name: 'In the queue: go to the cutter' });
    await queue.or(waiting).click();
    await page.waitForURL(/cutters?\//);
    const sentence = page.locator('.say h2');
    await expect(sentence).toContainText(/^Load /);
    const { height } = (await sentence.boundingBox())!;
    // two lines at the most, however long the name of a film is
    expect(height).toBeLessThan(90);
    const whole = page.locator('.cutter-page');
    expect(await whole.evaluate((e) => e.scrollWidth - e.clientWidth)).toBeLessThanOrEqual(0);
    for (const button of await page.locator('.big:visible').all()) {
      const box = (await button.boundingBox())!;
      expect(box.height, await button.innerText()).toBeGreaterThanOrEqual(56);
      expect(box.x + box.width).toBeLessThanOrEqual(size.width);
      expect(box.y + box.height).toBeLessThanOrEqual(size.height);
    }
    if (size.height > size.width) {
      const film = (await page.locator('.film').boundingBox())!;
      const numbers = (await page.locator('.numbers').boundingBox())!;
      expect(film.width).toBeGreaterThan(800);
      expect(numbers.y).toBeGreaterThanOrEqual(film.y + film.height - 2);
    }
  });
}
