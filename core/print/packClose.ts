/** Copies laid close together on sheets: by their outlines, as pieces of film are. */
import type { Bounds } from '../geometry/bounds';
import { heightOf, widthOf } from '../geometry/bounds';
import type { Matrix } from '../geometry/matrix';
import { multiply, translation } from '../geometry/matrix';
import { regionArea, regionBounds } from '../geometry/region';
import type { Region } from '../geometry/region';
import type { Body } from '../packing/body';
import { fill, squareOf } from '../packing/fill';
import type { Lying } from '../packing/lying';
import { cosOf, sinOf } from '../packing/lying';
import { outlineOf, turnedBox } from '../packing/outline';

/** Where one copy lies. */
export interface ClosePlace {
  readonly copy: number;
  /** From the art to the sheet. */
  readonly matrix: Matrix;
  readonly box: Bounds;
}

export interface CloseChoices {
  readonly copies: number;
  /** mm between two copies */
  readonly spacing: number;
  /** Degrees that a copy may be turned by. */
  readonly turns: readonly number[];
}

/**
 * @param shape all that is printed and cut of one copy
 * @param free what a sheet leaves to them
 * @returns places of copies on one sheet after the other, sheets as full as the first answer makes them; none: not even one fits
 */
export function packClose(
  shape: Region,
  free: Bounds,
  { copies, spacing, turns }: CloseChoices,
): readonly (readonly ClosePlace[])[] {
  const room = { across: heightOf(free), spacing };
  if (room.across <= 0 || widthOf(free) <= 0) return [];
  const box = regionBounds(shape);
  const outline = outlineOf(shape, box, spacing + 2 * squareOf(room.across));
  // more than there is area for never lie on one sheet
  const most = Math.ceil((widthOf(free) * room.across) / Math.max(1, regionArea(shape)));
  const bodies = Array.from({ length: Math.min(most, copies) }, (): Body => ({
    outline,
    turns,
    isPinned: false,
  }));
  // copies are all alike: what lies on one sheet lies so on the next, from its beginning on
  const lying = fill(bodies, room, widthOf(free)).filter((one) => one !== undefined);
  if (lying.length === 0) return [];
  lying.sort((a, b) => endOf(a) - endOf(b));
  return Array.from({ length: Math.ceil(copies / lying.length) }, (_, k) =>
    lying.slice(0, copies - k * lying.length).map((one, i) => placeOf(one, k * lying.length + i)),
  );

  function endOf({ turn, x }: Lying): number {
    return x + turnedBox(outline, cosOf(turn), sinOf(turn)).maxX;
  }
  function placeOf({ turn: degrees, x, y }: Lying, copy: number): ClosePlace {
    const [c, s] = [cosOf(degrees), sinOf(degrees)];
    const to: Matrix = [c, s, -s, c, free.minX + x, free.minY + y];
    const own = turnedBox(outline, c, s);
    return {
      copy,
      matrix: multiply(to, translation(-(box.minX + box.maxX) / 2, -(box.minY + box.maxY) / 2)),
      box: {
        minX: to[4] + own.minX,
        minY: to[5] + own.minY,
        maxX: to[4] + own.maxX,
        maxY: to[5] + own.maxY,
      },
    };
  }
}
