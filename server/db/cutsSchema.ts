/** What goes through the cutters: cuts, calibrations, and who feeds which. */
import {
  bigint,
  boolean,
  doublePrecision,
  index,
  integer,
  jsonb,
  pgTable,
  primaryKey,
  serial,
  text,
  timestamp,
  uniqueIndex,
} from 'drizzle-orm/pg-core';
import { sql } from 'drizzle-orm';
import type { HowItWas } from '../../core/calibration/howItWas';
import type { LineKind } from '../../core/artwork/choices';
import type { OnNewFilm } from '../../core/films/booking';
import type { Matrix } from '../../core/geometry/matrix';
import type { Measured, RunSays, Seen, Setup } from '../../core/calibration/run';
import type { Nudges, WrittenWith } from '../../core/devicelang/nudged';
import type { Margins, Recipe } from '../../core/layout/cutter';
import type { Film, Roll } from '../../core/films/film';
import type { AsCutSaid, CutAct, QueuedPart } from '../../contracts/cuts';
import type { CutSheet, ReadSheet, TakenMarks } from '../../contracts/print';
import { bytea, who } from './columns';
import { orders } from './ordersSchema';
import type { KnifeThen } from './shopSchema';
import { cutters } from './shopSchema';

/** Where a head stood before anything was sent to it, on its own axes, and where the cut went on from there. */
export interface HeadFrom {
  readonly x: number;
  readonly y: number;
  readonly line: number;
  readonly point: number;
  /** It was moved away by hand since: the cut goes on from there, wherever it stands. */
  readonly isKnown?: boolean;
  /** It comes to that place of the line more than once: a person looks whether the line is cut up to there. */
  readonly isAsked?: boolean;
  /** Its line was lost: it may have been switched off, which lifts the knife wherever it is. */
  readonly mayBeLifted?: boolean;
}

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
    /** Hash of all that it was planned from; null in cuts of earlier versions. */
    madeFrom: text('made_from'),
    /** Somebody put it at this cutter, whatever its order says. */
    isPutHere: boolean('is_put_here').notNull().default(false),
    /** What its order would be cut as instead when somebody said that it stays as it is. */
    keptOver: text('kept_over'),
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
    /** mm² of art on it; 0 in cuts of earlier versions. */
    art: doublePrecision('art').notNull().default(0),
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
    /** Its film ended, and the rest is cut from the start of new film; null: all is on one. */
    onNewFilm: jsonb('on_new_film').$type<OnNewFilm>(),
    /** The line, from 0, before which the blade is turned again: it does not come to it from the line before; null: none. */
    turnBefore: integer('turn_before'),
    /** Its cutter answers nothing: how far it is is reckoned. */
    isReckoned: boolean('is_reckoned').notNull().default(false),
    problem: text('problem'),
    /** Of a printed sheet: its marks; null: plain film. */
    sheet: jsonb('sheet').$type<CutSheet>(),
    /** Of a printed sheet: gzipped JSON of its cut as designed, before it was known how the sheet lies. */
    design: bytea('design'),
    /** What its lines are written with, by kind. */
    writtenWith: jsonb('written_with').$type<Partial<Record<LineKind, WrittenWith>>>().notNull(),
    /** What they are cut with instead, from the line on at which that was said. */
    nudges: jsonb('nudges').$type<Nudges>().notNull().default({}),
    /** Whether the recipe was to have its nudges; null: nobody said. */
    nudgesKept: boolean('nudges_kept'),
    /** Its marks as a person took them; null: the sensor reads them. */
    taken: jsonb('taken').$type<TakenMarks>(),
    /** How the sheet lies, by what was read last. */
    reading: jsonb('reading').$type<ReadSheet>(),
    /** Gzipped JSON of contracts' CutRecord. */
    record: bytea('record'),
    /** It could not be fetched yet: it is asked for again until something else is done at the cutter. */
    recordWanted: boolean('record_wanted').notNull().default(false),
    asCut: jsonb('as_cut').$type<AsCutSaid>(),
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
    // what is open at a cutter, and what was cut there last
    index('cuts_by_cutter').on(table.cutterId, table.state, table.endedAt),
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
