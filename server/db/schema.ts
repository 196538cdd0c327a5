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
import type { Choices } from '../../core/plan/choices';
import type { LineKind } from '../../core/artwork/choices';
import type { Cutter, Margins, Recipe } from '../../core/layout/cutter';
import type { Film, Roll } from '../../core/films/film';
import type { Printer } from '../../core/print/choices';
import type { FilmSize } from '../../core/films/leftover';
import type { OrderSummary } from '../../contracts/api';
import type { Edit } from '../../contracts/edits';
import type { CutSheet, ReadSheet, TakenMarks } from '../../contracts/print';

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
  },
  (table) => [primaryKey({ columns: [table.orderId, table.n] })],
);

export const films = pgTable('films', {
  id: text('id').primaryKey(),
  data: jsonb('data').$type<Film>().notNull(),
  position: integer('position').notNull(),
});

/** How a cutter is reached. A simulated one has a panel too, where its record of the knife's way is fetched. */
export interface Link {
  readonly host: string;
  readonly port: number;
  readonly panel?: string;
}

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
    headFrom: jsonb('head_from').$type<{ x: number; y: number; line: number; point: number }>(),
    secondsDone: doublePrecision('seconds_done').notNull().default(0),
    problem: text('problem'),
    /** Of a printed sheet: its marks; null: plain film. */
    sheet: jsonb('sheet').$type<CutSheet>(),
    /** Of a printed sheet: gzipped JSON of its cut as designed, before it was known how the sheet lies. */
    design: bytea('design'),
    /** Its marks as a person took them; null: the sensor reads them. */
    taken: jsonb('taken').$type<TakenMarks>(),
    /** How the sheet lies, by what was read last. */
    reading: jsonb('reading').$type<ReadSheet>(),
    record: bytea('record'),
    deviation: doublePrecision('deviation'),
    deviationAt: jsonb('deviation_at').$type<{ x: number; y: number }>(),
    queuedAt: timestamp('queued_at', { withTimezone: true }).notNull().defaultNow(),
    /** When a person last moved it on. */
    movedAt: timestamp('moved_at', { withTimezone: true }).notNull().defaultNow(),
    endedAt: timestamp('ended_at', { withTimezone: true }),
  },
  (table) => [
    index('cuts_by_cutter').on(table.cutterId, table.state),
    index('cuts_by_order').on(table.orderId),
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

/** Which server process feeds a cutter, and until when its word counts. */
export const leases = pgTable('leases', {
  cutterId: text('cutter_id').primaryKey(),
  holder: text('holder').notNull(),
  expiresAt: bigint('expires_at', { mode: 'number' }).notNull(),
});
