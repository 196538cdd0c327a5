import { expect, test } from '@jest/globals';
import { once } from 'node:events';
import { createServer } from 'node:net';
import type { AddressInfo } from 'node:net';
import { openTcp } from './tcp';

test.each([
  ['one answer without end', 'x'],
  ['answers without end', 'x\r'],
])('%s: the line is given up, and little of it is kept', async (_, text) => {
  const server = createServer((socket) => {
    socket.on('error', () => {});
    const flood = (): void => {
      while (!socket.destroyed && socket.write(text.repeat(30_000)));
    };
    socket.on('drain', flood);
    flood();
  }).listen(0, '127.0.0.1');
  await once(server, 'listening');
  const link = await openTcp('127.0.0.1', (server.address() as AddressInfo).port);
  await new Promise((done) => setTimeout(done, 50));
  await expect(link.answer(5000).then(() => link.answer(5000))).rejects.toThrow(/without end/);
  link.close();
  server.close();
});
