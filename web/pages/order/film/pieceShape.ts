/** A piece on its strip as a path, and whether a place lies on it. */
import type { Matrix } from '../../../../core/geometry/matrix';
import { inverse, mapped, multiply, translation } from '../../../../core/geometry/matrix';
import { isInside } from '../../../../core/geometry/nesting';
import type { Spot } from '../../../../core/geometry/spot';
import type { Lying } from '../../../../core/packing/lying';
import type { PlacementView, StripView } from '../../../workers/packed';
import type { PackedRegion } from '../../../workers/packedRegion';

/** SVG path data of a region, face view. */
export function pathOfRegion({ xy, rings }: PackedRegion): string {
  let d = '';
  let from = 0;
  for (const to of rings) {
    for (let i = from; i < to; i += 2)
      d += `${i === from ? 'M' : 'L'}${xy[i].toFixed(2)} ${xy[i + 1].toFixed(2)}`;
    d += 'Z';
    from = to;
  }
  return d;
}

/** Whether a place of the strip lies on a piece or in one of its counters. */
function isOn(strip: StripView, { part, matrix }: PlacementView, at: Spot): boolean {
  const [x, y] = mapped(at, inverse(matrix));
  const { xy, rings, groups } = strip.parts[part].region;
  // the first ring of each group is its outermost
  return groups.some((_, g) => {
    const ring = g === 0 ? 0 : groups[g - 1];
    return isInside(xy.subarray(ring === 0 ? 0 : rings[ring - 1], rings[ring]), [x, y]);
  });
}

/** The piece at a place of the strip. */
export const pieceAt = (strip: StripView, at: Spot): PlacementView | undefined =>
  strip.placements.find((placement) => {
    const [x, y] = at;
    const { box, kept } = placement;
    const isNear = x >= box.minX && x <= box.maxX && y >= box.minY && y <= box.maxY;
    return kept !== undefined && isNear && isOn(strip, placement, at);
  });

/** Where a piece's middle lies on its strip. */
export function middleOf(strip: StripView, { part, matrix }: PlacementView): Spot {
  const [x, y] = mapped(strip.parts[part].middle, matrix);
  return [x, y];
}

/** A piece's map to its strip once it has been moved to another place. */
export function matrixAt(strip: StripView, placement: PlacementView, to: Lying): Matrix {
  const kept = placement.kept!;
  const [x, y] = middleOf(strip, placement);
  const turn = ((to.turn - kept.turn) * Math.PI) / 180;
  const [cos, sin] = [Math.cos(turn), Math.sin(turn)];
  const about = multiply([cos, sin, -sin, cos, 0, 0], translation(-x, -y));
  const moved = translation(x + to.x - kept.x, y + to.y - kept.y);
  return multiply(moved, multiply(about, placement.matrix));
}
