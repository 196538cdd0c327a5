/** Where a machine does not reach: slanting lines. */
import type { Bounds } from '../../core/geometry/bounds';

/** px from line to line */
const EVERY = 7;
/** px: beyond this nothing is seen */
const FAR = 4000;

/** @param where what of the box is hatched; missing: all of it */
export function hatch(
  context: CanvasRenderingContext2D,
  scale: number,
  { minX, minY, maxX, maxY }: Bounds,
  colour: string,
  where?: Path2D,
): void {
  const height = maxY - minY;
  context.save();
  context.beginPath();
  context.rect(minX, minY, maxX - minX, height);
  context.clip();
  if (where) context.clip(where, 'evenodd');
  context.strokeStyle = colour;
  context.lineWidth = 1 / scale;
  context.beginPath();
  for (let x = minX - height; x < Math.min(maxX, minX + FAR / scale); x += EVERY / scale) {
    context.moveTo(x, maxY);
    context.lineTo(x + height, minY);
  }
  context.stroke();
  context.restore();
}
