/** Strip millimetres and a cutter's own units. */
import type { Axes } from '../layout/cutter';

export type Point = readonly [number, number];

/**
 * Strip mm → whole plotter units on the plotter's own axes.
 * @param cuttable width the knife reaches, mm: strip y counts from its far edge, most plotters from the near one
 */
export function toUnits(axes: Axes, cuttable: number): (x: number, y: number) => Point {
  const { step, feedAxis, feedReversed, acrossReversed } = axes;
  return (x, y) => {
    const feed = Math.round((feedReversed ? -x : x) / step);
    const across = Math.round((acrossReversed ? y : cuttable - y) / step);
    return feedAxis === 'x' ? [feed, across] : [across, feed];
  };
}

/** Plotter units → mm on the strip. */
export function toStrip(axes: Axes, cuttable: number): (x: number, y: number) => Point {
  const { step, feedAxis, feedReversed, acrossReversed } = axes;
  return (x, y) => {
    const [feed, across] = feedAxis === 'x' ? [x * step, y * step] : [y * step, x * step];
    return [feedReversed ? -feed : feed, acrossReversed ? across : cuttable - across];
  };
}
