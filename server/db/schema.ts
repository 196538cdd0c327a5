import {
  bigint,
  boolean,
  customType,
  date,
  doublePrecision,
  index,
  integer,
  jsonb,
  pgSequence,
  pgTable,
  primaryKey,
  serial,
  text,
  timestamp,
  uniqueIndex,
} from 'drizzle-orm/pg-core';
import { sql } from 'drizzle-orm';
import type { Link } from './link';
import { people } from './peopleSchema';
import type { HowItWas } from '../../core/calibration/howItWas';
import type { Measured, RunSays, Seen, Setup } from '../../core/calibration/run';
import type { Choices } from '../../core/plan/choices';
import type { LineKind } from '../../core/artwork/choices';
import type { Nudges, WrittenWith } from '../../core/devicelang/nudged';
import type { Matrix } from '../../core/geometry/matrix';
import type { Cutter, Margins, Recipe } from '../../core/layout/cutter';
import type { Film, Roll } from '../../core/films/film';
import type { Printer } from '../../core/print/choices';
import type { FilmSize } from '../../core/films/leftover';
import type { OrderSummary } from '../../contracts/api';
import type { CutAct, QueuedPart } from '../../contracts/cuts';
import type { Edit } from '../../contracts/edits';
import type { CutSheet, ReadSheet, TakenMarks } from '../../contracts/print';

export * from './peopleSchema';

/** A knife as it was when something was cut with it. */
export interface KnifeThen {
  readonly id: number;
  readonly metres: number;
}

/** Where a head stood before anything was sent to it, on its own axes, and where the cut went on from there. */
export interface HeadFrom {
  readonly x: number;
  readonly y: number;
  readonly line: number;
  readonly point: number;
  /** It was moved away by hand since: the cut goes on from there, wherever it stands. */
  readonly isKnown?: boolean;
}

/** Who did something; null: nobody, such as the server itself. */
const who = (column: string) => integer(column).references(() => people.id);

const bytea = customType<{ data: Buffer }>({ dataType: () => 'bytea' });

/** Customers' files as they came, by SHA-256. Never changed, never overwritten. */
export const files = pgTable('files', {
  hash: text('hash').primaryKey(),
  bytes: bytea('bytes').notNull(),
  createdAt: timestamp('created_at', { withTimezone: true }).notNull().defaultNow(),
});

/**
 * What a source reads as: gzipped JSON of core's Artwork, by the SHA-256 of its source key. Can be made again at any
 * time from the file or the text.
 */
export const readings = pgTable('readings', {
  key: text('key').primaryKey(),
  data: bytea('data').notNull(),
});

/** Typefaces that the shop brought, as they came. */
export const fonts = pgTable('fonts', {
  id: text('id').primaryKey(),
  name: text('name').notNull(),
  lightest: integer('lightest').notNull(),
  heaviest: integer('heaviest').notNull(),
  bytes: bytea('bytes').notNull(),
  /** Not offered any more; texts that are set in it stay as they are. */
  putAway: boolean('put_away').notNull().default(false),
});

/** An order that takes others along on a film. */
export const takesOthersAlong = sql`coalesce(choices#>'{layout,guests}', '{}') <> '{}'`;

export const orders = pgTable(
  'orders',
  {
    id: serial('id').primaryKey(),
    number: integer('number').notNull().unique(),
    name: text('name').notNull(),
    due: date('due'),
    fileName: text('file_name').notNull(),
    /** The file the order began with; none when it began with typed text. */
    fileHash: text('file_hash').references(() => files.hash),
    /** The order that it is once more; null: it is none. */
    repeats: integer('repeats'),
    /** PNG of the sign as last planned. */
    thumbnail: bytea('thumbnail'),
    /** As they are now. */
    choices: jsonb('choices').$type<Choices>().notNull(),
    /** The revision that they are of; undo moves it back, redo forward. */
    revision: integer('revision').notNull().default(0),
    /** As last planned; null until it has been for the first time. */
    summary: jsonb('summary').$type<OrderSummary>(),
    changedAt: timestamp('changed_at', { withTimezone: true }).notNull().defaultNow(),
    /** Out of sight since; can be brought back, or cleared for good. */
    putAwayAt: timestamp('put_away_at', { withTimezone: true }),
  },
  (table) => [index('orders_with_guests').on(table.id).where(takesOthersAlong)],
);

