/**
 * What a cut's own record says of it, line by line, however often it was broken off: which stroke is of which line, which
 * lines are not whole or cut twice, and what lies where nothing was to be cut, because film slipped or ended meanwhile.
 */
import type { Bounds } from '../geometry/bounds';
import { outset } from '../geometry/bounds';
import { largest } from '../geometry/lists';
import { lineLength, thereAndBack } from '../geometry/path';
import { nearestOnLine } from '../geometry/nearestOnLine';
import { ringBounds } from '../geometry/region';
import { createSegmentGrid } from '../geometry/segmentGrid';
import { tipPath } from './tractrix';

/** The tip's way from one lowering of the tool to its lifting. */
export interface Stroke {
  /** x0, y0, x1, y1 … mm, on the strip as its film was put in */
  readonly points: ArrayLike<number>;
  /** Which of the cut's films it lies on, from 0. */
  readonly film: number;
}

/** A line as it was to be cut. */
export interface PlannedLine {
  /** The holder's way, x0, y0, x1, y1 … mm on the strip. */
  readonly points: ArrayLike<number>;
  /** mm by which the tip trails. */
  readonly bladeOffset: number;
  /** It only turns the blade: nobody minds how much of it is cut. */
  readonly turns: boolean;
}

/** Some of a stroke. */
export interface StrokePart {
  /** mm on the strip as it was laid out, whichever film it lies on. */
  readonly points: Float64Array;
  /** From 0; −1: it lies on no line, or on film that ended before its line was whole. */
  readonly line: number;
  /** Its stroke, from 0. */
  readonly stroke: number;
}

/** Film that was put in for the rest of a cut. */
export interface NewFilm {
  /** The first line that was cut on it, from 1. */
  readonly line: number;
  /** mm by which what is on it lies nearer to the start than it was laid out. */
  readonly along: number;
}

export interface AsCut {
  readonly parts: readonly StrokePart[];
  /** mm that lie on no line, or on film that ended before their line was whole. */
  readonly elsewhere: number;
  /** Lines of which some is cut twice, and lines that are not whole, from 0. */
  readonly twice: readonly number[];
  readonly missing: readonly number[];
}

/** mm: what lies further off is on no line. Corners found by the eye are let put a line half a millimetre off, as is expected of it. */
const NEAR = 1;
/** mm: what lies no further off is on its line beyond doubt. */
const ON = 0.05;
/** Of a line's length, and mm, that may be cut too much or too little: a blade that begins anew swings into its way. */
const SLACK = { share: 0.03, mm: 1 };
/** Places of a stroke that are looked at to tell whose it is. */
const LOOKS = 16;
/** Of these, so many lie on its line. */
const MOST_OF_IT = 0.8;
/** mm between places of a line’s way: about a blade offset, for where the blade turns. */
const STEP = 0.25;

/**
 * Finds the line of every stroke of a cut's record.
 * @param films what was put in while it was cut; film may have been put in anew beside that
 */
export function asCut(
  strokes: readonly Stroke[],
  lines: readonly PlannedLine[],
  films: readonly NewFilm[] = [],
): AsCut {
  const ways = waysOf(lines);
  const isWhole = strokes.length === lines.length && strokes.every(({ film }) => film === 0);
  const parts = isWhole
    ? strokes.map(({ points }, i): StrokePart => ({ points: Float64Array.from(points), line: i, stroke: i }))
    : onOneFilm(partsOf(strokes, ways, films), strokes, lines.length);
  const cut = new Float64Array(lines.length);
  let elsewhere = 0;
  for (const { line, points } of parts) {
    if (line < 0) elsewhere += lengthOf(points);
    else cut[line] += lengthOf(points);
  }
  const counts = lines.flatMap(({ turns }, i) => (turns ? [] : [i]));
  const off = (i: number): number => (cut[i] - ways[i].length) / slackOf(ways[i].length);
  return {
    parts,
    elsewhere,
    twice: counts.filter((i) => off(i) > 1),
    missing: counts.filter((i) => off(i) < -1),
  };
}

const slackOf = (length: number): number => Math.max(SLACK.mm, SLACK.share * length);
const lengthOf = (points: Float64Array): number => lineLength({ points, closed: false });

