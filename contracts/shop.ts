/** Recipes and cutters, and the shop as a whole, as they cross the wire. */
import type { StaleCalibration } from '../core/calibration/stale';
import { QUANTITIES, STALE } from '../core/calibration/stale';
import { z } from 'zod';
import type { FilmSize } from '../core/films/leftover';
import type { Cutter } from '../core/layout/cutter';
import { CORNER_ANGLES, LEAST_DASHES, MOST_PASSES, MOST_SLOW_RADIUS } from '../core/layout/cutter';
import type { Shop } from '../core/plan/shop';
import type { Printer } from '../core/print/choices';
import { MARK_KINDS } from '../core/registration/readMarks';
import { isHost } from '../core/units/host';
import { filmSchema } from './films';

const filmSize = z.strictObject({
  width: z.number().min(1).max(5000),
  length: z.number().min(1).max(1e5),
});
export const recipeSchema = z.object({
  force: z.number().nullable(),
  speed: z.number().nullable(),
  blade: z.string(),
  bladeOffset: z.number(),
  overcut: z.number(),
  passes: z.number().int().optional(),
  dashes: z.tuple([z.number(), z.number()]).readonly().optional(),
  slowRadius: z.number().optional(),
  cornerAngle: z.number().optional(),
});

/** mm cut and mm left in turn. */
export const dashesSchema = z
  .tuple([z.number().min(LEAST_DASHES[0]).max(100), z.number().min(LEAST_DASHES[1]).max(20)])
  .readonly();
/** What may be changed of a recipe alike, by the shop and by one order. */
export const recipeParts = {
  bladeOffset: z.number().min(0).max(2).optional(),
  overcut: z.number().min(0).max(10).optional(),
  passes: z.number().int().min(1).max(MOST_PASSES).optional(),
  dashes: dashesSchema.optional(),
  slowRadius: z.number().min(0).max(MOST_SLOW_RADIUS).optional(),
  cornerAngle: z.number().min(CORNER_ANGLES[0]).max(CORNER_ANGLES[1]).optional(),
} as const;
export const gram = z.number().int().min(1).max(5000);
export const cmPerSecond = z.number().min(0.1).max(500);
/** What is changed of a recipe; null: left to the machine. */
export const recipeChangeSchema = z.strictObject({
  force: gram.nullable().optional(),
  speed: cmPerSecond.nullable().optional(),
  blade: z.string().trim().min(1).max(40).optional(),
  ...recipeParts,
  /** Where it comes from, such as an order. */
  why: z.string().trim().max(120).optional(),
});
export type RecipeChange = z.infer<typeof recipeChangeSchema>;

/** One change of a recipe, as its history has it. */
export const recipeHistorySchema = z.object({
  id: z.number(),
  /** null: the film is cut as all films are, from then on. */
  recipe: recipeSchema.nullable(),
  why: z.string(),
  /** null: nobody gave a name. */
  who: z.string().nullable(),
  madeAt: z.string(),
});
export type RecipeHistory = z.infer<typeof recipeHistorySchema>;

const range = z.object({ least: z.number(), most: z.number(), steps: z.number().int().optional() });

/** Film that is needed before a cut, mm. */
export const LEAST_LEAD = 4;
const margin = z.number().min(0).max(500);
/** What a cutter bears of printed sheets, within what still means something. */
export const FIT_LIMITS = {
  residual: [0.02, 3],
  scale: [0.001, 0.05],
  rotation: [0.2, 20],
  skew: [0.02, 5],
} as const;
const within = ([least, most]: readonly [number, number]) => z.number().min(least).max(most);
const fitLimitsSchema = z.strictObject({
  residual: within(FIT_LIMITS.residual),
  scale: within(FIT_LIMITS.scale),
  rotation: within(FIT_LIMITS.rotation),
  skew: within(FIT_LIMITS.skew),
});

