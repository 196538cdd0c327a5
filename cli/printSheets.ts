/** Art that is printed and cut around, without a screen: a PDF and the cut of every sheet. */
import { writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { prepare } from '../core/artwork/prepare';
import { hpglBytes, writeHpgl } from '../core/devicelang/writeHpgl';
import { seenColours } from '../core/films/seen';
import type { Finding } from '../core/findings/finding';
import { outlineLength } from '../core/geometry/region';
import type { Choices } from '../core/plan/choices';
import { machineOf } from '../core/plan/filmsToCut';
import { ownRecipes, recipeOf } from '../core/plan/recipes';
import { sheetStrip } from '../core/plan/sheetStrip';
import type { Shop } from '../core/plan/shop';
import type { CutLineChoices } from '../core/print/choices';
import type { PrintSheet, PrintUnit, SheetChoices } from '../core/print/sheets';
import { cutOnSheet, layOnSheets, printUnit } from '../core/print/sheets';
import type { Artwork } from '../core/readers/artwork';
import { kindRecipes } from '../core/toolpath/kinds';
import { programFor } from '../core/toolpath/program';
import { rounded } from '../core/units/rounded';
import { printPdf } from '../server/files/printPdf';

export interface PrintAsked extends SheetChoices {
  readonly cutLine: CutLineChoices;
  readonly bleed: number;
  /** Cut lines are in the PDF too. */
  readonly withLines: boolean;
}

export interface Printed {
  /** For plan.json. */
  readonly summary: object;
  readonly findings: readonly Finding[];
  readonly sheets: number;
}

/** Writes `sheet-1.pdf`, `sheet-1.plt` … into a folder that is there. @param name what is written on the sheets */
export async function writeSheets(
  out: string,
  name: string,
  artworks: ReadonlyMap<string, Artwork>,
  choices: Choices,
  shop: Shop,
  asked: PrintAsked,
): Promise<Printed> {
  const drawn = prepare(artworks, choices.artwork);
  const art = seenColours(drawn.shapes, [], choices.films.fold);
  const before = drawn.findings;
  if (art.length === 0) return { summary: { sheets: [] }, findings: [...before, nothingPrinted], sheets: 0 };
  const unit = printUnit(art, drawn.shapes, [asked.cutLine], asked.bleed);
  const { sheets, findings } = layOnSheets(unit, asked);
  for (const [i, sheet] of sheets.entries()) {
    const label = {
      code: `JP ${name} ${i + 1} A`,
      text: `${name} · sheet ${i + 1} of ${sheets.length} · this side up`,
    };
    await writeFile(join(out, `${sheet.id}.pdf`), await printPdf(unit, sheet, label, asked));
    await writeFile(join(out, `${sheet.id}.plt`), cutOf(unit, sheet, shop));
  }
  return {
    summary: {
      size: { widthMm: rounded(drawn.width), heightMm: rounded(drawn.height) },
      sheets: sheets.map((sheet) => sheetSummary(unit, sheet)),
    },
    findings: [...before, ...(unit.lines.length === 0 ? [noLine] : []), ...findings],
    sheets: sheets.length,
  };
}

/** The cut in HP-GL, from the sheet's upper left corner. */
function cutOf(unit: PrintUnit, sheet: PrintSheet, shop: Shop): Uint8Array {
  const [cutter] = shop.cutters;
  const strip = sheetStrip(unit, sheet);
  const kiss = recipeOf(shop, cutter, strip.film)!;
  const recipes = kindRecipes(kiss, ownRecipes(shop, cutter, strip.film), cutter.force.most);
  const program = programFor(strip, recipes, machineOf(cutter));
  return hpglBytes(writeHpgl(program, cutter.device, strip.cuttable));
}

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
  lines: cutOnSheet(unit, sheet).map(({ kind, region }) => ({
    kind,
    lengthMm: rounded(outlineLength(region)),
  })),
});

const nothingPrinted: Finding = {
  code: 'nothing',
  severity: 'stop',
  message: 'There is nothing to print in this file.',
  waysOut: ['Bring in a drawing with something on it'],
};
const noLine: Finding = {
  code: 'no-cut-line',
  severity: 'stop',
  message: 'Nothing is left of the art so far inside its edge, so there is no line to cut.',
  waysOut: ['Let the line lie less far inside'],
};
