import { Router } from 'express';
import { filmChangeSchema, filmTableSchema } from '../../contracts/api';
import { filmsToCsv } from '../../core/films/csv';
import type { Db } from '../db/connect';
import { changeFilm, importFilms, loadShop } from '../services/shop';
import { handle, parse } from './guard';

/** The catalogue of films. */
export function filmRoutes(db: Db): Router {
  const router = Router();
  router.get(
    '/films.csv',
    handle(async (_request, response) => {
      const { films } = await loadShop(db);
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
      response.json(await importFilms(db, parse(filmTableSchema, request.body).csv)),
    ),
  );
  router.patch(
    '/films/:film',
    handle(async (request, response) =>
      response.json(await changeFilm(db, String(request.params.film), parse(filmChangeSchema, request.body))),
    ),
  );
  return router;
}
