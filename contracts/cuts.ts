/** Cuts, and what orders share on a film, as they cross the wire. */
import { z } from 'zod';
import { HOW_IT_WAS } from '../core/calibration/howItWas';
import { choicesSchema, lineKindSchema } from './choices';
import { cutSheetSchema, sheetReadingSchema } from './print';
import { filmSchema, rollSchema, rollsSchema } from './films';
import { cmPerSecond, gram, recipeSchema } from './shop';

/** States in which a cut waits in its cutter's lane. */
export const WAITING = ['queued', 'wants-film'] as const;
/** Nothing of it is begun: it waits, or lies on the shelf. */
export const UNBEGUN = ['held', ...WAITING] as const;
/** It is neither done nor taken back. */
export const OPEN_STATES = [...UNBEGUN, 'checking', 'cutting', 'stopping', 'stopped'] as const;
export const cutStateSchema = z.enum([...OPEN_STATES, 'done', 'cancelled']);
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

const nudge = z.object({ force: z.number().optional(), speed: z.number().optional() });
export const nudgesSchema = z.partialRecord(lineKindSchema, nudge);

/** Whether all was cut, and all of it once, by the cutter's own record. */
export const asCutSchema = z.object({
  /** mm that lie where nothing was to be cut, or on film that ended before their line was whole. */
  elsewhere: z.number(),
  /** Lines of which some is cut twice, and lines that are not whole, from 0. */
  twice: z.array(z.number().int()).readonly(),
  missing: z.array(z.number().int()).readonly(),
});
export type AsCutSaid = z.infer<typeof asCutSchema>;

export const cutSchema = z.object({
  id: z.number(),
  orderId: z.number(),
  /** Of the order, when it was queued. */
  revision: z.number(),
  orderNumber: z.number(),
  orderName: z.string(),
  orderDue: z.string().nullable(),
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
  /** What it is cut from, as it was on the shelf. */
  roll: rollSchema.nullable(),
  /** It has lines for a pen or a creasing wheel. */
  needsSecondTool: z.boolean(),
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
  /** Of a printed sheet: what is read of it; null: plain film. */
  sheet: cutSheetSchema.nullable(),
  /** How the sheet lies, once it was read. */
  reading: sheetReadingSchema.nullable(),
  /** What was left of the film it was cut from, with what is to be written on it. */
  offcuts: rollsSchema,
  recipe: recipeSchema,
  /** What its lines are written with, by the kinds that it has. */
  writtenWith: z.partialRecord(
    lineKindSchema,
    z.object({ force: z.number().nullable(), speed: z.number().nullable() }),
  ),
  /** What they are cut with instead. */
  nudges: nudgesSchema,
  /** Whether its recipe was to have them; null: nobody said. */
  nudgesKept: z.boolean().nullable(),
  seconds: z.number(),
  cutLength: z.number(),
  lines: z.number(),
  linesDone: z.number(),
  /** Lines that may have been sent: past those done, only the cutter knows what is cut. */
  linesSent: z.number(),
  /** Its film ended: what is cut from this line on, from 1, lies on new film, so many mm nearer to its start; null: all is on one. */
  onNewFilm: z.object({ line: z.number(), along: z.number() }).nullable(),
  /** Its cutter answers nothing: how far it is is reckoned. */
  isReckoned: z.boolean(),
  /** Seconds of cutting that the lines done stand for. */
  secondsDone: z.number(),
  problem: z.string().nullable(),
  /** Stopped where the head comes more than once in this line, from 1: somebody looks whether it is cut up to there. */
  inDoubt: z.number().nullable(),
  /** When it was done or taken back. */
  endedAt: z.string().nullable(),
  /** Its record could not be fetched yet, and is asked for again. */
  recordWanted: z.boolean(),
  /** What its record says; null: its cutter keeps none, or it was cut before that was looked at. */
  asCut: asCutSchema.nullable(),
  /** mm that what was cut lies from the design at the most; null: nobody knows. */
  deviation: z.number().nullable(),
  deviationAt: z.object({ x: z.number(), y: z.number() }).nullable(),
  /** What somebody said of it once it was done. */
  howItWas: z.enum(HOW_IT_WAS).nullable(),
});
export type Cut = z.infer<typeof cutSchema>;

/** What people do with a cut. */
export const CUT_ACTS = [
  'queued',
  'held',
  'released',
  'moved',
  'joined',
  'parted',
  'paused',
  'loaded',
  'stopped',
  'resumed',
  'begun-anew',
  'cancelled',
  'said',
  'again',
  'slipped',
  'nudged',
  'nudges-kept',
  'nudges-left',
  'replaced',
  'kept',
] as const;
export type CutAct = (typeof CUT_ACTS)[number];
export const cutActSchema = z.object({
  act: z.enum(CUT_ACTS),
  /** What of it, such as what was nudged from where to where. */
  what: z.string().nullable(),
  /** Their name; null: nobody gave one, at a machine's tablet or before there were log-ins. */
  who: z.string().nullable(),
  at: z.string(),
});
export type CutActed = z.infer<typeof cutActSchema>;

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

/** What a tool does to film. */
export const DEPTHS = ['not-through', 'clean', 'into-backing', 'through', 'drawn', 'creased'] as const;

/** What the knife left, as the cutter recorded it, on the strip in mm as it was laid out. */
export const recordSchema = z.object({
  lines: z.array(
    z.object({
      points: z.array(z.number()),
      depth: z.enum(DEPTHS),
      /** The line that it is of, from 0; −1: of none; missing in cuts of earlier versions: of the one with its number. */
      line: z.number().int().optional(),
    }),
  ),
});
export type CutRecord = z.infer<typeof recordSchema>;