/**
 * Every change of an order's choices: the tree that undo walks. None is ever taken out, and no number is used twice: a
 * cut names the one it was made of.
 */
export const revisions = pgTable(
  'revisions',
  {
    orderId: integer('order_id')
      .notNull()
      .references(() => orders.id),
    n: integer('n').notNull(),
    /** The revision that it was made on; null: the first. */
    parent: integer('parent'),
    /** What it changed there. Missing in the first, and in those of earlier versions, which say all of it instead. */
    edits: jsonb('edits').$type<readonly Edit[]>(),
    choices: jsonb('choices').$type<Choices>(),
    madeAt: timestamp('made_at', { withTimezone: true }).notNull().defaultNow(),
    madeBy: who('made_by'),
  },
  (table) => [primaryKey({ columns: [table.orderId, table.n] })],
);

export const films = pgTable('films', {
  id: text('id').primaryKey(),
  data: jsonb('data').$type<Film>().notNull(),
  position: integer('position').notNull(),
});

export const cutters = pgTable('cutters', {
  id: text('id').primaryKey(),
  data: jsonb('data').$type<Cutter>().notNull(),
  link: jsonb('link').$type<Link>().notNull(),
});

/** What the shop sets for itself; one row. */
export const settings = pgTable('settings', {
  id: text('id').primaryKey(),
  /** Smallest offcut that is kept. */
  leastOffcut: jsonb('least_offcut').$type<FilmSize>().notNull(),
  /** What it prints with; null until it says so. */
  printer: jsonb('printer').$type<Printer>(),
  /** All machines are stopped, and nothing begins. */
  paused: boolean('paused').notNull().default(false),
  /** Where it takes PDFs over HTTP; null: it is given them by hand. */
  printerLink: text('printer_link'),
});

/** Numbers that are written on offcuts: none twice. */
export const offcutNumbers = pgSequence('offcut_numbers');

export const recipes = pgTable(
  'recipes',
  {
    cutterId: text('cutter_id')
      .notNull()
      .references(() => cutters.id),
    /** A film's id, or `*` for every film without a recipe of its own. */
    filmId: text('film_id').notNull(),
    /** What kind of line it is for; the others are made from the kiss cut's where they have none. */
    kind: text('kind').$type<LineKind>().notNull().default('kiss'),
    data: jsonb('data').$type<Recipe>().notNull(),
  },
  (table) => [primaryKey({ columns: [table.cutterId, table.filmId, table.kind] })],
);

/** What recipes were, and why each was changed. None is ever taken out. */
export const recipeChanges = pgTable(
  'recipe_changes',
  {
    id: serial('id').primaryKey(),
    cutterId: text('cutter_id')
      .notNull()
      .references(() => cutters.id),
    filmId: text('film_id').notNull(),
    kind: text('kind').$type<LineKind>().notNull(),
    /** null: the film has none of its own from then on. */
    data: jsonb('data').$type<Recipe>(),
    why: text('why').notNull(),
    madeAt: timestamp('made_at', { withTimezone: true }).notNull().defaultNow(),
    madeBy: who('made_by'),
  },
  (table) => [index('changes_by_recipe').on(table.cutterId, table.filmId, table.kind, table.id)],
);

