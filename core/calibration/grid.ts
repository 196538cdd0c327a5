/**
 * What a trial grid of force against speed says: from how every cell looks, not only the best one. A cell looks cut through
 * from some force on and scored into its backing from a larger one; both rise a little with speed. Of perforated lines it is
 * force against dashes and gaps: what is left between dashes asks for force.
 */
import { largest, smallest } from '../geometry/lists';
import { rounded } from '../units/rounded';
import { median } from './odd';

export const CELL_LOOKS = ['not-through', 'clean', 'into-backing'] as const;
export type CellLook = (typeof CELL_LOOKS)[number];

export interface Cell {
  /** g and cm/s */
  readonly force: number;
  readonly speed: number;
  /** mm cut and mm left in turn, of perforated lines. */
  readonly dashes?: Dashes;
  /** Missing: nobody has looked at it. */
  readonly looks?: CellLook;
}

export type Dashes = readonly [on: number, off: number];
/** How cells are cut, beside their force. */
export type CutAs = Pick<Cell, 'speed' | 'dashes'>;

/** Forces at one speed, g: what was found, and what holds the truth in 95 of 100 grids. */
export interface ForceFound {
  readonly value: number;
  readonly from: number;
  readonly to: number;
}

/** Cells that a grid has at the most: the chance of all their looks together must stay a number. */
export const MOST_CELLS = 150;

interface SeenCell extends Cell {
  readonly looks: CellLook;
}

export interface GridFound {
  /** The least force that cuts cleanly. */
  readonly clean: ForceFound;
  /** The force from which on the backing is scored. */
  readonly backing: ForceFound;
  /** What to cut with. */
  readonly proposed: number;
  /** Cells that look otherwise than all others together say, by number. */
  readonly odd: readonly number[];
}

/** A tap is wrong as often as this (our own), in either way. */
const WRONG = 0.1;
/** How sharply looks change about a threshold, as a share of force (our own). */
const WIDTH = 0.04;
/** The backing is scored at so many times what cuts cleanly: anything from the least to the most (our own). */
const RATIOS = [1.15, 4] as const;
/** What ten cm/s more may do to a force: as a logarithm (our own). */
const PER_TEN = [-0.02, 0.1] as const;
/** What a tenth more of a line that is left between dashes may do to a force, in the same way (our own). */
const PER_TENTH_LEFT = [0, 0.5] as const;
/** Of the places that are tried for each unknown. */
const [FORCES, WINDOW_STEP, SLOPES] = [140, 2, 9];
/** Above what surely cuts, so that it still does when the knife has worn a little (our own). */
const IN_HAND = 1.08;
/** A look is odd when all else makes it this unlikely. */
const ODD = 0.15;
const SURE_TAILS = [0.025, 0.975] as const;

const logistic = (t: number): number => 1 / (1 + Math.exp(-t));
const spread = (n: number, [from, to]: readonly [number, number]): number[] =>
  Array.from({ length: n }, (_, i) => from + ((to - from) * i) / (n - 1));

/** The chance that a cell looks so. @param through, scored how far its force is above either threshold */
function chanceOf(looks: CellLook, through: number, scored: number): number {
  const share = looks === 'clean' ? through - scored : looks === 'into-backing' ? scored : 1 - through;
  return (1 - WRONG) * share + WRONG / 3;
}

/**
 * The chance of every pair of thresholds and slope given how the cells look, evenly likely before (Bayes; a psychometric
 * function with lapses, Wichmann & Hill 2001), summed up.
 * @param as for which forces are told
 * @returns undefined: too few cells were looked at, or they do not show where it begins to cut
 */
export function judgeGrid(cells: readonly Cell[], as: CutAs): GridFound | undefined {
  const seen = cells
    .slice(0, MOST_CELLS)
    .flatMap((cell, at) => (cell.looks ? [{ ...cell, looks: cell.looks, at }] : []));
  const looks = new Set(seen.map((cell) => cell.looks));
  if (seen.length < LEAST_CELLS || looks.size < 2) return undefined;
  const forces = seen.map(({ force }) => Math.log(force));
  const bounds = [smallest(forces) - PAST, largest(forces) + PAST] as const;
  const post = posterior(seen, as, bounds);
  const clean = toldOf(post.at, post.clean);
  // where nothing was scored, the backing begins somewhere above all that was tried
  const backing = toldOf(post.at, post.backing);
  const sure = Math.min(clean.to * IN_HAND, Math.sqrt(clean.value * backing.value));
  return {
    clean,
    backing,
    proposed: Math.max(clean.value, sure),
    odd: seen.flatMap((cell) => {
      const harder = post.slope * besides(cell, as);
      const above = ({ value }: ForceFound): number =>
        logistic((Math.log(cell.force / value) - harder) / WIDTH);
      return chanceOf(cell.looks, above(clean), above(backing)) < ODD ? [cell.at] : [];
    }),
  };
}
/** Cells from which on a grid says something. */
const LEAST_CELLS = 4;
/** Past the forces that were tried, as a logarithm. */
const PAST = 0.3;

interface Posterior {
  /** Logarithms of forces, and the chance of each. */
  readonly at: readonly number[];
  readonly clean: Float64Array;
  readonly backing: Float64Array;
  /** Its mean. */
  readonly slope: number;
}

