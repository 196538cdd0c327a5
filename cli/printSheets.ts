/** Art that is printed and cut around, without a screen: a PDF and the cut of every sheet. */
import { writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { hpglBytes, writeHpgl } from '../core/devicelang/writeHpgl';
import { lineLength } from '../core/geometry/path';
import type { Choices } from '../core/plan/choices';
import type { Planner } from '../core/plan/plan';
import type { Plan } from '../core/plan/planned';
import type { Shop } from '../core/plan/shop';
import { needsPatch } from '../core/print/marks';
import type { PrintChoices } from '../core/print/choices';
import type { PrintSheet, PrintUnit } from '../core/print/sheets';
import { cutOnSheet, sheetLabel } from '../core/print/sheets';
import type { Artwork } from '../core/readers/artwork';
import { rounded } from '../core/units/rounded';
import { printPdf } from '../server/files/printPdf';

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

/** Writes `sheet-1.pdf`, `sheet-1.plt` … into a folder that is there. @param file whose name is written on them @returns how many */
export async function writeSheets(
  out: string,
  file: string,
  { printed }: Plan,
  { marks, patch }: PrintChoices,
  withLines: boolean,
): Promise<number> {
  if (!printed) return 0;
  const name = file.replace(/\.[^.]*$/, '').slice(0, 40);
  const { unit, film, sheets } = printed;
  for (const [i, { sheet, cut }] of sheets.entries()) {
    const how = { marks, withLines, patch: needsPatch(film, patch) };
    await writeFile(
      join(out, `${sheet.id}.pdf`),
      await printPdf(unit, sheet, sheetLabel(name, i, sheets.length), how),
    );
    const bytes = hpglBytes(writeHpgl(cut.program, cut.cutter.device, cut.strip.cuttable));
    await writeFile(join(out, `${sheet.id}.plt`), bytes);
  }
  return sheets.length;
}

/** For plan.json. */
export const sheetsSummary = ({ printed }: Plan) =>
  printed && { sheets: printed.sheets.map(({ sheet }) => sheetSummary(printed.unit, sheet)) };

const sheetSummary = (unit: PrintUnit, sheet: PrintSheet) => ({
  id: sheet.id,
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