/** One strip on its way through one cutter. Its bytes are frozen when it is queued. */
export const cuts = pgTable(
  'cuts',
  {
    id: serial('id').primaryKey(),
    orderId: integer('order_id')
      .notNull()
      .references(() => orders.id),
    revision: integer('revision').notNull(),
    cutterId: text('cutter_id')
      .notNull()
      .references(() => cutters.id),
    /** Its place among those that wait at its cutter: the least is next. */
    rank: doublePrecision('rank').notNull().default(0),
    /** What of its order was queued; null in cuts of earlier versions. */
    asked: jsonb('asked').$type<QueuedPart>(),
    /** The cut that it is once more, because that was spoilt. */
    againOf: integer('again_of'),
    /** Stopped with all others: goes on with them. */
    paused: boolean('paused').notNull().default(false),
    needsSecondTool: boolean('needs_second_tool').notNull().default(false),
    position: integer('position').notNull(),
    of: integer('of').notNull(),
    state: text('state').notNull(),
    /** The plan's id of the strip. */
    strip: text('strip').notNull(),
    film: jsonb('film').$type<Film>().notNull(),
    recipe: jsonb('recipe').$type<Recipe>().notNull(),
    mirrored: boolean('mirrored').notNull(),
    copies: integer('copies').notNull(),
    rollWidth: doublePrecision('roll_width').notNull(),
    cuttable: doublePrecision('cuttable').notNull(),
    /** Film under the rollers at the far and the near edge, mm. */
    edges: jsonb('edges').$type<Pick<Margins, 'far' | 'near'>>().notNull(),
    length: doublePrecision('length').notNull(),
    /** What it is cut from, as it was on the shelf; null in cuts of earlier versions. */
    roll: jsonb('roll').$type<Roll>(),
    /** mm of its width in one piece beside what is cut. */
    beside: doublePrecision('beside').notNull().default(0),
    /** What was left of it, once it is done. */
    offcuts: jsonb('offcuts').$type<readonly Roll[]>().notNull().default([]),
    cutLength: doublePrecision('cut_length').notNull(),
    seconds: doublePrecision('seconds').notNull(),
    /** Gzipped JSON: head, lines and tail as text, and when each line is done. */
    program: bytea('program').notNull(),
    /** Gzipped JSON of contracts' Drawing. */
    drawing: bytea('drawing').notNull(),
    lines: integer('lines').notNull(),
    /** Lines that are surely cut. */
    linesDone: integer('lines_done').notNull().default(0),
    /** Lines that may have been sent: noted before they are. Past `linesDone` only the cutter knows what is cut. */
    linesSent: integer('lines_sent').notNull().default(0),
    /** Where the head stood before this run sent anything, on the cutter's own axes, and the line and point it began at. */
    headFrom: jsonb('head_from').$type<HeadFrom>(),
    secondsDone: doublePrecision('seconds_done').notNull().default(0),
    /** Its film slipped: from where it lay when the cut began to where it lies; null: it has not. */
    slip: jsonb('slip').$type<Matrix>(),
    /** Its cutter answers nothing: how far it is is reckoned. */
    isReckoned: boolean('is_reckoned').notNull().default(false),
    problem: text('problem'),
    /** Of a printed sheet: its marks; null: plain film. */
    sheet: jsonb('sheet').$type<CutSheet>(),
    /** Of a printed sheet: gzipped JSON of its cut as designed, before it was known how the sheet lies. */
    design: bytea('design'),
    /** What its lines are written with, by kind; null in cuts of earlier versions: all as its recipe says. */
    writtenWith: jsonb('written_with').$type<Partial<Record<LineKind, WrittenWith>>>(),
    /** What they are cut with instead, from the line on at which that was said. */
    nudges: jsonb('nudges').$type<Nudges>().notNull().default({}),
    /** Whether the recipe was to have its nudges; null: nobody said. */
    nudgesKept: boolean('nudges_kept'),
    /** Its marks as a person took them; null: the sensor reads them. */
    taken: jsonb('taken').$type<TakenMarks>(),
    /** How the sheet lies, by what was read last. */
    reading: jsonb('reading').$type<ReadSheet>(),
    record: bytea('record'),
    deviation: doublePrecision('deviation'),
    deviationAt: jsonb('deviation_at').$type<{ x: number; y: number }>(),
    /** s that it was reckoned to take by its cutter's record, before any pace; null in cuts of earlier versions. */
    reckoned: doublePrecision('reckoned'),
    /** s that it took, if it ran from its first line to its last without a stop. */
    took: doublePrecision('took'),
    /** What somebody said of it once it was done. */
    howItWas: text('how_it_was').$type<HowItWas>(),
    /** The knife that cut it, and m that it had cut before. */
    knife: jsonb('knife').$type<KnifeThen>(),
    queuedAt: timestamp('queued_at', { withTimezone: true }).notNull().defaultNow(),
    /** When a person last moved it on. */
    movedAt: timestamp('moved_at', { withTimezone: true }).notNull().defaultNow(),
    endedAt: timestamp('ended_at', { withTimezone: true }),
  },
  (table) => [
    index('cuts_by_cutter').on(table.cutterId, table.state),
    index('cuts_by_order').on(table.orderId),
    index('cuts_by_state').on(table.state),
    // two cuts on one cutter would be cut into one another
    uniqueIndex('cuts_one_active')
      .on(table.cutterId)
      .where(sql`state in ('wants-film', 'checking', 'cutting', 'stopping', 'stopped')`),
  ],
);

