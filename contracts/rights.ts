/** What asks for more than to be logged in, and what asks for less. */
import type { Route } from './endpoints';
import type { Role } from './people';

/** `anyone`: strangers too. `tablet`: a machine's tablet with nobody at it. */
export type Needs = Role | 'anyone' | 'tablet';

const NEEDS: Readonly<Partial<Record<Route, Needs>>> = {
  // a stranger logs in, and nothing else
  'GET /api/health': 'anyone',
  'GET /api/session': 'anyone',
  'POST /api/session': 'anyone',
  'POST /api/session/end': 'anyone',

  // a machine's tablet says who is at it; stopping asks for nobody's name
  'POST /api/session/here': 'tablet',
  'POST /api/session/away': 'tablet',
  'POST /api/cuts/{id}/stop': 'tablet',
  'POST /api/calibrations/{id}/stop': 'tablet',

  // machines are run
  'POST /api/session/tablet': 'operator',
  'POST /api/cuts/by-code': 'operator',
  'POST /api/cuts/{id}/loaded': 'operator',
  'POST /api/cuts/{id}/jog': 'operator',
  'POST /api/cuts/{id}/taken': 'operator',
  'POST /api/cuts/{id}/resume': 'operator',
  'POST /api/cuts/{id}/how': 'operator',
  'POST /api/cuts/{id}/nudge': 'operator',
  'POST /api/cuts/{id}/again': 'operator',
  'POST /api/cuts/{id}/new-film': 'operator',
  'POST /api/cuts/{id}/slipped': 'operator',
  'POST /api/cutters/{cutter}/lane': 'operator',
  'POST /api/cuts/{id}/move': 'operator',
  'POST /api/floor/joins': 'operator',
  'POST /api/floor/joins/try': 'operator',
  'POST /api/cuts/{id}/part': 'operator',
  'POST /api/floor/pause': 'operator',
  'POST /api/floor/go-on': 'operator',
  'POST /api/cutters/{cutter}/test': 'operator',
  'POST /api/cutters/{cutter}/calibrations': 'operator',
  'PATCH /api/calibrations/{id}': 'operator',
  'POST /api/calibrations/{id}/cut': 'operator',
  'POST /api/calibrations/{id}/drop': 'operator',
  'POST /api/calibrations/{id}/print': 'operator',
  'POST /api/cutters/{cutter}/knife': 'operator',
  'POST /api/knives/{id}/throw': 'operator',

  // what all later work goes by: recipes, cutters, stock, people
  'POST /api/cuts/{id}/nudges-kept': 'lead',
  'POST /api/calibrations/{id}/keep': 'lead',
  'POST /api/calibrations/{id}/raise': 'lead',
  'PATCH /api/cutters/{cutter}/recipes/{film}/{kind}': 'lead',
  'POST /api/cutters/{cutter}/recipes/{film}/{kind}/clear': 'lead',
  'POST /api/recipe-changes/{id}/back': 'lead',
  'POST /api/cutters': 'lead',
  'PATCH /api/cutters/{cutter}': 'lead',
  'POST /api/cutters/{cutter}/retire': 'lead',
  'POST /api/cutters/{cutter}/bring-back': 'lead',
  'PATCH /api/cutters/{cutter}/link': 'lead',
  'PATCH /api/shop': 'lead',
  'POST /api/films': 'lead',
  'PATCH /api/films/{film}': 'lead',
  'GET /api/people': 'lead',
  'POST /api/people': 'lead',
  'PATCH /api/people/{id}': 'lead',
  'POST /api/people/{id}/reset': 'lead',
  'POST /api/people/{id}/remove': 'lead',
  'POST /api/people/{id}/bring-back': 'lead',
};

/** What a route asks for: looking is for machines' tablets too, changes are for people. */
export const needsOf = (route: Route): Needs =>
  NEEDS[route] ?? (route.startsWith('GET ') ? 'tablet' : 'prep');
