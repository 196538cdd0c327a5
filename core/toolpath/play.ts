/** A cut before it is cut: where holder and tip are at every moment, what takes how long, and what is not as it was meant. */
import RBush from 'rbush';
import { DOUBLE_WITHIN, doubledStretches } from '../artwork/doubles';
import type { LineKind } from '../artwork/choices';
import type { Bounds } from '../geometry/bounds';
import { emptyBounds, growBounds, outset } from '../geometry/bounds';
import type { Part } from '../panels/part';
import type { Polyline } from '../geometry/path';
import { lineLength, segmentEnds } from '../geometry/path';
import { mapRegion, ringBounds } from '../geometry/region';
import type { Spot } from '../geometry/spot';
import type { Machine, Motion } from '../layout/cutter';
import type { Deviation } from '../swivel/deviation';
import { placesOff } from '../swivel/deviation';
import type { WeededStrip } from '../weeding/weeding';
import type { Heading } from './dragged';
import { dragged } from './dragged';
import { followedOnStrip } from './followed';
import type { CutLine, CutProgram } from './program';
import { lineMoments, moveReached, moveSeconds, paced, topSpeed } from './time';

/** What a line is, as a person tells them apart. */
export const PLAYED = ['kiss', 'through', 'perforated', 'crease', 'pen', 'weed', 'align'] as const;
export type Played = (typeof PLAYED)[number];

/** All lines of a program, one after the other, in arrays that move without being copied. */
export interface Play {
  /** Where the head is before it begins, mm on the strip. */
  readonly from: Spot;
  /** Where the holder and the tip are, x0, y0, x1, y1 … mm on the strip. */
  readonly holder: Float64Array;
  readonly tip: Float64Array;
  /** Seconds from the start at which each of these places is reached. */
  readonly moments: Float64Array;
  /** The first place of each line, and one past the last of all. */
  readonly starts: Uint32Array;
  /** What each line is: its place in {@link PLAYED}. */
  readonly kinds: Uint8Array;
  readonly motion: Motion;
  readonly seconds: number;
  readonly times: readonly PlayedTime[];
  /** Seconds with the knife up, and lifting and lowering it. */
  readonly travel: number;
  readonly lifts: number;
}

/** What lines of a kind come to. */
export interface PlayedTime {
  readonly kind: Played;
  readonly lines: number;
  /** mm and s with the tool down */
  readonly length: number;
  readonly seconds: number;
}

/** Sine of the angle by which a blade lies aside of its way before it is followed closely. */
const ALIGNED = 0.4;
/** Steps of a blade offset in which a blade is followed that turns. */
const TURNING_STEPS = 3;
/** Blade offsets after which any blade lies in its way. */
const TURNED_AFTER = 8;

/** Plays a program: its line times are those that {@link CutProgram.seconds} is the sum of. */
export function playOf(program: CutProgram, cutter: Pick<Machine, 'motion' | 'ownSpeed'>): Play {
  const motion = paced(cutter.motion);
  const lines = waysOf(program);
  const count = lines.reduce((sum, { tip }) => sum + tip.length / 2, 0);
  const play = {
    holder: new Float64Array(2 * count),
    tip: new Float64Array(2 * count),
    moments: new Float64Array(count),
    starts: new Uint32Array(lines.length + 1),
    kinds: new Uint8Array(lines.length),
  };
  const times = new Map<Played, { lines: number; length: number; seconds: number }>();
  let at = program.from;
  let place = 0;
  let travel = 0;
  lines.forEach(({ holder, tip, moves }, i) => {
    const line = program.lines[i];
    const { speeds } = line;
    const speed = speeds
      ? Float64Array.from(moves, (move) => speeds[move])
      : (program.recipes[line.kind].speed ?? cutter.ownSpeed);
    travel += moveSeconds(
      Math.hypot(holder[0] - at[0], holder[1] - at[1]),
      motion.travelSpeed * 10,
      motion.acceleration,
    );
    const moments = lineMoments(holder, topSpeed(speed, motion), motion.acceleration, motion.cornerTolerance);
    const down = moments[moments.length - 1];
    const begun = program.doneAt[i] - motion.up - down;
    const kind = playedAs(line);
    play.holder.set(holder, 2 * place);
    play.tip.set(tip, 2 * place);
    play.moments.set(
      moments.map((moment) => begun + moment),
      place,
    );
    play.starts[i] = place;
    play.kinds[i] = PLAYED.indexOf(kind);
    const sum = times.get(kind) ?? { lines: 0, length: 0, seconds: 0 };
    times.set(kind, {
      lines: sum.lines + 1,
      length: sum.length + lineLength({ points: holder, closed: false }),
      seconds: sum.seconds + down,
    });
    place += moments.length;
    at = [holder[holder.length - 2], holder[holder.length - 1]];
  });
  play.starts[lines.length] = place;
  return {
    ...play,
    from: program.from,
    motion,
    seconds: program.seconds,
    times: PLAYED.flatMap((kind) => (times.has(kind) ? [{ kind, ...times.get(kind)! }] : [])),
    travel,
    lifts: lines.length * (motion.up + motion.down),
  };
}

