/** Where copies lie on a sheet. */
import type { Bounds } from '../geometry/bounds';
import { joinBounds } from '../geometry/bounds';
import type { Matrix } from '../geometry/matrix';
import { multiply, translation } from '../geometry/matrix';

/** One copy on a sheet. */
export interface SheetPlace {
  readonly copy: number;
  /** From the art to the sheet. */
  readonly matrix: Matrix;
  readonly box: Bounds;
}

/** Places moved together, so that all of them lie in the middle of a room, or at its beginning. */
export function centred(places: readonly SheetPlace[], free: Bounds, isRoll: boolean): SheetPlace[] {
  const all = places.map(({ box }) => box).reduce(joinBounds);
  const dx = isRoll ? free.minX - all.minX : (free.minX + free.maxX - all.minX - all.maxX) / 2;
  const dy = (free.minY + free.maxY - all.minY - all.maxY) / 2;
  return places.map(({ copy, matrix, box: { minX, minY, maxX, maxY } }) => ({
    copy,
    matrix: multiply(translation(dx, dy), matrix),
    box: { minX: minX + dx, minY: minY + dy, maxX: maxX + dx, maxY: maxY + dy },
  }));
}
