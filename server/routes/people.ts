import type { PersonRow } from '../people/people';
import { addPerson, changeOwn, changePerson, listPeople, removePerson, resetPerson } from '../people/people';
import type { Asking, LogInServices } from '../people/logIn';
import { becomeTablet, comeHere, goAway, logIn, logOut, sessionNow } from '../people/logIn';
import { personOf } from '../people/people';
import type { ByWhom } from '../people/who';
import type { Handlers } from './mount';

/** Who is logged in, and who works here. */
export function peopleRoutes(services: LogInServices & ByWhom, asking: Asking) {
  const { db } = services;
  return {
    'GET /api/session': () => sessionNow(db, asking),
    'POST /api/session': ({ request, body }) => logIn(services, request, body),
    'POST /api/session/end': ({ request }) => logOut(services, request),
    'POST /api/session/tablet': ({ request, body }) =>
      becomeTablet(services, request, asking.me!, body.cutter),
    'POST /api/session/here': ({ request, body }) => comeHere(services, request, body),
    'POST /api/session/away': ({ request }) => goAway(services, request),
    'PATCH /api/me': async ({ request, body }) => {
      const me = asking.me as PersonRow;
      await changeOwn(services, me, request.sessionID, body);
      return sessionNow(db, { ...asking, me: await personOf(db, me.id) });
    },
    'GET /api/people': () => listPeople(db),
    'POST /api/people': ({ body }) => addPerson(services, body),
    'PATCH /api/people/{id}': ({ params, body }) => changePerson(services, params.id, body),
    'POST /api/people/{id}/reset': ({ params }) => resetPerson(services, params.id),
    'POST /api/people/{id}/remove': ({ params }) => removePerson(services, params.id, true),
    'POST /api/people/{id}/bring-back': ({ params }) => removePerson(services, params.id, false),
  } satisfies Partial<Handlers>;
}