interface Way {
  readonly points: Float64Array;
  readonly length: number;
  /** What is near it lies in here. */
  readonly box: Bounds;
}

/** Where the tip goes when all is cut in one go. */
function waysOf(lines: readonly PlannedLine[]): readonly Way[] {
  let angle = 0;
  return lines.map(({ points: holder, bladeOffset }) => {
    const { points, angle: then } = tipPath(holder, bladeOffset, angle, STEP);
    if (bladeOffset > 0) angle = then;
    return { points, length: lengthOf(points), box: outset(ringBounds(points), NEAR) };
  });
}

/** Where the lines are, for any place. */
interface Lines {
  /** The line that lies next to a place, −1: none within {@link NEAR}. */
  readonly next: (x: number, y: number) => number;
  readonly isOn: (line: number, x: number, y: number) => boolean;
  /** mm */
  readonly distance: (line: number, x: number, y: number) => number;
  readonly startOf: (line: number) => readonly [number, number];
}

function linesAt(ways: readonly Way[]): Lines {
  const grid = createSegmentGrid(
    ways.map(({ points }) => thereAndBack(points)),
    2 * NEAR,
  );
  const lineOf = ways.flatMap(({ points }, i) => Array<number>(points.length).fill(i));
  const distance: Lines['distance'] = (line, x, y) =>
    nearestOnLine(ways[line].points, false, [x, y]).distance;
  const isOn: Lines['isOn'] = (line, x, y) => {
    const { box } = ways[line];
    const isInBox = x >= box.minX && x <= box.maxX && y >= box.minY && y <= box.maxY;
    return isInBox && distance(line, x, y) <= NEAR;
  };
  return {
    next: (x, y) => {
      const near = grid.nearest(x, y, NEAR);
      return near ? lineOf[near.segment] : -1;
    },
    isOn,
    distance,
    startOf: (line) => [ways[line].points[0], ways[line].points[1]],
  };
}

/** Every stroke, in parts that lie on its line and parts that do not. */
function partsOf(
  strokes: readonly Stroke[],
  ways: readonly Way[],
  films: readonly NewFilm[],
): readonly StrokePart[] {
  const lines = linesAt(ways);
  const moved = laidOut(strokes, lines, films);
  const cut = new Float64Array(ways.length);
  let last = 0;
  return moved.flatMap((points, stroke) => {
    const line = lineOf(points, lines, ways, cut, last);
    const parts = line < 0 ? [{ points, line }] : split(points, line, lines);
    for (const part of parts) if (part.line >= 0) cut[line] += lengthOf(part.points);
    if (line >= 0) last = line;
    return parts.map((part) => ({ ...part, stroke }));
  });
}

/** Strokes where they were laid out. */
function laidOut(strokes: readonly Stroke[], lines: Lines, films: readonly NewFilm[]): Float64Array[] {
  // the first one lies where it was laid out
  const by = new Map([[0, 0]]);
  for (const { film } of strokes) {
    if (by.has(film)) continue;
    const own = strokes.filter((stroke) => stroke.film === film).map(({ points }) => points);
    by.set(film, alongOf(own, lines, films));
  }
  return strokes.map(({ points, film }) => {
    const along = by.get(film)!;
    return Float64Array.from(points, (v, i) => (i % 2 === 0 ? v + along : v));
  });
}

/** mm that puts what is on a film onto lines: it begins with the line that it was put in for, or most of it lies on some. */
function alongOf(
  strokes: readonly ArrayLike<number>[],
  { next, startOf }: Lines,
  films: readonly NewFilm[],
): number {
  // before it the blade may have been turned
  const first = strokes.slice(0, 2);
  const begun = films.findLast(({ line, along }) => {
    const [x, y] = startOf(line - 1);
    return first.some((points) => Math.hypot(points[0] + along - x, points[1] - y) <= NEAR);
  });
  if (begun) return begun.along;
  const looks = strokes.flatMap(looked);
  const onLines = (by: number): number => looks.filter(([x, y]) => next(x + by, y) >= 0).length;
  return [0, ...films.map(({ along }) => along)].reduce((a, b) => (onLines(b) > onLines(a) ? b : a));
}

