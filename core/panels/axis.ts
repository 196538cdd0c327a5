/** Seams run two ways: all about a way and the other one. */
import type { Bounds } from '../geometry/bounds';

/** Upright seams run along y at some x, level ones along x at some y. */
export type Axis = 'upright' | 'level';

export const AXES: readonly Axis[] = ['upright', 'level'];

export const otherAxis = (axis: Axis): Axis => (axis === 'upright' ? 'level' : 'upright');

/** From a place to another, mm. */
export type Span = readonly [from: number, to: number];

/** Where a box begins and ends on the way across the seams. */
export const spanOf = ({ minX, minY, maxX, maxY }: Bounds, axis: Axis): Span =>
  axis === 'upright' ? [minX, maxX] : [minY, maxY];

/** A box by where it begins and ends across the seams and along them. */
export const boxOfSpans = (axis: Axis, across: Span, along: Span): Bounds => {
  const [x, y] = axis === 'upright' ? [across, along] : [along, across];
  return { minX: x[0], minY: y[0], maxX: x[1], maxY: y[1] };
};
