/** Who is logged in, and who works here. */
import {
  hereSchema,
  logInSchema,
  newPersonSchema,
  ownChangeSchema,
  peopleSchema,
  personChangeSchema,
  sessionSchema,
  tabletSchema,
} from '../people';
import type { Endpoints } from './endpoint';
import { byId } from './params';

export const peopleEndpoints = {
  'GET /api/session': { says: 'Who is logged in here', gives: sessionSchema },
  'POST /api/session': { says: 'Log in', takes: logInSchema, gives: sessionSchema },
  'POST /api/session/end': { says: 'Log out', gives: sessionSchema },
  'POST /api/session/tablet': {
    says: "Make this a machine's tablet: it stays logged in as that machine",
    takes: tabletSchema,
    gives: sessionSchema,
  },
  'POST /api/session/here': {
    says: 'Say by PIN who is at the tablet',
    takes: hereSchema,
    gives: sessionSchema,
  },
  'POST /api/session/away': { says: 'Nobody is at the tablet any more', gives: sessionSchema },
  'PATCH /api/me': {
    says: 'Change the own password or PIN',
    takes: ownChangeSchema,
    gives: sessionSchema,
  },
  'GET /api/people': { says: 'Everybody who works here, or did', gives: peopleSchema },
  'POST /api/people': {
    says: 'Add somebody, with a password that is made up and shown this once',
    takes: newPersonSchema,
    gives: peopleSchema,
  },
  'PATCH /api/people/{id}': {
    params: byId,
    says: 'Change a name or a role',
    takes: personChangeSchema,
    gives: peopleSchema,
  },
  'POST /api/people/{id}/reset': {
    params: byId,
    says: 'Give somebody a new password, and no PIN',
    gives: peopleSchema,
  },
  'POST /api/people/{id}/remove': {
    params: byId,
    says: 'Remove somebody: what they did stays theirs',
    gives: peopleSchema,
  },
  'POST /api/people/{id}/bring-back': {
    params: byId,
    says: 'Have them back',
    gives: peopleSchema,
  },
} satisfies Endpoints;
