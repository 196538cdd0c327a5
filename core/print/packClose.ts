/** Copies laid close together on sheets: by their outlines, as pieces of film are. */
import type { Bounds } from '../geometry/bounds';
import { heightOf, widthOf } from '../geometry/bounds';
import { regionArea, regionBounds } from '../geometry/region';
import type { Region } from '../geometry/region';
import type { Body } from '../packing/body';
import { fill, squareOf } from '../packing/fill';
import { outlineOf, placeOf } from '../packing/outline';
import type { SheetPlace } from './place';

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
): readonly (readonly SheetPlace[])[] {
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
  const places = lying
    .map(({ turn, x, y }) => placeOf(outline, { turn, x: free.minX + x, y: free.minY + y }))
    .sort((a, b) => a.box.maxX - b.box.maxX);
  return Array.from({ length: Math.ceil(copies / places.length) }, (_, k) =>
    places
      .slice(0, copies - k * places.length)
      .map((place, i) => ({ copy: k * places.length + i, ...place })),
  );
}
