/** A shop of its own for every file of browser tests: server, simulated cutters and an empty database. */
import type { ChildProcess } from 'node:child_process';
import { expect, test as base } from '@playwright/test';
import type { BrowserContextOptions, Locator, Page } from '@playwright/test';
import type { Role } from '../contracts/people';
import { DEMO_PEOPLE } from '../demo/people';
import { startUntilReady } from '../scripts/run.mjs';
import { freshDatabase } from '../server/db/freshDatabase.testing';

export { expect } from '@playwright/test';

/** Where a shop answers. */
export interface Shop {
  readonly url: string;
  /** Address of each simulated cutter's own panel, by the cutter's id. */
  readonly panels: Readonly<Record<string, string>>;
  /** The lead of the demo shop, logged in: for what a test asks beside its page. */
  readonly cookie: string;
}

/** The database of a shop as it is before anybody has worked in it. */
export const SEEDED = 'jampan_e2e_seeded';

/** Starts a whole shop on a database, which it fills unless it is filled. */
export const startShop = (databaseUrl: string): ReturnType<typeof startUntilReady> =>
  startUntilReady(process.execPath, ['scripts/program.mjs', 'e2e/serve.ts'], { DATABASE_URL: databaseUrl });

export const test = base.extend<object, { shop: Shop }>({
  shop: [
    async ({}, use, { project, workerIndex }) => {
      const name = `jampan_e2e_${project.name.replace(/\W/g, '_')}_${workerIndex}`;
      const { said, child } = await startShop(await freshDatabase(name, SEEDED));
      const { url, panels } = JSON.parse(said) as Omit<Shop, 'cookie'>;
      await use({ url, panels, cookie: await logIn(url, 'lead') });
      await ended(child);
    },
    { scope: 'worker', timeout: 170_000 },
  ],
  baseURL: ({ shop }, use) => use(shop.url),
  // whoever opens a page is the lead, but where a test says otherwise
  storageState: ({ shop }, use) => use(loggedIn(shop, shop.cookie)),
  page: async ({ page }, use) => {
    page.on('pageerror', (error) => {
      throw error;
    });
    await use(page);
  },
});

/** Logs one of the demo's people in. @returns their cookie */
export async function logIn(url: string, role: Role): Promise<string> {
  const { name, password } = DEMO_PEOPLE.find((one) => one.role === role)!;
  const answer = await fetch(`${url}/api/session`, {
    method: 'POST',
    headers: { Origin: url, 'Content-Type': 'application/json' },
    body: JSON.stringify({ name, password }),
  });
  return answer.headers.get('set-cookie')!.split(';')[0];
}

/** What a browser keeps of a log-in. */
export function loggedIn({ url }: Pick<Shop, 'url'>, cookie: string) {
  const [name, value] = cookie.split('=');
  const { hostname: domain } = new URL(url);
  const rest = { path: '/', expires: -1, httpOnly: true, secure: false, sameSite: 'Strict' as const };
  return { cookies: [{ name, value, domain, ...rest }], origins: [] };
}

/** A page of somebody's own; nobody's: a stranger's. */
export async function pageOf(
  page: Page,
  shop: Pick<Shop, 'url'>,
  role: Role | undefined,
  options: BrowserContextOptions = {},
): Promise<Page> {
  const storageState = role ? loggedIn(shop, await logIn(shop.url, role)) : { cookies: [], origins: [] };
  const context = await page
    .context()
    .browser()!
    .newContext({ ...options, storageState });
  return context.newPage();
}

/** What the shop's server gives, asked as the lead. */
export const given = async <T>({ url, cookie }: Shop, path: string): Promise<T> =>
  (await (await fetch(`${url}${path}`, { headers: { Cookie: cookie, Connection: 'close' } })).json()) as T;

/** A shop that is not needed any more. */
export function ended(child: ChildProcess): Promise<void> {
  child.removeAllListeners('exit');
  return new Promise((done) => {
    child.once('exit', () => done());
    child.kill('SIGKILL');
  });
}

/** Heading of a section of the run card. */
export const section = (page: Page, name: string): Locator =>
  page.getByRole('button', { name: new RegExp(`^\\d ${name}`) });

/** What was changed lies on the server. */
export const saved = (page: Page): Promise<void> => expect(page.getByText(/^Saved \d\d:\d\d$/)).toBeVisible();

/** Nothing is planned or checked any more: what the page shows stays where it is. */
export const settled = (page: Page): Promise<void> =>
  expect(page.locator('.work footer .doing')).toHaveText('');

/** Queues an order as it stands; the page goes where it is cut or held. */
export async function queueOrder(page: Page, order: RegExp, how = /^Queue [1-9]/): Promise<void> {
  await page.goto('/orders');
  await page.getByRole('link', { name: order }).click();
  await expect(section(page, 'Films')).toContainText(/films?/);
  await settled(page);
  await page.getByRole('button', { name: how }).click();
  await expect(page).toHaveURL(/cutters|floor/);
}

/** Picks one of a few by its name. */
export async function choose(page: Page, label: string, option: string | RegExp): Promise<void> {
  await page.getByRole('combobox', { name: label, exact: true }).click();
  await page.getByRole('option', { name: option }).click();
}

/** Puts a roll into a simulated cutter as its operator does. */
export const loadFilm = (
  shop: Shop,
  width: number,
  { cutter = 'curlew', length = 22_000 }: { cutter?: string; length?: number } = {},
): Promise<Response> =>
  fetch(`${shop.panels[cutter]}/load`, { method: 'POST', body: JSON.stringify({ width, length }) });

/** How many times as fast as a clock Curlew works; and what browser tests begin with. */
export const pace = (shop: Shop, times: number): Promise<Response> =>
  fetch(`${shop.panels.curlew}/pace`, { method: 'POST', body: JSON.stringify({ times }) });
export const QUICK = 30;

/** Takes every open cut out of the queue. */
export const cancelAll = (page: Page): Promise<void> =>
  page.evaluate(async () => {
    const cuts = (await (await fetch('/api/cuts')).json()) as { id: number }[];
    for (const { id } of cuts) await fetch(`/api/cuts/${id}/cancel`, { method: 'POST' });
  });
