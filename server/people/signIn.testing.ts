/** Somebody who is logged in, for tests that ask a server. */
import request from 'supertest';
import type { Role } from '../../contracts/people';
import { people } from '../db/schema';
import type { RunningServer } from '../open';
import { hashed } from './passwords';

export const PASSWORD = 'terns nest here';

/** Asks as whoever logs in. */
export interface SignedIn {
  readonly agent: ReturnType<typeof request.agent>;
  readonly cookie: string;
}

/** Asks as a page of the app does, with nobody logged in. */
export const stranger = (url: string): ReturnType<typeof request.agent> =>
  request.agent(url).set('Origin', url);

/** Logs somebody in who is there. */
export async function logInAt(url: string, name: string, password = PASSWORD): Promise<SignedIn> {
  const agent = stranger(url);
  const { headers } = await agent.post('/api/session').send({ name, password }).expect(200);
  return { agent, cookie: String(headers['set-cookie']).split(';')[0] };
}

/** Adds somebody of a role and logs them in. */
export async function signIn(
  { services, url }: RunningServer,
  role: Role = 'lead',
  name: string = role,
): Promise<SignedIn> {
  const person = { name, role, password: await hashed(PASSWORD) };
  await services.db.insert(people).values(person).onConflictDoNothing();
  return logInAt(url, name);
}
