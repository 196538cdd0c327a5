/** What the server answers to: the API description is made from this list. */
import { z } from 'zod';
import {
  applyPageSchema,
  changedSchema,
  changeSchema,
  cutSchema,
  cutterStateSchema,
  drawingSchema,
  filmChangeSchema,
  filmSchema,
  filmTableSchema,
  fontSchema,
  orderDetailsSchema,
  orderListSchema,
  orderSchema,
  queueSchema,
  recordSchema,
  resumeSchema,
  shopSchema,
  textOrderSchema,
} from './api';
import { fileSource } from './choices';

export interface Endpoint {
  readonly method: 'get' | 'post' | 'patch';
  readonly path: string;
  readonly says: string;
  readonly takes?: z.ZodType;
  /** `file`: multipart upload in the field `file`. */
  readonly upload?: boolean;
  readonly gives: z.ZodType | string;
}

export const ENDPOINTS: readonly Endpoint[] = [
  { method: 'get', path: '/api/shop', says: 'Films, cutters and recipes', gives: shopSchema },
  {
    method: 'patch',
    path: '/api/films/{film}',
    says: 'Change a film',
    takes: filmChangeSchema,
    gives: z.array(filmSchema),
  },
  { method: 'get', path: '/api/films.csv', says: 'All films as a table', gives: 'text/csv' },
  {
    method: 'post',
    path: '/api/films',
    says: 'Add and change films from a table',
    takes: filmTableSchema,
    gives: z.array(filmSchema),
  },
  {
    method: 'get',
    path: '/api/orders',
    says: 'Orders (query: search, show, limit): late ones first, then by their newest change',
    gives: orderListSchema,
  },
  {
    method: 'post',
    path: '/api/orders',
    says: 'Start an order from a graphic',
    upload: true,
    gives: orderSchema,
  },
  { method: 'get', path: '/api/orders/{id}', says: 'One order with its choices', gives: orderSchema },
  {
    method: 'patch',
    path: '/api/orders/{id}',
    says: 'Name and due date',
    takes: orderDetailsSchema,
    gives: orderSchema,
  },
  {
    method: 'patch',
    path: '/api/orders/{id}/choices',
    says: 'Change choices, field by field',
    takes: changeSchema,
    gives: changedSchema,
  },
  { method: 'post', path: '/api/orders/{id}/undo', says: 'Back to the choices before', gives: orderSchema },
  { method: 'post', path: '/api/orders/{id}/redo', says: 'Forward again', gives: orderSchema },
  {
    method: 'post',
    path: '/api/orders/text',
    says: 'Start an order from typed text',
    takes: textOrderSchema,
    gives: orderSchema,
  },
  {
    method: 'post',
    path: '/api/files',
    says: 'Keep and read a file, to add it to an order',
    upload: true,
    gives: fileSource,
  },
  {
    method: 'get',
    path: '/api/readings',
    says: 'What a source (query, JSON) reads as',
    gives: 'application/json',
  },
  {
    method: 'get',
    path: '/api/files/{hash}/picture',
    says: 'A picture to trace, at most so wide',
    gives: 'image/png',
  },
  { method: 'get', path: '/api/fonts', says: 'Typefaces', gives: z.array(fontSchema) },
  { method: 'post', path: '/api/fonts', says: 'Bring a typeface', upload: true, gives: z.array(fontSchema) },
  {
    method: 'get',
    path: '/api/orders/{id}/pieces/{piece}/original',
    says: "A piece's file as it came",
    gives: 'application/octet-stream',
  },
  {
    method: 'get',
    path: '/api/orders/{id}/thumbnail.png',
    says: 'Picture of the artwork',
    gives: 'image/png',
  },
  {
    method: 'get',
    path: '/api/orders/{id}/run-card.pdf',
    says: 'The run card on paper',
    gives: 'application/pdf',
  },
  {
    method: 'get',
    path: '/api/orders/{id}/application',
    says: 'Weeding, taping and applying, film by film',
    gives: applyPageSchema,
  },
  {
    method: 'get',
    path: '/api/orders/{id}/application.pdf',
    says: 'For weeding, taping and applying',
    gives: 'application/pdf',
  },
  {
    method: 'get',
    path: '/api/orders/{id}/strips/{strip}.plt',
    says: 'One strip as HP-GL',
    gives: 'application/octet-stream',
  },
  {
    method: 'get',
    path: '/api/orders/{id}/strips/{strip}.svg',
    says: 'One strip as SVG',
    gives: 'image/svg+xml',
  },
  {
    method: 'post',
    path: '/api/orders/{id}/queue',
    says: 'Queue a cut for each strip',
    takes: queueSchema,
    gives: z.array(cutSchema),
  },
  {
    method: 'post',
    path: '/api/orders/{id}/put-away',
    says: 'Put an order out of sight',
    gives: z.object({}),
  },
  { method: 'post', path: '/api/orders/{id}/bring-back', says: 'Bring it back', gives: z.object({}) },
  {
    method: 'post',
    path: '/api/orders/{id}/clear',
    says: 'Take an order that was put away, and was never cut, out for good',
    gives: z.object({}),
  },
  {
    method: 'get',
    path: '/api/cuts',
    says: 'Cuts; open ones, or those of one order',
    gives: z.array(cutSchema),
  },
  {
    method: 'get',
    path: '/api/cutters',
    says: 'What each cutter, or only one (query: only), answers, and the film in it',
    gives: z.array(cutterStateSchema),
  },
  { method: 'get', path: '/api/cuts/{id}', says: 'One cut', gives: cutSchema },
  { method: 'get', path: '/api/cuts/{id}/drawing', says: 'What is drawn of a cut', gives: drawingSchema },
  { method: 'get', path: '/api/cuts/{id}/record', says: 'What the knife left', gives: recordSchema },
  { method: 'post', path: '/api/cuts/{id}/loaded', says: 'The film is loaded', gives: cutSchema },
  { method: 'post', path: '/api/cuts/{id}/stop', says: 'Stop after the line being cut', gives: cutSchema },
  {
    method: 'post',
    path: '/api/cuts/{id}/resume',
    says: 'Go on after a stop',
    takes: resumeSchema,
    gives: cutSchema,
  },
  { method: 'post', path: '/api/cuts/{id}/cancel', says: 'Take a cut out of the queue', gives: cutSchema },
];
