/**
 * Swivel compensation. A drag knife's tip trails its holder by the blade offset d, like a trailer: on a straight
 * line the holder must be d ahead along the line, and at a corner it must swing on an arc of radius d about the tip
 * (the tractrix of an arc about the tip is the tip itself). Along a curve it goes d ahead of the tip on the curve's tangent, by
 * one point for each of the curve's: the tractrix of that way is the curve. For d = 0 (a pen) the path is the outline.
 */
import { append, largest } from '../geometry/lists';
import type { Ring } from '../geometry/region';
import type { Spot } from '../geometry/spot';
import type { Heading } from './dragged';
import { dragged } from './dragged';

export interface HolderPath {
  /** x0, y0, x1, y1 … of the holder, mm; the knife is down all along. */
  readonly points: Float64Array;
  /** Where the tip shall be when the holder is at each point. */
  readonly tips: Float64Array;
  /** Of the curve that the tip goes along as the holder comes to each point, mm; what is straight, and a swing, has no end to it. */
  readonly radii: Float64Array;
  /** Heading when the knife is lifted. */
  readonly heading: Heading;
}

/** A turn by more is a corner, degrees. */
export const USUAL_CORNER = 30;
/** Cosine of the turn from which on there is a corner. */
export const cornerCosine = (degrees = USUAL_CORNER): number => Math.cos((degrees * Math.PI) / 180);
/** How far a curve may lie from a chord of its, mm: a little more than curves are straightened by. */
const BULGE = 0.016;

/** How far the tip may come to lie beside a point of a curve, mm. */
const ASIDE = 0.012;

/** How far a swing's straight steps may lie from their arc, mm. */
const SWING_TOLERANCE = 0.004;

/** A stroke this many blade offsets long turns the blade from any rest into the way it is dragged. */
const TURNING_OFFSETS = 12;

/** A stroke along the film that turns the blade into its way. @param lead mm of film before the cut */
export const turningStroke = ([x, y]: Spot, offset: number, lead: number): number[] => [
  x,
  y,
  x + Math.min(TURNING_OFFSETS * offset, lead - 1),
  y,
];

/**
 * The holder's way round a closed outline.
 * @param ring outline in mm, from its first point on
 * @param offset blade offset d in mm, 0 for a pen
 * @param overcut mm cut again past the start, so that the corner where the cut closes comes free
 * @param heading how the tip lies when the knife comes down: it is set down on the start point and swung round
 */
export function compensateRing(
  ring: Ring,
  offset: number,
  overcut: number,
  heading: Heading,
  {
    passes = 1,
    corner,
  }: HowLed & {
    /** Times that it goes round, without being lifted. */
    readonly passes?: number;
  } = {},
): HolderPath {
  const { line, lastOf } = closeWithOvercut(ring, overcut, passes);
  return compensate(line, offset, heading, { lastOf, corner });
}

interface HowLed {
  /** Degrees: a turn by more is a corner. */
  readonly corner?: number;
}

/** The same for an open line x0, y0, x1, y1 … */
export function compensate(
  line: ArrayLike<number>,
  offset: number,
  heading: Heading,
  {
    lastOf = 0,
    corner,
  }: HowLed & {
    /** mm that the chord is long of which the last one is a part */
    readonly lastOf?: number;
  } = {},
): HolderPath {
  const edges = edgesOf(line, lastOf);
  const cosine = cornerCosine(corner);
  const tangents = edges.slice(1).map((edge, i) => tangentBetween(edges[i], edge, cosine));
  for (;;) {
    const led = leadAlong(line, edges, tangents, offset, heading);
    // what was taken for a curve and is none drags the tip aside: there it swings
    const isRight = offset <= 0 || !turnedToCorners(led, tangents, offset, heading);
    if (isRight) return led;
  }
}

type Tangents = (Heading | undefined)[];
/** The way, and which of the line's points each of its points leads the tip to. */
interface Led extends HolderPath {
  readonly ends: readonly number[];
}

function leadAlong(
  line: ArrayLike<number>,
  edges: readonly Edge[],
  tangents: Tangents,
  offset: number,
  heading: Heading,
): Led {
  const out: number[] = [];
  const tips: number[] = [];
  const ends: number[] = [];
  const radii: number[] = [];
  let now = heading;
  const put = (x: number, y: number): void => {
    out.push(x + offset * now[0], y + offset * now[1]);
  };
  const tipAt = (x: number, y: number, end: number, radius = Infinity): void => {
    while (tips.length < out.length) {
      tips.push(x, y);
      ends.push(end);
      radii.push(radius);
    }
  };
  put(line[0], line[1]);
  tipAt(line[0], line[1], 0);
  edges.forEach((edge, i) => {
    const { x, y, toX, toY, along, length, whole } = edge;
    const [before, behind] = [i > 0 ? tangents[i - 1] : undefined, tangents[i]];
    // from a corner on it goes as the curve does that begins there, and so it comes to one
    const first = before ?? (behind ? mirrored(behind, along) : along);
    if (!before && offset > 0) swing(out, x, y, offset, now, first);
    tipAt(x, y, i);
    now = behind ?? (before ? turnedAlong(before, along, length / whole) : along);
    put(toX, toY);
    tipAt(toX, toY, i + 1, radiusOf(edge, before, behind));
  });
  return {
    points: Float64Array.from(out),
    tips: Float64Array.from(tips),
    radii: Float64Array.from(radii),
    heading: now,
    ends,
  };
}

