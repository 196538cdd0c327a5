/** Straight seams that cut the least art, exactly. */
import type { Span } from './axis';
import type { InkProfile } from './ink';
import { costBehind, lastUpTo, valleys } from './ink';

/** What seams may be: no panel wider than this, mm, seam to seam; the last one up to the art's far edge. */
export interface Widths {
  readonly first: number;
  readonly between: number;
  readonly last: number;
}

/** Seams closer to one another than this are one, mm: a step of the geometry's grid. */
const STEP = 1e-3;
/**
 * Art first, outlines next, panels last: one whole number for all three, the art in tenths of a micrometre, so that sums
 * are exact and the lesser things settle ties and nothing else.
 */
const [ART, CROSSING, PANEL] = [1e6, 100, 1];
const ART_PER_MM = 1e4;
/** Seams beyond the fewest that are tried: more panels than that nobody would hang to save a cut. */
const MORE = 2;
/** Where whole shapes cannot all be spared: first as few of them as can be, then the art in tenths of a mm. */
const [WHOLE, ART_ROUGHLY] = [1e13, 1e4];
const ROUGHLY_PER_MM = 10;
/** Candidates looked at: ten metres of a hundred thousand points have fewer. */
const MOST_CANDIDATES = 1_500_000;

/**
 * Where to cut a span so that the seams cross the least art, ties by the fewest outlines and then the fewest panels.
 * At an optimum no seam gains by moving alone or together with those that full panels tie it to, so one of each such
 * chain stands in a valley of the ink, or the chain hangs at an end of the span: those positions are the candidates.
 * Over them a dynamic programme, seam by seam, each step a least value in a sliding window (Lemire 2006), is exact.
 * @param kept shapes that seams spare, by where they begin and end: none is crossed where that can be, else as few as can
 * @returns rising positions; empty when none is needed; undefined when no seams can do
 */
export function straightBest(
  profile: InkProfile,
  [from, to]: Span,
  widths: Widths,
  kept: readonly Span[] = [],
): number[] | undefined {
  if (to - from <= widths.last) return [];
  if (!(widths.first > STEP && widths.between > STEP && widths.last > STEP)) return undefined;
  const fewest = Math.max(1, 1 + Math.ceil((to - from - widths.first - widths.last) / widths.between - 1e-9));
  const most = fewest + MORE;
  const at = candidates(profile, [from, to], widths, most, kept.flat());
  const crossed = keptAt(at, kept);
  const chain = (cost: Float64Array): number[] | undefined => leastChain(at, cost, [from, to], widths, most);
  const costs = costsAt(profile, at);
  const sparing = chain(costs.map((cost, i) => (crossed[i] > 0 ? Infinity : cost)));
  const seams = sparing ?? (kept.length > 0 ? chain(roughly(costs, crossed)) : undefined);
  return seams && inGaps(profile, seams, [from, to], widths, kept);
}

/** How many of the kept shapes a seam at each of rising positions goes through. */
function keptAt(rising: Float64Array, kept: readonly Span[]): Float64Array {
  const begins = Float64Array.from(kept, ([x]) => x).sort();
  const ends = Float64Array.from(kept, ([, x]) => x).sort();
  let [begun, ended] = [0, 0];
  return rising.map((x) => {
    while (begun < begins.length && begins[begun] < x - STEP) begun++;
    while (ended < ends.length && ends[ended] <= x + STEP) ended++;
    return Math.max(0, begun - ended);
  });
}

const roughly = (costs: Float64Array, crossed: Float64Array): Float64Array =>
  costs.map((cost, i) => {
    const tenths = Math.round((Math.floor(cost / ART) / ART_PER_MM) * ROUGHLY_PER_MM);
    return WHOLE * crossed[i] + ART_ROUGHLY * tenths + (cost % ART);
  });

/** Seams that cross nothing stand in the middle of their gap, as far as their neighbours let them. */
function inGaps(
  profile: InkProfile,
  seams: readonly number[],
  [from, to]: Span,
  { first, between, last }: Widths,
  kept: readonly Span[],
): number[] {
  const placed: number[] = [];
  seams.forEach((x, i) => {
    const [low, high] = besideKept(x, gapAround(profile, x), kept);
    const next = seams[i + 1];
    const least = Math.max(low, next === undefined ? to - last : next - between);
    const most = Math.min(high, i === 0 ? from + first : placed[i - 1] + between);
    placed.push(low < high && least < most ? Math.round((least + most) / 2 / STEP) * STEP : x);
  });
  return placed;
}

