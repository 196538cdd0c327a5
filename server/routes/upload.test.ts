import { expect, test } from '@jest/globals';
import express from 'express';
import { once } from 'node:events';
import { readdirSync } from 'node:fs';
import { writeFile } from 'node:fs/promises';
import { connect } from 'node:net';
import type { AddressInfo, Socket } from 'node:net';
import { pino } from 'pino';
import request from 'supertest';
import { ownFolder } from '../files/ownFolder';
import { errorHandler, handle } from './guard';
import type { UploadLimits } from './upload';
import { oneFile, uploadedFile } from './upload';

test('a sender of too many files in a minute is asked to wait', async () => {
  const app = express();
  app.post('/files', ...oneFile({ perMinute: 2 }), (_request, response) => void response.json('taken'));
  const send = () => request(app).post('/files').attach('file', Buffer.from('<svg/>'), 'tern.svg');
  await send().expect(200);
  await send().expect(200);
  const third = await send().expect(429);
  expect(third.body).toEqual({
    code: 'too-fast',
    message: 'More than 2 files came in within a minute. Wait a little, then go on.',
  });
});

/** A server that takes files, and whoever sends some of one. */
async function taking(limits: Partial<UploadLimits>) {
  const app = express();
  const answer = handle(async (request, response) => {
    response.json((await uploadedFile(request)).bytes.length);
  });
  app.post('/files', ...oneFile({ perMinute: 1000, ...limits }), answer);
  app.use(errorHandler(pino({ level: 'silent' })));
  const server = app.listen(0, '127.0.0.1');
  await once(server, 'listening');
  const { port } = server.address() as AddressInfo;
  const half = async (size = 1000): Promise<Socket> => {
    const socket = connect(port, '127.0.0.1');
    await once(socket, 'connect');
    const begin = '--b\r\nContent-Disposition: form-data; name="file"; filename="a.svg"\r\n\r\n<svg';
    socket.write(
      `POST /files HTTP/1.1\r\nHost: x\r\nContent-Type: multipart/form-data; boundary=b\r\nContent-Length: ${size}\r\n\r\n${begin}`,
    );
    return socket;
  };
  const send = () => request(server).post('/files').attach('file', Buffer.alloc(3_000_000, 32), 'tern.svg');
  return { half, send, close: () => (server.closeAllConnections(), server.close()) };
}
const until = async (isSo: () => boolean | Promise<boolean>): Promise<void> => {
  while (!(await isSo())) await new Promise((done) => setTimeout(done, 10));
};

test('uploads that come in at once are no more than there is room for', async () => {
  const { half, send, close } = await taking({ atOnce: 3 });
  await send().expect(200, '3000000');
  const halves = await Promise.all([half(), half(), half()]);
  await until(async () => (await send()).status === 503);
  expect((await send()).headers['retry-after']).toBe('2');
  halves[0].destroy();
  await until(async () => (await send()).status === 200);
  close();
});

test('whoever sends too slowly is cut off, and nothing of it stays', async () => {
  const { half, send, close } = await taking({ atOnce: 1, slowest: 1000, patience: 100 });
  const folder = await ownFolder('uploads');
  const slow = await half();
  slow.on('error', () => {});
  await once(slow, 'close');
  await until(async () => (await send()).status === 200);
  await until(() => readdirSync(folder).length === 0);
  close();
});

test('a full disk is said to be full', async () => {
  const app = express();
  app.get(
    '/',
    handle(() => writeFile('/dev/full', 'x')),
  );
  app.use(errorHandler(pino({ level: 'silent' })));
  const { body } = await request(app).get('/').expect(507);
  expect(body.code).toBe('disk-full');
});
