/** Cuts with their bytes, ready to be stored. */
import type { CutSheet } from '../../contracts/print';
import type { Drawing } from '../../contracts/cuts';
import type { WrittenWith } from '../../core/devicelang/nudged';
import type { HpglChunks } from '../../core/devicelang/writeHpgl';
import { writeHpgl } from '../../core/devicelang/writeHpgl';
import type { LineKind } from '../../core/artwork/choices';
import type { Film, Roll } from '../../core/films/film';
import { mapRegion } from '../../core/geometry/region';
import type { Recipe } from '../../core/layout/cutter';
import type { Share } from '../../core/layout/shares';
import { artOn, sharesOf } from '../../core/layout/shares';
import type { Strip } from '../../core/layout/strip';
import { copiesOn } from '../../core/layout/strip';
import type { Plan, PlannedCut } from '../../core/plan/planned';
import { ontoStrip } from '../../core/plan/sheetStrip';
import { followedOnStrip } from '../../core/toolpath/followed';
import type { CutLine, CutProgram } from '../../core/toolpath/program';
import { rounded } from '../../core/units/rounded';
import { besideStrip } from '../../core/weeding/beside';

/** A cut with its bytes, ready to be stored. */
export interface MadeCut {
  readonly cutterId: string;
  /** The strip's id. */
  readonly strip: string;
  readonly film: Film;
  readonly recipe: Recipe;
  readonly mirrored: boolean;
  readonly copies: number;
  /** It has lines for a pen or a creasing wheel. */
  readonly needsSecondTool: boolean;
  readonly rollWidth: number;
  readonly cuttable: number;
  readonly edges: Strip['edges'];
  readonly roll: Roll;
  readonly beside: number;
  /** mm² that stay when all else is weeded. */
  readonly art: number;
  /** Whose it is. */
  readonly shares: readonly Share[];
  readonly length: number;
  readonly cutLength: number;
  readonly seconds: number;
  /** The same before the cutter's pace. */
  readonly reckoned: number;
  readonly program: StoredProgram;
  readonly writtenWith: Readonly<Partial<Record<LineKind, WrittenWith>>>;
  readonly drawing: Drawing;
  /** Of a printed sheet: what is read of it, and its cut before it is known how it lies. */
  readonly sheet?: CutSheet;
  readonly design?: SheetDesign;
}

/** The cut of a printed sheet as designed, mm on the strip of a sheet that lies straight; plain lists, to be stored. */
export interface SheetDesign {
  readonly lines: readonly (Omit<CutLine, 'points' | 'speeds'> & {
    readonly points: readonly number[];
    readonly speeds?: readonly number[];
  })[];
  readonly recipes: CutProgram['recipes'];
  readonly length: number;
  readonly doneAt: readonly number[];
  /** What is drawn of it; missing in sheets of earlier versions. */
  readonly drawing?: Drawing;
}

export interface StoredProgram {
  readonly head: string;
  readonly lines: readonly string[];
  readonly tail: string;
  /** Seconds from the start until each line is done. */
  readonly doneAt: readonly number[];
  /** Of each line; missing in programs of earlier versions: all are kiss cut. */
  readonly kinds?: readonly LineKind[];
}

/** As it is sent at one time. */
export interface SentProgram extends StoredProgram {
  /** What turns the blade before a line, from 0; missing: it comes to all lines from the line before. */
  readonly turn?: { readonly before: number; readonly text: string };
}

const text = (bytes: Uint8Array): string => Buffer.from(bytes).toString('latin1');
export const storedProgram = (
  chunks: HpglChunks,
  doneAt: ArrayLike<number>,
  lines?: CutProgram['lines'],
): StoredProgram => ({
  head: text(chunks.head),
  lines: chunks.lines.map(text),
  tail: text(chunks.tail),
  doneAt: Array.from(doneAt),
  ...(lines && { kinds: lines.map(({ kind }) => kind) }),
});

/** What its lines are written with, by the kinds of line that it has. */
function writtenWith({ lines, recipes }: CutProgram): MadeCut['writtenWith'] {
  const kinds = new Set<LineKind>(['kiss', ...lines.map(({ kind }) => kind)]);
  return Object.fromEntries(
    [...kinds].map((kind) => [kind, { force: recipes[kind].force, speed: recipes[kind].speed }]),
  );
}

export function madeCut({ strip, cutter, recipe, program }: PlannedCut): MadeCut {
  const chunks = writeHpgl(program, cutter.device, strip.cuttable);
  const design = strip.placements.flatMap((p) => mapRegion(p.part.region, p.matrix));
  return {
    cutterId: cutter.id,
    strip: strip.id,
    film: strip.film,
    recipe,
    mirrored: strip.mirrored,
    copies: copiesOn(strip),
    needsSecondTool: program.lines.some(({ kind }) => kind === 'pen' || kind === 'crease'),
    rollWidth: strip.roll.width,
    cuttable: strip.cuttable,
    edges: strip.edges,
    length: strip.length,
    roll: strip.roll,
    beside: besideStrip(strip),
    art: artOn(strip),
    shares: sharesOf(strip),
    cutLength: program.cutLength,
    seconds: program.seconds,
    reckoned: program.seconds / (cutter.motion.pace ?? 1),
    program: storedProgram(chunks, program.doneAt, program.lines),
    writtenWith: writtenWith(program),
    drawing: {
      design: design.map((ring) => Array.from(ring)),
      // what the cutter has no tool for is left out, and told
      followed: followedOnStrip(strip.placements, cutter.device.tools ?? 1).map(
        ({ points, closed, kind }) => ({
          points: Array.from(points),
          closed,
          dashed: kind === 'perforated',
        }),
      ),
      parts: program.lines.map((line) => line.part),
      lines: program.lines.map((line) => Array.from(line.points, (v) => rounded(v))),
    },
  };
}

/** Sheets in their order; what is read of each goes with it. */
export const madeSheets = (printed: Plan['printed'], line: number): MadeCut[] =>
  (printed?.sheets ?? []).map(({ sheet, cut }, i, all) => {
    const onto = ontoStrip(cut.cutter);
    const marks = sheet.marks.map(({ kind, at, arms }) => ({ kind, at: onto(at), arms }));
    const { lines, recipes, length, doneAt } = cut.program;
    const made = madeCut(cut);
    return {
      ...made,
      sheet: { number: i + 1, of: all.length, width: sheet.width, height: sheet.height, line, marks },
      design: {
        lines: lines.map(({ speeds, ...one }) => ({
          ...one,
          points: Array.from(one.points),
          ...(speeds && { speeds: Array.from(speeds) }),
        })),
        recipes,
        length,
        doneAt: Array.from(doneAt),
        drawing: made.drawing,
      },
    };
  });
