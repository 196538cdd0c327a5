/** Orders, typefaces, problems and events as they cross the wire. */
import { z } from 'zod';
import { choicesSchema, textSource } from './choices';
import { cutStateSchema } from './cuts';
import { clashSchema, editSchema } from './edits';

/** The type of an answer that tells on the way how far it has come, a line of JSON each. */
export const STEPS_TYPE = 'application/x-ndjson';

export const takenPictureSchema = z.object({
  /** SHA-256 */
  file: z.string(),
  /** px */
  width: z.number(),
  height: z.number(),
});
export type TakenPicture = z.infer<typeof takenPictureSchema>;

const summarySchema = z.object({
  /** Of the order, when this was planned. */
  revision: z.number().optional(),
  width: z.number(),
  height: z.number(),
  films: z.array(
    // missing in summaries of earlier versions
    z.object({
      id: z.string().optional(),
      name: z.string(),
      colour: z.string(),
      /** mm of it that are cut, by itself or with others' */
      mm: z.number().optional(),
    }),
  ),
  stops: z.number(),
  checks: z.number(),
});
export type OrderSummary = z.infer<typeof summarySchema>;

export const orderRowSchema = z.object({
  id: z.number(),
  number: z.number(),
  name: z.string(),
  due: z.string().nullable(),
  fileName: z.string(),
  /** What the row shows of the plan as last computed for it; null until it has been. */
  summary: summarySchema.nullable(),
  state: z.enum(['open', 'queued', 'cutting', 'cut']),
  /** Names of the cutters that its open cuts are at or wait for. */
  cutters: z.array(z.string()),
  /** It was due before today and is not cut. */
  late: z.boolean(),
  changedAt: z.string(),
});
export type OrderRow = z.infer<typeof orderRowSchema>;

export const ORDER_FILTERS = ['all', 'late', 'open', 'queued', 'cutting', 'cut', 'put-away'] as const;
export type OrderFilter = (typeof ORDER_FILTERS)[number];

/** What is asked of the list of orders. */
export const orderQuerySchema = z.object({
  /** In the name, number, file or films; a cut's number or a sheet's code finds that cut too. */
  search: z.string().max(200).default(''),
  show: z.enum(ORDER_FILTERS).default('all'),
  limit: z.coerce.number<number>().int().min(1).max(5000).default(60),
});
export type OrderQuery = z.infer<typeof orderQuerySchema>;

export const foundCutSchema = z.object({
  id: z.number(),
  orderId: z.number(),
  orderNumber: z.number(),
  orderName: z.string(),
  cutterId: z.string(),
  cutter: z.string(),
  film: z.string(),
  colour: z.string(),
  /** Of a printed sheet: its number. */
  sheet: z.number().nullable(),
  state: cutStateSchema,
  endedAt: z.string().nullable(),
});
export type FoundCut = z.infer<typeof foundCutSchema>;

export const orderListSchema = z.object({
  /** Late ones first, then by their newest change. */
  rows: z.array(orderRowSchema),
  /** How many there are in all that match the search, by what is shown of them. */
  counts: z.record(z.enum(ORDER_FILTERS), z.number()),
  /** Where a cut's number or a sheet's code is looked for: what has it, the newest first. */
  cuts: z.array(foundCutSchema),
});
export type OrderList = z.infer<typeof orderListSchema>;

export const orderSchema = z.object({
  id: z.number(),
  number: z.number(),
  name: z.string(),
  due: z.string().nullable(),
  fileName: z.string(),
  choices: choicesSchema,
  revision: z.number(),
  /** The order that it is once more; null: it is none. */
  repeats: z.number().nullable(),
  canUndo: z.boolean(),
  canRedo: z.boolean(),
  savedAt: z.string(),
  /** Who made the present revision; null: nobody gave a name. */
  savedBy: z.string().nullable(),
});
export type Order = z.infer<typeof orderSchema>;

export const changeSchema = z.strictObject({
  /** The revision the changes were made on: another person's since then are kept beside them. */
  base: z.number().int(),
  edits: z.array(editSchema).min(1).max(20_000).readonly(),
});

export const changedSchema = orderSchema.omit({ choices: true }).extend({
  /** Where somebody else has changed something since `base`. */
  choices: choicesSchema.optional(),
  clashes: z.array(clashSchema).readonly(),
});
export type Changed = z.infer<typeof changedSchema>;

/** An order after a step of undo, with what that left as others had set it since. */
export const steppedSchema = orderSchema.extend({ clashes: z.array(clashSchema).readonly() });
export type Stepped = z.infer<typeof steppedSchema>;

export const fontSchema = z.object({
  id: z.string(),
  name: z.string(),
  lightest: z.number(),
  heaviest: z.number(),
  /** Brought by the shop. */
  own: z.boolean(),
  putAway: z.boolean(),
});
export type FontInfo = z.infer<typeof fontSchema>;

export const textOrderSchema = z.strictObject({ source: textSource });

export const orderDetailsSchema = z.strictObject({
  name: z.string().trim().min(1).max(120).optional(),
  due: z.iso.date().nullable().optional(),
});

export const problemSchema = z.object({
  code: z.string(),
  message: z.string(),
  waysOut: z.array(z.string()).optional(),
});
export type Problem = z.infer<typeof problemSchema>;

/** Where the head of a cut under way is, and how far that is. */
const headSchema = z.object({
  cutId: z.number(),
  x: z.number(),
  y: z.number(),
  down: z.boolean(),
  linesDone: z.number(),
  secondsDone: z.number(),
});
export type HeadNow = z.infer<typeof headSchema>;

/** What is told to every open page. */
export const eventSchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('order'), orderId: z.number() }),
  z.object({ kind: z.literal('cut'), cutId: z.number(), orderId: z.number(), cutterId: z.string() }),
  /** Heads that have moved since they were told last, at whatever machines. */
  z.object({ kind: z.literal('heads'), heads: z.array(headSchema).readonly() }),
  z.object({ kind: z.literal('stop'), cutId: z.number() }),
  z.object({ kind: z.literal('calibration'), calibrationId: z.number(), cutterId: z.string() }),
  z.object({
    kind: z.literal('calibration-progress'),
    calibrationId: z.number(),
    cutterId: z.string(),
    lines: z.number(),
    linesDone: z.number(),
  }),
  z.object({ kind: z.literal('stop-calibration'), calibrationId: z.number() }),
  /** Films, recipes, cutters or knives were changed. */
  z.object({ kind: z.literal('shop') }),
  /** All machines are paused, or go on. */
  z.object({ kind: z.literal('floor') }),
  /** Somebody logged out, or people were changed: pages ask who they are. */
  z.object({ kind: z.literal('people') }),
  /** The server did not hear events for a while: whoever shows something asks for it again. */
  z.object({ kind: z.literal('missed') }),
]);
export type ShopEvent = z.infer<typeof eventSchema>;

/** Names a request: sent again by the same name, it makes nothing twice. */
export const KEY_HEADER = 'Idempotency-Key';
