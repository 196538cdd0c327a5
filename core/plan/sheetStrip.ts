/** A printed sheet as it lies in a cutter: what is cut on it, copy by copy. */
import type { LineKind } from '../artwork/choices';
import type { PreparedLine } from '../artwork/preparePiece';
import type { Film, Roll } from '../films/film';
import { largest } from '../geometry/lists';
import { multiply, translation } from '../geometry/matrix';
import type { Polyline } from '../geometry/path';
import { regionArea, ringBounds } from '../geometry/region';
import type { Spot } from '../geometry/spot';
import type { Cutter } from '../layout/cutter';
import { cuttableWidth } from '../layout/cutter';
import type { Part } from '../panels/part';
import type { PrintSheet, PrintUnit } from '../print/sheets';
import type { WeededStrip } from '../weeding/weeding';

/** What of a cutter matters to how a sheet lies in it. */
export type SheetBed = Pick<Cutter, 'widest' | 'margins'>;

/** A place of a sheet as the cutter that it lies straight in counts: from the far edge of the knife's reach. */
export const ontoStrip =
  ({ margins }: Pick<SheetBed, 'margins'>) =>
  ([x, y]: Spot): Spot => [x, y - margins.far];

/** Lines around art as they are followed: they have no colour of the art's. */
export const followedAs = (kind: LineKind, lines: readonly Polyline[]): PreparedLine[] =>
  lines.map(({ points, closed }, i) => ({
    kind,
    colour: '#000000',
    points,
    closed,
    bounds: ringBounds(points),
    ref: `${kind}/${i}`,
  }));

/**
 * The strip of a sheet that lies straight. What is kiss cut around the art goes as art, all else as lines that are followed.
 * @param film what it is printed on
 */
export function sheetStrip(unit: PrintUnit, sheet: PrintSheet, film: Film, bed: SheetBed): WeededStrip {
  const kiss = unit.lines.filter(({ kind }) => kind === 'kiss').flatMap(({ region }) => region);
  const others = unit.lines.filter(({ kind }) => kind !== 'kiss');
  const part: Part = {
    id: 'print',
    film,
    label: 'a printed copy',
    region: kiss,
    marks: [],
    lines: [
      ...unit.followed,
      ...others.flatMap(({ kind, region }) =>
        followedAs(
          kind,
          region.map((points) => ({ points, closed: true })),
        ),
      ),
    ],
    waste: [],
    bounds: unit.box,
    area: kiss.length > 0 ? regionArea(kiss) : largest(others.map(({ region }) => regionArea(region)), 0), // prettier-ignore
  };
  const none = sheet.places.map(() => []);
  const { far, near } = bed.margins;
  const onto = translation(0, -far);
  return {
    id: sheet.id,
    film,
    roll: rollOf(sheet, film),
    cuttable: cuttableWidth(bed, sheet.height),
    edges: { far, near },
    mirrored: false,
    turned: false,
    placements: sheet.places.map(({ copy, matrix, box }) => ({
      part,
      copy,
      matrix: multiply(onto, matrix),
      box: { ...box, minY: box.minY - far, maxY: box.maxY - far },
    })),
    length: sheet.width,
    area: sheet.width * sheet.height,
    used: 0,
    weeding: { borders: none, lines: none },
  };
}

/** Sheets of a size that is not on the shelf are not counted. */
const UNCOUNTED = 100_000;

/** What of the shelf it is printed on. */
const rollOf = ({ width, height }: PrintSheet, film: Film): Roll =>
  film.rolls.find(
    (roll) => roll.width === height && (roll.sheets === undefined || roll.lengthLeft === width),
  ) ?? { width: height, lengthLeft: width, sheets: UNCOUNTED };
