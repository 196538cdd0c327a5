/** What of each film is cut as one piece: all of it, or the pieces that are to be cut again. */
import type { Again } from '../films/again';
import type { FilmLayer } from '../films/separate';
import { liesOn, piecesOf } from '../geometry/nesting';
import type { Region } from '../geometry/region';
import { regionArea, regionBounds } from '../geometry/region';
import type { Part } from './part';

/**
 * The parts of an order, in cutting order.
 * @param again only these pieces, once each, every one a part: no layer marks, no lines; none when no piece lies there
 */
export function panel(films: readonly FilmLayer[], again?: Again): Part[] {
  if (!again) return films.map(wholeFilm);
  const layer = films.find((one) => one.film.id === again.film);
  if (!layer) return [];
  return piecesOf(layer.region)
    .filter((piece) => again.at.some(({ x, y }) => liesOn(piece, [x, y])))
    .map((piece) => pieceOf(layer, piece));
}

function wholeFilm({ film, region, marks, lines, bounds, area, copies }: FilmLayer): Part {
  return { id: film.id, film, label: film.name, region, marks, lines, bounds, area, copies };
}

/** One piece by itself, known by where it lies on the sign. */
function pieceOf({ film }: FilmLayer, region: Region): Part {
  const bounds = regionBounds(region);
  const place = [bounds.minX, bounds.minY].map((v) => v.toFixed(1)).join(',');
  return {
    id: `${film.id}@${place}`,
    film,
    label: `a piece of ${film.name}`,
    region,
    marks: [],
    lines: [],
    bounds,
    area: regionArea(region),
    copies: 1,
  };
}
