import { Router } from 'express';
import { resumeSchema } from '../../contracts/api';
import { cancelCut, filmLoaded, getCut, getCutFile, listCuts, resumeCut, stopCut } from '../services/cuts';
import type { CutServices } from '../services/cuts';
import { handle, idOf, parse } from './guard';

export function cutRoutes(services: CutServices): Router {
  const { db } = services;
  const router = Router();
  router.get(
    '/',
    handle(async (request, response) => {
      const order = Number(request.query.order);
      response.json(await listCuts(db, Number.isSafeInteger(order) && order > 0 ? { orderId: order } : {}));
    }),
  );
  router.get(
    '/:id',
    handle(async (request, response) => response.json(await getCut(db, idOf(request)))),
  );
  for (const which of ['drawing', 'record'] as const) {
    router.get(
      `/:id/${which}`,
      handle(async (request, response) => {
        const bytes = await getCutFile(db, idOf(request), which);
        response.set({ 'Content-Type': 'application/json', 'Content-Encoding': 'gzip' }).end(bytes);
      }),
    );
  }
  router.post(
    '/:id/loaded',
    handle(async (request, response) => response.json(await filmLoaded(services, idOf(request)))),
  );
  router.post(
    '/:id/stop',
    handle(async (request, response) => response.json(await stopCut(services, idOf(request)))),
  );
  router.post(
    '/:id/cancel',
    handle(async (request, response) => response.json(await cancelCut(services, idOf(request)))),
  );
  router.post(
    '/:id/resume',
    handle(async (request, response) => {
      const { from } = parse(resumeSchema, request.body);
      response.json(await resumeCut(services, idOf(request), from));
    }),
  );
  return router;
}
