/** What became of film and of the cutters' time. None of it is ever changed or taken out. */
import { sql } from 'drizzle-orm';
import {
  doublePrecision,
  index,
  integer,
  jsonb,
  pgTable,
  serial,
  text,
  timestamp,
} from 'drizzle-orm/pg-core';
import type { BookingKind } from '../../core/films/booking';
import type { Roll } from '../../core/films/film';
import { who } from './columns';

/** Whose film it was: an order as it was called then. */
export interface BookedFor {
  readonly order: number;
  readonly name: string;
  /** 0 … 1 */
  readonly share: number;
}

/** Every change of what lies on the shelf. */
export const filmBookings = pgTable(
  'film_bookings',
  {
    id: serial('id').primaryKey(),
    at: timestamp('at', { withTimezone: true }).notNull().defaultNow(),
    kind: text('kind').$type<BookingKind>().notNull(),
    /** null: nobody said which film lay in the cutter. */
    filmId: text('film_id'),
    cutterId: text('cutter_id'),
    cutId: integer('cut_id'),
    calibrationId: integer('calibration_id'),
    /** mm across */
    width: doublePrecision('width').notNull(),
    /** mm along that left the shelf */
    off: doublePrecision('off').notNull(),
    /** Offcuts of it that came back. */
    back: jsonb('back').$type<readonly Roll[]>().notNull().default([]),
    /** mm along that are gone for good */
    used: doublePrecision('used').notNull(),
    /** mm of them that are on signs */
    kept: doublePrecision('kept').notNull().default(0),
    /** Of a metre, then; null: nobody said. */
    price: doublePrecision('price'),
    bookedFor: jsonb('booked_for').$type<readonly BookedFor[]>().notNull().default([]),
    who: who('who'),
  },
  (table) => [index('bookings_by_time').on(table.at)],
);

/** What a cutter did: `cutting`, `reading` marks, `waiting` for film, `stopped`, `calibrating`. Filled by triggers. */
export const cutterTimes = pgTable(
  'cutter_times',
  {
    id: serial('id').primaryKey(),
    cutterId: text('cutter_id').notNull(),
    doing: text('doing').notNull(),
    cutId: integer('cut_id'),
    calibrationId: integer('calibration_id'),
    began: timestamp('began', { withTimezone: true }).notNull(),
    /** null: it still does. */
    ended: timestamp('ended', { withTimezone: true }),
  },
  (table) => [
    index('times_by_start').on(table.began),
    index('times_under_way')
      .on(table.cutId, table.calibrationId)
      .where(sql`ended is null`),
  ],
);