/** What of a cut is whose: a row for every order that has something on its strip. */
export const cutShares = pgTable(
  'cut_shares',
  {
    cutId: integer('cut_id')
      .notNull()
      .references(() => cuts.id, { onDelete: 'cascade' }),
    orderId: integer('order_id')
      .notNull()
      .references(() => orders.id),
    /** Of the order, as it was cut. */
    revision: integer('revision').notNull(),
    copies: integer('copies').notNull(),
    /** Of the film used, 0 … 1. */
    share: doublePrecision('share').notNull(),
  },
  (table) => [
    primaryKey({ columns: [table.cutId, table.orderId] }),
    index('shares_by_order').on(table.orderId),
  ],
);

/** What people did with a cut. */
export const cutActs = pgTable(
  'cut_acts',
  {
    id: serial('id').primaryKey(),
    cutId: integer('cut_id')
      .notNull()
      .references(() => cuts.id, { onDelete: 'cascade' }),
    act: text('act').$type<CutAct>().notNull(),
    /** What of it, such as what was nudged from where to where. */
    what: text('what'),
    who: who('who'),
    at: timestamp('at', { withTimezone: true }).notNull().defaultNow(),
  },
  (table) => [index('acts_by_cut').on(table.cutId, table.id)],
);

/** Which server process feeds a cutter, and until when its word counts. */
export const leases = pgTable('leases', {
  cutterId: text('cutter_id').primaryKey(),
  holder: text('holder').notNull(),
  expiresAt: bigint('expires_at', { mode: 'number' }).notNull(),
});

/** The shop's knives: where each sits, and how much it has cut. */
export const knives = pgTable(
  'knives',
  {
    id: serial('id').primaryKey(),
    /** What recipes call such a blade. */
    blade: text('blade').notNull(),
    /** null: in the drawer, or thrown away. */
    cutterId: text('cutter_id').references(() => cutters.id),
    putInAt: timestamp('put_in_at', { withTimezone: true }),
    thrownAt: timestamp('thrown_at', { withTimezone: true }),
    /** m of ordinary film: tougher film counts for more. */
    metres: doublePrecision('metres').notNull().default(0),
  },
  (table) => [
    // a holder holds one
    uniqueIndex('knives_one_in_cutter').on(table.cutterId),
  ],
);

/** Every calibration of every cutter: what was cut for it, what was seen, and what came of it. None is ever taken out. */
export const calibrations = pgTable(
  'calibrations',
  {
    id: serial('id').primaryKey(),
    cutterId: text('cutter_id')
      .notNull()
      .references(() => cutters.id),
    setup: jsonb('setup').$type<Setup>().notNull(),
    state: text('state').notNull(),
    /** The values as they were when it was set up. */
    before: jsonb('before').$type<readonly number[]>().notNull(),
    /** What the machine saw by itself, or where crosses lie. */
    seen: jsonb('seen').$type<Seen>(),
    measured: jsonb('measured').$type<Measured>().notNull().default({}),
    says: jsonb('says').$type<RunSays>(),
    /** The values that were kept. */
    after: jsonb('after').$type<readonly number[]>(),
    /** The knife that cut it, and m that it had cut by then; null: nobody said which was in. */
    knife: jsonb('knife').$type<KnifeThen>(),
    lines: integer('lines').notNull().default(0),
    linesDone: integer('lines_done').notNull().default(0),
    /** Parts that are cut, where it is cut force by force. */
    part: integer('part').notNull().default(0),
    problem: text('problem'),
    startedAt: timestamp('started_at', { withTimezone: true }).notNull().defaultNow(),
    /** When it was last moved on. */
    movedAt: timestamp('moved_at', { withTimezone: true }).notNull().defaultNow(),
    keptAt: timestamp('kept_at', { withTimezone: true }),
    setUpBy: who('set_up_by'),
    keptBy: who('kept_by'),
  },
  (table) => [
    index('calibrations_by_cutter').on(table.cutterId, table.id),
    // two runs at once would be drawn into one another
    uniqueIndex('calibrations_one_at_work')
      .on(table.cutterId)
      .where(sql`state in ('working', 'stopping')`),
  ],
);
