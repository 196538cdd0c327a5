import type { Film } from '../films/film';
import type { FilmLayer } from '../films/separate';
import type { Region } from '../geometry/region';
import { outlineLength, regionArea, regionBounds } from '../geometry/region';

/** A film's layer with nothing but a region on it. */
export const plainLayer = (region: Region, film: Film): FilmLayer => ({
  film,
  colours: [film.colour],
  region,
  own: region,
  seen: region,
  marks: [],
  hidden: [],
  overlap: { mode: 'butt', by: 0 },
  copies: 1,
  lines: [],
  bounds: regionBounds(region),
  area: regionArea(region),
  outline: outlineLength(region),
});
