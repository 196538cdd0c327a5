import { Router } from 'express';
import {
  changeSchema,
  orderDetailsSchema,
  orderQuerySchema,
  queueSchema,
  textOrderSchema,
} from '../../contracts/api';
import { Trouble } from '../problem';
import type { PaperKind } from '../files/papers';
import type { CutServices } from '../services/cuts';
import { queueOrder } from '../services/cuts';
import { listOrders } from '../services/orderList';
import { clearOrder, putAway } from '../services/putAway';
import { originalOf } from '../services/readings';
import {
  applyingOf,
  changeChoices,
  getOrder,
  nameOrder,
  paperOf,
  startOrder,
  startTextOrder,
  step,
  stripFile,
  thumbnailOf,
} from '../services/orders';
import { handle, idOf, parse } from './guard';
import { answerInSteps, oneFile, uploadedFile } from './upload';

const PAPERS: readonly PaperKind[] = ['run-card', 'application'];

export function orderRoutes(services: CutServices): Router {
  const { db } = services;
  const router = Router();

  router.get(
    '/',
    handle(async (request, response) =>
      response.json(await listOrders(db, parse(orderQuerySchema, request.query))),
    ),
  );

  router.post(
    '/',
    ...oneFile,
    handle(async (request, response) => {
      const { name, bytes } = uploadedFile(request);
      await answerInSteps(request, response, (watch) => startOrder(services, name, bytes, {}, watch));
    }),
  );

  router.post(
    '/text',
    handle(async (request, response) => {
      const { source } = parse(textOrderSchema, request.body);
      response.json(await startTextOrder(services, source));
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
      const { base, edits } = parse(changeSchema, request.body);
      response.json(await changeChoices(services, idOf(request), base, edits));
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
      const { revision, shop, ...part } = parse(queueSchema, request.body);
      response.json(await queueOrder(services, idOf(request), { revision, shop }, part));
    }),
  );

  for (const [word, work] of [
    ['put-away', (id: number) => putAway(services, id, true)],
    ['bring-back', (id: number) => putAway(services, id, false)],
    ['clear', (id: number) => clearOrder(services, id)],
  ] as const) {
    router.post(
      `/:id/${word}`,
      handle(async (request, response) => {
        await work(idOf(request));
        response.json({});
      }),
    );
  }

  router.get(
    '/:id/thumbnail.png',
    handle(async (request, response) => {
      const thumbnail = await thumbnailOf(db, idOf(request));
      response.set({ 'Content-Type': 'image/png', 'Cache-Control': 'private, no-cache' }).end(thumbnail);
    }),
  );

  router.get(
    '/:id/pieces/:piece/original',
    handle(async (request, response) => {
      const { choices } = await getOrder(db, idOf(request));
      const source = choices.artwork.pieces.find(({ id }) => id === request.params.piece)?.source;
      if (source?.kind !== 'file') throw new Trouble(404, 'not-found', 'This piece has no file.');
      sendFile(response, source.name, await originalOf(db, source.hash));
    }),
  );

  router.get(
    '/:id/:paper.pdf',
    handle(async (request, response) => {
      const kind = PAPERS.find((name) => name === request.params.paper);
      if (!kind) throw new Trouble(404, 'not-found', 'There is no such paper.');
      const id = idOf(request);
      const address = `${request.protocol}://${request.get('host')}/orders/${id}`;
      const bytes = await paperOf(services, id, kind, address);
      response.set({
        'Content-Type': 'application/pdf',
        'Content-Disposition': `inline; filename="${kind}-${id}.pdf"`,
      });
      response.end(Buffer.from(bytes));
    }),
  );

  router.get(
    '/:id/application',
    handle(async (request, response) => response.json(await applyingOf(services, idOf(request)))),
  );

  router.get(
    '/:id/strips/:file',
    handle(async (request, response) => {
      const match = /^([\w.-]+)\.(plt|svg)$/.exec(String(request.params.file));
      if (!match) throw new Trouble(404, 'not-found', 'Strips come as .plt or .svg.');
      const id = idOf(request);
      const bytes = await stripFile(services, id, match[1], match[2] as 'plt' | 'svg');
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
