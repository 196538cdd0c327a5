/** Film that slipped under its rollers: where it lies now, from two places of what was cut on it. */
import type { Matrix } from '../geometry/matrix';
import type { Spot } from '../geometry/spot';

/** A place of what was cut, and where it was found, mm on the strip. */
export interface Found {
  readonly cut: Spot;
  readonly found: Spot;
}

export interface Slip {
  /** From where the film lay to where it lies. */
  readonly matrix: Matrix;
  /** Degrees */
  readonly turn: number;
  /** mm that the two places lie further apart than they were cut: how well they were met. */
  readonly off: number;
  /** mm that a place is expected to lie off there, for places that are met to 1 mm each way (standard error, both ways together). */
  readonly expectedAt: (at: Spot) => number;
}

/** mm apart, at the least: what is nearer tells a turn badly (our own). */
export const LEAST_APART = 40;
/** mm that two places may be met off between them (our own): a pointer is put onto a place to half a millimetre or so. */
export const MOST_OFF = 1.5;

/**
 * How film was moved and turned: the similarity of two pairs of places, held to its true size, since film slips and does not
 * stretch; about the middle of the two, so that what either was met off counts half.
 * @returns undefined: the two lie too near to one another
 */
export function slipFrom(a: Found, b: Found): Slip | undefined {
  const [cut, found] = [from(a.cut, b.cut), from(a.found, b.found)];
  const [long, now] = [lengthOf(cut), lengthOf(found)];
  if (long < LEAST_APART || now < LEAST_APART / 2) return undefined;
  // (found / cut) as complex numbers, over its length
  const cos = (cut[0] * found[0] + cut[1] * found[1]) / (long * now);
  const sin = (cut[0] * found[1] - cut[1] * found[0]) / (long * now);
  const [mx, my] = middle(a.cut, b.cut);
  const [nx, ny] = middle(a.found, b.found);
  return {
    matrix: [cos, sin, -sin, cos, nx - (cos * mx - sin * my), ny - (sin * mx + cos * my)],
    turn: (Math.atan2(sin, cos) * 180) / Math.PI,
    off: now - long,
    // the middle of two is met to √½; what they are met off across turns all by that over their distance
    expectedAt: ([x, y]) => Math.sqrt(1 + 2 * (Math.hypot(x - mx, y - my) / long) ** 2),
  };
}

const from = ([ax, ay]: Spot, [bx, by]: Spot): [number, number] => [bx - ax, by - ay];
const lengthOf = ([x, y]: Spot): number => Math.hypot(x, y);
const middle = ([ax, ay]: Spot, [bx, by]: Spot): [number, number] => [(ax + bx) / 2, (ay + by) / 2];
