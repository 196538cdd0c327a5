/** Printed art that is larger than its sheet: taken apart as film is, each panel printed and cut by itself. */
import type { PreparedLine } from '../artwork/preparePiece';
import type { Film } from '../films/film';
import type { FilmLayer } from '../films/separate';
import { outset } from '../geometry/bounds';
import { append } from '../geometry/lists';
import type { Region } from '../geometry/region';
import {
  grow,
  intersection,
  linesInside,
  outlineLength,
  rectangle,
  regionArea,
  regionBounds,
  ringBounds,
  weld,
} from '../geometry/region';
import type { PanelPart } from '../panels/panel';
import { outlineWithin } from '../panels/split';
import type { PrintUnit } from '../print/sheets';

/** Lines that are cut around art have no colour of the art's. */
const LINE_COLOUR = '#000000';

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
  const inner: PreparedLine[] = [];
  for (const { kind, region: own } of unit.lines.slice(0, -1)) append(inner, linesOf(own, kind, within));
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

function linesOf(region: Region, kind: PreparedLine['kind'], within: Region): PreparedLine[] {
  const rings = region.map((points) => ({ points, closed: true }));
  return linesInside(rings, within).map(({ points, closed }, i) => ({
    kind,
    colour: LINE_COLOUR,
    points,
    closed,
    bounds: ringBounds(points),
    ref: `${kind}/${i}`,
  }));
}
