/** Seams: where they run, and what they come to. */
import type { FilmLayer } from '../films/separate';
import type { Finding } from '../findings/finding';
import type { Bounds } from '../geometry/bounds';
import type { Axis } from './axis';
import { AXES } from './axis';
import type { Inks } from './ink';
import { costAt } from './ink';
import type { SeamKey } from './seamKeys';
import type { Group } from './gather';

/** Seams, mm on the sign, rising: upright ones by their x, level ones by their y; wandering ones where they begin. */
export interface Seams {
  readonly upright: readonly number[];
  readonly level: readonly number[];
  /** The way that wandering ones take, x0, y0, x1, y1 … from above or from the left; undefined: straight. */
  readonly ways?: Readonly<Record<Axis, readonly (Float64Array | undefined)[]>>;
}

export const NO_SEAMS: Seams = { upright: [], level: [] };

/** What seams come to. */
export interface SeamSum {
  readonly panels: number;
  /** mm of art cut */
  readonly ink: number;
  /** Outlines crossed. */
  readonly crossings: number;
}

export interface Panelling {
  /** The art that is taken apart. */
  readonly box: Bounds;
  readonly seams: Seams;
  readonly sum: SeamSum;
  /** What is cut whole: its numbers come before those of panels. */
  readonly pieces: readonly Group[];
  /** What seams go through: films without what is cut whole; none: all is. */
  readonly layers: readonly FilmLayer[];
  /** How far each film's seams lie beside the common ones, by its id, mm. */
  readonly beside: Readonly<Record<string, number>>;
  /** By film id, each along its own seams. */
  readonly keys: Readonly<Record<string, readonly SeamKey[]>>;
  readonly findings: readonly Finding[];
}

export const panelsOf = ({ upright, level }: Seams): number => (upright.length + 1) * (level.length + 1);

/** Straight seams by what lies under them. */
export function sumOf(seams: Seams, ink: Inks): SeamSum {
  const costs = AXES.flatMap((axis) => seams[axis].map((at) => costAt(ink[axis], at)));
  return {
    panels: panelsOf(seams),
    ink: costs.reduce((sum, cost) => sum + cost.ink, 0),
    crossings: costs.reduce((sum, cost) => sum + cost.crossings, 0),
  };
}

export const leastCut = (a: SeamSum, b: SeamSum): number =>
  a.ink - b.ink || a.crossings - b.crossings || a.panels - b.panels;
export const fewestPanels = (a: SeamSum, b: SeamSum): number => a.panels - b.panels || leastCut(a, b);

/** All seams moved the same way on both axes, mm. */
export function moved(seams: Seams, by: number): Seams {
  if (by === 0) return seams;
  const { upright, level, ways } = seams;
  const way = (points: Float64Array | undefined, axis: Axis): Float64Array | undefined =>
    points?.map((v, i) => ((i % 2 === 0) === (axis === 'upright') ? v + by : v));
  return {
    upright: upright.map((x) => x + by),
    level: level.map((y) => y + by),
    ...(ways && {
      ways: {
        upright: ways.upright.map((points) => way(points, 'upright')),
        level: ways.level.map((points) => way(points, 'level')),
      },
    }),
  };
}

/** How far each film's seams lie beside the common ones, so that none lies on another: mm, in the films' order. */
export const besideCommon = (films: number, stagger: number): number[] =>
  Array.from({ length: films }, (_, i) => (i - (films - 1) / 2) * stagger);
