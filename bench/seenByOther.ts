/** How soon one person sees what another does on the floor: two browsers, two roles. */
import type { Page } from '@playwright/test';
import type { Order } from '../contracts/api';
import { pageOf } from '../e2e/shop';
import { ofSize } from './size';

const ROUNDS = ofSize(20, 2);

/** @returns ms from a press in one browser until the other shows what came of it, press by press */
export async function seenByOther(page: Page, url: string): Promise<readonly number[]> {
  const [lead, prep] = [await pageOf(page, { url }, 'lead'), await pageOf(page, { url }, 'prep')];
  const order = (await (await lead.request.get(`${url}/api/orders/1`)).json()) as Order;
  const held = { revision: order.revision, hold: true };
  await lead.request.post(`${url}/api/orders/1/queue`, { headers: { Origin: url }, data: held });
  for (const page of [lead, prep]) await page.goto(`${url}/floor`);
  const shelf = (page: Page) => page.getByRole('region', { name: /^Shelf/ }).getByRole('button');
  await shelf(prep).first().waitFor();
  const took: number[] = [];
  await shelf(lead).first().click();
  const count = await shelf(prep).count();
  for (let k = 0; k < ROUNDS; k++) {
    const [press, then] = k % 2 === 0 ? ['Send it', count - 1] : ['Put on the shelf', count];
    const button = lead.getByRole('button', { name: press });
    await button.waitFor();
    const begun = performance.now();
    await Promise.all([
      button.click(),
      prep.waitForFunction(
        (wanted) => document.querySelectorAll('[data-shelf] button').length === wanted,
        then,
      ),
    ]);
    took.push(performance.now() - begun);
  }
  for (const page of [lead, prep]) await page.close();
  return took;
}
