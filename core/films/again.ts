/** Spoilt pieces cut again, without the rest of their film. */
import { liesOn } from '../geometry/nesting';
import type { Region } from '../geometry/region';
import { outlineLength, piecesOf, regionArea, regionBounds } from '../geometry/region';
import type { Spot } from '../geometry/spot';
import type { FilmLayer } from './separate';

/** Pieces of one film, each named by a place that lies on it, mm on the sign. */
export interface Again {
  readonly film: string;
  readonly at: readonly { readonly x: number; readonly y: number }[];
}

/** The piece of a region that a place lies on. */
export const pieceAt = (region: Region, at: Spot): Region | undefined =>
  piecesOf(region).find((piece) => liesOn(piece, at));

/** Only the pieces that are named, once each: no layer marks, no lines; nothing when no piece lies there. */
export function onlyAgain(films: readonly FilmLayer[], { film, at }: Again): FilmLayer[] {
  const layer = films.find((one) => one.film.id === film);
  if (!layer) return [];
  const region = piecesOf(layer.region)
    .filter((piece) => at.some(({ x, y }) => liesOn(piece, [x, y])))
    .flat();
  if (region.length === 0) return [];
  return [
    {
      ...layer,
      region,
      marks: [],
      lines: [],
      copies: 1,
      bounds: regionBounds(region),
      area: regionArea(region),
      outline: outlineLength(region),
    },
  ];
}
