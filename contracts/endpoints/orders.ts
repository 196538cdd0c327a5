/** Orders, their files and papers. */
import { z } from 'zod';
import type { Artwork } from '../../core/readers/artwork';
import {
  changedSchema,
  changeSchema,
  fontSchema,
  orderDetailsSchema,
  orderListSchema,
  orderQuerySchema,
  orderSchema,
  steppedSchema,
  takenPictureSchema,
  textOrderSchema,
} from '../api';
import { applyPageSchema, datumSchema, mapPageSchema } from '../bench';
import { fileSource, sourceSchema } from '../choices';
import {
  cutSchema,
  guestSchema,
  outdatedSchema,
  outdatedSeenSchema,
  queueSchema,
  repeatsSchema,
  sharingSchema,
} from '../cuts';
import { sheetQuery } from '../print';
import type { Endpoints } from './endpoint';
import { byId, id, nothing } from './params';

const byFont = z.object({ font: z.string().max(60) });
const byPiece = z.object({ id, piece: z.string().max(200) });
const byStrip = z.object({ id, strip: z.string().max(200) });
const bySheet = z.object({ id, sheet: z.string().max(40) });
const byHash = z.object({ hash: z.string().regex(/^[0-9a-f]{64}$/) });
/** JSON in a query. */
const inJson = <T extends z.ZodType>(schema: T) =>
  z
    .string()
    .max(100_000)
    .transform((text, context): unknown => {
      try {
        return JSON.parse(text);
      } catch {
        context.addIssue('is no JSON');
        return z.NEVER;
      }
    })
    .pipe(schema);
const fontList = z.array(fontSchema);

