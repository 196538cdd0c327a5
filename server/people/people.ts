/** The shop's people: found, added, changed, removed; how they are known. */
import { and, asc, eq, inArray, isNotNull, isNull, ne, sql } from 'drizzle-orm';
import type { OwnChange, People, Person, Role } from '../../contracts/people';
import { isTaken } from '../db/away';
import type { Db, Tx } from '../db/connect';
import { perDatabase } from '../db/perDatabase';
import { people, sessions } from '../db/schema';
import type { Request } from 'express';
import type { Hub } from '../events/hub';
import { notFound, Trouble } from '../problem';
import type { Attempts } from './attempts';
import { hashed, isRight, madeUp } from './passwords';
import type { ByWhom } from './who';

export type PersonRow = typeof people.$inferSelect;

interface PeopleServices extends ByWhom {
  readonly db: Db;
  readonly hub: Hub;
}

const isIn = isNull(people.removedAt);

const byId = perDatabase((db) =>
  db
    .select()
    .from(people)
    .where(and(eq(people.id, sql.placeholder('id')), isIn))
    .prepare('person'),
);

/** Somebody who works here now, by id. */
export async function personOf(db: Db, id: number): Promise<PersonRow | undefined> {
  const [row] = await byId(db).execute({ id });
  return row;
}

export async function personNamed(db: Db, name: string): Promise<PersonRow | undefined> {
  const isNamed = sql`lower(${people.name}) = lower(${name.trim()})`;
  const [row] = await db.select().from(people).where(and(isNamed, isIn));
  return row;
}

/** What people are, or were, called. */
export async function namesOf(
  db: Pick<Db, 'select'>,
  ids: readonly (number | null)[],
): Promise<ReadonlyMap<number, string>> {
  const wanted = [...new Set(ids)].filter((id) => id !== null);
  if (wanted.length === 0) return new Map();
  const rows = await db
    .select({ id: people.id, name: people.name })
    .from(people)
    .where(inArray(people.id, wanted));
  return new Map(rows.map(({ id, name }) => [id, name]));
}

/** Those who may say by PIN that they are at a machine's tablet. */
export const handsOf = (db: Db): Promise<{ id: number; name: string; role: Role }[]> =>
  db
    .select({ id: people.id, name: people.name, role: people.role })
    .from(people)
    .where(and(isNotNull(people.pin), isIn))
    .orderBy(asc(people.name));

/** The demo's people with what they log in with, as long as they are in. */
export async function demoPeople(
  db: Db,
): Promise<{ name: string; role: Role; password: string; pin: string }[]> {
  const rows = await db
    .select()
    .from(people)
    .where(and(isNotNull(people.shown), isIn))
    .orderBy(asc(people.id));
  return rows.map(({ name, role, shown }) => ({ name, role, ...shown! }));
}

/** Everybody, those who are gone last. */
export async function listPeople(db: Db, made: People['made'] = null): Promise<People> {
  const rows = await db
    .select()
    .from(people)
    .orderBy(sql`${people.removedAt} is not null`, asc(people.name));
  return { people: rows.map(shownOf), made };
}

const shownOf = ({ id, name, role, pin, shown, removedAt }: PersonRow): Person => ({
  id,
  name,
  role,
  hasPin: pin !== null,
  isDemo: shown !== null,
  removed: removedAt !== null,
});

/** Adds somebody with a password that was made up, which they are asked to change. */
export async function addPerson(
  { db, hub }: PeopleServices,
  { name, role }: { readonly name: string; readonly role: Role },
): Promise<People> {
  const password = madeUp();
  const values = { name, role, password: await hashed(password), mustChange: true };
  await asOnlyOne(name, db.insert(people).values(values));
  await hub.tell({ kind: 'people' });
  return listPeople(db, { name, password });
}

export async function changePerson(
  { db, hub }: PeopleServices,
  id: number,
  change: { readonly name?: string; readonly role?: Role },
): Promise<People> {
  await db.transaction(async (tx) => {
    const row = await heldPerson(tx, id);
    if (change.role && change.role !== 'lead') await anotherLead(tx, row);
    if (Object.keys(change).length > 0)
      await asOnlyOne(change.name ?? row.name, tx.update(people).set(change).where(eq(people.id, id)));
  });
  await hub.tell({ kind: 'people' });
  return listPeople(db);
}

/** What somebody logs in with whose password was made up for them: it is to be changed, and no PIN counts. */
const newlyMade = (password: string) => ({ password, pin: null, shown: null, mustChange: true });

