/** Orders with every change of them, and the files that they are made of. */
import {
  boolean,
  date,
  index,
  integer,
  jsonb,
  pgTable,
  primaryKey,
  serial,
  text,
  timestamp,
} from 'drizzle-orm/pg-core';
import { sql } from 'drizzle-orm';
import type { Choices } from '../../core/plan/choices';
import type { OrderSummary } from '../../contracts/api';
import type { Edit } from '../../contracts/edits';
import { who, bytea } from './columns';

/** Customers' files as they came, by SHA-256. Never changed, never overwritten. */
export const files = pgTable('files', {
  hash: text('hash').primaryKey(),
  bytes: bytea('bytes').notNull(),
  /** When it was brought in last. */
  createdAt: timestamp('created_at', { withTimezone: true }).notNull().defaultNow(),
  /** An order was seen to have it: it is not looked for again. */
  isInOrder: boolean('is_in_order').notNull().default(false),
});

/**
 * What a source reads as: gzipped JSON of core's Artwork, by the SHA-256 of its source key. Can be made again at any
 * time from the file or the text.
 */
export const readings = pgTable('readings', {
  key: text('key').primaryKey(),
  data: bytea('data').notNull(),
  /** About when it was asked for last, to the hour. */
  usedAt: timestamp('used_at', { withTimezone: true }).notNull().defaultNow(),
});

/** Strips of plans as files, by the hash of all that a plan hangs on. Can be made again at any time. */
export const stripFiles = pgTable(
  'strip_files',
  {
    key: text('key').notNull(),
    strip: text('strip').notNull(),
    bytes: bytea('bytes').notNull(),
    madeAt: timestamp('made_at', { withTimezone: true }).notNull().defaultNow(),
  },
  (table) => [
    primaryKey({ columns: [table.key, table.strip] }),
    index('strip_files_made_at').on(table.madeAt),
  ],
);

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
    /** The revision that it takes back, from under what others changed since; null: it is a change of its own. */
    undoes: integer('undoes'),
    /** What it changed there. Missing in the first, and in those of earlier versions, which say all of it instead. */
    edits: jsonb('edits').$type<readonly Edit[]>(),
    choices: jsonb('choices').$type<Choices>(),
    madeAt: timestamp('made_at', { withTimezone: true }).notNull().defaultNow(),
    madeBy: who('made_by'),
  },
  (table) => [primaryKey({ columns: [table.orderId, table.n] })],
);

/** What was made for requests that name themselves, for as long as one may be sent again. */
export const madeOnce = pgTable('made_once', {
  key: text('key').primaryKey(),
  /** Ids of it. */
  made: jsonb('made').$type<readonly number[]>().notNull(),
  madeAt: timestamp('made_at', { withTimezone: true }).notNull().defaultNow(),
});
