// Remakes docs/screenshots from the demo data: one picture of each main view.
import { mkdirSync } from 'node:fs';
import { chromium } from '@playwright/test';
import { BROWSER, installBrowser } from './browser.mjs';
import { installPackages } from './packages.mjs';
import { startPostgres } from './postgres.mjs';
import { run, startUntilReady } from './run.mjs';

installPackages();
installBrowser();
run('npx', ['vite', 'build', '--logLevel', 'error']);
const postgres = await startPostgres('test', { fast: true });
const server = await startUntilReady(process.execPath, ['scripts/program.mjs', 'e2e/serve.ts'], {
  DATABASE_URL: postgres.fresh('jampan_pictures'),
  TIME_FACTOR: '12',
});
server.child.removeAllListeners('exit');
const browser = await chromium.launch(BROWSER);
const page = await browser.newPage({
  viewport: { width: 1280, height: 800 },
  baseURL: JSON.parse(server.said).url,
});
mkdirSync('docs/screenshots', { recursive: true });
const shot = async (name) => {
  await page.waitForTimeout(600);
  await page.screenshot({ path: `docs/screenshots/${name}.png` });
  console.log(`docs/screenshots/${name}.png`);
};
const section = (name) => page.getByRole('button', { name: new RegExp(`^\\d ${name}`) });

const { url } = JSON.parse(server.said);
const logIn = (name, password) =>
  page.request.post('/api/session', { headers: { Origin: url }, data: { name, password } });
await logIn('Thrift', 'thrift at the till');
await page.goto('/orders');
// a row's picture follows its order by itself
await page.locator('.rows img').nth(5).waitFor();
await shot('orders');
await page.getByRole('link', { name: /Slipway sign/ }).click();
await page.getByText('6 films').waitFor();
await page.goto('/orders');
await page.locator('input[type=file]').setInputFiles('e2e/art/mess.svg');
await page.getByText('3 films').or(page.getByText('4 films')).first().waitFor();
await section('Artwork').click();
await page.keyboard.press('p');
await page.keyboard.press('p');
await page.keyboard.press('p');
await page.getByText(/found$/).waitFor();
await shot('check-over');
await page.goto('/orders');
await page.locator('input[type=file]').setInputFiles('demo/art/tide-stamp.png');
await page.waitForURL(/orders\/\d+$/);
await section('Artwork').click();
await page.getByRole('button', { name: 'Over the picture' }).click();
await page.getByText(/% of pixels differ/).waitFor();
await shot('tracing');
await page.goto('/orders');
await page.getByRole('link', { name: /Slipway sign/ }).click();
await page.getByText('6 films').waitFor();
await page.getByRole('link', { name: 'Weeding and applying' }).click();
await page.getByRole('listitem').nth(2).waitFor();
await shot('applying');
await page.goto('/materials');
await page.getByText('44 of 44').waitFor();
await page.getByRole('button', { name: 'Rolls, colour and limits of Damson' }).click();
await shot('materials');
await page.goto('/orders');
await page.getByRole('link', { name: /Race hut wall/ }).click();
await page.getByText(/panels, \d seams/).waitFor();
await section('Panels').click();
const offered = (name) => page.locator('.cards .card', { hasText: name }).getByText(/mm cut/);
await offered('Wandering').waitFor();
await page.getByRole('radio', { name: /Wandering/ }).click();
await page.locator('.cards .card:has(input:checked)', { hasText: 'Wandering' }).waitFor();
await page.waitForTimeout(4000);
await offered('Columns and rows').waitFor();
await shot('panels');
await page.getByRole('radio', { name: /Whole pieces first/ }).click();
await page.getByRole('checkbox', { name: 'Cut piece 1', exact: true }).waitFor();
await page.getByText(/^Saved \d/).waitFor();
await page.getByRole('link', { name: 'Fitting map' }).click();
await page.getByRole('img', { name: /in its panels/ }).waitFor();
await shot('fitting-map');
await page.goto('/orders');
await page.getByRole('link', { name: /Crew shirts/ }).click();
await page.getByText('2 films').waitFor();
await section('Layout').click();
await page.getByRole('button', { name: 'Cut lines' }).click();
await shot('cut-lines-and-layout');