function posterior(
  seen: readonly SeenCell[],
  as: CutAs,
  [least, most]: readonly [number, number],
): Posterior {
  const at = spread(FORCES, [least, most + Math.log(RATIOS[1])]);
  const step = at[1] - at[0];
  const cleans = at.filter((force) => force <= most).length;
  const windows = [Math.ceil(Math.log(RATIOS[0]) / step), Math.floor(Math.log(RATIOS[1]) / step)] as const;
  const [clean, backing] = [new Float64Array(FORCES), new Float64Array(FORCES)];
  let [all, sloped] = [0, 0];
  for (const slope of spread(SLOPES, as.dashes ? PER_TENTH_LEFT : PER_TEN)) {
    const above = seen.map((cell) => aboveEach(Math.log(cell.force) - slope * besides(cell, as), at));
    for (let i = 0; i < cleans; i++)
      for (let window = windows[0]; window <= windows[1] && i + window < FORCES; window += WINDOW_STEP) {
        let chance = 1;
        for (let k = 0; k < seen.length; k++)
          chance *= chanceOf(seen[k].looks, above[k][i], above[k][i + window]);
        all += chance;
        sloped += slope * chance;
        clean[i] += chance;
        backing[i + window] += chance;
      }
  }
  for (const shares of [clean, backing]) for (let i = 0; i < FORCES; i++) shares[i] /= all;
  return { at, clean, backing, slope: sloped / all };
}

/** By how much cells differ beside their force: in tens of cm/s, or in tenths of what is left between dashes. */
function besides(cell: CutAs, as: CutAs): number {
  if (cell.dashes && as.dashes) return 10 * (leftOf(cell.dashes) - leftOf(as.dashes));
  return (cell.speed - as.speed) / 10;
}
const leftOf = ([on, off]: Dashes): number => off / (on + off);

/**
 * The dashes that bear the widest range of force: those of which most cells came out well; of equals, what holds best until
 * it is torn.
 */
export function bestDashes(cells: readonly Cell[]): Dashes | undefined {
  const good = new Map<string, { readonly dashes: Dashes; count: number }>();
  for (const { dashes, looks } of cells) {
    if (!dashes || looks !== 'clean') continue;
    const one = good.get(String(dashes)) ?? { dashes, count: 0 };
    one.count++;
    good.set(String(dashes), one);
  }
  return [...good.values()].sort((a, b) => b.count - a.count || leftOf(b.dashes) - leftOf(a.dashes))[0]
    ?.dashes;
}

/** How far a force is above each of some thresholds: 0 surely below, 1 surely above. */
const aboveEach = (force: number, at: readonly number[]): Float64Array =>
  Float64Array.from(at, (threshold) => logistic((force - threshold) / WIDTH));

/** The middle of what is likely, and its tails. */
function toldOf(at: readonly number[], shares: Float64Array): ForceFound {
  const quantile = (share: number): number => {
    let sum = 0;
    for (let i = 0; i < at.length; i++) {
      if (sum + shares[i] >= share) {
        const within = shares[i] > 0 ? (share - sum) / shares[i] : 0;
        return Math.exp(at[i] + (within - 0.5) * (at[1] - at[0]));
      }
      sum += shares[i];
    }
    return Math.exp(at[at.length - 1]);
  };
  const [from, to] = SURE_TAILS.map(quantile);
  return { value: quantile(0.5), from, to };
}

/** Where only the best cell was tapped: that force, give or take half of the way to the next. */
export function bestCell({ force }: Pick<Cell, 'force'>, cells: readonly Cell[]): ForceFound {
  const forces = forcesByHand(cells);
  const steps = forces.slice(1).map((next, i) => next - forces[i]);
  const half = steps.length > 0 ? median(steps) / 2 : 0;
  return { value: force, from: force - half, to: force + half };
}

/** What a grid shall span. */
export interface GridAsked {
  /** g and cm/s, from and to. */
  readonly force: readonly [number, number];
  readonly speed: readonly [number, number];
  readonly columns: number;
  readonly rows: number;
}

/** Forces that are set by hand one after the other, the least first, where a cutter is told none. */
export const forcesByHand = (cells: readonly Cell[]): number[] =>
  [...new Set(cells.map(({ force }) => force))].sort((a, b) => a - b);

const even = (n: number, [from, to]: readonly [number, number], step: number): number[] =>
  (n === 1 ? [(from + to) / 2] : spread(n, [from, to])).map((one) =>
    rounded(Math.round(one / step) * step, 2),
  );

/** Cells row by row, the slowest first: evenly spaced, in whole g and cm/s. */
export function gridCells({ force, speed, columns, rows }: GridAsked): Cell[] {
  return even(rows, speed, 1).flatMap((fast) =>
    even(columns, force, 1).map((hard) => ({ force: hard, speed: fast })),
  );
}

/** The same of perforated lines: a row for each dash with each gap, in tenths of a mm and twentieths. */
export function perforatedCells({
  force,
  columns,
  on,
  off,
  each: [dashes, gaps],
  speed,
}: PerforatedAsked): Cell[] {
  return even(dashes, on, 0.1).flatMap((cut) =>
    even(gaps, off, 0.05).flatMap((left) =>
      even(columns, force, 1).map((hard): Cell => ({ force: hard, speed, dashes: [cut, left] })),
    ),
  );
}

export interface PerforatedAsked extends Pick<GridAsked, 'force' | 'columns'> {
  /** mm cut and mm left, from and to, and how many of each. */
  readonly on: readonly [number, number];
  readonly off: readonly [number, number];
  readonly each: readonly [dashes: number, gaps: number];
  readonly speed: number;
}
