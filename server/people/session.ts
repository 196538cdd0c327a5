/** Who is logged in: a cookie that only the server reads, and a row in the database for it. */
import { randomBytes } from 'node:crypto';
import connectPgSimple from 'connect-pg-simple';
import { eq } from 'drizzle-orm';
import type { Request, RequestHandler } from 'express';
import session from 'express-session';
import type pg from 'pg';
import type { Db } from '../db/connect';
import { secrets } from '../db/schema';
import type { SessionData as Kept } from './sessionData';

export const COOKIE = 'jam-pan';
const DAY_MS = 86_400_000;
/** Whoever does not come back for so long has to log in again. */
const KEPT_MS = 30 * DAY_MS;

declare module 'express-session' {
  interface SessionData {
    jamPan?: Kept;
  }
}

/** @param lines to the database */
export async function sessionsIn(
  db: Db,
  lines: pg.Pool,
): Promise<{ handler: RequestHandler; close: () => void }> {
  const Store = connectPgSimple(session);
  const store = new Store({ pool: lines, tableName: 'sessions', disableTouch: true });
  const handler = session({
    store,
    name: COOKIE,
    secret: await secretOf(db, 'session'),
    resave: false,
    saveUninitialized: false,
    cookie: { httpOnly: true, sameSite: 'strict', secure: 'auto', maxAge: KEPT_MS },
  });
  return { handler, close: () => void store.close() };
}

/** Made up by whichever server process comes first. */
async function secretOf(db: Db, name: string): Promise<string> {
  await db
    .insert(secrets)
    .values({ name, value: randomBytes(32).toString('base64url') })
    .onConflictDoNothing();
  const [{ value }] = await db.select().from(secrets).where(eq(secrets.name, name));
  return value;
}

/** Whoever uses it stays logged in: the cookie and its row are made new once a day. */
export function stayLoggedIn(request: Request): void {
  const { jamPan, cookie } = request.session;
  if (!jamPan || Date.now() - (jamPan.seen ?? 0) < DAY_MS) return;
  cookie.maxAge = KEPT_MS;
  request.session.jamPan = { ...jamPan, seen: Date.now() };
}

/** A new one with a number of its own: whoever knew the old one has nothing. */
export async function beginSession(request: Request, data: Kept): Promise<void> {
  await called((done) => request.session.regenerate(done));
  request.session.jamPan = { ...data, seen: Date.now() };
}

export const endSession = (request: Request): Promise<void> =>
  called((done) => request.session.destroy(done));

const called = (work: (done: (error?: unknown) => void) => void): Promise<void> =>
  new Promise((done, fail) => work((error) => (error ? fail(error as Error) : done())));
