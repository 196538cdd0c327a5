import { createSession } from 'better-sse';
import { AS_WRITTEN } from '../events/hub';
import { sql } from 'drizzle-orm';
import type { LineKind } from '../../core/artwork/choices';
import { filmsToCsv } from '../../core/films/csv';
import { addCutter, changeCutter, changeLink, linkOf, retireCutter, testLink } from '../services/machines';
import type { RecipeKey } from '../services/recipes';
import { changeRecipe, clearRecipe, recipeBack, recipeHistory } from '../services/recipes';
import { changeFilm, changeShop, importFilms, loadShop } from '../services/shop';
import type { Handlers } from './mount';
import { download } from './sent';

const recipeKey = ({ cutter, film, kind }: { cutter: string; film: string; kind: LineKind }): RecipeKey => ({
  cutterId: cutter,
  filmId: film,
  kind,
});

/** What the shop has: films, cutters, recipes; how its machines are; what changes. */
export const shopRoutes = {
  'GET /api/health': async ({ services }) => {
    await services.db.execute(sql`select 1`);
    return {};
  },
  'GET /api/events': async ({ request, response, services }) => {
    const state = { sid: request.sessionID, end: () => void response.end() };
    services.hub.pages.register(await createSession(request, response, { state, ...AS_WRITTEN }));
    return undefined;
  },
  'GET /api/shop': ({ services }) => loadShop(services.db),
  'GET /api/cutters': ({ query, services }) => services.lookout.states(query.only),
  'GET /api/films.csv': async ({ services }) =>
    download(
      Buffer.from(filmsToCsv((await loadShop(services.db)).films)),
      'films.csv',
      'text/csv; charset=utf-8',
    ),
  'PATCH /api/cutters/{cutter}': ({ params, body, services }) => changeCutter(services, params.cutter, body),
  'POST /api/cutters': ({ body, services }) => addCutter(services, body),
  'POST /api/cutters/{cutter}/retire': ({ params, services }) => retireCutter(services, params.cutter, true),
  'POST /api/cutters/{cutter}/bring-back': ({ params, services }) =>
    retireCutter(services, params.cutter, false),
  'GET /api/cutters/{cutter}/link': ({ params, services }) => linkOf(services.db, params.cutter),
  'PATCH /api/cutters/{cutter}/link': ({ params, body, services }) =>
    changeLink(services, params.cutter, body),
  'POST /api/cutters/{cutter}/test': ({ params, services }) => testLink(services.db, params.cutter),
  'PATCH /api/cutters/{cutter}/recipes/{film}/{kind}': ({ params, body, services }) =>
    changeRecipe(services, recipeKey(params), body),
  'POST /api/cutters/{cutter}/recipes/{film}/{kind}/clear': ({ params, services }) =>
    clearRecipe(services, recipeKey(params)),
  'GET /api/cutters/{cutter}/recipes/{film}/{kind}/history': ({ params, services }) =>
    recipeHistory(services.db, recipeKey(params)),
  'POST /api/recipe-changes/{id}/back': ({ params, services }) => recipeBack(services, params.id),
  'PATCH /api/shop': ({ body, services }) => changeShop(services, body),
  'POST /api/films': ({ body, services }) => importFilms(services, body.csv),
  'PATCH /api/films/{film}': ({ params, body, services }) => changeFilm(services, params.film, body),
} satisfies Partial<Handlers>;
