/** The order of a lane's cuts that has a person change films and knives the least, with nothing made late by it. */
import type { LaneCut, Loaded } from './lane';
import { swapSeconds, swapsBefore, timeline } from './lane';

/** So many are tried in every order, by dynamic programming over sets; more, by improving an order step by step. */
export const MOST_EXACT = 12;
/** Cuts that are put elsewhere together, at the most. */
const LONGEST_RUN = 12;

/** How good an order is: fewer late ones first, then less time spent on changes, then fewer cuts that changed places. */
export interface Worth {
  readonly late: number;
  /** s of changes */
  readonly changing: number;
  /** Pairs of cuts that stand the other way round than before. */
  readonly turned: number;
}

const isLess = (a: Worth, b: Worth): boolean =>
  a.late !== b.late
    ? a.late < b.late
    : a.changing !== b.changing
      ? a.changing < b.changing
      : a.turned < b.turned;

/**
 * What is in hand stays first, and what is on time as things stand is never made late. Up to {@link MOST_EXACT} cuts the answer is
 * the best there is (dynamic programming over sets, after M. Held and R. M. Karp, “A dynamic programming approach to sequencing
 * problems”, 1962, with the labels of each set and last cut kept where none is better in both lateness and changes).
 * @param cuts in their present order
 * @returns the same cuts in the order proposed: the present one where none is better
 */
export function fewestSwaps(cuts: readonly LaneCut[], loaded?: Loaded): readonly LaneCut[] {
  const begun = cuts.filter(({ isBegun }) => isBegun);
  const free = cuts.filter(({ isBegun }) => !isBegun);
  if (free.length < 2) return cuts;
  const inHand = begun.reduce((sum, { seconds }) => sum + seconds, 0);
  const lane: Lane = { cuts: free, loaded: begun.at(-1) ?? loaded, inHand, onTime: onTimeNow(cuts, loaded) };
  const order = free.length <= MOST_EXACT ? exact(lane) : improved(lane);
  return [...begun, ...order.map((i) => free[i])];
}

const onTimeNow = (cuts: readonly LaneCut[], loaded?: Loaded): ReadonlySet<number> =>
  new Set(
    timeline(cuts, loaded)
      .filter(({ isLate }) => !isLate)
      .map(({ cut }) => cut.id),
  );

interface Lane {
  readonly cuts: readonly LaneCut[];
  readonly loaded: Loaded | undefined;
  /** s that what was begun still takes */
  readonly inHand: number;
  /** Ids of those that are on time as things stand. */
  readonly onTime: ReadonlySet<number>;
}

/** A way to a set of cuts with one of them last. */
interface Label extends Worth {
  readonly last: number;
  readonly before: Label | undefined;
}

/** s that changes take before each cut, behind each other one; the last row: behind what is loaded. */
const changes = ({ cuts, loaded }: Lane): readonly (readonly number[])[] =>
  [...cuts, loaded].map((before) => cuts.map((cut) => swapSeconds(swapsBefore(before, cut))));

function exact(lane: Lane): readonly number[] {
  const { cuts, inHand, onTime } = lane;
  const n = cuts.length;
  const between = changes(lane);
  const whole = 2 ** n - 1;
  /** By set, then by last cut. */
  const labels: Label[][][] = Array.from({ length: whole + 1 }, () => Array.from({ length: n }, () => []));
  const taken = new Float64Array(whole + 1);
  for (let set = 1; set <= whole; set++) {
    const first = Math.log2(set & -set);
    taken[set] = taken[set & (set - 1)] + cuts[first].seconds;
  }
  /** The cut `next` behind a label of a set; none when it would become late. */
  const extend = (set: number, label: Label | undefined, next: number): void => {
    const { id, due, seconds } = cuts[next];
    const changing = (label?.changing ?? 0) + between[label?.last ?? n][next];
    const isLate = due !== undefined && inHand + taken[set] + changing + seconds > due;
    if (isLate && onTime.has(id)) return;
    let turned = label?.turned ?? 0;
    for (let i = 0; i < next; i++) if (!(set & (1 << i))) turned++;
    const late = (label?.late ?? 0) + (isLate ? 1 : 0);
    keep(labels[set | (1 << next)][next], { late, changing, turned, last: next, before: label });
  };
  for (let next = 0; next < n; next++) extend(0, undefined, next);
  for (let set = 1; set < whole; set++)
    for (const at of labels[set])
      for (const label of at)
        for (let next = 0; next < n; next++) if (!(set & (1 << next))) extend(set, label, next);
  const ways = labels[whole].flat();
  const best = ways.reduce((a, b) => (isLess(b, a) ? b : a));
  const order: number[] = [];
  for (let label: Label | undefined = best; label; label = label.before) order.unshift(label.last);
  return order;
}

