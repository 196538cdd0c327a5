import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { request } from 'node:http';
import type { RunningPanel } from './panelServer';
import { servePanel } from './panelServer';

let panel: RunningPanel;
let pressed = 0;
beforeAll(async () => {
  panel = await servePanel(0, {
    'GET /state': () => ({ pressed }),
    'POST /press': () => ({ pressed: ++pressed }),
  });
});
afterAll(() => panel.close());

const ask = (method: string, path: string, headers: Record<string, string>): Promise<number> =>
  new Promise((done, fail) => {
    const asking = request({ port: new URL(panel.url).port, path, method, headers }, (response) => {
      response.resume();
      done(response.statusCode!);
    });
    asking.on('error', fail);
    asking.end();
  });

test('a panel answers by this machine’s own names only, whatever is asked', async () => {
  for (const host of ['127.0.0.1', 'localhost:8080', '[::1]:1'])
    expect([host, await ask('GET', '/state', { host })]).toEqual([host, 200]);
  for (const host of ['rebound.invalid', '127.0.0.1.rebound.invalid', 'signs.lan:80', 'x@127.0.0.1'])
    for (const method of ['GET', 'POST'])
      expect([host, await ask(method, method === 'GET' ? '/state' : '/press', { host })]).toEqual([
        host,
        421,
      ]);
  expect(pressed).toBe(0);
});

test('what is no address is refused, and the machine goes on', async () => {
  for (const path of ['//', '///', '//[', '//a:b'])
    expect([path, await ask('GET', path, {})]).toEqual([path, 400]);
  expect(await ask('GET', '/state', {})).toBe(200);
});

test('a button is not pressed from another site', async () => {
  expect(await ask('POST', '/press', { 'sec-fetch-site': 'cross-site' })).toBe(403);
  expect(await ask('POST', '/press', {})).toBe(200);
  expect(pressed).toBe(1);
});