function playedAs({ part, kind }: CutLine): Played {
  if (part === 'align') return 'align';
  if (part === 'weed' || part === 'border') return 'weed';
  return kind === 'print' ? 'kiss' : kind;
}

interface Way {
  readonly holder: Float64Array;
  readonly tip: Float64Array;
  /** Of which of the line's moves each of these is a part. */
  readonly moves: readonly number[];
}

/** Each line's way, the blade followed from line to line as it lies when it is lifted. */
function waysOf({ lines, recipes }: CutProgram): Way[] {
  let heading: Heading = [1, 0];
  return lines.map(({ points, kind }) => {
    const d = recipes[kind].bladeOffset;
    if (d <= 0)
      return {
        holder: points,
        tip: points,
        moves: Array.from({ length: points.length / 2 - 1 }, (_, i) => i),
      };
    const way = trailed(points, d, heading);
    heading = way.heading;
    return way;
  });
}

/** The tip under a holder, with places put in where the blade is turning. */
function trailed(points: Float64Array, d: number, from: Heading): Way & { readonly heading: Heading } {
  let heading = from;
  const holder: number[] = [points[0], points[1]];
  const tip: number[] = [points[0] - d * heading[0], points[1] - d * heading[1]];
  const moves: number[] = [];
  for (let i = 2; i < points.length; i += 2) {
    const [x, y] = [points[i - 2], points[i - 1]];
    const [dx, dy] = [points[i] - x, points[i + 1] - y];
    const s = Math.hypot(dx, dy);
    if (s === 0) continue;
    const aside = Math.abs(heading[0] * dy - heading[1] * dx) / s;
    const turning = aside > ALIGNED ? Math.min(s, TURNED_AFTER * d) : 0;
    const steps = Math.max(1, Math.ceil((turning * TURNING_STEPS) / d));
    for (let k = 1; k <= steps; k++) {
      // small steps while it turns, and what is left at once
      const share = k === steps ? 1 : (k * turning) / (steps * s);
      const before = k === 1 ? 0 : ((k - 1) * turning) / (steps * s);
      heading = dragged(heading[0], heading[1], dx * (share - before), dy * (share - before), d);
      const [hx, hy] = [x + dx * share, y + dy * share];
      holder.push(hx, hy);
      tip.push(hx - d * heading[0], hy - d * heading[1]);
      moves.push(i / 2 - 1);
    }
  }
  return { holder: Float64Array.from(holder), tip: Float64Array.from(tip), moves, heading };
}

/** The head at one moment. */
export interface Head {
  readonly holder: Spot;
  readonly tip: Spot;
  readonly isDown: boolean;
  /** The line that it cuts or is on its way to. */
  readonly line: number;
  /** The last place that it has reached; −1: it has not been lowered yet. */
  readonly place: number;
}

/** @param seconds from the start */
export function headAt(play: Play, seconds: number): Head {
  const { holder, tip, moments, starts, motion } = play;
  const place = lastUpTo(moments, seconds);
  const line = lineOf(play, place);
  const spot = (xy: Float64Array, i: number): Spot => (i < 0 ? play.from : [xy[2 * i], xy[2 * i + 1]]);
  if (place >= 0 && place + 1 < starts[line + 1]) {
    const share = (seconds - moments[place]) / Math.max(1e-12, moments[place + 1] - moments[place]);
    const way = (xy: Float64Array): Spot => between(spot(xy, place), spot(xy, place + 1), share);
    return { holder: way(holder), tip: way(tip), isDown: true, line, place };
  }
  // lifted, under way, or being lowered
  const next = place + 1;
  if (next >= moments.length)
    return { holder: spot(holder, place), tip: spot(tip, place), isDown: false, line, place };
  const [from, to] = [spot(holder, place), spot(holder, next)];
  const lifted = place < 0 ? 0 : moments[place] + motion.up;
  const s = Math.hypot(to[0] - from[0], to[1] - from[1]);
  const [v, a] = [motion.travelSpeed * 10, motion.acceleration];
  const under = Math.min(Math.max(0, seconds - lifted), moveSeconds(s, v, a));
  const head = between(from, to, s > 0 ? moveReached(s, v, a, under) / s : 1);
  // lifted it keeps its way
  const [hx, hy] = [0, 1].map((k) => (place < 0 ? 0 : tip[2 * place + k] - holder[2 * place + k]));
  return {
    holder: head,
    tip: [head[0] + hx, head[1] + hy],
    isDown: false,
    line: place < 0 ? 0 : line + 1,
    place,
  };
}

