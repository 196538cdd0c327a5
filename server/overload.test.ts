/** More is asked than can be done: some are told so at once, the others are answered. */
import { expect, test } from '@jest/globals';
import type { Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import express from 'express';
import { pino } from 'pino';
import { errorHandler, notTooMany } from './routes/guard';
import { openPool } from './work/pool';

const SENTENCE = /more to do than it can just now\. Nothing was changed; try again in a moment\.$/;

test('tasks that are too many are turned away, and all others are done', async () => {
  const pool = openPool(1);
  const all = await Promise.allSettled(
    Array.from({ length: 260 }, (_, k) => pool.run('lookAtFont', { bytes: Buffer.from(`no font ${k}`) })),
  );
  const refused = all.flatMap((one) => (one.status === 'rejected' ? [one.reason as unknown] : []));
  expect(refused.length).toBeGreaterThan(50);
  for (const reason of refused)
    expect(reason).toMatchObject({ status: 503, code: 'too-busy', message: expect.stringMatching(SENTENCE) });
  const done = all.filter(({ status }) => status === 'fulfilled');
  expect(done.length).toBeGreaterThanOrEqual(200);
  // whoever comes later is taken
  expect(await pool.run('lookAtFont', { bytes: Buffer.from('no font') })).toMatchObject({ ok: false });
  await pool.close();
}, 60_000);

test('people take turns: who asks late is answered before the second of what another one asked for', async () => {
  const pool = openPool(1);
  const [ann, ben] = [1, 2].map((who) => pool.onBehalfOf(who));
  const drawing = (shapes: number): Buffer => {
    const paths = Array.from({ length: shapes }, (_, k) => `<path d="M${k} 0v9h9z"/>`);
    return Buffer.from(
      `<svg xmlns="http://www.w3.org/2000/svg" width="90mm" height="9mm">${paths.join('')}</svg>`,
    );
  };
  const over: string[] = [];
  const read = (who: typeof ann, name: string, shapes: number) =>
    who.run('takeIn', { bytes: drawing(shapes) }).then(() => over.push(name));
  await Promise.all([...['a1', 'a2', 'a3', 'a4'].map((name) => read(ann, name, 2000)), read(ben, 'b', 3)]);
  expect(over.slice(0, 2)).toEqual(['a1', 'b']);
  await pool.close();
}, 60_000);

test('questions that are too many are turned away until others are answered; what a person did is taken', async () => {
  const waiting: (() => void)[] = [];
  const app = express();
  app.use('/api', notTooMany(2));
  app.get('/api/slow', (_request, response) => void waiting.push(() => response.json('late')));
  app.get('/api/events', (_request, response) => response.json('heard'));
  app.post('/api/cuts', (_request, response) => response.json('taken'));
  app.use(errorHandler(pino({ level: 'silent' })));
  const server = await new Promise<Server>((done) => {
    const listening = app.listen(0, '127.0.0.1', () => done(listening));
  });
  const at = (path: string, method = 'GET') =>
    fetch(`http://127.0.0.1:${(server.address() as AddressInfo).port}/api${path}`, { method });
  const first = [at('/slow'), at('/slow')];
  while (waiting.length < 2) await new Promise((done) => setTimeout(done, 5));

  const refused = await at('/slow');
  expect([refused.status, refused.headers.get('retry-after')]).toEqual([503, '2']);
  expect(await refused.json()).toEqual({ code: 'too-busy', message: expect.stringMatching(SENTENCE) });
  expect(await (await at('/cuts', 'POST')).json()).toBe('taken');
  expect(await (await at('/events')).json()).toBe('heard');

  waiting.splice(0).forEach((answer) => answer());
  for (const answer of await Promise.all(first)) expect(await answer.json()).toBe('late');
  const next = at('/slow');
  while (waiting.length < 1) await new Promise((done) => setTimeout(done, 5));
  waiting[0]();
  expect((await next).status).toBe(200);
  server.closeAllConnections();
  await new Promise((done) => server.close(done));
});
