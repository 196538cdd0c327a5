/** Logging in and out, machines' tablets, and who is at them. */
import { eq } from 'drizzle-orm';
import type { Request } from 'express';
import type { Me, SessionNow } from '../../contracts/people';
import type { Db } from '../db/connect';
import { cutters } from '../db/schema';
import type { Hub } from '../events/hub';
import { notFound, Trouble } from '../problem';
import type { Attempts } from './attempts';
import { isRight } from './passwords';
import type { PersonRow } from './people';
import { demoPeople, handsOf, personNamed, personOf } from './people';
import { beginSession, endSession } from './session';

export interface LogInServices {
  readonly db: Db;
  readonly hub: Hub;
  readonly attempts: Attempts;
}

/** Whoever said by PIN that they are at a tablet, and does nothing there, is not counted as there after so long. */
const HERE_MS = 10 * 60_000;

/** Who asks: a person, or a machine's tablet with or without somebody at it. */
export interface Asking {
  readonly me?: PersonRow;
  readonly tablet?: string;
}

export async function askingOf(db: Db, request: Request): Promise<Asking> {
  const data = request.session.jamPan;
  if (!data) return {};
  const { person, tablet, here } = data;
  if (person !== undefined) return { me: await personOf(db, person) };
  const now = Date.now();
  if (!here || here.until < now) return { tablet };
  // whoever goes on working stays there
  if (here.until - now < HERE_MS / 2)
    request.session.jamPan = { ...data, here: { ...here, until: now + HERE_MS } };
  return { tablet, me: await personOf(db, here.person) };
}

const meOf = ({ id, name, role, pin, mustChange }: PersonRow): Me => ({
  id,
  name,
  role,
  hasPin: pin !== null,
  mustChange,
});

async function nameOf(db: Db, cutter: string): Promise<string> {
  const [row] = await db.select({ data: cutters.data }).from(cutters).where(eq(cutters.id, cutter));
  return row?.data.name ?? cutter;
}

/** What a page is told of who it is; strangers hear only of the demo's people. */
export async function sessionNow(db: Db, { me, tablet }: Asking): Promise<SessionNow> {
  return {
    me: me ? meOf(me) : null,
    tablet: tablet === undefined ? null : { id: tablet, name: await nameOf(db, tablet) },
    hands: tablet === undefined ? [] : await handsOf(db),
    demo: me || tablet !== undefined ? [] : await demoPeople(db),
  };
}

/** @throws Trouble when the two do not go together, or that was tried too often */
export async function logIn(
  { db, attempts }: LogInServices,
  request: Request,
  { name, password }: { readonly name: string; readonly password: string },
): Promise<SessionNow> {
  const me = await attempts.at('password', name, request.ip ?? '', async () => {
    const row = await personNamed(db, name);
    return (await isRight(row?.password, password)) ? row : undefined;
  });
  if (!me) throw new Trouble(422, 'wrong-password', 'That name and that password do not go together.');
  await beginSession(request, { person: me.id });
  return sessionNow(db, { me });
}

export async function logOut({ db, hub }: LogInServices, request: Request): Promise<SessionNow> {
  const wasIn = request.session.jamPan !== undefined;
  await endSession(request);
  // other pages of the same log-in hear of it; a stranger who logs out is nobody's news
  if (wasIn) await hub.tell({ kind: 'people' });
  return sessionNow(db, {});
}

/** The browser becomes a machine's tablet: whoever set it up is at it for now. */
export async function becomeTablet(
  { db }: LogInServices,
  request: Request,
  me: PersonRow,
  cutter: string,
): Promise<SessionNow> {
  const [row] = await db.select({ id: cutters.id }).from(cutters).where(eq(cutters.id, cutter));
  if (!row) throw notFound('cutter');
  await beginSession(request, { tablet: cutter, here: { person: me.id, until: Date.now() + HERE_MS } });
  return sessionNow(db, { me, tablet: cutter });
}

/** @throws Trouble when the PIN is not theirs */
export async function comeHere(
  { db, attempts }: LogInServices,
  request: Request,
  { person, pin }: { readonly person: number; readonly pin: string },
): Promise<SessionNow> {
  const data = request.session.jamPan;
  if (data?.tablet === undefined)
    throw new Trouble(409, 'no-tablet', "A PIN is for a machine's tablet. Log in with your password here.");
  const me = await attempts.at('pin', String(person), data.tablet, async () => {
    const row = await personOf(db, person);
    return (await isRight(row?.pin, pin)) ? row : undefined;
  });
  if (!me) throw new Trouble(422, 'wrong-pin', 'That is not the PIN of this person.');
  request.session.jamPan = { ...data, here: { person: me.id, until: Date.now() + HERE_MS } };
  return sessionNow(db, { me, tablet: data.tablet });
}

/** Nobody is at the tablet any more. */
export async function goAway({ db }: LogInServices, request: Request): Promise<SessionNow> {
  const { tablet } = request.session.jamPan ?? {};
  if (tablet !== undefined) request.session.jamPan = { tablet };
  return sessionNow(db, { tablet });
}