export const DEVICE_PATH = /^\/dev\/[\w.:+/-]+$/;
export const FOLDER_NAME = /^[\w][\w -]*$/;
const devicePath = z.string().trim().max(200).regex(DEVICE_PATH, 'a device file, such as /dev/ttyUSB0');
export const BAUDS = [1200, 2400, 4800, 9600, 19_200, 38_400, 57_600, 115_200] as const;
export const FLOWS = ['hardware', 'software', 'none'] as const;
/** It answers nothing: it is fed as fast as it takes, and how far it is is reckoned. */
const silent = { isSilent: z.boolean().optional() };
/** How a cutter is reached. */
export const linkSchema = z.discriminatedUnion('by', [
  z.strictObject({
    by: z.literal('tcp'),
    host: z.string().trim().max(255).refine(isHost, 'a name or an address of the shop’s own network'),
    port: z.number().int().min(1).max(65_535),
    ...silent,
  }),
  z.strictObject({
    by: z.literal('serial'),
    device: devicePath,
    baud: z.literal(BAUDS),
    flow: z.enum(FLOWS),
    ...silent,
  }),
  z.strictObject({ by: z.literal('device'), device: devicePath }),
  z.strictObject({
    by: z.literal('folder'),
    folder: z.string().trim().max(60).regex(FOLDER_NAME, 'a name of letters and digits'),
  }),
  // a simulated cutter that runs beside the server
  z.strictObject({ by: z.literal('simulator'), name: z.string().trim().min(1).max(60) }),
]);
export type LinkTo = z.infer<typeof linkSchema>;

/** What came of asking a cutter over its link. */
export const linkTestSchema = z.object({
  answers: z.boolean(),
  /** It takes what is sent, and answers nothing. */
  takes: z.boolean(),
  /** Until it answered. */
  ms: z.number().nullable(),
  /** In it, by its own sensors, mm. */
  film: z.object({ width: z.number(), length: z.number() }).nullable(),
  /** What is wrong, and what to try. */
  problem: z.string().nullable(),
  tries: z.array(z.string()).readonly(),
});
export type LinkTest = z.infer<typeof linkTestSchema>;

/** How marks are told from each stock, by film id. */
const stocksSchema = z.record(
  z.string().max(60),
  z.strictObject({ threshold: z.number().min(0).max(1), least: z.number().min(0).max(1) }),
);
const kindOfCutter = z.enum(['roll', 'desk', 'flatbed']);
const bounded = (least: number, most: number) => z.number().min(least).max(most);
const rangeOf = (most: number) =>
  z.strictObject({
    least: bounded(0, most),
    most: bounded(0.1, most),
    steps: z.number().int().min(2).max(1000).optional(),
  });
/** What of a machine is not changed while cuts wait for it: they are made for it as it is. */
const madeForSchema = z.strictObject({
  kind: kindOfCutter.optional(),
  device: z
    .strictObject({
      step: bounded(0.001, 1),
      lengths: z
        .tuple([bounded(0.9, 1.1), bounded(0.9, 1.1)])
        .readonly()
        .optional(),
      feedAxis: z.enum(['x', 'y']),
      feedReversed: z.boolean(),
      acrossReversed: z.boolean(),
      sendsForce: z.boolean(),
      sendsSpeed: z.boolean(),
      pointsInDown: z.number().int().min(1).max(10_000),
      bufferBytes: z.number().int().min(32).max(100_000_000),
      tools: z.number().int().min(1).max(2).optional(),
    })
    .optional(),
});
export const MADE_FOR = Object.keys(madeForSchema.shape) as readonly (keyof typeof madeForSchema.shape)[];

/** What the shop sets of a cutter. */
export const cutterChangeSchema = madeForSchema.extend({
  name: z.string().trim().min(1).max(60).optional(),
  movedAt: z.iso.datetime().nullish(),
  widest: bounded(50, 5000).optional(),
  narrowest: bounded(10, 5000).optional(),
  thickest: bounded(0.05, 50).nullish(),
  trackLength: bounded(100, 100_000).optional(),
  force: rangeOf(5000).optional(),
  speed: rangeOf(500).optional(),
  ownSpeed: bounded(0.1, 500).optional(),
  motion: z
    .strictObject({
      acceleration: bounded(10, 100_000),
      travelSpeed: bounded(0.5, 500),
      cornerTolerance: bounded(0.001, 1),
      down: bounded(0, 5),
      up: bounded(0, 5),
      pace: bounded(0.01, 100).optional(),
      paceWithin: bounded(0, 10).optional(),
    })
    .optional(),
  sensor: z
    .strictObject({
      kinds: z.array(z.enum(MARK_KINDS)).min(1).readonly(),
      most: z.number().int().min(2).max(200),
      farthest: bounded(10, 100_000),
      noise: bounded(0.001, 1),
      reach: bounded(1, 100),
      offset: z.tuple([bounded(-200, 200), bounded(-200, 200)]).readonly(),
      stocks: stocksSchema.optional(),
    })
    .nullish(),
  reserve: z.number().min(0).max(5000).optional(),
  // the blade is turned into its way in the film before the cut
  margins: z
    .strictObject({ far: margin, near: margin, lead: margin.min(LEAST_LEAD), tail: margin })
    .optional(),
  fitLimits: fitLimitsSchema.optional(),
});
export type CutterChange = z.infer<typeof cutterChangeSchema>;

