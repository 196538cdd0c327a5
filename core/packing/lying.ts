/**
 * How a piece lies on a strip. Written with the turn first, always: objects that begin with x and y share their layout with
 * the polygon library's points ({@link Spot}).
 */
export interface Lying {
  /** Degrees clockwise as seen with y down. */
  readonly turn: number;
  /** Where the middle of its box as drawn lies, mm. */
  readonly x: number;
  readonly y: number;
}

/** Where a piece lies: the middle of its box, and the cosine and sine of its turn. */
export interface Pose {
  readonly x: number;
  readonly y: number;
  readonly cos: number;
  readonly sin: number;
}

/** Quarter turns are exact: pieces that lie straight stay straight. */
const QUARTERS: Readonly<Record<number, readonly [cos: number, sin: number]>> = {
  0: [1, 0],
  90: [0, 1],
  180: [-1, 0],
  270: [0, -1],
};

const radians = (degrees: number): number => (degrees * Math.PI) / 180;

export const cosOf = (degrees: number): number => QUARTERS[degrees]?.[0] ?? Math.cos(radians(degrees));
export const sinOf = (degrees: number): number => QUARTERS[degrees]?.[1] ?? Math.sin(radians(degrees));