/** An order that is another one once more, beside what was cut of that. */
export const repeatsSchema = z.object({
  order: z.object(orderName),
  /** When the last of it was cut; null: it never was. */
  cutAt: z.string().nullable(),
  /** In sentences; none: the same bytes go to the same cutters. */
  differs: z.array(z.string()).readonly(),
});
export type Repeats = z.infer<typeof repeatsSchema>;

/** Cuts of an order that wait, and would be cut otherwise if they were queued now. */
export const outdatedSchema = z.object({
  /** The one that they were queued with. */
  order: z.object(orderName),
  /** Parts of its choices that were changed since; none: the shop, or another order on the film, was. */
  changed: z.array(z.string()).readonly(),
  /** Numbers of other orders on the film that were changed. */
  others: z.array(z.number()).readonly(),
  /** Cuts that wait and differ, each with its differences as sentences. */
  cuts: z
    .array(z.object({ id: z.number(), film: z.string(), says: z.array(z.string()).readonly() }))
    .readonly(),
  /** Films of strips that were not queued and would be now. */
  more: z.array(z.string()).readonly(),
  /** Those that are begun or done, and stay as they are. */
  begun: z
    .array(z.object({ id: z.number(), film: z.string(), says: z.array(z.string()).readonly() }))
    .readonly(),
  /** Names the present plan: the answer repeats it, so that an answer never applies to a later plan. */
  now: z.string(),
});
export type Outdated = z.infer<typeof outdatedSchema>;
export const outdatedSeenSchema = outdatedSchema.pick({ now: true }).strict();

export const queueSchema = z.strictObject({
  revision: z.number().int(),
  /** The shop's version that the plan was shown with: what is queued is what was shown. */
  shop: z.string().max(100).optional(),
  /** The same of what it shares with other orders. */
  sharing: z.string().max(100).optional(),
  /** Goes onto the shelf, to be sent later. */
  hold: z.boolean().optional(),
  /** Only its own art, and also what is cut with another order. */
  own: z.boolean().optional(),
  /** Only these films: a spoilt layer cut again. */
  films: z.array(z.string().max(60)).max(200).readonly().optional(),
  /** Only these panels, by number: spoilt ones cut again. */
  panels: z.array(z.number().int().min(1).max(3000)).min(1).max(3000).readonly().optional(),
  /** Only these printed sheets, by number: spoilt ones cut again. */
  sheets: z.array(z.number().int().min(1).max(1000)).min(1).max(1000).readonly().optional(),
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
/** What of an order was queued. */
export type QueuedPart = Omit<z.infer<typeof queueSchema>, 'revision' | 'shop' | 'sharing' | 'hold'>;

/** Some of it is cut again, whatever else of the order is in the queue. */
export const isSpoilt = ({ again, panels, sheets }: QueuedPart): boolean =>
  [again, panels, sheets].some((part) => part !== undefined);

/** What was read of a printed sheet's code, and the cutter that it is at. */
export const sheetCodeSchema = z.strictObject({ code: z.string().max(200), cutter: z.string().max(60) });
/**
 * Where a stopped cut goes on: behind what is cut; where its head stopped, up to which the line in doubt is cut; on fresh film; or
 * at a line that a person found, from 1.
 */
export const resumeSchema = z.strictObject({
  from: z.union([z.enum(['next-line', 'head', 'start']), z.number().int().min(1)]),
});
/** A line, from 1, that is the first at the start of new film. */
export const newFilmSchema = z.strictObject({
  line: z.number().int().min(1),
  /** Nothing is left of the roll that it was cut from. */
  isAtEnd: z.boolean().default(false),
});
export type NewFilmSaid = z.infer<typeof newFilmSchema>;
export type ResumeFrom = z.infer<typeof resumeSchema>['from'];

/** Force or speed of a kind of line from the next line on; null: as its recipe says again. */
export const nudgeSchema = z.strictObject({
  kind: lineKindSchema,
  force: gram.nullable().optional(),
  speed: cmPerSecond.nullable().optional(),
});
export type NudgeAsked = z.infer<typeof nudgeSchema>;
export const nudgesKeptSchema = z.strictObject({ keep: z.boolean() });

const mm = z.number().min(-20_000).max(20_000);
const at = z.tuple([mm, mm]).readonly();
/** Film that slipped: two places of what was cut, where each was found, mm on the strip; and the line that is cut next, from 1. */
export const slippedSchema = z.strictObject({
  line: z.number().int().min(1),
  places: z
    .tuple([z.strictObject({ cut: at, found: at }), z.strictObject({ cut: at, found: at })])
    .readonly(),
  /** However badly the two tell where lines far from them lie. */
  anyway: z.boolean().optional(),
});
export type SlippedAsked = z.infer<typeof slippedSchema>;

/** What of a cut is spoilt, by places on its strip in mm; missing: all that is in it. */
export const againSchema = z.strictObject({
  at: z
    .array(z.strictObject({ x: z.number(), y: z.number() }))
    .min(1)
    .max(2000)
    .readonly()
    .optional(),
});
export type AgainAsked = z.infer<typeof againSchema>;

export const howItWasSchema = z.strictObject({ was: z.enum(HOW_IT_WAS).nullable() });
/** What was said, and the force that the recipe should have when cuts ask for another three times in a row. */
export const saidSchema = z.object({
  cut: cutSchema,
  asks: z.object({ from: z.number(), to: z.number() }).nullable(),
});
export type Said = z.infer<typeof saidSchema>;
