/** Everything that crosses the wire. */
import { z } from 'zod';
import { BUILDS, FINISHES } from '../core/films/film';
import type { FilmSize } from '../core/films/leftover';
import type { Shop } from '../core/plan/shop';
import { choicesSchema, textSource } from './choices';
import { clashSchema, editSchema } from './edits';

/** The type of an answer that tells on the way how far it has come, a line of JSON each. */
export const STEPS_TYPE = 'application/x-ndjson';

const filmSize = z.strictObject({
  width: z.number().min(1).max(5000),
  length: z.number().min(1).max(1e5),
});
const rolls = z
  .array(
    z.strictObject({
      width: z.number().min(20).max(5000),
      lengthLeft: z.number().min(0).max(1e7),
      sheets: z.number().int().min(0).max(1e5).optional(),
      offcut: z.string().min(1).max(12).optional(),
    }),
  )
  .max(200)
  .readonly();
const limits = z.strictObject({
  narrowest: z.number().min(0).max(1000).optional(),
  island: z.number().min(0).max(1000).optional(),
  gap: z.number().min(0).max(1000).optional(),
  stack: z.number().int().min(1).max(20).optional(),
  track: z.number().min(10).max(1e6).optional(),
});
const kind = z.enum(['sign', 'garment']);
const build = z.enum(BUILDS);
const finish = z.enum(FINISHES);
const price = z.number().min(0).max(1e6);

export const filmSchema = z.object({
  id: z.string(),
  name: z.string(),
  code: z.string(),
  colour: z.string(),
  rolls,
  cutFromBack: z.boolean(),
  kind,
  limits: limits.optional(),
  build: build.optional(),
  grain: z.boolean().optional(),
  finish: finish.optional(),
  price: price.optional(),
  putAway: z.boolean().optional(),
});

