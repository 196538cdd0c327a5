/** A printed sheet as it lies in the cutter: what is printed, and over it what is cut. */
import { widerEdges } from '../../../../core/print/choices';
import { hatch } from '../../../stage/hatch';
import { drawLines } from '../../../stage/lineKinds';
import { fillAll, pathOfRegion } from '../../../stage/paths';
import type { PrintedArea, PrintedView, SheetView } from '../../../workers/packedSheets';
import type { Pictures } from './pictures';
import { isArt, pictureIn } from './pictures';

const [INK, EDGE] = ['#261c2c', '#c9bda6'];
/** What shows where nothing is printed. */
const GROUND = { white: '#fffdf7', clear: '#f3f7f7', dark: '#4a515a' } as const;

/** What of a sheet is shown. */
export type SheetLook = 'both' | 'printed' | 'cut';

/** Draws a sheet, yielding wherever it may be interrupted. */
export const sheetDrawer = (printed: PrintedView, sheet: SheetView, look: SheetLook, pictures: Pictures) =>
  function* draw(context: CanvasRenderingContext2D, scale: number): Generator<void> {
    const ground = GROUND[printed.film.print ?? 'white'];
    context.fillStyle = ground;
    context.fillRect(0, 0, sheet.width, sheet.height);
    context.strokeStyle = EDGE;
    context.lineWidth = 1 / scale;
    context.strokeRect(0, 0, sheet.width, sheet.height);
    hatchEdges(context, scale, printed, sheet);
    context.fillStyle = GROUND.white;
    if (look !== 'cut') context.fill(new Path2D(sheet.patch));
    for (const { matrix } of sheet.places) {
      context.save();
      context.transform(...(matrix as [number, number, number, number, number, number]));
      if (look !== 'cut') {
        context.save();
        if (sheet.clip) context.clip(new Path2D(sheet.clip));
        for (const area of printed.art) yield* drawArea(context, area, scale, pictures);
        context.restore();
      }
      if (look !== 'printed') yield* drawLines(context, sheet.lines, scale, ground);
      context.restore();
    }
    if (look === 'cut') return;
    context.fillStyle = INK;
    context.fill(new Path2D(sheet.ink));
  };

/** A colour, or the picture that is seen there. */
export function* drawArea(
  context: CanvasRenderingContext2D,
  area: PrintedArea,
  scale: number,
  pictures: Pictures,
): Generator<void> {
  const drawn = pictureIn(pictures, area);
  if (!drawn) return yield* fillAll(context, area.region, area.colour, scale);
  context.save();
  if (!isArt(area)) context.clip(pathOfRegion(area.region));
  context.transform(...(area.picture!.matrix as [number, number, number, number, number, number]));
  context.drawImage(drawn.bitmap, drawn.x, drawn.y, drawn.width, drawn.height);
  context.restore();
  yield;
}

/** Where the printer does not print or the rollers hold. */
function hatchEdges(
  context: CanvasRenderingContext2D,
  scale: number,
  { edges }: PrintedView,
  { width, height }: SheetView,
): void {
  const { left, top, right, bottom } = widerEdges(edges.printer, edges.cutter);
  const around = new Path2D();
  around.rect(0, 0, width, height);
  around.rect(left, top, width - left - right, height - top - bottom);
  hatch(context, scale, { minX: 0, minY: 0, maxX: width, maxY: height }, EDGE, around);
}
