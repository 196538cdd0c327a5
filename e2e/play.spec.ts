/** Play it: a cut before it is cut. */
import { expect, test } from './shop';

test('a cut is played, stopped, gone through by line and by time; what is cut twice is found', async ({
  page,
}) => {
  await page.goto('/orders');
  await page.locator('input[type=file]').setInputFiles('e2e/art/edge-twice.svg');
  await page.waitForURL(/orders\/\d+$/);
  await page.getByRole('button', { name: 'Play it' }).click();
  const says = page.getByRole('region', { name: 'What it comes to' });
  await expect(says).toContainText('60.0 mm is cut twice.');
  await expect(says).toContainText(/keeps within 0\.0\d\d mm of the drawing/);
  const stage = page.getByRole('application', { name: /^The cut as it will run/ });
  const head = stage.locator('.holder');
  const whole = await head.boundingBox();
  await says.getByRole('button', { name: 'Look there' }).click();
  await expect.poll(async () => (await head.boundingBox())?.x).not.toBe(whole?.x);
  await stage.focus();
  await page.keyboard.press('0');

  const time = page.getByRole('timer');
  const seconds = async (): Promise<number> => {
    const [minutes, s] = (await time.innerText()).split(' of ')[0].split(':').map(Number);
    return 60 * minutes + s;
  };
  await page.getByRole('button', { name: '16 ×' }).click();
  await page.getByRole('button', { name: 'Play', exact: true }).click();
  // to its end by itself
  await expect(page.getByRole('button', { name: 'Play', exact: true })).toBeVisible();
  const [at, end] = (await time.innerText()).split(' of ');
  expect(at).toBe(end);
  expect(await seconds()).toBeGreaterThan(3);

  // a longer one is stopped on its way, and stays where it was stopped
  await page.goto('/orders');
  await page.getByRole('link', { name: /Slipway sign/ }).click();
  await page.getByRole('button', { name: 'Play it' }).click();
  await page.getByRole('button', { name: '4 Chalk white' }).click();
  await expect(time).toHaveText('0:00 of 0:33');
  await page.getByRole('button', { name: 'as it cuts' }).click();
  await page.getByRole('button', { name: 'Play', exact: true }).click();
  await expect.poll(seconds).toBeGreaterThanOrEqual(2);
  await page.getByRole('button', { name: 'Stop' }).click();
  const stopped = await head.boundingBox();
  const when = await seconds();
  expect(when).toBeLessThan(33);
  await page.waitForTimeout(1200);
  expect(await seconds()).toBe(when);
  expect(await head.boundingBox()).toEqual(stopped);
  await page.getByRole('button', { name: 'To the next line' }).click();
  expect(await head.boundingBox()).not.toEqual(stopped);

  // by keys: from line to line, through time, played and stopped
  await stage.focus();
  for (let i = 0; i < 30; i++) await page.keyboard.press(',');
  await expect(time).toContainText(/^0:00 of/);
  await page.getByRole('slider', { name: 'Time' }).focus();
  await page.keyboard.press('End');
  await expect.poll(seconds).toBeGreaterThan(3);
  await expect(time).toHaveText('0:33 of 0:33');
  await page.keyboard.press('Home');
  await expect(time).toHaveText('0:00 of 0:33');
  await page.keyboard.press('End');
  await stage.focus();
  // over, it begins again
  await page.keyboard.press(' ');
  await expect(page.getByRole('button', { name: 'Stop' })).toBeVisible();
  expect(await seconds()).toBeLessThan(33);
  await page.keyboard.press(' ');
  await expect(page.getByRole('button', { name: 'Play', exact: true })).toBeVisible();

  // what is remembered, and what changes under it
  await page.reload();
  await page.getByRole('button', { name: 'Play it' }).click();
  await expect(page.getByRole('button', { name: 'as it cuts' })).toHaveAttribute('aria-pressed', 'true');
});