/** Gives somebody a new password that was made up, and no PIN; wherever they are logged in, they are no more. */
export async function resetPerson({ db, hub }: PeopleServices, id: number): Promise<People> {
  const password = madeUp();
  const now = newlyMade(await hashed(password));
  const { name } = await db.transaction(async (tx) => {
    const row = await heldPerson(tx, id);
    await tx.update(people).set(now).where(eq(people.id, id));
    await endSessionsOf(tx, id);
    return row;
  });
  await hub.tell({ kind: 'people' });
  return listPeople(db, { name, password });
}

/** @throws Trouble when nobody could add people any more */
export async function removePerson({ db, hub }: PeopleServices, id: number): Promise<People> {
  await db.transaction(async (tx) => {
    await anotherLead(tx, await heldPerson(tx, id));
    await tx.update(people).set({ removedAt: new Date() }).where(eq(people.id, id));
    await endSessionsOf(tx, id);
  });
  await hub.tell({ kind: 'people' });
  return listPeople(db);
}

/**
 * Brings back somebody who was removed, with a new password: who knows the old one need not be them.
 * @throws Trouble when one of that name is here
 */
export async function bringBackPerson({ db, hub }: PeopleServices, id: number): Promise<People> {
  const password = madeUp();
  const now = { ...newlyMade(await hashed(password)), removedAt: null };
  const { name, removedAt } = await db.transaction(async (tx) => {
    const row = await heldPerson(tx, id);
    if (row.removedAt) await asOnlyOne(row.name, tx.update(people).set(now).where(eq(people.id, id)));
    return row;
  });
  await hub.tell({ kind: 'people' });
  return listPeople(db, removedAt ? { name, password } : null);
}

/** @throws Trouble when the password is wrong, or was wrong too often */
export async function changeOwn(
  { db, hub, attempts }: PeopleServices & { readonly attempts: Attempts },
  row: PersonRow,
  { sessionID: sid, ip = '' }: Pick<Request, 'sessionID' | 'ip'>,
  { password, newPassword, pin }: OwnChange,
): Promise<void> {
  const isOwn = await attempts.at('password', row.name, ip, async () =>
    (await isRight(row.password, password)) ? true : undefined,
  );
  if (!isOwn) throw new Trouble(422, 'wrong-password', 'That is not your password as it is now.');
  const now = {
    ...(newPassword === undefined ? {} : { password: await hashed(newPassword), mustChange: false }),
    ...(pin === undefined ? {} : { pin: pin && (await hashed(pin)) }),
  };
  await db.transaction(async (tx) => {
    // what is shown of a demo's person is true no more
    await tx
      .update(people)
      .set({ ...now, shown: null })
      .where(eq(people.id, row.id));
    if (newPassword !== undefined) await endSessionsOf(tx, row.id, sid);
  });
  await hub.tell({ kind: 'people' });
}

async function heldPerson(tx: Tx, id: number): Promise<PersonRow> {
  // all leads are held with it: of two who remove each other one stays
  const rows = await tx
    .select()
    .from(people)
    .where(sql`${people.id} = ${id} or ${people.role} = 'lead'`)
    .orderBy(people.id)
    .for('update');
  const row = rows.find((one) => one.id === id);
  if (!row) throw notFound('person');
  return row;
}

async function anotherLead(tx: Tx, { id, name, role, removedAt }: PersonRow): Promise<void> {
  if (role !== 'lead' || removedAt) return;
  const others = await tx.$count(people, and(eq(people.role, 'lead'), isIn, ne(people.id, id)));
  if (others === 0)
    throw new Trouble(409, 'last-lead', `${name} is the only lead: nobody could add people any more.`, [
      'Make somebody else a lead first',
    ]);
}

/** Where they are logged in they are no more; where they are at a machine's tablet, only that. @param but one that stays */
async function endSessionsOf(tx: Tx, id: number, but = ''): Promise<void> {
  const isTheirs = sql`(${sessions.sess}->'jamPan'->>'person')::int = ${id}`;
  const areHere = sql`(${sessions.sess}->'jamPan'->'here'->>'person')::int = ${id}`;
  await tx.delete(sessions).where(and(isTheirs, ne(sessions.sid, but)));
  await tx
    .update(sessions)
    .set({ sess: sql`${sessions.sess} #- '{jamPan,here}'` })
    .where(areHere);
}

async function asOnlyOne(name: string, work: PromiseLike<unknown>): Promise<void> {
  try {
    await work;
  } catch (error) {
    if (!isTaken(error)) throw error;
    throw new Trouble(409, 'same-name', `There is a ${name.trim()} already. Take another name.`);
  }
}
