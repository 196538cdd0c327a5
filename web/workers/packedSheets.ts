/** Printed sheets as they are handed to the page. */
import type { LineKind } from '../../core/artwork/choices';
import type { ShownPicture } from '../../core/artwork/preparePiece';
import type { Film } from '../../core/films/film';
import { regionToPathData } from '../../core/geometry/pathText';
import type { Printed } from '../../core/plan/planned';
import type { ColourArea } from '../../core/print/bleed';
import type { PrintChoices } from '../../core/print/choices';
import { codePath } from '../../core/print/code';
import { reachOf } from '../../core/print/grownPicture';
import { markShape, needsPatch, patchOn } from '../../core/print/marks';
import type { PrintSheet, PrintUnit } from '../../core/print/sheets';
import { sheetLabel } from '../../core/print/sheets';
import type { CutView } from './packedCut';
import { cutView } from './packedCut';
import type { PackedRegion } from './packedRegion';
import { packRegion } from './packedRegion';

/** What goes to print, on its sheets. */
export interface PrintedView {
  readonly film: Film;
  readonly cutter: string;
  readonly edges: Printed['edges'];
  /** One copy as it is printed, bleed first. */
  readonly art: readonly PrintedArea[];
  readonly sheets: readonly SheetView[];
}

export interface PrintedArea {
  readonly colour: string;
  readonly region: PackedRegion;
  readonly picture?: ShownPicture;
  /** Bleed of a picture: how far its edges are drawn out, in its own pixels. */
  readonly reach?: number;
}

export interface SheetView extends Omit<PrintSheet, 'code'>, CutView {
  /** Of art in panels: which of them it shows, and where of the art that is, as SVG path data. */
  readonly panel?: number;
  readonly clip?: string;
  /** What is cut at each of its places. */
  readonly lines: readonly {
    readonly kind: LineKind;
    readonly closed: boolean;
    readonly points: Float32Array;
  }[];
  /** What is printed on it beside its art, marks and code, as SVG path data. */
  readonly ink: string;
  /** White beneath marks and code, as SVG path data; empty: the film itself shows them up. */
  readonly patch: string;
}

function linesOf(unit: PrintUnit): SheetView['lines'] {
  const around = unit.lines.flatMap(({ kind, region }) =>
    region.map((points) => ({ kind, closed: true, points })),
  );
  return [...around, ...unit.followed].map(({ kind, closed, points }) => ({
    kind,
    closed,
    points: Float32Array.from(points),
  }));
}

const printedArea = ({ region, ...area }: ColourArea): PrintedArea => ({
  ...area,
  region: packRegion(region),
});

export function printedView(
  { unit, film, cutter, edges, sheets }: Printed,
  { marks: { line }, patch }: PrintChoices,
  order: number,
): PrintedView {
  // sheets that show the same share their lines
  const lines = new Map([...new Set(sheets.map((one) => one.unit))].map((own) => [own, linesOf(own)]));
  return {
    film,
    cutter: cutter.id,
    edges,
    art: [
      ...unit.bleed.map((area) => ({
        ...printedArea(area),
        ...(area.picture && { reach: reachOf(area.region, area.picture) }),
      })),
      ...unit.art.map(printedArea),
    ],
    sheets: sheets.map(({ sheet: { code, ...sheet }, unit: own, panel, cut }, i) => {
      const marks = regionToPathData(sheet.marks.flatMap((mark) => markShape(mark, line)));
      const says = sheetLabel(`#${order}`, i, sheets.length).code;
      const behind = needsPatch(film, patch) ? patchOn(sheet.marks, code, line) : [];
      return {
        ...cutView(cut),
        ...sheet,
        lines: lines.get(own)!,
        ...(own.clip && { panel, clip: regionToPathData(own.clip) }),
        ink: marks + (code ? codePath(says, code) : ''),
        patch: regionToPathData(behind),
      };
    }),
  };
}
