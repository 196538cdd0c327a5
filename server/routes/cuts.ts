import { goOnNewFilm } from '../services/newFilm';
import { bringUp } from '../services/bringUp';
import { jog } from '../cutters/jog';
import { joinCuts, joinsNow, partCuts, tryJoin } from '../services/join';
import {
  actsOf,
  cancelCut,
  getCut,
  getCutFile,
  lastCutsAt,
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
import { cutAgain } from '../services/cutAgain';
import { filmSlipped } from '../services/slipped';
import { sayHow } from '../services/howItWas';
import { keepNudges, nudgeCut } from '../services/nudges';
import { loadFilm } from '../services/outdated';
import type { Handlers } from './mount';
import { packed } from './sent';

export const cutRoutes = {
  'GET /api/cuts': ({ query, services }) =>
    query.lastAt === undefined
      ? listCuts(services.db, { orderId: query.order })
      : lastCutsAt(services.db, query.lastAt),
  'GET /api/cuts/{id}': ({ params, services }) => getCut(services.db, params.id),
  'GET /api/cuts/{id}/acts': ({ params, services }) => actsOf(services.db, params.id),
  'GET /api/cuts/{id}/drawing': async ({ params, services }) =>
    packed(await getCutFile(services.db, params.id, 'drawing')),
  'GET /api/cuts/{id}/record': async ({ params, services }) =>
    packed(await getCutFile(services.db, params.id, 'record')),
  'GET /api/floor': ({ services }) => floorNow(services.db),
  'GET /api/floor/fewest-swaps': ({ services }) => fewestSwapsNow(services),
  'GET /api/floor/joins': ({ services }) => joinsNow(services),
  'POST /api/floor/joins/try': ({ body, services }) => tryJoin(services, body.cuts),
  'POST /api/floor/joins': ({ body, services }) => joinCuts(services, body.cuts),
  'POST /api/cuts/{id}/part': ({ params, services }) => partCuts(services, params.id),
  'POST /api/floor/pause': ({ services }) => pauseAll(services),
  'POST /api/floor/go-on': ({ services }) => goOnAll(services),
  'POST /api/cutters/{cutter}/lane': ({ params, body, services }) =>
    orderLane(services, params.cutter, body.ids),
  'POST /api/cuts/{id}/hold': ({ params, services }) => holdCut(services, params.id),
  'POST /api/cuts/{id}/release': ({ params, services }) => releaseCut(services, params.id),
  'POST /api/cuts/{id}/move': ({ params, body, services }) => moveCut(services, params.id, body),
  'POST /api/cuts/by-code': ({ body, services }) => bringUp(services, body.code, body.cutter),
  'POST /api/cuts/{id}/loaded': ({ params, services }) => loadFilm(services, params.id),
  'POST /api/cuts/{id}/jog': ({ params, body, services }) => jog(services.db, params.id, body),
  'POST /api/cuts/{id}/taken': ({ params, body, services }) => loadFilm(services, params.id, body.taken),
  'POST /api/cuts/{id}/stop': ({ params, services }) => stopCut(services, params.id),
  'POST /api/cuts/{id}/resume': ({ params, body, services }) => resumeCut(services, params.id, body.from),
  'POST /api/cuts/{id}/how': ({ params, body, services }) => sayHow(services, params.id, body.was),
  'POST /api/cuts/{id}/nudge': ({ params, body, services }) => nudgeCut(services, params.id, body),
  'POST /api/cuts/{id}/nudges-kept': ({ params, body, services }) =>
    keepNudges(services, params.id, body.keep),
  'POST /api/cuts/{id}/new-film': ({ params, body, services }) => goOnNewFilm(services, params.id, body),
  'POST /api/cuts/{id}/slipped': ({ params, body, services }) => filmSlipped(services, params.id, body),
  'POST /api/cuts/{id}/again': ({ params, body, services }) => cutAgain(services, params.id, body),
  'POST /api/cuts/{id}/cancel': ({ params, services }) => cancelCut(services, params.id),
} satisfies Partial<Handlers>;
