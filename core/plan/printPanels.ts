/** Printed art that is larger than its sheet: taken apart as film is, each panel printed and cut by itself. */
import type { Film } from '../films/film';
import type { FilmLayer } from '../films/separate';
import { outset } from '../geometry/bounds';
import {
  grow,
  intersection,
  linesInside,
  outlineLength,
  rectangle,
  regionArea,
  regionBounds,
  weld,
} from '../geometry/region';
import type { PanelPart } from '../panels/panel';
import { outlineWithin } from '../panels/split';
import type { PrintUnit } from '../print/sheets';
import { followedAs } from './sheetStrip';

/** What is printed as seams see it: all that lies inside its outermost cut line. */
export function printedLayer({ art, lines, followed }: PrintUnit, film: Film): FilmLayer {
  const region = lines.at(-1)?.region ?? weld(art.flatMap((area) => area.region));
  return {
    film,
    colours: [],
    region,
    own: region,
    seen: region,
    marks: [],
    hidden: [],
    overlap: { mode: 'butt', by: 0 },
    lines: followed,
    bounds: regionBounds(region),
    area: regionArea(region),
    outline: outlineLength(region),
  };
}

/**
 * What is printed and cut of one panel. Along a seam it is cut by its outermost line, and its art goes on past it by the bleed;
 * lines further in end at the seam.
 * @param part the panel of {@link printedLayer}
 * @param bleed mm
 */
export function panelUnit(
  unit: PrintUnit,
  { cell, region, lines: followed }: Pick<PanelPart, 'cell' | 'region' | 'lines'>,
  bleed: number,
): PrintUnit {
  const isPiece = cell.row < 0;
  const within = isPiece ? region : outlineWithin(cell, unit.box);
  const box = outset(regionBounds(region), bleed);
  const inner = unit.lines.slice(0, -1).flatMap(({ kind, region: own }) => {
    const rings = own.map((points) => ({ points, closed: true }));
    return followedAs(kind, linesInside(rings, within));
  });
  const outermost = unit.lines.at(-1);
  return {
    art: unit.art,
    bleed: unit.bleed,
    clip: intersection(bleed > 0 ? grow(within, bleed) : within, rectangle(box)),
    lines: outermost ? [{ ...outermost, region }] : [],
    followed: [...inner, ...followed],
    box,
  };
}