/** The line that a place is of; before the first place: the first. */
export const lineOf = ({ starts }: Pick<Play, 'starts'>, place: number): number =>
  Math.max(0, lastUpTo(starts.subarray(0, -1), place));

const between = ([x0, y0]: Spot, [x1, y1]: Spot, share: number): Spot => [
  x0 + (x1 - x0) * share,
  y0 + (y1 - y0) * share,
];

/** Where the last one is that is not larger; −1: none. */
function lastUpTo(rising: ArrayLike<number>, value: number): number {
  let [low, high] = [0, rising.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if (rising[middle] <= value) low = middle + 1;
    else high = middle;
  }
  return low - 1;
}

/** How far a cut may lie from its drawing before that is told, mm. */
const OFF = 0.1;

/** What of a cut is not as it was meant. */
export interface Proof {
  /** mm that the tip lies off the drawing, at the most */
  readonly largest: number;
  /** mm: what is told as lying off */
  readonly limit: number;
  readonly off: readonly Deviation[];
}

/**
 * The tip's way beside the drawing: what is cut of the art and in the waste, and nothing of weed lines. Of copies that are
 * the same only the first is followed.
 */
export function proofOf(
  play: Play,
  { lines }: Pick<CutProgram, 'lines'>,
  strip: Pick<WeededStrip, 'placements'>,
  { tools = 1 }: Machine['device'],
): Proof {
  const copies = firstCopies(strip.placements);
  const placements = strip.placements.filter(({ copy }) => copies.has(copy));
  const cut = lines.flatMap(({ part, copy }, i) =>
    copies.has(copy) && (part === 'art' || part === 'waste')
      ? [play.tip.subarray(2 * play.starts[i], 2 * play.starts[i + 1])]
      : [],
  );
  const rings = placements.flatMap(({ part, matrix }) => mapRegion(part.region, matrix));
  const followed = followedOnStrip(placements, tools).map(({ points, closed, kind }) => ({
    points,
    closed,
    dashed: kind === 'perforated',
  }));
  const { places, largest } = placesOff(cut, rings, followed, OFF);
  return { largest, limit: OFF, off: places };
}

/** Copies on which a part is for the first time. */
function firstCopies(placements: WeededStrip['placements']): ReadonlySet<number> {
  const seen = new Set<Part>();
  return new Set(placements.flatMap(({ part, copy }) => (seen.has(part) ? [] : (seen.add(part), [copy]))));
}

/** Kinds that part film or weaken it: two of them on one another ruin it. */
const PARTING: readonly LineKind[] = ['kiss', 'through', 'perforated'];

/** Stretches that the knife goes over twice, mm on the strip: of art, what is in the waste, weed borders and weed lines. */
export function cutTwice(
  { placements, weeding }: Pick<WeededStrip, 'placements' | 'weeding'>,
  { tools = 1 }: Machine['device'],
): Float64Array[] {
  const others: Polyline[] = [
    ...followedOnStrip(placements, tools).filter(({ kind }) => PARTING.includes(kind)),
    ...weeding.borders.flat(),
    ...weeding.lines.flat(),
  ];
  const outlines = placements.flatMap(({ part, matrix }, placement) =>
    mapRegion(part.region, matrix).map((ring) => ({
      points: Float64Array.from(ring),
      closed: true,
      placement,
      ...outset(ringBounds(ring), DOUBLE_WITHIN),
    })),
  );
  // outlines of one part never lie on one another: those are looked at that come near anything else
  const near = new RBush<Bounds & { readonly placement: number }>();
  near.load(outlines);
  near.load(others.flatMap(boxesOf).map((box) => ({ ...box, placement: -1 })));
  const doubtful = outlines.filter((one) =>
    near.search(one).some(({ placement }) => placement !== one.placement),
  );
  return doubledStretches([...doubtful, ...others]);
}

/** The box of each of a line's segments. */
const boxesOf = ({ points, closed }: Polyline): Bounds[] =>
  Array.from({ length: points.length / 2 - (closed ? 0 : 1) }, (_, i) =>
    growBounds(emptyBounds(), segmentEnds(points, i)),
  );
