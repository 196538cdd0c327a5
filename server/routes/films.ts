import { Router } from 'express';
import { filmChangeSchema, filmTableSchema } from '../../contracts/api';
import { filmsToCsv } from '../../core/films/csv';
import type { ShopServices } from '../services/shop';
import { changeFilm, importFilms, loadShop } from '../services/shop';
import { handle, parse } from './guard';

/** The catalogue of films. */
export function filmRoutes(services: ShopServices): Router {
  const router = Router();
  router.get(
    '/films.csv',
    handle(async (_request, response) => {
      const { films } = await loadShop(services.db);
      response.set({
        'Content-Type': 'text/csv; charset=utf-8',
        'Content-Disposition': 'attachment; filename="films.csv"',
      });
      response.end(filmsToCsv(films));
    }),
  );
  router.post(
    '/films',
    handle(async (request, response) =>
      response.json(await importFilms(services, parse(filmTableSchema, request.body).csv)),
    ),
  );
  router.patch(
    '/films/:film',
    handle(async (request, response) =>
      response.json(
        await changeFilm(services, String(request.params.film), parse(filmChangeSchema, request.body)),
      ),
    ),
  );
  return router;
}
