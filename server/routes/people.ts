import {
  addPerson,
  bringBackPerson,
  changeOwn,
  changePerson,
  listPeople,
  personOf,
  removePerson,
  resetPerson,
} from '../people/people';
import { becomeTablet, comeHere, goAway, logIn, logOut, sessionNow } from '../people/logIn';
import type { Handlers } from './mount';

/** Who is logged in, and who works here. */
export const peopleRoutes = {
  'GET /api/session': ({ services, asking }) => sessionNow(services.db, asking),
  'POST /api/session': ({ request, body, services }) => logIn(services, request, body),
  'POST /api/session/end': ({ request, services }) => logOut(services, request),
  'POST /api/session/tablet': ({ request, body, services, asking }) =>
    becomeTablet(services, request, asking.me!, body.cutter),
  'POST /api/session/here': ({ request, body, services }) => comeHere(services, request, body),
  'POST /api/session/away': ({ request, services }) => goAway(services, request),
  'PATCH /api/me': async ({ request, body, services, asking }) => {
    const me = asking.me!;
    await changeOwn(services, me, request, body);
    return sessionNow(services.db, { ...asking, me: await personOf(services.db, me.id) });
  },
  'GET /api/people': ({ services }) => listPeople(services.db),
  'POST /api/people': ({ body, services }) => addPerson(services, body),
  'PATCH /api/people/{id}': ({ params, body, services }) => changePerson(services, params.id, body),
  'POST /api/people/{id}/reset': ({ params, services }) => resetPerson(services, params.id),
  'POST /api/people/{id}/remove': ({ params, services }) => removePerson(services, params.id),
  'POST /api/people/{id}/bring-back': ({ params, services }) => bringBackPerson(services, params.id),
} satisfies Partial<Handlers>;
