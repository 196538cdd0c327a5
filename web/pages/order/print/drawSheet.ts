/** A printed sheet as it lies in the cutter: what is printed, and over it what is cut. */
import { drawLines } from '../../../stage/lineKinds';
import { fillAll } from '../../../stage/paths';
import type { PrintedView, SheetView } from '../../../workers/packed';

const [INK, EDGE, HATCH] = ['#261c2c', '#c9bda6', '#c9bda6'];
/** What shows where nothing is printed. */
const GROUND = { white: '#fffdf7', clear: '#f3f7f7', dark: '#4a515a' } as const;

/** What of a sheet is shown. */
export type SheetLook = 'both' | 'printed' | 'cut';

/** Draws a sheet, yielding wherever it may be interrupted. */
export const sheetDrawer = (printed: PrintedView, sheet: SheetView, look: SheetLook) =>
  function* draw(context: CanvasRenderingContext2D, scale: number): Generator<void> {
    const ground = GROUND[printed.film.print ?? 'white'];
    context.fillStyle = ground;
    context.fillRect(0, 0, sheet.width, sheet.height);
    context.strokeStyle = EDGE;
    context.lineWidth = 1 / scale;
    context.strokeRect(0, 0, sheet.width, sheet.height);
    hatchEdges(context, scale, printed, sheet);
    for (const { matrix } of sheet.places) {
      context.save();
      context.transform(...(matrix as [number, number, number, number, number, number]));
      if (look !== 'cut')
        for (const { colour, region } of printed.art) yield* fillAll(context, region, colour, scale);
      if (look !== 'printed') yield* drawLines(context, printed.lines, scale, ground);
      context.restore();
    }
    if (look === 'cut') return;
    context.fillStyle = printed.film.print === 'dark' ? '#fffdf7' : INK;
    for (const { shape } of sheet.marks) context.fill(new Path2D(shape));
    context.fill(new Path2D(sheet.code));
  };

/** Where the printer does not print or the rollers hold. */
function hatchEdges(
  context: CanvasRenderingContext2D,
  scale: number,
  { edges }: PrintedView,
  { width, height }: SheetView,
): void {
  const wider = (side: keyof PrintedView['edges']['printer']): number =>
    Math.max(edges.printer[side], edges.cutter[side]);
  const [left, top, right, bottom] = [wider('left'), wider('top'), wider('right'), wider('bottom')];
  context.save();
  context.beginPath();
  context.rect(0, 0, width, height);
  context.rect(left, top, width - left - right, height - top - bottom);
  context.clip('evenodd');
  context.strokeStyle = HATCH;
  context.lineWidth = 1 / scale;
  context.beginPath();
  for (let x = -height; x < width; x += 7 / scale) {
    context.moveTo(x, height);
    context.lineTo(x + height, 0);
  }
  context.stroke();
  context.restore();
}