export const newCutterSchema = z.strictObject({
  name: z.string().trim().min(1).max(60),
  kind: kindOfCutter,
  link: linkSchema,
});
export type NewCutter = z.infer<typeof newCutterSchema>;

export const cutterSchema = z.object({
  id: z.string(),
  name: z.string(),
  kind: kindOfCutter,
  widest: z.number(),
  narrowest: z.number(),
  thickest: z.number().nullish(),
  movedAt: z.string().nullish(),
  isRetired: z.boolean().optional(),
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
    pace: z.number().optional(),
    paceWithin: z.number().optional(),
  }),
  device: z.object({
    step: z.number(),
    lengths: z.tuple([z.number(), z.number()]).readonly().optional(),
    feedAxis: z.enum(['x', 'y']),
    feedReversed: z.boolean(),
    acrossReversed: z.boolean(),
    sendsForce: z.boolean(),
    sendsSpeed: z.boolean(),
    pointsInDown: z.number().int(),
    bufferBytes: z.number(),
    tools: z.number().int().optional(),
  }),
  sensor: z
    .object({
      kinds: z.array(z.enum(MARK_KINDS)).readonly(),
      most: z.number().int(),
      farthest: z.number(),
      noise: z.number(),
      reach: z.number(),
      offset: z.tuple([z.number(), z.number()]).readonly(),
      stocks: stocksSchema.optional(),
    })
    .nullish(),
  fitLimits: fitLimitsSchema.optional(),
});

const printerSchema = z.strictObject({
  name: z.string().trim().min(1).max(60),
  edge: z.number().min(0).max(200),
  widest: z.number().min(50).max(10_000),
  longest: z.number().min(50).max(100_000),
});

export const shopSchema = z.object({
  /** Another one when anything of it has changed. */
  version: z.string(),
  films: z.array(filmSchema).readonly(),
  cutters: z.array(cutterSchema).readonly(),
  /** Cutters that nothing is planned for any more. */
  retired: z.array(cutterSchema).readonly(),
  recipes: z.record(z.string(), recipeSchema),
  printer: printerSchema,
  /** Calibrations that are not to be relied on any more, each with the days since it was kept. */
  stale: z
    .array(
      z.object({
        cutter: z.string(),
        quantity: z.enum(QUANTITIES),
        film: z.string().optional(),
        why: z.enum(STALE),
        days: z.number().int(),
      }),
    )
    .readonly(),
  /** Smallest offcut that is kept. */
  leastOffcut: filmSize,
});

/** What the shop has, as it is now. */
export type ShopNow = Shop & {
  readonly version: string;
  readonly retired: readonly Cutter[];
  readonly leastOffcut: FilmSize;
  readonly stale: readonly StaleCalibration[];
  readonly printer: Printer;
};

/** What the shop sets for itself. */
export const shopChangeSchema = z.strictObject({
  leastOffcut: filmSize.optional(),
  printer: printerSchema.optional(),
  /** Months that programs and records of cuts are kept; null: for ever. */
  keepCuts: z.number().int().min(1).max(1200).nullable().optional(),
});
export type ShopChange = z.infer<typeof shopChangeSchema>;

/** Which cutters are asked: one by its id, or all. */
export const cutterQuerySchema = z.object({ only: z.string().max(60).optional() });

/** A cutter as it is now, by what it answers itself. */
export const cutterStateSchema = z.object({
  id: z.string(),
  name: z.string(),
  /** `at-work`: a cut has it, so it is not asked; `silent`: it answers nothing. */
  state: z.enum(['answers', 'away', 'at-work', 'silent']),
  /** mm that its sensors tell of the film in it; null: none is in, or it was not asked. */
  film: z.object({ width: z.number(), length: z.number() }).nullable(),
  /** Why it does not answer. */
  problem: z.string().nullable(),
  /** Address of a simulated cutter's own front panel. */
  panel: z.string().nullable(),
});
export type CutterState = z.infer<typeof cutterStateSchema>;
