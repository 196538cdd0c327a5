/** Colour past the cut line, so that no white shows beside it when the cut lies a little off. */
import type { PrintInk } from '../colour/ink';
import type { ShownPicture } from '../artwork/preparePiece';
import type { Region } from '../geometry/region';
import { difference, grow, intersection, weld } from '../geometry/region';
import { nearestCells } from './nearestCells';

/** An area of one colour. */
export interface ColourArea {
  /** `#rrggbb` */
  readonly colour: string;
  readonly ink?: PrintInk;
  readonly region: Region;
  /** What is seen in it: as art the picture, as bleed what its edges grow into ({@link grownPicture}). */
  readonly picture?: ShownPicture;
}

/** It goes on under the art by so much, mm: where two colours only meet, a renderer shows a pale line between them. */
const UNDER = 0.1;

/**
 * Grows the outermost colours of the art past the cut line: what lies there goes to the colour that is nearest. What the line
 * does not run along, such as the inside of a ring, stays as it is.
 * @param seen what is seen of each colour; none overlaps another
 * @param inside the area inside the cut line
 * @param bleed mm past the line
 * @param along mm from the line inwards that is filled too: how far it runs beside the art
 * @returns what is printed before the art, and a little way under it; none where the art reaches that far itself
 */
export function bleedOf(seen: readonly ColourArea[], inside: Region, bleed: number, along = 0): ColourArea[] {
  const reach = bleed > 0 ? grow(inside, bleed) : inside;
  const outside = difference(reach, weld(seen.flatMap(({ region }) => region)));
  const free = difference(outside, grow(inside, -Math.max(0, along) - UNDER));
  if (free.length === 0) return [];
  const regions = seen.map(({ region }) => region);
  const shares =
    seen.length === 1 ? [free] : nearestCells(regions, outside).map((cell) => intersection(free, cell));
  return seen.flatMap((area, i) =>
    shares[i].length === 0 ? [] : [{ ...area, region: intersection(grow(shares[i], UNDER), reach) }],
  );
}
