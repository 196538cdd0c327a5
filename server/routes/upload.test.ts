import { expect, test } from '@jest/globals';
import express from 'express';
import request from 'supertest';
import { oneFile } from './upload';

test('a sender of too many files in a minute is asked to wait', async () => {
  const app = express();
  app.post('/files', ...oneFile(2), (_request, response) => void response.json('taken'));
  const send = () => request(app).post('/files').attach('file', Buffer.from('<svg/>'), 'tern.svg');
  await send().expect(200);
  await send().expect(200);
  const third = await send().expect(429);
  expect(third.body).toEqual({
    code: 'too-fast',
    message: 'More than 2 files came in within a minute. Wait a little, then go on.',
  });
});