export const ordersEndpoints = {
  'GET /api/orders': {
    query: orderQuerySchema,
    says: 'Orders: late ones first, then by their newest change',
    gives: orderListSchema,
  },
  'POST /api/orders': { says: 'Start an order from a graphic', upload: true, gives: orderSchema },
  'GET /api/orders/{id}': { params: byId, says: 'One order with its choices', gives: orderSchema },
  'POST /api/orders/{id}/repeat': {
    params: byId,
    says: 'Start an order that is another one once more, with its choices',
    gives: orderSchema,
  },
  'GET /api/orders/{id}/repeats': {
    params: byId,
    says: 'What an order that repeats another one would be cut with otherwise than that was',
    gives: repeatsSchema.nullable(),
  },
  'GET /api/orders/{id}/sharing': {
    params: byId,
    says: 'What an order shares with others on its films',
    gives: sharingSchema,
  },
  'GET /api/orders/{id}/wanting': {
    params: byId,
    query: z.object({ film: z.string().max(60) }),
    says: 'Open orders that want the same film, those due about then first',
    gives: z.array(guestSchema),
  },
  'PATCH /api/orders/{id}': {
    params: byId,
    says: 'Name and due date',
    takes: orderDetailsSchema,
    gives: orderSchema,
  },
  'PATCH /api/orders/{id}/choices': {
    params: byId,
    says: 'Change choices, field by field',
    takes: changeSchema,
    gives: changedSchema,
  },
  'POST /api/orders/{id}/undo': {
    params: byId,
    says: 'Take back what you changed last; what others changed since stays',
    gives: steppedSchema,
  },
  'POST /api/orders/{id}/redo': { params: byId, says: 'Do it again', gives: steppedSchema },
  'POST /api/orders/text': {
    says: 'Start an order from typed text',
    takes: textOrderSchema,
    gives: orderSchema,
  },
  'POST /api/files': { says: 'Keep and read a file, to add it to an order', upload: true, gives: fileSource },
  'POST /api/pictures': {
    says: 'Keep a picture that is only looked at, such as one of the wall',
    upload: true,
    gives: takenPictureSchema,
  },
  'GET /api/readings': {
    query: z.object({ source: inJson(sourceSchema) }),
    says: 'What a source of artwork, as JSON, reads as',
    gives: z.custom<Artwork>(),
  },
  'GET /api/files/{hash}/picture': {
    params: byHash,
    query: z.object({
      width: z.coerce.number<number>().int().min(16).max(4000),
      page: z.coerce.number<number>().int().min(1).max(10_000).nullish(),
      box: fileSource.shape.box.optional(),
      font: fileSource.shape.font.optional(),
    }),
    says: 'A picture, at most so wide; of a drawing its page',
    gives: 'image/png',
  },
  'GET /api/fonts': { says: 'Typefaces', gives: fontList },
  'POST /api/fonts': { says: 'Bring a typeface', upload: true, gives: fontList },
  'POST /api/fonts/{font}/put-away': {
    params: byFont,
    says: "Put one of the shop's typefaces out of sight",
    gives: fontList,
  },
  'POST /api/fonts/{font}/bring-back': { params: byFont, says: 'Bring it back', gives: fontList },
  'POST /api/fonts/{font}/clear': {
    params: byFont,
    says: 'Take a typeface that was put away, and that no text is set in, out for good',
    gives: fontList,
  },
  'GET /api/orders/{id}/pieces/{piece}/original': {
    params: byPiece,
    says: "A piece's file as it came",
    gives: 'application/octet-stream',
  },
  'GET /api/orders/{id}/thumbnail.png': { params: byId, says: 'Picture of the artwork', gives: 'image/png' },
  'GET /api/orders/{id}/run-card.pdf': {
    params: byId,
    says: 'The run card on paper',
    gives: 'application/pdf',
  },
  'GET /api/orders/{id}/application': {
    params: byId,
    says: 'Weeding, taping and applying, film by film',
    gives: applyPageSchema,
  },
  'GET /api/orders/{id}/application.pdf': {
    params: byId,
    says: 'For weeding, taping and applying',
    gives: 'application/pdf',
  },
  'GET /api/orders/{id}/fitting-map': {
    params: byId,
    query: datumSchema,
    says: 'Where the panels of an order go, measured from a datum',
    gives: mapPageSchema,
  },
  'GET /api/orders/{id}/fitting-map.pdf': {
    params: byId,
    query: datumSchema,
    says: 'The fitting map on paper',
    gives: 'application/pdf',
  },
  'GET /api/orders/{id}/strips/{strip}.plt': {
    params: byStrip,
    says: 'One strip as HP-GL',
    gives: 'application/octet-stream',
  },
  'GET /api/orders/{id}/strips/{strip}.svg': {
    params: byStrip,
    says: 'One strip as SVG',
    gives: 'image/svg+xml',
  },
  'GET /api/orders/{id}/sheets/{sheet}': {
    params: bySheet,
    query: sheetQuery,
    says: 'A printed sheet: what is printed as PDF or PNG, what is cut as SVG, DXF or HP-GL',
    gives: 'application/octet-stream',
  },
  'POST /api/orders/{id}/sheets/{sheet}/print': {
    params: bySheet,
    says: "Send a sheet to the shop's printer",
    gives: z.object({ name: z.string() }),
  },
  'POST /api/orders/{id}/queue': {
    params: byId,
    says: 'Queue a cut for each strip',
    takes: queueSchema,
    gives: z.array(cutSchema),
  },
  'GET /api/orders/{id}/outdated': {
    params: byId,
    says: 'Cuts on an order’s films that wait and would be cut otherwise now, because the order or the shop was changed',
    gives: z.array(outdatedSchema),
  },
  'POST /api/orders/{id}/replace-queued': {
    params: byId,
    says: 'Replace the cuts of an order that wait by what it would be cut as now; what is begun stays',
    takes: outdatedSeenSchema,
    gives: z.array(cutSchema),
  },
  'POST /api/orders/{id}/keep-queued': {
    params: byId,
    says: 'Leave the cuts of an order that wait as they were queued, until something is changed again',
    takes: outdatedSeenSchema,
    gives: z.array(cutSchema),
  },
  'POST /api/orders/{id}/put-away': { params: byId, says: 'Put an order out of sight', gives: nothing },
  'POST /api/orders/{id}/bring-back': { params: byId, says: 'Bring it back', gives: nothing },
  'POST /api/orders/{id}/clear': {
    params: byId,
    says: 'Take an order that was put away, and was never cut, out for good',
    gives: nothing,
  },
} satisfies Endpoints;
