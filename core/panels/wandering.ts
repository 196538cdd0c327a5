/** A set of wandering seams: never more art cut than by straight ones, never one across another. */
import type { Bounds } from '../geometry/bounds';
import type { Axis } from './axis';
import { AXES, otherAxis, spanOf } from './axis';
import { costAt } from './ink';
import type { Corridor } from './inkGrid';
import type { Seams, SeamSum } from './seams';
import { leastCut, panelsOf, sumOf } from './seams';
import type { Widths } from './straightBest';
import type { WanderRules } from './wander';
import { costOfLine, wander, wanderGuess } from './wander';
import type { Ground } from './ground';

/** Smallest radius of a seam: knife and hand follow it easily (common practice, no source), mm. */
export const SEAM_RADIUS = 3;
/** Seams never come nearer to one another, or to the art's edge, mm. */
const APART = 10;
/** A corridor is no wider than this to each side: nobody wants to hang what is stranger, mm. */
const WIDEST = 250;
/** Cells of grids in all, for guesses and for seams, and of one seam's grid. */
const CELLS = { guesses: 4_000_000, seams: 8_000_000, guess: 160_000, seam: 1_500_000 } as const;
/** Art that a seam must save to be worth its wandering, mm. */
const WORTH = 0.5;

/** Straight seams that wandering begins with, and how wide panels may become. */
export interface Start {
  readonly from: Seams;
  readonly widths: Readonly<Record<Axis, Widths>>;
}

interface Wandered {
  readonly seams: Seams;
  readonly sum: SeamSum;
}

/**
 * Wanders from where a rough look promises least: the least straight seams, or even ones, which leave more room to both
 * sides. A seam that saves nothing by wandering stays straight; and the least straight seams stay where all that is no
 * better.
 * @param starts the first of them seams that cut least
 */
export function wanderingSeams(ground: Ground, starts: readonly Start[]): Wandered {
  const { ink } = ground;
  const seams = starts.reduce((sum, { from }) => sum + from.upright.length + from.level.length, 0);
  const cells = Math.min(CELLS.guess, CELLS.guesses / Math.max(1, seams));
  const guesses = starts.map((start) => ({ start, guess: guessed(ground, start, cells) }));
  const { start, guess } = guesses.reduce((best, next) => (next.guess < best.guess ? next : best));
  const straight = { seams: starts[0].from, sum: sumOf(starts[0].from, ink) };
  if (guess > straight.sum.ink - WORTH) return straight;
  const wandered = wanderFrom(ground, start);
  return leastCut(wandered.sum, straight.sum) < 0 ? wandered : straight;
}

/** Each seam with its corridor and what it cuts while it is straight. */
function corridors({ box, kept, narrowest, ink }: Ground, { from, widths }: Start) {
  const all = {
    upright: corridorsOf(from.upright, box, 'upright', widths.upright),
    level: corridorsOf(from.level, box, 'level', widths.level),
  };
  return AXES.flatMap((axis) => {
    const rules: WanderRules = {
      narrowest,
      radius: Math.max(SEAM_RADIUS, narrowest),
      kept,
      straight: all[otherAxis(axis)].map(({ low, high }) => [low, high]),
    };
    return from[axis].map((at, i) => {
      const corridor = all[axis][i];
      const own = costAt(ink[axis], at);
      const stays = own.ink <= WORTH || corridor.high - corridor.low < 2 * SEAM_RADIUS;
      return { axis, corridor, rules, own, stays };
    });
  });
}

const guessed = (ground: Ground, start: Start, cells: number): number =>
  corridors(ground, start).reduce(
    (sum, { axis, corridor, rules, own, stays }) =>
      sum + (stays ? own.ink : Math.min(own.ink, wanderGuess(ground.regions, axis, corridor, rules, cells))),
    0,
  );

function wanderFrom(ground: Ground, start: Start): Wandered {
  const { regions } = ground;
  const cells = Math.min(
    CELLS.seam,
    CELLS.seams / Math.max(1, start.from.upright.length + start.from.level.length),
  );
  const made = corridors(ground, start).map(({ axis, corridor, rules, own, stays }) => {
    const straight = { axis, way: undefined, cost: own };
    if (stays) return straight;
    const way = wander(regions, axis, corridor, rules, cells);
    const cost = costOfLine(regions, way);
    return cost.ink > own.ink - WORTH ? straight : { axis, way, cost };
  });
  /** A seam stands where it begins: that is where tape and handle are. */
  const stands = (of: Axis): number[] =>
    made
      .filter(({ axis }) => axis === of)
      .map(({ way }, i) => (way ? way[of === 'upright' ? 0 : 1] : start.from[of][i]));
  const along = (of: Axis): (Float64Array | undefined)[] =>
    made.filter(({ axis }) => axis === of).map(({ way }) => way);
  const isStraight = made.every(({ way }) => way === undefined);
  return {
    seams: {
      upright: stands('upright'),
      level: stands('level'),
      ...(!isStraight && { ways: { upright: along('upright'), level: along('level') } }),
    },
    sum: {
      panels: panelsOf(start.from),
      ink: made.reduce((sum, { cost }) => sum + cost.ink, 0),
      crossings: made.reduce((sum, { cost }) => sum + cost.crossings, 0),
    },
  };
}

/** How far each seam may wander: neighbours share what panels have to spare, so that none grows too wide. */
function corridorsOf(seams: readonly number[], box: Bounds, axis: Axis, widths: Widths): Corridor[] {
  const [begin, end] = spanOf(box, axis);
  const [from, to] = spanOf(box, otherAxis(axis));
  const spare = (i: number): number => {
    const width = (seams[i] ?? end) - (seams[i - 1] ?? begin);
    const most = i === 0 ? widths.first : i === seams.length ? widths.last : widths.between;
    return Math.max(0, most - width);
  };
  /** Towards a neighbouring seam both may go, towards the art's edge one does. */
  const share = (i: number, isOuter: boolean): number => (isOuter ? 1 : 0.5) * spare(i);
  const room = (a: number, b: number, isOuter: boolean): number =>
    Math.max(0, isOuter ? b - a - APART : (b - a - APART) / 2);
  return seams.map((at, i) => {
    const [before, after] = [seams[i - 1] ?? begin, seams[i + 1] ?? end];
    const [isFirst, isLast] = [i === 0, i === seams.length - 1];
    // going forth widens the panel before it and narrows the one behind
    const forth = Math.min(share(i, isFirst), room(at, after, isLast), WIDEST);
    const back = Math.min(share(i + 1, isLast), room(before, at, isFirst), WIDEST);
    return { from, to, low: at - back, high: at + forth };
  });
}
