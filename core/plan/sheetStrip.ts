/** A printed sheet as it lies in a cutter: what is cut on it, copy by copy. */
import type { PreparedLine } from '../artwork/preparePiece';
import type { Film } from '../films/film';
import { ringBounds } from '../geometry/region';
import type { PrintStock } from '../print/choices';
import type { PrintSheet, PrintUnit } from '../print/sheets';
import type { Part } from '../panels/part';
import type { WeededStrip } from '../weeding/weeding';

/** What is printed on, as far as a cutter is concerned. */
const printedFilm = ({ width, height }: Pick<PrintStock, 'width' | 'height'>): Film => ({
  id: 'print',
  name: 'Printed sheet',
  code: '',
  colour: '#ffffff',
  rolls: [{ width: height, lengthLeft: width, sheets: 1 }],
  cutFromBack: false,
  kind: 'sign',
});

/**
 * The strip of a sheet: x along its width, y down from its upper edge, mm. What is kiss cut goes as art, all else as lines that
 * are followed, so that it comes last.
 */
export function sheetStrip(unit: PrintUnit, sheet: PrintSheet): WeededStrip {
  const film = printedFilm(sheet);
  const kiss = unit.lines.filter(({ kind }) => kind === 'kiss').flatMap(({ region }) => region);
  const others = unit.lines.filter(({ kind }) => kind !== 'kiss');
  const part: Part = {
    id: 'print',
    film,
    label: 'a printed copy',
    region: kiss,
    marks: [],
    lines: others.flatMap(({ kind, region }) =>
      region.map((points, i): PreparedLine => ({
        kind,
        colour: '#000000',
        points,
        closed: true,
        bounds: ringBounds(points),
        ref: `${kind}/${i}`,
      })),
    ),
    waste: [],
    bounds: unit.box,
    area: 0,
  };
  const none = sheet.places.map(() => []);
  return {
    id: sheet.id,
    film,
    roll: film.rolls[0],
    cuttable: sheet.height,
    edges: { far: 0, near: 0 },
    mirrored: false,
    turned: false,
    placements: sheet.places.map(({ copy, matrix, box }) => ({ part, copy, matrix, box })),
    length: sheet.width,
    area: sheet.width * sheet.height,
    used: 0,
    weeding: { borders: none, lines: none },
  };
}