/** What can be changed of a film; its id stays. */
export const filmChangeSchema = z.strictObject({
  name: z.string().trim().min(1).max(120).optional(),
  code: z.string().trim().max(60).optional(),
  colour: z
    .string()
    .regex(/^#[0-9a-f]{6}$/)
    .optional(),
  rolls: rolls.optional(),
  cutFromBack: z.boolean().optional(),
  kind: kind.optional(),
  build: build.optional(),
  grain: z.boolean().optional(),
  finish: finish.optional(),
  limits: limits.optional(),
  price: price.optional(),
  putAway: z.boolean().optional(),
});

export const filmTableSchema = z.strictObject({ csv: z.string().max(1_000_000) });

const recipeSchema = z.object({
  force: z.number().nullable(),
  speed: z.number().nullable(),
  blade: z.string(),
  bladeOffset: z.number(),
  overcut: z.number(),
});

const range = z.object({ least: z.number(), most: z.number() });

export const takenPictureSchema = z.object({
  /** SHA-256 */
  file: z.string(),
  /** px */
  width: z.number(),
  height: z.number(),
});
export type TakenPicture = z.infer<typeof takenPictureSchema>;

/** Film that is needed before a cut, mm. */
export const LEAST_LEAD = 4;
const margin = z.number().min(0).max(500);
/** What the shop sets of a cutter. */
export const cutterChangeSchema = z.strictObject({
  reserve: z.number().min(0).max(5000).optional(),
  // the blade is turned into its way in the film before the cut
  margins: z
    .strictObject({ far: margin, near: margin, lead: margin.min(LEAST_LEAD), tail: margin })
    .optional(),
});
export type CutterChange = z.infer<typeof cutterChangeSchema>;

export const cutterSchema = z.object({
  id: z.string(),
  name: z.string(),
  kind: z.enum(['roll', 'desk', 'flatbed']),
  widest: z.number(),
  narrowest: z.number(),
  margins: z.object({ far: z.number(), near: z.number(), lead: z.number(), tail: z.number() }),
  trackLength: z.number(),
  reserve: z.number(),
  force: range,
  speed: range,
  ownSpeed: z.number(),
  motion: z.object({
    acceleration: z.number(),
    travelSpeed: z.number(),
    cornerTolerance: z.number(),
    down: z.number(),
    up: z.number(),
  }),
  device: z.object({
    step: z.number(),
    feedAxis: z.enum(['x', 'y']),
    feedReversed: z.boolean(),
    acrossReversed: z.boolean(),
    sendsForce: z.boolean(),
    sendsSpeed: z.boolean(),
    pointsInDown: z.number().int(),
    bufferBytes: z.number(),
    tools: z.number().int().optional(),
  }),
});

export const shopSchema = z.object({
  /** Another one when anything of it has changed. */
  version: z.string(),
  films: z.array(filmSchema).readonly(),
  cutters: z.array(cutterSchema).readonly(),
  recipes: z.record(z.string(), recipeSchema),
  /** Smallest offcut that is kept. */
  leastOffcut: filmSize,
});

/** What the shop has, as it is now. */
export type ShopNow = Shop & { readonly version: string; readonly leastOffcut: FilmSize };

/** What the shop sets for itself. */
export const shopChangeSchema = z.strictObject({ leastOffcut: filmSize });

const summarySchema = z.object({
  /** Of the order, when this was planned. */
  revision: z.number().optional(),
  width: z.number(),
  height: z.number(),
  films: z.array(
    // missing in summaries of earlier versions
    z.object({ id: z.string().optional(), name: z.string(), colour: z.string() }),
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
  /** In the name, number, file or films. */
  search: z.string().max(200).default(''),
  show: z.enum(ORDER_FILTERS).default('all'),
  limit: z.coerce.number<number>().int().min(1).max(5000).default(60),
});
export type OrderQuery = z.infer<typeof orderQuerySchema>;

export const orderListSchema = z.object({
  /** Late ones first, then by their newest change. */
  rows: z.array(orderRowSchema),
  /** How many there are in all that match the search, by what is shown of them. */
  counts: z.record(z.enum(ORDER_FILTERS), z.number()),
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
  canUndo: z.boolean(),
  canRedo: z.boolean(),
  savedAt: z.string(),
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

export const cutStateSchema = z.enum([
  'queued',
  'wants-film',
  'checking',
  'cutting',
  'stopping',
  'stopped',
  'done',
  'cancelled',
]);
export type CutState = z.infer<typeof cutStateSchema>;

const orderName = { id: z.number(), number: z.number(), name: z.string() };

/** An order whose art of some films is, or could be, cut with another's. */
export const guestSchema = z.object({
  ...orderName,
  due: z.string().nullable(),
  revision: z.number(),
  films: z.array(z.string()).readonly(),
  cut: z.array(z.string()).readonly(),
  choices: choicesSchema,
});
export type GuestOrder = z.infer<typeof guestSchema>;

/** What an order shares with others, as core plans with it. */
export const sharingSchema = z.object({
  guests: z.array(guestSchema).readonly(),
  away: z.record(z.string(), z.object(orderName)),
  refused: z.array(z.object({ film: z.string(), order: z.object(orderName) })).readonly(),
  /** Another one when anything of it has changed. */
  version: z.string(),
});
export type SharingNow = z.infer<typeof sharingSchema>;

export const cutSchema = z.object({
  id: z.number(),
  orderId: z.number(),
  orderNumber: z.number(),
  orderName: z.string(),
  cutterId: z.string(),
  /** The plan's id of the strip that is cut. */
  strip: z.string(),
  film: filmSchema,
  state: cutStateSchema,
  position: z.number(),
  of: z.number(),
  mirrored: z.boolean(),
  copies: z.number(),
  rollWidth: z.number(),
  cuttable: z.number(),
  edges: z.object({ far: z.number(), near: z.number() }),
  length: z.number(),
  /** Whose it is: the order that it was queued with first. */
  shares: z
    .array(
      z.object({
        orderId: z.number(),
        orderNumber: z.number(),
        orderName: z.string(),
        copies: z.number(),
        /** Of the film used, 0 … 1. */
        share: z.number(),
      }),
    )
    .readonly(),
  /** What was left of the film it was cut from, with what is to be written on it. */
  offcuts: rolls,
  recipe: recipeSchema,
  seconds: z.number(),
  cutLength: z.number(),
  lines: z.number(),
  linesDone: z.number(),
  /** Seconds of cutting that the lines done stand for. */
  secondsDone: z.number(),
  problem: z.string().nullable(),
  deviation: z.number().nullable(),
  deviationAt: z.object({ x: z.number(), y: z.number() }).nullable(),
});
export type Cut = z.infer<typeof cutSchema>;

/** What is drawn of a cut, on the strip in mm. */
export const drawingSchema = z.object({
  design: z.array(z.array(z.number())),
  lines: z.array(z.array(z.number())),
  /** What each line is for. */
  parts: z.array(z.enum(['align', 'art', 'waste', 'border', 'weed'])),
  /** Designed lines that a tool follows; missing in cuts of earlier versions. */
  followed: z
    .array(
      z.object({
        points: z.array(z.number()),
        closed: z.boolean(),
        dashed: z.boolean(),
      }),
    )
    .optional(),
});
export type Drawing = z.infer<typeof drawingSchema>;

/** What the knife left, as the cutter recorded it, on the strip in mm. */
export const recordSchema = z.object({
  lines: z.array(
    z.object({
      points: z.array(z.number()),
      depth: z.enum(['not-through', 'clean', 'into-backing', 'through', 'drawn', 'creased']),
    }),
  ),
});
export type CutRecord = z.infer<typeof recordSchema>;

export const queueSchema = z.strictObject({
  revision: z.number().int(),
  /** The shop's version that the plan was shown with: what is queued is what was shown. */
  shop: z.string().max(100).optional(),
  /** The same of what it shares with other orders. */
  sharing: z.string().max(100).optional(),
  /** Only its own art, and also what is cut with another order. */
  own: z.boolean().optional(),
  /** Only these films: a spoilt layer cut again. */
  films: z.array(z.string().max(60)).max(200).readonly().optional(),
  /** Only these panels, by number: spoilt ones cut again. */
  panels: z.array(z.number().int().min(1).max(3000)).min(1).max(3000).readonly().optional(),
  /** Only these pieces of one film, each by a place on it. */
  again: z
    .strictObject({
      film: z.string().max(60),
      at: z
        .array(z.strictObject({ x: z.number(), y: z.number() }))
        .min(1)
        .max(2000)
        .readonly(),
    })
    .optional(),
});
export const resumeSchema = z.strictObject({ from: z.enum(['next-line', 'start']) });

export const problemSchema = z.object({
  code: z.string(),
  message: z.string(),
  waysOut: z.array(z.string()).optional(),
});
export type Problem = z.infer<typeof problemSchema>;

/** What is told to every open page. */
export const eventSchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('order'), orderId: z.number() }),
  z.object({ kind: z.literal('cut'), cutId: z.number(), orderId: z.number(), cutterId: z.string() }),
  z.object({
    kind: z.literal('head'),
    cutId: z.number(),
    x: z.number(),
    y: z.number(),
    down: z.boolean(),
    linesDone: z.number(),
    secondsDone: z.number(),
  }),
  z.object({ kind: z.literal('stop'), cutId: z.number() }),
  /** Films, recipes or cutters were changed. */
  z.object({ kind: z.literal('shop') }),
  /** The server did not hear events for a while: whoever shows something asks for it again. */
  z.object({ kind: z.literal('missed') }),
]);
export type ShopEvent = z.infer<typeof eventSchema>;

/** Which cutters are asked: one by its id, or all. */
export const cutterQuerySchema = z.object({ only: z.string().max(60).optional() });

/** A cutter as it is now, by what it answers itself. */
export const cutterStateSchema = z.object({
  id: z.string(),
  name: z.string(),
  /** `at-work`: a cut has it, so it is not asked. */
  state: z.enum(['answers', 'away', 'at-work']),
  /** mm that its sensors tell of the film in it; null: none is in, or it was not asked. */
  film: z.object({ width: z.number(), length: z.number() }).nullable(),
  /** Why it does not answer. */
  problem: z.string().nullable(),
  /** Address of a simulated cutter's own front panel. */
  panel: z.string().nullable(),
});
export type CutterState = z.infer<typeof cutterStateSchema>;