/** Of the arc whose chord an edge is, by how much it turns away from the tangents at its ends. */
function radiusOf({ along, whole }: Edge, ...tangents: Tangents): number {
  const sines = tangents.map((tangent) =>
    tangent ? Math.abs(tangent[0] * along[1] - tangent[1] * along[0]) : 0,
  );
  return whole / (2 * largest(sines));
}

/** Takes away the tangents on both sides of where the tip comes to lie too far aside. @returns whether there were any */
function turnedToCorners(
  { points, tips, ends }: Led,
  tangents: Tangents,
  offset: number,
  heading: Heading,
): boolean {
  let [hx, hy] = heading;
  let found = false;
  for (let i = 2; i < points.length; i += 2) {
    [hx, hy] = dragged(hx, hy, points[i] - points[i - 2], points[i + 1] - points[i - 1], offset);
    const off = Math.hypot(points[i] - offset * hx - tips[i], points[i + 1] - offset * hy - tips[i + 1]);
    if (off <= ASIDE) continue;
    // an end lies between the edges before and behind it: the tangent there is one before in the list
    const end = ends[i / 2];
    for (const k of [end - 2, end - 1, end]) {
      if (tangents[k] === undefined) continue;
      tangents[k] = undefined;
      found = true;
    }
  }
  return found;
}

interface Edge {
  readonly x: number;
  readonly y: number;
  readonly toX: number;
  readonly toY: number;
  readonly along: Heading;
  readonly length: number;
  /** Of the chord that it is, or is a part of. */
  readonly whole: number;
}

function edgesOf(line: ArrayLike<number>, lastOf: number): Edge[] {
  const edges: Edge[] = [];
  for (let i = 0; i + 3 < line.length; i += 2) {
    const [x, y, toX, toY] = [line[i], line[i + 1], line[i + 2], line[i + 3]];
    const length = Math.hypot(toX - x, toY - y);
    const whole = i + 5 < line.length ? length : Math.max(length, lastOf);
    const along: Heading = [(toX - x) / length, (toY - y) / length];
    if (length > 0) edges.push({ x, y, toX, toY, along, length, whole });
  }
  return edges;
}

/** The tangent of a curve where two of its chords meet; undefined: they meet in a corner. */
function tangentBetween(a: Edge, b: Edge, corner: number): Heading | undefined {
  const cosine = a.along[0] * b.along[0] + a.along[1] * b.along[1];
  if (cosine < corner) return undefined;
  // an arc that turns by an angle bulges from its chord by an eighth of that angle times the chord
  const longest = (8 * BULGE) / Math.max(1e-9, Math.acos(Math.min(1, cosine)));
  if (Math.min(a.whole, b.whole) > longest) return undefined;
  // a straight line into a curve, or out of one: the line's own direction is the tangent
  if (a.whole > longest) return a.along;
  if (b.whole > longest) return b.along;
  // that of the circle through the three points: the shorter chord turns away from it less
  const [x, y] = [0, 1].map((k) => a.along[k] * b.whole + b.along[k] * a.whole);
  const length = Math.hypot(x, y);
  return [x / length, y / length];
}

/** The tangent at the other end of an arc's chord. */
function mirrored([x, y]: Heading, [ax, ay]: Heading): Heading {
  const along = 2 * (x * ax + y * ay);
  return [along * ax - x, along * ay - y];
}

/** The tangent after a share of an arc's chord. */
function turnedAlong(first: Heading, along: Heading, share: number): Heading {
  const last = mirrored(first, along);
  const [x, y] = [0, 1].map((k) => first[k] + share * (last[k] - first[k]));
  const length = Math.hypot(x, y);
  return [x / length, y / length];
}

/** Arc of radius d about the tip from one heading to another, the short way, in steps within tolerance. */
export function swing(out: number[], cx: number, cy: number, d: number, from: Heading, to: Heading): void {
  const angle = Math.atan2(from[0] * to[1] - from[1] * to[0], from[0] * to[0] + from[1] * to[1]);
  if (Math.abs(angle) < 1e-9) return;
  const largest = 2 * Math.acos(Math.max(0, 1 - SWING_TOLERANCE / d));
  const steps = Math.max(1, Math.ceil(Math.abs(angle) / largest));
  const start = Math.atan2(from[1], from[0]);
  for (let k = 1; k <= steps; k++) {
    const a = start + (angle * k) / steps;
    out.push(cx + d * Math.cos(a), cy + d * Math.sin(a));
  }
}

/** @returns the outline and what is cut again, and how long the edge is in which that ends */
function closeWithOvercut(
  ring: Ring,
  overcut: number,
  passes: number,
): { readonly line: number[]; readonly lastOf: number } {
  const line = Array.from(ring);
  for (let k = 1; k < passes; k++) append(line, ring);
  line.push(ring[0], ring[1]);
  let left = overcut;
  let lastOf = 0;
  for (let i = 0; left > 0 && i < ring.length; i += 2) {
    const to = (i + 2) % ring.length;
    const dx = ring[to] - ring[i];
    const dy = ring[to + 1] - ring[i + 1];
    const length = Math.hypot(dx, dy);
    const t = Math.min(1, left / Math.max(length, 1e-12));
    line.push(ring[i] + dx * t, ring[i + 1] + dy * t);
    left -= length;
    lastOf = length;
  }
  return { line, lastOf };
}
