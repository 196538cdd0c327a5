/**
 * Where a cutter left a cut whose feeder went away: lines were sent and nobody heard whether they were cut. A cutter
 * finishes what it has, so its head stands where the cut goes on.
 */
import type { Standing } from '../../core/devicelang/answers';
import type { UnitPoint } from '../../core/devicelang/lineText';
import { inStretches, opened, restOf } from '../../core/devicelang/lineText';
import type { HeadFrom } from '../db/schema';
import type { SentProgram } from '../work/makeCuts';

/** The first line that is not wholly cut, and its point from which it is not; point 0: all of it is to be cut. */
export interface Place {
  readonly line: number;
  readonly point: number;
}

/**
 * Where a cut goes on. Where nobody can tell, but all places at which the head may stand are on one line, its end among them, that
 * line is cut up to the last of them or hardly begun: rings end where they began.
 */
export interface Found {
  readonly place?: Place;
  readonly upTo?: Place;
}

/** Where the head stood before a run sent anything, and from where that run went on. */
export type Start = UnitPoint & Place & Pick<HeadFrom, 'mayBeLifted'>;

/**
 * Finds the place from where the head stands.
 * @param program its lines, and the tail that takes the head away behind the last
 * @param from lines that are surely cut
 * @param to lines that may have been sent
 * @param before where the last run began, when that is known: a head that still stands there has cut nothing since
 * @returns nothing when the head stands nowhere on these lines, or at places of several of them
 */
export function whereItStands(
  { lines, tail, turn }: Pick<SentProgram, 'lines' | 'tail' | 'turn'>,
  from: number,
  to: number,
  head: Standing,
  before: Start | null,
): Found {
  const isHere = (point: UnitPoint | undefined): boolean =>
    point !== undefined && point.x === head.x && point.y === head.y;
  /** The point of the first line at which the last run began; it has cut nothing since if the head stands where it stood. */
  const begun = before?.line === from ? before.point : 0;
  const stoodStill = before?.line === from && isHere(before);
  if (stoodStill && begun > 0 && !before.mayBeLifted) return { place: { line: from, point: begun } };
  const ends: Place[] = [];
  const inside: Place[] = [];
  const paused: Place[] = [];
  const startsAt = from > 0 ? opened(lines[from - 1]).points.at(-1) : undefined;
  const isTurned = turn?.before === from && opened(turn.text).points.some(isHere);
  if (stoodStill || (begun === 0 && (isTurned || isHere(startsAt)))) ends.push({ line: from, point: begun });
  for (let line = from; line < to; line++) {
    const { points } = opened(lines[line]);
    const first = line === from ? begun : 0;
    const pauses = pausesOf(lines[line], first);
    points.forEach((point, k) => {
      if (!isHere(point) || k < first) return;
      if (k === points.length - 1) ends.push({ line: line + 1, point: 0 });
      else inside.push({ line, point: k });
      if (pauses.has(k)) paused.push({ line, point: k });
    });
  }
  if (to === lines.length && isHere(opened(tail).points.at(-1))) ends.push({ line: to, point: 0 });
  // up: a line is finished; where it is none's end, somebody has lifted the knife on the way
  if (!head.down)
    return foundAmong(before?.mayBeLifted ? inOrder([...ends, ...inside]) : ends.length > 0 ? ends : inside);
  // down: the sender died between two stretches of a line
  return foundAmong(paused.length > 0 ? paused : inOrder([...ends, ...inside]));
}

/** Points of a line, begun at one of them, behind which its next stretch is waited for with the knife down. */
function pausesOf(line: string, begun: number): ReadonlySet<number> {
  const pauses = new Set<number>();
  let point = begun - 1;
  const stretches = inStretches(restOf(line, begun));
  for (const text of stretches.slice(0, -1)) pauses.add((point += opened(text).points.length));
  return pauses;
}

/** Each once, as they come along their lines. */
const inOrder = (places: readonly Place[]): readonly Place[] =>
  [...places]
    .sort((a, b) => a.line - b.line || a.point - b.point)
    .filter(({ line, point }, i, all) => line !== all[i - 1]?.line || point !== all[i - 1].point);

/** @param places in order along their lines */
function foundAmong(places: readonly Place[]): Found {
  const last = places.at(-1);
  if (!last) return {};
  if (places.length === 1) return { place: last };
  const inDoubt = lineUpTo(last);
  return places.every((place) => place === last || place.line === inDoubt) ? { upTo: last } : {};
}

/** The line, from 0, that ends there or goes on from there. */
export const lineUpTo = ({ line, point }: Place): number => (point > 0 ? line : line - 1);

/** What is kept of it, so that the head may be moved away. In doubt and not asked of anybody: rather not cut than cut twice. */
export function kept({ place, upTo }: Found, head: UnitPoint | undefined, linesSent: number) {
  const at = place ?? upTo;
  if (!at || !head) return { linesDone: linesSent, headFrom: null };
  const headFrom = { x: head.x, y: head.y, ...at, isKnown: true };
  return place
    ? { linesDone: at.line, headFrom }
    : { linesDone: lineUpTo(at), linesSent: lineUpTo(at) + 1, headFrom: { ...headFrom, isAsked: true } };
}
