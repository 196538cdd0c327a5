/**
 * Where a cutter left a cut whose feeder went away: lines were sent and nobody heard whether they were cut. A cutter
 * finishes what it has, so its head stands where the cut goes on.
 */
import type { Standing } from '../../core/devicelang/answers';
import type { UnitPoint } from '../../core/devicelang/lineText';
import { inStretches, opened, restOf } from '../../core/devicelang/lineText';
import type { SentProgram } from '../work/makeCuts';

/** The first line that is not wholly cut, and its point from which it is not; point 0: all of it is to be cut. */
export interface Place {
  readonly line: number;
  readonly point: number;
}

/** Where the head stood before a run sent anything, and from where that run went on. */
export type Start = UnitPoint & Place;

/**
 * Finds the place from where the head stands.
 * @param program its lines, and the tail that takes the head away behind the last
 * @param from lines that are surely cut
 * @param to lines that may have been sent
 * @param before where the last run began, when that is known: a head that still stands there has cut nothing since
 * @returns undefined when the head stands nowhere on these lines, or at more than one place of them
 */
export function placeOf(
  { lines, tail, turn }: Pick<SentProgram, 'lines' | 'tail' | 'turn'>,
  from: number,
  to: number,
  head: Standing,
  before: Start | null,
): Place | undefined {
  const isHere = (point: UnitPoint | undefined): boolean =>
    point !== undefined && point.x === head.x && point.y === head.y;
  if (before?.line === from && before.point > 0 && isHere(before)) return { line: from, point: before.point };
  const ends: Place[] = [];
  const inside: Place[] = [];
  const paused: Place[] = [];
  const startsAt = from > 0 ? opened(lines[from - 1]).points.at(-1) : undefined;
  const isTurned = turn?.before === from && opened(turn.text).points.some(isHere);
  if (isTurned || isHere(startsAt) || (before?.line === from && isHere(before)))
    ends.push({ line: from, point: 0 });
  for (let line = from; line < to; line++) {
    const { points } = opened(lines[line]);
    const pauses = pausesOf(lines[line], before?.line === line ? before.point : 0);
    points.forEach((point, k) => {
      if (!isHere(point)) return;
      if (k === points.length - 1) ends.push({ line: line + 1, point: 0 });
      else inside.push({ line, point: k });
      if (pauses.has(k)) paused.push({ line, point: k });
    });
  }
  if (to === lines.length && isHere(opened(tail).points.at(-1))) ends.push({ line: to, point: 0 });
  // up: a line is finished; where it is none's end, somebody has lifted the knife on the way
  if (!head.down) return only(ends) ?? (ends.length === 0 ? only(inside) : undefined);
  // down: the sender died between two stretches of a line
  return only(paused) ?? (paused.length === 0 ? only([...inside, ...ends]) : undefined);
}

/** Points of a line, begun at one of them, behind which its next stretch is waited for with the knife down. */
function pausesOf(line: string, begun: number): ReadonlySet<number> {
  const pauses = new Set<number>();
  let point = begun - 1;
  const stretches = inStretches(restOf(line, begun));
  for (const text of stretches.slice(0, -1)) pauses.add((point += opened(text).points.length));
  return pauses;
}

const only = (places: readonly Place[]): Place | undefined => (places.length === 1 ? places[0] : undefined);
