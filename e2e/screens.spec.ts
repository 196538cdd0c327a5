/** What a card shows fits into it, at the sizes that pages are made for. */
import { expect, test } from '@playwright/test';

const SIZES = [
  { width: 1280, height: 800 },
  { width: 1024, height: 700 },
];

for (const size of SIZES) {
  test(`no section of the run card is wider than the card at ${size.width} × ${size.height}`, async ({
    page,
  }) => {
    await page.setViewportSize(size);
    await page.goto('/');
    await page.getByText('Marsh Wren hull names').first().click();
    for (const section of ['Artwork', 'Films', 'Layout', 'Cut settings']) {
      const heading = page.getByRole('heading', { name: new RegExp(section) }).getByRole('button');
      if ((await heading.getAttribute('aria-expanded')) !== 'true') await heading.click();
      for (const fold of await page.locator('.sections .fold h3 button').all())
        if ((await fold.getAttribute('aria-expanded')) !== 'true') await fold.click();
      const sections = page.locator('.sections');
      await expect
        .poll(() => sections.evaluate((box) => box.scrollWidth - box.clientWidth), { message: section })
        .toBeLessThanOrEqual(0);
      if (section === 'Films') await expect(page.getByText('copies', { exact: true }).first()).toBeVisible();
    }
  });
}