/** Some places of a line, evenly. */
function looked(points: ArrayLike<number>): [number, number][] {
  const all = points.length / 2;
  const count = Math.min(all, LOOKS);
  return Array.from({ length: count }, (_, k) => {
    const i = count > 1 ? Math.round((k * (all - 1)) / (count - 1)) : 0;
    return [points[2 * i], points[2 * i + 1]];
  });
}

/**
 * The line that a stroke is of; it begins on it. Lines are cut in their order, and those that lie on one another are told apart
 * by it: the last one goes on, or the next begins; only behind a break it may be any.
 */
function lineOf(
  points: Float64Array,
  { next, isOn }: Lines,
  ways: readonly Way[],
  cut: Float64Array,
  last: number,
): number {
  const looks = looked(points);
  const length = lengthOf(points);
  const [[x0, y0]] = looks;
  const toGo = (line: number): number => ways[line].length - cut[line];
  const isFull = (line: number): boolean => toGo(line) <= slackOf(ways[line].length);
  const share = (line: number): number => looks.filter(([x, y]) => isOn(line, x, y)).length / looks.length;
  const isRest = (line: number): boolean => Math.abs(toGo(line) - length) <= slackOf(ways[line].length);
  const inOrder = [last, last + 1].filter(
    (line) => line < ways.length && !isFull(line) && share(line) >= MOST_OF_IT,
  );
  const follows = inOrder.find(isRest) ?? inOrder[0];
  if (follows !== undefined) return follows;
  const nearby = new Set(looks.map(([x, y]) => next(x, y)));
  // what crosses a line that is whole does so by chance
  const isLikely = (line: number): boolean => !isFull(line) || share(line) >= MOST_OF_IT;
  const rank = (line: number): number => share(line) - (isFull(line) ? 1 : 0);
  return [...nearby, last, last + 1]
    .filter((line) => line >= 0 && line < ways.length && isOn(line, x0, y0) && isLikely(line))
    .reduce((a, b) => (a < 0 || rank(b) > rank(a) ? b : a), -1);
}

/** A stroke up to where it leaves its line, and what is behind: where that crosses lines, it does so by chance. */
function split(points: Float64Array, line: number, lines: Lines): Omit<StrokePart, 'stroke'>[] {
  const { next, isOn } = lines;
  for (let i = 0; i < points.length; i += 2) {
    const [x, y] = [points[i], points[i + 1]];
    if (next(x, y) === line || isOn(line, x, y)) continue;
    const at = leavesAt(points, i, line, lines);
    return [
      { points: points.slice(0, at), line },
      { points: points.slice(Math.max(0, at - 2)), line: -1 },
    ];
  }
  return [{ points, line }];
}

/** Where a stroke that is off its line at a place began to leave it: up to there it came no further away. */
function leavesAt(points: Float64Array, off: number, line: number, { distance }: Lines): number {
  const from = (i: number): number => distance(line, points[i], points[i + 1]);
  let at = off;
  for (let far = from(at); at >= 2; at -= 2) {
    const before = from(at - 2);
    if (before >= far || far <= ON) break;
    far = before;
  }
  return at;
}

/** A line is whole on one film: what is on others of it was left on a film that ended. */
function onOneFilm(
  parts: readonly StrokePart[],
  strokes: readonly Stroke[],
  lines: number,
): readonly StrokePart[] {
  const newest = largest(
    strokes.map(({ film }) => film),
    0,
  );
  if (newest === 0) return parts;
  const films = newest + 1;
  const cut = new Float64Array(lines * films);
  for (const { line, stroke, points } of parts)
    if (line >= 0) cut[line * films + strokes[stroke].film] += lengthOf(points);
  const filmOf = Array.from({ length: lines }, (_, line) => {
    const own = cut.subarray(line * films, (line + 1) * films);
    return own.indexOf(largest(own));
  });
  return parts.map((part) =>
    part.line >= 0 && filmOf[part.line] !== strokes[part.stroke].film ? { ...part, line: -1 } : part,
  );
}
