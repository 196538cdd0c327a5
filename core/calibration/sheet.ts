/** The sheet that is printed to see where a cut lies: crosses at several places, with marks around them. */
import type { Bounds } from '../geometry/bounds';
import { heightOf, widthOf } from '../geometry/bounds';
import { mapped } from '../geometry/matrix';
import { PLAIN_STROKE, strokeOutline } from '../geometry/region';
import type { Spot } from '../geometry/spot';
import type { MarkKind } from '../registration/readMarks';
import type { PrintMarkChoices } from '../print/choices';
import { evenEdges, USUAL_EDGE, USUAL_MARKS } from '../print/choices';
import type { PrintSheet, PrintUnit } from '../print/sheets';
import { layOnSheets, roomForArt } from '../print/sheets';
import { crossPlaces, printedCross } from './patterns';

export interface CrossSheet {
  readonly unit: PrintUnit;
  readonly sheet: PrintSheet;
  readonly marks: PrintMarkChoices;
  /** mm on the sheet */
  readonly places: readonly Spot[];
}

/** mm that a printed cross's lines are wide, and across which crosses can be told apart at least. */
const [LINE, LEAST] = [0.35, 40];
const BLACK = '#000000';

/**
 * @param width, height mm of the sheet, as it is fed
 * @param kind of the marks that the cutter reads
 * @returns undefined: it is too small
 */
export function crossSheet(width: number, height: number, kind: MarkKind): CrossSheet | undefined {
  const marks: PrintMarkChoices = { ...USUAL_MARKS, kind };
  const room = { width, height, edges: evenEdges(USUAL_EDGE) };
  const free = roomForArt({ room, marks });
  const [wide, tall] = [Math.floor(widthOf(free)), Math.floor(heightOf(free))];
  if (wide < LEAST || tall < LEAST) return undefined;
  const places = crossPlaces(wide, tall);
  const box: Bounds = { minX: 0, minY: 0, maxX: wide, maxY: tall };
  const lines = places.flatMap(printedCross).map((points) => ({ points, closed: false }));
  const unit: PrintUnit = {
    art: [{ colour: BLACK, region: strokeOutline(lines, LINE, PLAIN_STROKE) }],
    bleed: [],
    lines: [],
    followed: [],
    box,
  };
  const { sheets } = layOnSheets(unit, { room, copies: 1, spacing: 0, turn: 'as-drawn', marks });
  const [sheet] = sheets;
  if (!sheet) return undefined;
  const [{ matrix }] = sheet.places;
  return {
    unit,
    sheet,
    marks,
    places: places.map((at): Spot => {
      const [x, y] = mapped(at, matrix);
      return [x, y];
    }),
  };
}
