/** What the shop has: films, cutters, recipes; and what happens in it. */
import { z } from 'zod';
import { TOOL_KINDS } from '../../core/artwork/choices';
import { filmChangeSchema, filmSchema, filmTableSchema } from '../films';
import {
  cutterChangeSchema,
  linkSchema,
  linkTestSchema,
  recipeChangeSchema,
  recipeHistorySchema,
  newCutterSchema,
  cutterQuerySchema,
  cutterStateSchema,
  shopChangeSchema,
  shopSchema,
} from '../shop';
import type { Endpoints } from './endpoint';
import { byCutter, byId, nothing } from './params';

const byFilm = z.object({ film: z.string().max(60) });
const byRecipe = z.object({
  cutter: z.string().max(60),
  film: z.string().max(60),
  kind: z.enum(TOOL_KINDS),
});
const films = z.array(filmSchema).readonly();

export const shopEndpoints = {
  'GET /api/health': { says: 'Whether the server has its database', gives: nothing },
  'GET /api/events': { says: 'What changes, as server-sent events', gives: 'text/event-stream' },
  'GET /api/shop': { says: 'Films, cutters and recipes', gives: shopSchema },
  'PATCH /api/films/{film}': {
    params: byFilm,
    says: 'Change a film',
    takes: filmChangeSchema,
    gives: films,
  },
  'PATCH /api/cutters/{cutter}': {
    params: byCutter,
    says: 'Change a cutter: what it is, what it reaches, how it is spoken to',
    takes: cutterChangeSchema,
    gives: shopSchema,
  },
  'POST /api/cutters': {
    says: 'Add a cutter as most of its kind are, to be corrected',
    takes: newCutterSchema,
    gives: shopSchema,
  },
  'POST /api/cutters/{cutter}/retire': {
    params: byCutter,
    says: 'Take a cutter out of use: nothing is planned for it any more',
    gives: shopSchema,
  },
  'POST /api/cutters/{cutter}/bring-back': {
    params: byCutter,
    says: 'Take it into use again',
    gives: shopSchema,
  },
  'GET /api/cutters/{cutter}/link': { params: byCutter, says: 'Where a cutter listens', gives: linkSchema },
  'PATCH /api/cutters/{cutter}/link': {
    params: byCutter,
    says: 'Say where it listens',
    takes: linkSchema,
    gives: linkSchema,
  },
  'POST /api/cutters/{cutter}/test': {
    params: byCutter,
    says: 'Ask it over its link, and tell how that went',
    gives: linkTestSchema,
  },
  'PATCH /api/cutters/{cutter}/recipes/{film}/{kind}': {
    params: byRecipe,
    says: 'Change how a film, or `*` for all, is cut on a cutter',
    takes: recipeChangeSchema,
    gives: shopSchema,
  },
  'POST /api/cutters/{cutter}/recipes/{film}/{kind}/clear': {
    params: byRecipe,
    says: 'Have a film cut as all films are',
    gives: shopSchema,
  },
  'GET /api/cutters/{cutter}/recipes/{film}/{kind}/history': {
    params: byRecipe,
    says: 'What a recipe was, and why it was changed, the newest first',
    gives: z.array(recipeHistorySchema),
  },
  'POST /api/recipe-changes/{id}/back': {
    params: byId,
    says: 'Go back to what a recipe was',
    gives: shopSchema,
  },
  'PATCH /api/shop': {
    says: 'Change what the shop sets for itself',
    takes: shopChangeSchema,
    gives: shopSchema,
  },
  'GET /api/films.csv': { says: 'All films as a table', gives: 'text/csv' },
  'POST /api/films': {
    says: 'Add and change films from a table',
    takes: filmTableSchema,
    gives: films,
  },
  'GET /api/cutters': {
    query: cutterQuerySchema,
    says: 'What each cutter, or only one, answers, and the film in it',
    gives: z.array(cutterStateSchema),
  },
} satisfies Endpoints;
