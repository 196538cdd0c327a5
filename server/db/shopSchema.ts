/** What the shop has and sets: films, cutters with their recipes and knives, settings. */
import {
  boolean,
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
import type { Link } from './link';
import type { LineKind } from '../../core/artwork/choices';
import type { Printer } from '../../core/print/choices';
import type { FilmSize } from '../../core/films/leftover';
import type { Cutter, Recipe } from '../../core/layout/cutter';
import type { Film } from '../../core/films/film';
import type { LoadedNow } from '../../contracts/floor';
import { who } from './columns';

export const films = pgTable('films', {
  id: text('id').primaryKey(),
  data: jsonb('data').$type<Film>().notNull(),
  position: integer('position').notNull(),
});

export const cutters = pgTable('cutters', {
  id: text('id').primaryKey(),
  data: jsonb('data').$type<Cutter>().notNull(),
  link: jsonb('link').$type<Link>().notNull(),
  /** What is in it, by the cut that was begun there last; null: none was. */
  loaded: jsonb('loaded').$type<Omit<LoadedNow, 'cutter'>>(),
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
  /** Months that programs and records of cuts are kept; null: for ever. */
  keepCuts: integer('keep_cuts'),
  /** When the demo shop was laid out here, or was seen not to be wanted; null: nobody has looked yet. */
  demoSeenAt: timestamp('demo_seen_at', { withTimezone: true }),
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

/** A knife as it was when something was cut with it. */
export interface KnifeThen {
  readonly id: number;
  readonly metres: number;
}

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