/** As much of a gap as lies on this side of what is kept whole. */
function besideKept(x: number, [low, high]: Span, kept: readonly Span[]): Span {
  return kept.reduce<Span>(
    ([from, to], [begin, end]) => [
      x >= end - STEP ? Math.max(from, end) : from,
      x <= begin + STEP ? Math.min(to, begin) : to,
    ],
    [low, high],
  );
}

/** How far a line can move to both sides without meeting art; nowhere where it stands in art. */
function gapAround({ at, before, behind }: InkProfile, x: number): Span {
  const isFree = (k: number): boolean =>
    k >= 0 && k + 1 < at.length && behind[k] === 0 && before[k + 1] === 0;
  const i = lastUpTo(at, x);
  if (i < 0 || (at[i] !== x && !isFree(i))) return [x, x];
  let low = i;
  let high = at[i] === x ? i : i + 1;
  while (isFree(low - 1)) low--;
  while (isFree(high)) high++;
  return [at[low], at[high]];
}

/** Cost of a seam at each of rising positions. */
function costsAt(profile: InkProfile, rising: Float64Array): Float64Array {
  let near = -1;
  return rising.map((x) => {
    while (near + 1 < profile.at.length && profile.at[near + 1] <= x) near++;
    const { ink, crossings } = costBehind(profile, near, x);
    return ART * Math.round(ink * ART_PER_MM) + CROSSING * crossings + PANEL;
  });
}

/** Valleys, and what lies whole numbers of full panels from one or from an end of the span; rising. */
function candidates(
  profile: InkProfile,
  [from, to]: Span,
  { first, between, last }: Widths,
  most: number,
  more: readonly number[],
): Float64Array {
  const anchors = [...spare(valleys(profile), most), ...more];
  const found: number[] = [];
  const add = (x: number): void => {
    if (x > from + STEP && x < to - STEP) found.push(Math.round(x / STEP) * STEP);
  };
  for (const x of anchors) for (let k = -most; k <= most; k++) add(x + k * between);
  for (let k = 0; k <= most; k++) {
    add(from + first + k * between);
    add(to - last - k * between);
  }
  const rising = Float64Array.from(found).sort();
  return rising.filter((x, i) => i === 0 || x > rising[i - 1] + STEP / 2);
}

/** All valleys, or evenly as many as can be looked at: past this a drawing has one every few micrometres. */
function spare(all: Float64Array, most: number): Float64Array {
  const room = Math.floor(MOST_CANDIDATES / (2 * most + 1));
  if (all.length <= room) return all;
  const every = all.length / room;
  return Float64Array.from({ length: room }, (_, i) => all[Math.floor(i * every)]);
}

function leastChain(
  at: Float64Array,
  cost: Float64Array,
  [from, to]: Span,
  { first, between, last }: Widths,
  most: number,
): number[] | undefined {
  const n = at.length;
  const slack = STEP / 2;
  let sums: Float64Array = cost.map((c, i) => (at[i] - from <= first + slack ? c : Infinity));
  const back: Int32Array[] = [new Int32Array(n).fill(-1)];
  let best = { sum: Infinity, seam: -1, count: 0 };
  for (let count = 1; count <= most; count++) {
    for (let i = n - 1; i >= 0 && to - at[i] <= last + slack; i--)
      if (sums[i] < best.sum) best = { sum: sums[i], seam: i, count };
    const [next, came] = extended(at, cost, sums, between + slack);
    sums = next;
    back.push(came);
  }
  if (best.seam < 0) return undefined;
  const seams: number[] = [];
  for (let i = best.seam, count = best.count; i >= 0; count--) {
    seams.unshift(at[i]);
    i = back[count - 1][i];
  }
  return seams;
}

/** One seam more: each behind the cheapest before it that is not too far away. */
function extended(
  at: Float64Array,
  cost: Float64Array,
  sums: Float64Array,
  reach: number,
): [Float64Array, Int32Array] {
  const n = at.length;
  const next = new Float64Array(n).fill(Infinity);
  const came = new Int32Array(n).fill(-1);
  /** Candidates in reach, cheaper and cheaper the further back they would be taken from. */
  const window = new Int32Array(n);
  let [head, tail] = [0, 0];
  for (let i = 0; i < n; i++) {
    while (head < tail && at[i] - at[window[head]] > reach) head++;
    if (head < tail && sums[window[head]] < Infinity) {
      next[i] = sums[window[head]] + cost[i];
      came[i] = window[head];
    }
    while (head < tail && sums[window[tail - 1]] >= sums[i]) tail--;
    window[tail++] = i;
  }
  return [next, came];
}
