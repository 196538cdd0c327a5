/** What of each film is cut as one: all of it, or the shapes that are to be cut again. */
import type { Again } from '../films/again';
import type { FilmLayer } from '../films/separate';
import { liesOn, componentsOf } from '../geometry/nesting';
import type { Region } from '../geometry/region';
import { regionArea, regionBounds } from '../geometry/region';
import type { Part } from './part';

/**
 * The parts of an order, in cutting order.
 * @param again only these shapes, once each, every one a part: no layer marks, no lines; none when no shape lies there
 */
export function panel(films: readonly FilmLayer[], again?: Again): Part[] {
  if (!again) return films.map(wholeFilm);
  const layer = films.find((one) => one.film.id === again.film);
  if (!layer) return [];
  return componentsOf(layer.region)
    .filter((shape) => again.at.some(({ x, y }) => liesOn(shape, [x, y])))
    .map((shape) => shapePart(layer, shape));
}

function wholeFilm({ film, region, marks, lines, bounds, area, copies }: FilmLayer): Part {
  return { id: film.id, film, label: film.name, region, marks, lines, bounds, area, copies };
}

/** One shape by itself, known by where it lies on the sign. */
function shapePart({ film }: FilmLayer, region: Region): Part {
  const bounds = regionBounds(region);
  const place = [bounds.minX, bounds.minY].map((v) => v.toFixed(1)).join(',');
  return {
    id: `${film.id}@${place}`,
    film,
    label: `a shape of ${film.name}`,
    region,
    marks: [],
    lines: [],
    bounds,
    area: regionArea(region),
    copies: 1,
  };
}
