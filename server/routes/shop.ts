import { createSession } from 'better-sse';
import { sql } from 'drizzle-orm';
import type { LineKind } from '../../core/artwork/choices';
import { filmsToCsv } from '../../core/films/csv';
import type { Lookout } from '../cutters/look';
import type { CutServices } from '../services/cuts';
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
export function shopRoutes(services: CutServices, lookout: Lookout) {
  const { db, hub } = services;
  return {
    'GET /api/health': async () => {
      await db.execute(sql`select 1`);
      return {};
    },
    'GET /api/events': async ({ request, response }) => {
      const state = { sid: request.sessionID, end: () => void response.end() };
      hub.pages.register(await createSession(request, response, { state }));
      return undefined;
    },
    'GET /api/shop': () => loadShop(db),
    'GET /api/cutters': ({ query }) => lookout.states(query.only),
    'GET /api/films.csv': async () =>
      download(Buffer.from(filmsToCsv((await loadShop(db)).films)), 'films.csv', 'text/csv; charset=utf-8'),
    'PATCH /api/cutters/{cutter}': ({ params, body }) => changeCutter(services, params.cutter, body),
    'POST /api/cutters': ({ body }) => addCutter(services, body),
    'POST /api/cutters/{cutter}/retire': ({ params }) => retireCutter(services, params.cutter, true),
    'POST /api/cutters/{cutter}/bring-back': ({ params }) => retireCutter(services, params.cutter, false),
    'GET /api/cutters/{cutter}/link': ({ params }) => linkOf(db, params.cutter),
    'PATCH /api/cutters/{cutter}/link': ({ params, body }) => changeLink(services, params.cutter, body),
    'POST /api/cutters/{cutter}/test': ({ params }) => testLink(db, params.cutter),
    'PATCH /api/cutters/{cutter}/recipes/{film}/{kind}': ({ params, body }) =>
      changeRecipe(services, recipeKey(params), body),
    'POST /api/cutters/{cutter}/recipes/{film}/{kind}/clear': ({ params }) =>
      clearRecipe(services, recipeKey(params)),
    'GET /api/cutters/{cutter}/recipes/{film}/{kind}/history': ({ params }) =>
      recipeHistory(db, recipeKey(params)),
    'POST /api/recipe-changes/{id}/back': ({ params }) => recipeBack(services, params.id),
    'PATCH /api/shop': ({ body }) => changeShop(services, body),
    'POST /api/films': ({ body }) => importFilms(services, body.csv),
    'PATCH /api/films/{film}': ({ params, body }) => changeFilm(services, params.film, body),
  } satisfies Partial<Handlers>;
}
