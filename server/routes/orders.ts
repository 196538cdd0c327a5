import type { Request } from 'express';
import { Trouble } from '../problem';
import type { CutServices } from '../services/cuts';
import { queueOrder } from '../services/cuts';
import { listOrders } from '../services/orderList';
import { clearOrder, putAway } from '../services/putAway';
import { sharingOf, wantingFilm } from '../services/sharing';
import { printSheet, sheetOf } from '../services/printing';
import { originalOf } from '../services/readings';
import {
  applyingOf,
  changeChoices,
  getOrder,
  mapOf,
  mapPaperOf,
  nameOrder,
  paperOf,
  startOrder,
  startTextOrder,
  step,
  stripFile,
  thumbnailOf,
} from '../services/orders';
import type { SheetFile } from '../../contracts/print';
import type { Handlers } from './mount';
import type { Sent } from './sent';
import { download, paper, picture } from './sent';

export function orderRoutes(services: CutServices) {
  const { db } = services;
  const paperFor = async (kind: 'run-card' | 'application', id: number, request: Request): Promise<Sent> => {
    return paper(await paperOf(services, id, kind, addressFor(id, request)), `${kind}-${id}.pdf`);
  };
  const stripAs = async (ending: 'plt' | 'svg', id: number, strip: string): Promise<Sent> => {
    const bytes = await stripFile(services, id, strip, ending);
    const { number } = await getOrder(db, id);
    return download(bytes, `${number}-${strip}.${ending}`);
  };
  return {
    'GET /api/orders': ({ query }) => listOrders(db, query),
    'POST /api/orders': ({ body, watch }) => startOrder(services, body.name, body.bytes, {}, watch),
    'POST /api/orders/text': ({ body }) => startTextOrder(services, body.source),
    'GET /api/orders/{id}': ({ params }) => getOrder(db, params.id),
    'PATCH /api/orders/{id}': ({ params, body }) => nameOrder(services, params.id, body),
    'PATCH /api/orders/{id}/choices': ({ params, body }) =>
      changeChoices(services, params.id, body.base, body.edits),
    'POST /api/orders/{id}/undo': ({ params }) => step(services, params.id, -1),
    'POST /api/orders/{id}/redo': ({ params }) => step(services, params.id, 1),
    'POST /api/orders/{id}/queue': ({ params, body: { revision, shop, sharing, hold, ...part } }) =>
      queueOrder(services, params.id, { revision, shop, sharing }, part, hold),
    'GET /api/orders/{id}/sharing': async ({ params }) => sharingOf(db, await getOrder(db, params.id)),
    'GET /api/orders/{id}/wanting': ({ params, query }) => wantingFilm(db, params.id, query.film),
    'POST /api/orders/{id}/put-away': ({ params }) => done(putAway(services, params.id, true)),
    'POST /api/orders/{id}/bring-back': ({ params }) => done(putAway(services, params.id, false)),
    'POST /api/orders/{id}/clear': ({ params }) => done(clearOrder(services, params.id)),
    'GET /api/orders/{id}/thumbnail.png': async ({ params }) =>
      picture(await thumbnailOf(db, params.id), 'no-cache'),
    'GET /api/orders/{id}/pieces/{piece}/original': async ({ params }) => {
      const { choices } = await getOrder(db, params.id);
      const source = choices.artwork.pieces.find(({ id }) => id === params.piece)?.source;
      if (source?.kind !== 'file') throw new Trouble(404, 'not-found', 'This piece has no file.');
      return download(await originalOf(db, source.hash), source.name);
    },
    'GET /api/orders/{id}/run-card.pdf': ({ params, request }) => paperFor('run-card', params.id, request),
    'GET /api/orders/{id}/application.pdf': ({ params, request }) =>
      paperFor('application', params.id, request),
    'GET /api/orders/{id}/application': ({ params }) => applyingOf(services, params.id),
    'GET /api/orders/{id}/fitting-map': ({ params, query }) => mapOf(services, params.id, query),
    'GET /api/orders/{id}/fitting-map.pdf': async ({ params, query, request }) => {
      const address = `${addressFor(params.id, request)}/fitting-map`;
      return paper(await mapPaperOf(services, params.id, query, address), `fitting-map-${params.id}.pdf`);
    },
    'GET /api/orders/{id}/strips/{strip}.plt': ({ params }) => stripAs('plt', params.id, params.strip),
    'GET /api/orders/{id}/strips/{strip}.svg': ({ params }) => stripAs('svg', params.id, params.strip),
    'GET /api/orders/{id}/sheets/{sheet}': async ({ params, query }) => {
      const { number, bytes } = await sheetOf(services, params.id, params.sheet, query);
      return download(bytes, `${number}-${params.sheet}.${query.as}`, SHEET_TYPES[query.as]);
    },
    'POST /api/orders/{id}/sheets/{sheet}/print': ({ params }) =>
      printSheet(services, params.id, params.sheet),
  } satisfies Partial<Handlers>;
}

const SHEET_TYPES: Readonly<Partial<Record<SheetFile, string>>> = {
  pdf: 'application/pdf',
  png: 'image/png',
};

/** Where an order opens in a browser. */
const addressFor = (id: number, request: Request): string =>
  `${request.protocol}://${request.get('host')}/orders/${id}`;

async function done(work: Promise<void>): Promise<Record<string, never>> {
  await work;
  return {};
}
