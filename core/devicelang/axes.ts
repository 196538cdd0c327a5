/** Strip millimetres and a cutter's own units. */
import type { Axes } from '../layout/cutter';
import { stepsOf } from '../layout/cutter';

export type Point = readonly [number, number];

/**
 * Strip mm → whole plotter units on the plotter's own axes.
 * @param cuttable width the knife reaches, mm: strip y counts from its far edge, most plotters from the near one
 */
export function toUnits(axes: Axes, cuttable: number): (x: number, y: number) => Point {
  const { feedAxis, feedReversed, acrossReversed } = axes;
  const [long, wide] = stepsOf(axes);
  return (x, y) => {
    const feed = Math.round((feedReversed ? -x : x) / long);
    const across = Math.round((acrossReversed ? y : cuttable - y) / wide);
    return feedAxis === 'x' ? [feed, across] : [across, feed];
  };
}

/** Plotter units → mm on the strip. */
export function toStrip(axes: Axes, cuttable: number): (x: number, y: number) => Point {
  const { feedAxis, feedReversed, acrossReversed } = axes;
  const [long, wide] = stepsOf(axes);
  return (x, y) => {
    const [feed, across] = feedAxis === 'x' ? [x * long, y * wide] : [y * long, x * wide];
    return [feedReversed ? -feed : feed, acrossReversed ? across : cuttable - across];
  };
}

/**
 * How far a place lies off another on the strip → on the cutter's own axes, mm both.
 * @param off along the film and from its far edge to the near one
 */
export function offOnAxes({ feedAxis, feedReversed, acrossReversed }: Axes, [along, down]: Point): Point {
  const [feed, across] = [feedReversed ? -along : along, acrossReversed ? down : -down];
  return feedAxis === 'x' ? [feed, across] : [across, feed];
}

/** The other way round. */
export function offOnStrip({ feedAxis, feedReversed, acrossReversed }: Axes, [x, y]: Point): Point {
  const [feed, across] = feedAxis === 'x' ? [x, y] : [y, x];
  return [feedReversed ? -feed : feed, acrossReversed ? across : -across];
}
