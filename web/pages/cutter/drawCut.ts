import type { Cut, Drawing } from '../../../contracts/cuts';
import { regionToPathData } from '../../../core/geometry/pathText';
import { pathOfLine } from '../../stage/paths';
import { markShape } from '../../../core/print/marks';

/** A cut's outlines, and how many of its lines are on the film already. */
export interface CutLines {
  readonly design: Path2D;
  readonly paths: readonly Path2D[];
  readonly done: number;
}

/** A cut's outlines as they are drawn, with nothing cut yet. */
export function linesOf({ design: rings, lines }: Pick<Drawing, 'design' | 'lines'>): CutLines {
  const design = new Path2D();
  for (const ring of rings) design.addPath(pathOfLine(ring, true));
  return { design, paths: lines.map((line) => pathOfLine(line, false)), done: 0 };
}

export interface Head {
  readonly x: number;
  readonly y: number;
  readonly down: boolean;
}

/** Of a roll at least this much of its width is shown along it. */
export const FILM_BEHIND = 1.25;

/** The film in the machine: what is cut of it, and where the head stands. A roll goes on behind the cut. */
export function* drawCut(
  context: CanvasRenderingContext2D,
  scale: number,
  cut: Cut & { readonly isSheet: boolean },
  lines: CutLines | undefined,
  head: Head | undefined,
  color: (name: string) => string,
): Generator<void> {
  const { far, near } = cut.edges;
  const run = cut.isSheet ? cut.length : Math.max(cut.length, 40_000 / scale);
  context.fillStyle = color('--card');
  context.strokeStyle = color('--rule');
  context.lineWidth = 1 / scale;
  context.fillRect(0, 0, run, cut.rollWidth);
  context.strokeRect(0, 0, run, cut.rollWidth);
  context.fillStyle = color('--rule-soft');
  context.fillRect(0, 0, run, far);
  context.fillRect(0, cut.rollWidth - near, run, near);
  if (!cut.isSheet) drawEnd(context, scale, cut, color('--ink-soft'));
  context.translate(0, far);
  drawMarks(context, scale, cut, color);
  if (lines) yield* drawLines(context, scale, cut, lines, color);
  if (head && cut.state !== 'wants-film') drawHead(context, scale, head, color('--currant'));
}

/** How many times larger a mark's error is drawn. */
export const ERROR_SCALE = 25;

/** Marks as they should lie, or where each was read, with an arrow for what the fit leaves of it. */
function drawMarks(
  context: CanvasRenderingContext2D,
  scale: number,
  { sheet, reading }: Cut,
  color: (name: string) => string,
): void {
  if (!sheet) return;
  context.fillStyle = color('--ink');
  const turn = ((reading?.fit?.rotation ?? 0) * Math.PI) / 180;
  for (const [i, { at, kind, arms }] of sheet.marks.entries()) {
    const [x, y] = reading?.marks.find(({ mark }) => mark === i)?.at ?? at;
    context.save();
    context.translate(x, y);
    context.rotate(turn);
    context.fill(new Path2D(regionToPathData(markShape({ kind, at: [0, 0], arms }, sheet.line))));
    context.restore();
  }
  context.strokeStyle = context.fillStyle = color('--currant');
  for (const { at, off } of reading?.marks ?? []) {
    const [x, y] = [at[0] + off[0] * ERROR_SCALE, at[1] + off[1] * ERROR_SCALE];
    context.lineWidth = 2 / scale;
    context.beginPath();
    context.moveTo(at[0], at[1]);
    context.lineTo(x, y);
    context.stroke();
    context.beginPath();
    context.arc(x, y, 4 / scale, 0, 7);
    context.fill();
  }
}

/** Where the film that this cut takes ends. */
function drawEnd(context: CanvasRenderingContext2D, scale: number, cut: Cut, ink: string): void {
  context.strokeStyle = ink;
  context.setLineDash([5 / scale, 5 / scale]);
  context.beginPath();
  context.moveTo(cut.length, 0);
  context.lineTo(cut.length, cut.rollWidth);
  context.stroke();
  context.setLineDash([]);
}

function* drawLines(
  context: CanvasRenderingContext2D,
  scale: number,
  cut: Cut,
  { design, paths, done }: CutLines,
  color: (name: string) => string,
): Generator<void> {
  context.globalAlpha = 0.28;
  context.fillStyle = cut.film.colour;
  context.fill(design);
  context.globalAlpha = 1;
  for (const [i, path] of paths.entries()) {
    context.lineWidth = (i < done ? 2.4 : 1) / scale;
    context.strokeStyle = i < done ? color('--gooseberry') : color('--ink-soft');
    context.stroke(path);
    yield;
  }
}

function drawHead(context: CanvasRenderingContext2D, scale: number, { x, y, down }: Head, ink: string): void {
  const r = 9 / scale;
  context.strokeStyle = ink;
  context.lineWidth = 2 / scale;
  context.beginPath();
  context.arc(x, y, r, 0, 7);
  context.moveTo(x - 2 * r, y);
  context.lineTo(x + 2 * r, y);
  context.moveTo(x, y - 2 * r);
  context.lineTo(x, y + 2 * r);
  context.stroke();
  if (!down) return;
  context.fillStyle = ink;
  context.beginPath();
  context.arc(x, y, r / 2.5, 0, 7);
  context.fill();
}