/** Keeps a label unless one that is there is as good in all that later cuts can tell. */
function keep(labels: Label[], one: Label): void {
  const isAsGood = (a: Worth, b: Worth): boolean =>
    a.late <= b.late &&
    a.changing <= b.changing &&
    (a.late < b.late || a.changing < b.changing || a.turned <= b.turned);
  if (labels.some((other) => isAsGood(other, one))) return;
  for (let i = labels.length - 1; i >= 0; i--) if (isAsGood(one, labels[i])) labels.splice(i, 1);
  labels.push(one);
}

/** What an order of a lane is worth; undefined: something that is on time would become late. */
function worthOf(
  { cuts, inHand, onTime }: Lane,
  between: readonly (readonly number[])[],
  order: readonly number[],
): Worth | undefined {
  let [now, late, changing, last] = [inHand, 0, 0, cuts.length];
  for (const i of order) {
    const { id, due, seconds } = cuts[i];
    changing += between[last][i];
    now += between[last][i] + seconds;
    if (due !== undefined && now > due) {
      if (onTime.has(id)) return undefined;
      late++;
    }
    last = i;
  }
  return {
    late,
    changing,
    // counted only where the rest is the same: it takes longer than all of that
    get turned() {
      return order.reduce((sum, i, place) => sum + order.slice(0, place).filter((k) => k > i).length, 0);
    },
  };
}

/** Runs of cuts are put elsewhere as long as that is better (Or-opt: I. Or, 1976), from several orders. */
function improved(lane: Lane): readonly number[] {
  const between = changes(lane);
  const now = lane.cuts.map((_, i) => i);
  const worth = (order: readonly number[]): Worth | undefined => worthOf(lane, between, order);
  const ends = starts(lane, now)
    .filter((order) => worth(order) !== undefined)
    .map((order) => descended(order, between, worth));
  return ends.reduce((a, b) => (isLess(worth(b)!, worth(a)!) ? b : a));
}

/** The present order, by due date, and film by film with those that are due first in front. */
function starts({ cuts }: Lane, now: readonly number[]): readonly (readonly number[])[] {
  const due = (i: number): number => cuts[i].due ?? Infinity;
  const earlier = (a: number, b: number): number => (due(a) === due(b) ? a - b : due(a) - due(b));
  const byDue = [...now].sort(earlier);
  const groups = new Map<string, number[]>();
  for (const i of byDue) {
    const alike = `${cuts[i].film} ${cuts[i].width} ${cuts[i].blade}`;
    groups.set(alike, [...(groups.get(alike) ?? []), i]);
  }
  return [now, byDue, [...groups.values()].flat()];
}

/** Tries until none of them is better, or until so many were made. */
function descended(
  start: readonly number[],
  between: readonly (readonly number[])[],
  worth: (order: readonly number[]) => Worth | undefined,
): readonly number[] {
  let order = start;
  let best = worth(start)!;
  let tries = MOST_TRIES;
  for (let isBetter = true; isBetter && tries > 0;) {
    isBetter = false;
    for (const move of movesOf(order.length)) {
      // with nothing late, only fewer changes or fewer cuts turned round are better
      if (best.late === 0 && changed(order, between, move) > 0) continue;
      if (--tries < 0) break;
      const other = moved(order, move);
      const found = worth(other);
      if (!found || !isLess(found, best)) continue;
      [order, best, isBetter] = [other, found, true];
    }
  }
  return order;
}
/** Of whole orders, in one descent: a lane of fifty is done in a second. */
const MOST_TRIES = 200_000;

/** Cuts from one place on, so many, put behind so many of the others. */
interface Move {
  readonly from: number;
  readonly length: number;
  readonly to: number;
}

function* movesOf(n: number): Generator<Move> {
  for (let from = 0; from < n; from++)
    for (let length = 1; length <= Math.min(LONGEST_RUN, n - from); length++)
      for (let to = 0; to <= n - length; to++) if (to !== from) yield { from, length, to };
}

const moved = (order: readonly number[], { from, length, to }: Move): readonly number[] => {
  const rest = [...order.slice(0, from), ...order.slice(from + length)];
  return [...rest.slice(0, to), ...order.slice(from, from + length), ...rest.slice(to)];
};

/** s by which a move makes changes longer. */
function changed(
  order: readonly number[],
  between: readonly (readonly number[])[],
  { from, length, to }: Move,
): number {
  const at = (place: number): number => order[place < from ? place : place + length];
  const step = (a: number | undefined, b: number | undefined): number =>
    b === undefined ? 0 : between[a ?? order.length][b];
  const [first, last] = [order[from], order[from + length - 1]];
  const gone = step(order[from - 1], first) + step(last, order[from + length]);
  const closed = step(order[from - 1], order[from + length]);
  const [before, behind] = [to > 0 ? at(to - 1) : undefined, at(to)];
  return closed - gone + step(before, first) + step(last, behind) - step(before, behind);
}
