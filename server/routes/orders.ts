import type { Request } from 'express';
import { Trouble } from '../problem';
import type { CutServices } from '../services/cuts';
import { queueOrder } from '../services/queue';
import { keepQueued, outdatedOf, replaceQueued } from '../services/outdated';
import { listOrders } from '../services/orderList';
import { clearOrder, putAway } from '../services/putAway';
import { sharingOf, wantingFilm } from '../services/sharing';
import { applyingOf, mapOf, mapPaperOf, paperOf } from '../services/papers';
import { printSheet, sheetOf } from '../services/printing';
import { repeatOrder, repeatsOf } from '../services/repeat';
import { originalOf } from '../services/readings';
import {
  changeChoices,
  getOrder,
  nameOrder,
  startOrder,
  startTextOrder,
  thumbnailOf,
} from '../services/orders';
import { step } from '../services/steps';
import { stripFile } from '../services/stripFiles';
import type { SheetFile } from '../../contracts/print';
import type { Handlers } from './mount';
import type { Sent } from './sent';
import { download, paper, picture } from './sent';

/** Orders: started, changed, queued; their papers and files. */
export const orderRoutes = {
  'GET /api/orders': ({ query, services }) => listOrders(services.db, query),
  'POST /api/orders': ({ body, watch, services }) => startOrder(services, body.name, body.bytes, {}, watch),
  'POST /api/orders/text': ({ body, services }) => startTextOrder(services, body.source),
  'GET /api/orders/{id}': ({ params, services }) => getOrder(services.db, params.id, services.who),
  'PATCH /api/orders/{id}': ({ params, body, services }) => nameOrder(services, params.id, body),
  'PATCH /api/orders/{id}/choices': ({ params, body, services }) =>
    changeChoices(services, params.id, body.base, body.edits),
  'POST /api/orders/{id}/undo': ({ params, services }) => step(services, params.id, 'undo'),
  'POST /api/orders/{id}/redo': ({ params, services }) => step(services, params.id, 'redo'),
  'POST /api/orders/{id}/queue': ({ params, services, body: { revision, shop, sharing, hold, ...part } }) =>
    queueOrder(services, params.id, { revision, shop, sharing }, part, hold),
  'GET /api/orders/{id}/outdated': ({ params, services }) => outdatedOf(services, params.id),
  'POST /api/orders/{id}/replace-queued': ({ params, body, services }) =>
    replaceQueued(services, params.id, body.now),
  'POST /api/orders/{id}/keep-queued': ({ params, body, services }) =>
    keepQueued(services, params.id, body.now),
  'POST /api/orders/{id}/repeat': ({ params, services }) => repeatOrder(services, params.id),
  'GET /api/orders/{id}/repeats': ({ params, services }) => repeatsOf(services, params.id),
  'GET /api/orders/{id}/sharing': async ({ params, services }) =>
    sharingOf(services.db, await getOrder(services.db, params.id)),
  'GET /api/orders/{id}/wanting': ({ params, query, services }) =>
    wantingFilm(services.db, params.id, query.film),
  'POST /api/orders/{id}/put-away': ({ params, services }) => done(putAway(services, params.id, true)),
  'POST /api/orders/{id}/bring-back': ({ params, services }) => done(putAway(services, params.id, false)),
  'POST /api/orders/{id}/clear': ({ params, services }) => done(clearOrder(services, params.id)),
  'GET /api/orders/{id}/thumbnail.png': async ({ params, services }) =>
    picture(await thumbnailOf(services.db, params.id), 'no-cache'),
  'GET /api/orders/{id}/pieces/{piece}/original': async ({ params, services }) => {
    const { choices } = await getOrder(services.db, params.id);
    const source = choices.artwork.pieces.find(({ id }) => id === params.piece)?.source;
    if (source?.kind !== 'file') throw new Trouble(404, 'not-found', 'This piece has no file.');
    return download(await originalOf(services.db, source.hash), source.name);
  },
  'GET /api/orders/{id}/run-card.pdf': ({ params, request, services }) =>
    paperFor(services, 'run-card', params.id, request),
  'GET /api/orders/{id}/application.pdf': ({ params, request, services }) =>
    paperFor(services, 'application', params.id, request),
  'GET /api/orders/{id}/application': ({ params, services }) => applyingOf(services, params.id),
  'GET /api/orders/{id}/fitting-map': ({ params, query, services }) => mapOf(services, params.id, query),
  'GET /api/orders/{id}/fitting-map.pdf': async ({ params, query, request, services }) => {
    const address = `${addressFor(params.id, request)}/fitting-map`;
    return paper(await mapPaperOf(services, params.id, query, address), `fitting-map-${params.id}.pdf`);
  },
  'GET /api/orders/{id}/strips/{strip}.plt': ({ params, services }) =>
    stripAs(services, 'plt', params.id, params.strip),
  'GET /api/orders/{id}/strips/{strip}.svg': ({ params, services }) =>
    stripAs(services, 'svg', params.id, params.strip),
  'GET /api/orders/{id}/sheets/{sheet}': async ({ params, query, services }) => {
    const { number, bytes } = await sheetOf(services, params.id, params.sheet, query);
    return download(bytes, `${number}-${params.sheet}.${query.as}`, SHEET_TYPES[query.as]);
  },
  'POST /api/orders/{id}/sheets/{sheet}/print': ({ params, services }) =>
    printSheet(services, params.id, params.sheet),
} satisfies Partial<Handlers>;

async function paperFor(
  services: CutServices,
  kind: 'run-card' | 'application',
  id: number,
  request: Request,
): Promise<Sent> {
  return paper(await paperOf(services, id, kind, addressFor(id, request)), `${kind}-${id}.pdf`);
}

async function stripAs(
  services: CutServices,
  ending: 'plt' | 'svg',
  id: number,
  strip: string,
): Promise<Sent> {
  const { bytes, name } = await stripFile(services, id, strip, ending);
  return download(bytes, name);
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
