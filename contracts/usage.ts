/** Stock against what is wanted of it, and what became of film and of the cutters' time, as they cross the wire. */
import { z } from 'zod';

/** So many orders are named of those that want a film. */
export const ORDERS_NAMED = 3;

/** What is wanted of a film, mm along it. */
export const filmWantedSchema = z.object({
  film: z.string(),
  /** By cuts in the queue. */
  queued: z.number(),
  /** By orders of which nothing is queued yet. */
  planned: z.number(),
  /** Some of those orders: what is due first before all. */
  orders: z.array(z.object({ id: z.number(), number: z.number(), name: z.string() })).readonly(),
  /** How many there are. */
  count: z.number(),
});
export type FilmWanted = z.infer<typeof filmWantedSchema>;

/** Days, the first and the last of them in it, as somewhere's clocks have them. */
export const usageQuerySchema = z.object({
  from: z.iso.date(),
  to: z.iso.date(),
  zone: z.string().max(60).refine(isZone, 'a time zone, such as Europe/Lisbon'),
});
export type UsageQuery = z.infer<typeof usageQuerySchema>;

function isZone(zone: string): boolean {
  try {
    new Intl.DateTimeFormat('en', { timeZone: zone });
    return /^[A-Za-z][\w+/-]*$/.test(zone);
  } catch {
    return false;
  }
}

const sums = {
  /** mm along film that are gone for good */
  used: z.number(),
  /** of them: on signs */
  kept: z.number(),
  /** cut again, or begun and left */
  spoilt: z.number(),
  /** for tests */
  tested: z.number(),
  /** The shop's own money. */
  cost: z.number(),
};
const sumsSchema = z.object(sums);
export type FilmSums = z.infer<typeof sumsSchema>;

/** What a cutter's time went into, s. */
export const DOINGS = ['cutting', 'reading', 'waiting', 'stopped', 'calibrating'] as const;
export type Doing = (typeof DOINGS)[number];

const mm2 = z.number();
export const usageSchema = z.object({
  all: sumsSchema,
  /** Orders of which something was cut; of them, those that were late. */
  orders: z.object({ cut: z.number(), late: z.number() }),
  byWeek: z.array(z.object({ ...sums, monday: z.string() })).readonly(),
  /** null: nobody said which film it was. With the shelf: what was there, what came, what is left. */
  byFilm: z
    .array(
      z.object({
        ...sums,
        film: z.string().nullable(),
        name: z.string().nullable(),
        colour: z.string().nullable(),
        before: mm2,
        came: mm2,
        gone: mm2,
        after: mm2,
      }),
    )
    .readonly(),
  byOrder: z.array(z.object({ ...sums, number: z.number(), name: z.string() })).readonly(),
  byCutter: z
    .array(
      z.object({
        ...sums,
        cutter: z.string(),
        name: z.string(),
        times: z.record(z.enum(DOINGS), z.number()),
      }),
    )
    .readonly(),
});
export type Usage = z.infer<typeof usageSchema>;

/** How many bytes the server stores of what grows with use. */
export const keptSchema = z.object({
  /** Customers' files as they came. */
  files: z.number(),
  /** What they read as: can be made again, and is kept within limits. */
  readings: z.number(),
  /** Programs and records of cuts that are over, of how many, and for how many months; null: for ever. */
  cuts: z.object({ bytes: z.number(), count: z.number(), months: z.number().nullable() }),
});
export type Kept = z.infer<typeof keptSchema>;
