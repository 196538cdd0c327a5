import { bringUp } from '../services/bringUp';
import { jog } from '../cutters/jog';
import {
  actsOf,
  cancelCut,
  filmLoaded,
  getCut,
  getCutFile,
  listCuts,
  resumeCut,
  stopCut,
} from '../services/cuts';
import {
  fewestSwapsNow,
  floorNow,
  goOnAll,
  holdCut,
  moveCut,
  orderLane,
  pauseAll,
  releaseCut,
} from '../services/floor';
import { sayHow } from '../services/howItWas';
import type { CutServices } from '../services/cuts';
import type { Handlers } from './mount';
import { packed } from './sent';

export const cutRoutes = (services: CutServices) =>
  ({
    'GET /api/cuts': ({ query }) => listCuts(services.db, { orderId: query.order }),
    'GET /api/cuts/{id}': ({ params }) => getCut(services.db, params.id),
    'GET /api/cuts/{id}/acts': ({ params }) => actsOf(services.db, params.id),
    'GET /api/cuts/{id}/drawing': async ({ params }) =>
      packed(await getCutFile(services.db, params.id, 'drawing')),
    'GET /api/cuts/{id}/record': async ({ params }) =>
      packed(await getCutFile(services.db, params.id, 'record')),
    'GET /api/floor': () => floorNow(services.db),
    'GET /api/floor/fewest-swaps': () => fewestSwapsNow(services),
    'POST /api/floor/pause': () => pauseAll(services),
    'POST /api/floor/go-on': () => goOnAll(services),
    'POST /api/cutters/{cutter}/lane': ({ params, body }) => orderLane(services, params.cutter, body.ids),
    'POST /api/cuts/{id}/hold': ({ params }) => holdCut(services, params.id),
    'POST /api/cuts/{id}/release': ({ params }) => releaseCut(services, params.id),
    'POST /api/cuts/{id}/move': ({ params, body }) => moveCut(services, params.id, body),
    'POST /api/cuts/by-code': ({ body }) => bringUp(services, body.code, body.cutter),
    'POST /api/cuts/{id}/loaded': ({ params }) => filmLoaded(services, params.id),
    'POST /api/cuts/{id}/jog': ({ params, body }) => jog(services.db, params.id, body),
    'POST /api/cuts/{id}/taken': ({ params, body }) => filmLoaded(services, params.id, body.taken),
    'POST /api/cuts/{id}/stop': ({ params }) => stopCut(services, params.id),
    'POST /api/cuts/{id}/resume': ({ params, body }) => resumeCut(services, params.id, body.from),
    'POST /api/cuts/{id}/how': ({ params, body }) => sayHow(services, params.id, body.was),
    'POST /api/cuts/{id}/cancel': ({ params }) => cancelCut(services, params.id),
  }) satisfies Partial<Handlers>;
