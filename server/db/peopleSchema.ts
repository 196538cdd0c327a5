/** The shop's people, and what keeps others out. */
import {
  bigint,
  boolean,
  index,
  integer,
  jsonb,
  pgTable,
  serial,
  text,
  timestamp,
  uniqueIndex,
} from 'drizzle-orm/pg-core';
import { sql } from 'drizzle-orm';
import type { Role } from '../../contracts/people';
import type { SessionData } from '../people/sessionData';

/** Whoever works in the shop. None is taken out: what somebody did stays theirs. */
export const people = pgTable(
  'people',
  {
    id: serial('id').primaryKey(),
    /** What they log in with. */
    name: text('name').notNull(),
    role: text('role').$type<Role>().notNull(),
    /** argon2id */
    password: text('password').notNull(),
    /** argon2id; null: none, so that they are not known at a machine's tablet. */
    pin: text('pin'),
    /** Of the demo's people, shown to everybody before the log-in; null once it was changed, and of all others. */
    shown: jsonb('shown').$type<{ readonly password: string; readonly pin: string }>(),
    /** Somebody else chose the password: they are asked for one of their own. */
    mustChange: boolean('must_change').notNull().default(false),
    removedAt: timestamp('removed_at', { withTimezone: true }),
  },
  // two of one name could not be told apart
  (table) => [
    uniqueIndex('people_one_of_a_name')
      .on(sql`lower(${table.name})`)
      .where(sql`removed_at is null`),
  ],
);

/** Who is logged in, as connect-pg-simple keeps it. */
export const sessions = pgTable(
  'sessions',
  {
    sid: text('sid').primaryKey(),
    sess: jsonb('sess').$type<{ readonly jamPan?: SessionData }>().notNull(),
    expire: timestamp('expire', { precision: 6 }).notNull(),
  },
  (table) => [index('sessions_by_expire').on(table.expire)],
);

/** How often somebody tried to log in of late, as rate-limiter-flexible keeps it. */
export const attempts = pgTable('attempts', {
  key: text('key').primaryKey(),
  points: integer('points').notNull().default(0),
  expire: bigint('expire', { mode: 'number' }),
});

/** What keeps strangers out, by name: every server process has the same. */
export const secrets = pgTable('secrets', {
  name: text('name').primaryKey(),
  value: text('value').notNull(),
});
