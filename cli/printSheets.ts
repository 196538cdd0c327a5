/** Art that is printed and cut around, without a screen: a PDF and the cut of every sheet. */
import { writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { lineLength } from '../core/geometry/path';
import type { Choices } from '../core/plan/choices';
import type { Planner } from '../core/plan/plan';
import type { Plan, PlannedSheet } from '../core/plan/planned';
import type { Shop } from '../core/plan/shop';
import type { PrintChoices } from '../core/print/choices';
import { cutOnSheet } from '../core/print/sheets';
import type { Artwork } from '../core/readers/artwork';
import { rounded } from '../core/units/rounded';
import type { GivenFile } from './pieces';
import { sheetPdf, sheetPlt } from '../server/files/sheetFiles';

/** Choices with every colour that is seen sent to print. */
export function toPrint(
  planner: Planner,
  artworks: ReadonlyMap<string, Artwork>,
  choices: Choices,
  shop: Shop,
): Choices {
  const { colours } = planner.plan(artworks, choices, shop).separation;
  return { ...choices, films: { ...choices.films, print: colours.map(({ colour }) => colour) } };
}

/** Writes `sheet-1.pdf`, `sheet-1.plt` … into a folder that is there. @returns how many */
export async function writeSheets(
  out: string,
  /** Those that are printed, and the name that is written on every sheet. */
  { name, files: given }: { readonly name: string; readonly files: readonly GivenFile[] },
  { printed }: Plan,
  print: PrintChoices,
  withLines: boolean,
): Promise<number> {
  if (!printed) return 0;
  const order = name.replace(/\.[^.]*$/, '').slice(0, 40);
  const files = new Map(given.map(({ hash, bytes }) => [hash, bytes]));
  for (const [index, { sheet }] of printed.sheets.entries()) {
    const of = { printed, index, order, print, files };
    await writeFile(join(out, `${sheet.id}.pdf`), await sheetPdf(of, withLines));
    await writeFile(join(out, `${sheet.id}.plt`), sheetPlt(of));
  }
  return printed.sheets.length;
}

/** For plan.json. */
export const sheetsSummary = ({ printed }: Plan) => printed && { sheets: printed.sheets.map(sheetSummary) };

const sheetSummary = ({ unit, sheet, panel }: PlannedSheet) => ({
  id: sheet.id,
  ...(panel !== undefined && { panel }),
  width: sheet.width,
  height: sheet.height,
  marks: sheet.marks.map(({ kind, at: [x, y], isBetween }) => ({
    x: rounded(x),
    y: rounded(y),
    kind,
    between: isBetween,
  })),
  placements: sheet.places.map(({ copy, matrix, box }) => ({
    copy: copy + 1,
    turned: matrix[1] !== 0,
    x: rounded(box.minX),
    y: rounded(box.minY),
    widthMm: rounded(box.maxX - box.minX),
    heightMm: rounded(box.maxY - box.minY),
  })),
  lines: cutOnSheet(unit, sheet).map(({ kind, lines }) => ({
    kind,
    lengthMm: rounded(lines.reduce((sum, line) => sum + lineLength(line), 0)),
  })),
});
