/** Layer marks: the same small shapes at the same places on every film, to line the films up by hand. */
import type { Bounds } from '../geometry/bounds';
import { heightOf, widthOf } from '../geometry/bounds';
import { arcPath } from '../geometry/arc';
import { IDENTITY } from '../geometry/matrix';
import { flatten } from '../geometry/path';
import type { Region } from '../geometry/region';
import { difference, rectangle, weld } from '../geometry/region';
import type { Spot } from '../geometry/spot';

export type MarkShape = 'triangle' | 'square' | 'cross' | 'ring';

export interface MarkChoices {
  readonly shape: MarkShape;
  readonly count: 2 | 3 | 4;
  /** mm; null follows the size of the sign */
  readonly size: number | null;
  /** Places of their middles on the sign, mm; null: around it. */
  readonly at: readonly { readonly x: number; readonly y: number }[] | null;
}

/** Marks grow with the sign, within what a hand can see and film can spare, mm (common practice, no source). */
const SHARE = 0.02;
const SMALLEST = 6;
const LARGEST = 20;
/** Room around a mark that stays on the backing when the rest is weeded, as a share of its size. */
const TAB = 0.4;

export const markSize = (sign: Bounds, { size }: Pick<MarkChoices, 'size'>): number =>
  size ?? Math.min(LARGEST, Math.max(SMALLEST, SHARE * Math.max(widthOf(sign), heightOf(sign))));

/** Middles of the marks: outside the sign, clear of it by their own tab. */
export function markPlaces(sign: Bounds, choices: MarkChoices): Spot[] {
  if (choices.at) return choices.at.slice(0, choices.count).map(({ x, y }): Spot => [x, y]);
  const away = markSize(sign, choices) * (0.5 + 2 * TAB);
  const [left, right] = [sign.minX - away, sign.maxX + away];
  // beside the sign and not over its corners: that would make every film as wide as the sign and more
  const [high, middle, low] = [0.25, 0.5, 0.75].map((share) => sign.minY + share * heightOf(sign));
  const all: Readonly<Record<2 | 3 | 4, readonly Spot[]>> = {
    2: [
      [left, middle],
      [right, middle],
    ],
    // unlike sides, so that a film laid wrong way round is noticed
    3: [
      [left, high],
      [left, low],
      [right, middle],
    ],
    4: [
      [left, high],
      [right, high],
      [left, low],
      [right, low],
    ],
  };
  return [...all[choices.count]];
}

/** Each mark as a hole in its tab of film, which stays on the backing until the films are lined up. */
export function markRegion(sign: Bounds, choices: MarkChoices): Region {
  const size = markSize(sign, choices);
  return markPlaces(sign, choices).flatMap((at) => {
    const half = size * (0.5 + TAB);
    const tab = rectangle({ minX: at[0] - half, minY: at[1] - half, maxX: at[0] + half, maxY: at[1] + half });
    return difference(tab, shapeAt(choices.shape, at, size));
  });
}

function shapeAt(shape: MarkShape, [x, y]: Spot, size: number): Region {
  const h = size / 2;
  switch (shape) {
    case 'triangle':
      return weld([Float64Array.of(x, y - h, x + h, y + h, x - h, y + h)]);
    case 'square':
      return rectangle({ minX: x - h, minY: y - h, maxX: x + h, maxY: y + h });
    case 'cross': {
      const t = size / 8;
      return weld([
        ...rectangle({ minX: x - h, minY: y - t, maxX: x + h, maxY: y + t }),
        ...rectangle({ minX: x - t, minY: y - h, maxX: x + t, maxY: y + h }),
      ]);
    }
    default: {
      const circle = (r: number): Region =>
        weld(flatten(arcPath([x, y], [r, 0], [0, r], 0, 2 * Math.PI), IDENTITY).map((line) => line.points));
      return difference(circle(h), circle(size / 4));
    }
  }
}
