/** Calibrations as they cross the wire. */
import { z } from 'zod';
import type { RunSays, Seen } from '../core/calibration/run';
import { TOOL_KINDS } from '../core/artwork/choices';
import { CELL_LOOKS, MOST_CELLS } from '../core/calibration/grid';
import { dashesSchema } from './shop';

const name = z.string().min(1).max(60);
const values = z.array(z.number().min(0).max(10)).min(3).max(30).readonly();
const bounded = (least: number, most: number) => z.number().min(least).max(most);
const mm = bounded(-500, 500);
const spot = z.tuple([mm, mm]).readonly();
const numbers = z.array(z.number().int().min(0).max(MOST_CELLS)).max(MOST_CELLS).readonly();

export const setupSchema = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('sensor-pen') }),
  z.strictObject({
    kind: z.enum(['sensor-print', 'contrast']),
    film: name,
    width: bounded(100, 3000),
    height: bounded(100, 2000),
  }),
  z.strictObject({
    kind: z.literal('length'),
    axis: z.enum(['along', 'across']),
    whole: bounded(50, 5000),
  }),
  z.strictObject({ kind: z.literal('blade-gap'), blade: name }),
  z.strictObject({ kind: z.literal('blade-row'), blade: name, values }),
  z.strictObject({ kind: z.literal('overcut-row'), blade: name, values }),
  z.strictObject({
    kind: z.literal('force'),
    film: name,
    line: z.enum(TOOL_KINDS),
    columns: z.number().int().min(1).max(40),
    cells: z
      .array(
        z.strictObject({
          force: bounded(1, 5000),
          speed: bounded(0.1, 500),
          dashes: dashesSchema.optional(),
        }),
      )
      .min(1)
      .max(MOST_CELLS)
      .readonly(),
  }),
]);

/** What was measured or tapped; of an array an entry for each place, null where nothing was. */
export const measuredSchema = z.strictObject({
  off: z.array(spot.nullable()).max(20).readonly().optional(),
  lengths: z.array(bounded(0, 10_000).nullable()).max(20).readonly().optional(),
  picked: z.number().int().min(0).max(MOST_CELLS).nullish(),
  looks: z.array(z.enum(CELL_LOOKS).nullable()).max(MOST_CELLS).readonly().optional(),
  trusted: numbers.optional(),
  leftOut: numbers.optional(),
});

/** Somebody's change of it: what they saw, and what they made of it. */
export const measuringSchema = z.strictObject({ was: measuredSchema, now: measuredSchema });

/**
 * `ready`: set up, to be cut; `working`, `stopping`: at the machine; `measuring`: cut, to be looked at; `kept`: its values are,
 * or were, what the machine is set to; `dropped`, `broken`: it came to nothing.
 */
export const calibrationStateSchema = z.enum([
  'ready',
  'working',
  'stopping',
  'measuring',
  'kept',
  'dropped',
  'broken',
]);

export const calibrationSchema = z.object({
  id: z.number(),
  cutter: z.string(),
  setup: setupSchema,
  state: calibrationStateSchema,
  /** The values as they were when it was set up. */
  before: z.array(z.number()).readonly(),
  seen: z.custom<Seen>().nullable(),
  measured: measuredSchema,
  /** What that says; null: it was not cut yet. */
  says: z.custom<RunSays>().nullable(),
  /** The values that were kept. */
  after: z.array(z.number()).readonly().nullable(),
  /** The knife that cut it, and m that it had cut by then. */
  knife: z.object({ id: z.number(), metres: z.number() }).nullable(),
  lines: z.number(),
  linesDone: z.number(),
  problem: z.string().nullable(),
  startedAt: z.string(),
  /** Parts of it that are cut, where it is cut force by force: see forcesByHand. */
  part: z.number(),
  /** When its values were kept, last. */
  keptAt: z.string().nullable(),
  /** Names; null: nobody gave one. */
  setUpBy: z.string().nullable(),
  keptBy: z.string().nullable(),
});
export type Calibration = z.infer<typeof calibrationSchema>;

/** A knife, where it sits and how much it has cut. */
export const knifeSchema = z.object({
  id: z.number(),
  blade: z.string(),
  /** null: in the drawer. */
  cutter: z.string().nullable(),
  putInAt: z.string().nullable(),
  metres: z.number(),
});
export type Knife = z.infer<typeof knifeSchema>;

/** Which knife is put in: a new one of a blade, or one from the drawer. */
export const putInSchema = z
  .strictObject({ blade: name })
  .or(z.strictObject({ knife: z.number().int().min(1) }));

/** Null: too few cuts ran without a stop. */
export const paceSchema = z
  .object({ ratio: z.number(), within: z.number(), cuts: z.number().int() })
  .nullable();
