import { Router } from 'express';
import { rateLimit } from 'express-rate-limit';
import multer from 'multer';
import { changeSchema, orderDetailsSchema, queueSchema } from '../../contracts/api';
import { LARGEST_UPLOAD } from '../files/readSvg';
import { Trouble } from '../problem';
import type { CutServices } from '../services/cuts';
import { queueOrder } from '../services/cuts';
import {
  artworkOf,
  changeChoices,
  filmFile,
  getOrder,
  listOrders,
  nameOrder,
  originalOf,
  startOrder,
  step,
} from '../services/orders';
import { handle, idOf, parse } from './guard';

export function orderRoutes(services: CutServices): Router {
  const { db } = services;
  const router = Router();
  const upload = multer({
    storage: multer.memoryStorage(),
    limits: { fileSize: LARGEST_UPLOAD, files: 1, fields: 4 },
  });
  const uploadLimit = rateLimit({
    windowMs: 60_000,
    limit: 60,
    standardHeaders: true,
    legacyHeaders: false,
    message: {
      code: 'too-fast',
      message: 'More than 60 files came in within a minute. Wait a little, then go on.',
    },
  });

  router.get(
    '/',
    handle(async (_request, response) => response.json(await listOrders(db))),
  );

  router.post(
    '/',
    uploadLimit,
    upload.single('file'),
    handle(async (request, response) => {
      if (!request.file)
        throw new Trouble(400, 'no-file', 'No file came with that. Drop an SVG on the page.');
      const name = Buffer.from(request.file.originalname, 'latin1').toString('utf8').slice(0, 200);
      response.json(await startOrder(services, name, request.file.buffer));
    }),
  );

  router.get(
    '/:id',
    handle(async (request, response) => response.json(await getOrder(db, idOf(request)))),
  );

  router.patch(
    '/:id',
    handle(async (request, response) =>
      response.json(await nameOrder(services, idOf(request), parse(orderDetailsSchema, request.body))),
    ),
  );

  router.patch(
    '/:id/choices',
    handle(async (request, response) => {
      const { change } = parse(changeSchema, request.body);
      response.json(await changeChoices(services, idOf(request), change));
    }),
  );

  for (const [word, by] of [
    ['undo', -1],
    ['redo', 1],
  ] as const) {
    router.post(
      `/:id/${word}`,
      handle(async (request, response) => response.json(await step(services, idOf(request), by))),
    );
  }

  router.post(
    '/:id/queue',
    handle(async (request, response) => {
      const { revision } = parse(queueSchema, request.body);
      response.json(await queueOrder(services, idOf(request), revision));
    }),
  );

  router.get(
    '/:id/artwork',
    handle(async (request, response) => {
      const { fileHash } = await getOrder(db, idOf(request));
      const { data } = await artworkOf(db, fileHash);
      // content never changes under its hash: the browser keeps it
      response.set({
        'Content-Type': 'application/json',
        'Content-Encoding': 'gzip',
        'Cache-Control': 'private, max-age=3600',
      });
      response.end(data);
    }),
  );

  router.get(
    '/:id/thumbnail.png',
    handle(async (request, response) => {
      const { thumbnail } = await artworkOf(db, (await getOrder(db, idOf(request))).fileHash);
      response.set({ 'Content-Type': 'image/png', 'Cache-Control': 'private, max-age=86400' }).end(thumbnail);
    }),
  );

  router.get(
    '/:id/original',
    handle(async (request, response) => {
      const order = await getOrder(db, idOf(request));
      sendFile(response, order.fileName, await originalOf(db, order.fileHash));
    }),
  );

  router.get(
    '/:id/films/:file',
    handle(async (request, response) => {
      const match = /^([\w-]+)\.(plt|svg)$/.exec(String(request.params.file));
      if (!match) throw new Trouble(404, 'not-found', 'Films come as .plt or .svg.');
      const id = idOf(request);
      const bytes = await filmFile(services, id, match[1], match[2] as 'plt' | 'svg');
      const { number } = await getOrder(db, id);
      sendFile(response, `${number}-${match[0]}`, bytes);
    }),
  );
  return router;
}

/** Always a download, never a page: a customer's SVG must not run in the app's own origin. */
function sendFile(response: import('express').Response, name: string, bytes: Uint8Array): void {
  const plain = name.replace(/[^\w. -]+/g, '_');
  response.set({
    'Content-Type': 'application/octet-stream',
    'Content-Disposition': `attachment; filename="${plain}"; filename*=UTF-8''${encodeURIComponent(name)}`,
  });
  response.end(Buffer.from(bytes));
}