await page.goto('/orders');
await page.getByRole('link', { name: /Marsh Wren/ }).click();
await page.getByText('3 films').waitFor();
await shot('order');
await section('Layout').click();
await page.getByRole('combobox', { name: 'Weed lines' }).click();
await page.getByRole('option', { name: 'for easy lifting' }).click();
await page.getByRole('button', { name: 'On the film' }).click();
await page.getByText('fits').first().waitFor();
await page.waitForTimeout(2500);
await shot('on-the-film');
await page.getByRole('button', { name: 'Face' }).click();
await page.getByText(/^Saved/).waitFor();
await page.getByRole('button', { name: 'Queue 3 cuts', disabled: false }).click();
await page.getByRole('button', { name: 'Damson is loaded' }).waitFor();
await page.goto('/cutters');
await page.getByText('Answers; film in it').nth(2).waitFor();
await page.getByRole('link', { name: /Load Damson/ }).click();
await page.getByRole('button', { name: 'Damson is loaded' }).waitFor();
// the tablet beside the machine, upright
await page.setViewportSize({ width: 820, height: 1180 });
await page.setViewportSize({ width: 1280, height: 800 });
await page.getByRole('button', { name: 'Damson is loaded' }).click();
await page.getByText(/Cutting line (1\d|2\d) of/).waitFor();
await page.getByRole('button', { name: 'Dark colours' }).click();
await shot('at-the-cutter');
await page.getByRole('button', { name: 'Light colours' }).click();
await page.getByRole('button', { name: 'Tide blue is loaded' }).waitFor({ timeout: 60_000 });
await page.getByRole('link', { name: 'See it as cut' }).click();
await page.getByRole('button', { name: 'As cut' }).click();
await page.getByText('lies at most').waitFor();
await page.getByText('3 films').waitFor();
await shot('as-cut');
await page.goto('/orders');
await page.getByRole('link', { name: /Slipway sign/ }).click();
await page.getByRole('button', { name: 'Play it' }).click();
await page.getByRole('button', { name: '4 Chalk white' }).click();
await page.getByRole('button', { name: '16 ×' }).click();
await page.getByRole('button', { name: 'Play', exact: true }).click();
await page.getByText(/^0:(2|3)\d of/).waitFor();
await page.getByRole('button', { name: 'Stop' }).click();
await shot('play');
await page.goto('/orders');
await page.getByRole('link', { name: /Ice-cream stickers/ }).click();
await section('Print marks').click();
await page.getByRole('button', { name: 'Print 2 sheets', disabled: false }).click();
await page.getByText(/tray/).waitFor();
await page.locator('.sections').evaluate((all) => (all.scrollTop = 218));
await shot('print-marks');
await page.getByRole('button', { name: 'Queue 2 cuts', disabled: false }).click();
await page.getByRole('button', { name: 'The sheet is loaded' }).waitFor();
// as a person loads it: a little aslant, the head over the first mark
const { panels } = JSON.parse(server.said);
const head = await page.evaluate(async () => {
  const cut = (await (await fetch('/api/cuts')).json()).find(({ sheet }) => sheet);
  const [x, y] = cut.sheet.marks[0].at;
  return [x, y + cut.edges.far];
});
await fetch(`${panels.plover}/load-print`, {
  method: 'POST',
  body: JSON.stringify({ print: 1, turn: 1.3, shift: [1, -1], stretch: [1.0012, 0.999], bow: 0.4, head }),
});
await page.getByRole('button', { name: 'The sheet is loaded' }).click();
await page.getByText(/Cutting line \d+ of/).waitFor();
await page.waitForTimeout(2500);
await shot('reading-marks');
// the sensor sits elsewhere than it should: crosses are cut and looked at
await fetch(`${panels.saltpan}/set-up`, {
  method: 'POST',
  body: JSON.stringify({ sensorOffset: [0.7, -12.3] }),
});
await page.goto('/machines/saltpan/sensor');
await page.getByRole('button', { name: 'Print and cut' }).click();
await page.getByRole('button', { name: 'Make the sheet' }).click();
await page.getByRole('button', { name: 'Print it' }).click();
const tray = async () => (await fetch(`${panels.saltpan}/tray`)).json();
while (!(await tray()).some(({ name }) => name.startsWith('Saltpan'))) await page.waitForTimeout(300);
const print = (await tray()).find(({ name }) => name.startsWith('Saltpan')).id;
await fetch(`${panels.saltpan}/load-print`, { method: 'POST', body: JSON.stringify({ print, turn: 0.2 }) });
await page.getByRole('button', { name: /^It is loaded/ }).click();
const seen = [
  '0.3 left, 0.2 back',
  '0.25 left, 0.2 back',
  '0.3 left, 0.15 back',
  '0.35 left, 0.2 back',
  '0.3 left, 0.25 back',
];
for (const [i, text] of seen.entries()) {
  await page.getByRole('textbox', { name: `Cross ${i + 1}` }).fill(text);
  await page.keyboard.press('Enter');
}
await page.getByText('So the sensor sits').waitFor();
await shot('calibration');
// a knife that has cut for a while, and a trial grid on it
await page.goto('/materials/quince/recipes');
await page.getByRole('button', { name: 'Say which knife is in' }).click();
await page.getByRole('button', { name: 'It is in' }).click();
await fetch(`${panels.curlew}/load`, {
  method: 'POST',
  body: JSON.stringify({ width: 610, length: 14_000 }),
});
await page.getByRole('button', { name: 'Cut a grid' }).click();
await page.getByRole('radio', { name: 'clean' }).waitFor({ timeout: 120_000 });
for (const [look, from, to] of [
  ['not through', 0, 56],
  ['clean', 56, 110],
  ['into the backing', 110, 999],
]) {
  await page.getByRole('radio', { name: look }).click();
  for (const cell of await page.getByRole('group', { name: 'Cells' }).getByRole('button').all()) {
    const force = Number.parseInt(await cell.getAttribute('aria-label'), 10);
    if (force >= from && force < to) await cell.click();
  }
}
await page.getByText('Cuts cleanly from').waitFor();
await shot('recipes');
// the floor with what was queued on the way, and some more
const { rows } = await (await page.request.get('/api/orders')).json();
for (const [name, hold] of [
  ['Class numbers', false],
  ['Slipway', false],
  ['Race hut', false],
  ['Crew shirts', true],
]) {
  const { id } = rows.find((row) => row.name.startsWith(name));
  const { revision } = await (await page.request.get(`/api/orders/${id}`)).json();
  await page.request.post(`/api/orders/${id}/queue`, { headers: { Origin: url }, data: { revision, hold } });
}
await page.setViewportSize({ width: 1280, height: 800 });
await page.goto('/floor');
await page.getByText(/last cut ends/).waitFor();
await shot('floor');
// what all of that came to
await page.goto('/usage');
await page.getByRole('heading', { name: 'Where the hours went' }).waitFor();
await page.waitForTimeout(600);
await shot('usage');
await browser.close();
server.child.kill('SIGKILL');
postgres.stop();
