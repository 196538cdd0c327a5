/**
 * Whether a boolean came out right, looked at along a few straight lines: what a line runs through of the result must be
 * what the rule says of the paths that went in. Linear in the points, beside a sweep a small share of its work.
 */
import type { GridPath } from './columns';

/** Whether a place lies in what is wanted, by how often subject and clip wind around it. */
export type Rule = (windingOfSubject: number, windingOfClip: number) => boolean;

/** Lines looked along. */
const LOOKS = 5;
/** How far rounding to the grid moves an edge, in grid steps: both its ends, each by half a step along both axes. */
const ROUNDING = 1.5;

/** Paths with how far each reaches, so that a line passes by those it does not meet. */
interface Reaching {
  readonly paths: readonly GridPath[];
  /** Lowest and highest y of each path in turn. */
  readonly reach: Float64Array;
}

interface Step {
  readonly x: number;
  /** 0: subject, 1: clip, 2: result */
  readonly of: number;
  readonly turn: number;
}

/** @returns grid steps along the lines where the result is not what it should be, less what rounding explains; 0: right */
export function errorOf(subject: GridPath[], clip: GridPath[], result: GridPath[], rule: Rule): number {
  const all = [subject, clip, result].map(reaching);
  let low = Infinity;
  let high = -Infinity;
  for (const y of all[0].reach) {
    if (y < low) low = y;
    if (y > high) high = y;
  }
  let error = 0;
  for (let k = 0; k < LOOKS; k++) {
    // half a step beside the grid: no point lies on such a line. Uneven shares, since drawings have even ones
    error += errorAlong(Math.floor(low + ((k + 0.309) / LOOKS) * (high - low)) + 0.5, all, rule);
  }
  return error;
}

function reaching(paths: readonly GridPath[]): Reaching {
  const reach = new Float64Array(2 * paths.length);
  paths.forEach((path, i) => {
    let low = Infinity;
    let high = -Infinity;
    for (let k = 0; k < path.length; k++) {
      const { y } = path[k];
      if (y < low) low = y;
      if (y > high) high = y;
    }
    reach[2 * i] = low;
    reach[2 * i + 1] = high;
  });
  return { paths, reach };
}

function errorAlong(y: number, all: readonly Reaching[], rule: Rule): number {
  const steps: Step[] = [];
  const slack = all.reduce((sum, one, of) => sum + cross(one, y, of, steps), 0);
  steps.sort((a, b) => a.x - b.x);
  const winding = [0, 0, 0];
  let wrong = 0;
  for (let i = 0; i + 1 < steps.length; i++) {
    winding[steps[i].of] += steps[i].turn;
    if (rule(winding[0], winding[1]) !== (winding[2] !== 0)) wrong += steps[i + 1].x - steps[i].x;
  }
  return Math.max(0, wrong - slack);
}

/** Adds where the paths cross a line. @returns how far rounding may have moved those places, in all */
function cross({ paths, reach }: Reaching, y: number, of: number, steps: Step[]): number {
  let slack = 0;
  paths.forEach((path, k) => {
    if (reach[2 * k] > y || reach[2 * k + 1] < y) return;
    const n = path.length;
    for (let i = 0, j = n - 1; i < n; j = i, i++) {
      const a = path[j];
      const b = path[i];
      if (a.y < y === b.y < y) continue;
      const slope = (b.x - a.x) / (b.y - a.y);
      steps.push({ x: a.x + (y - a.y) * slope, of, turn: a.y < b.y ? 1 : -1 });
      slack += ROUNDING * (1 + Math.abs(slope));
    }
  });
  return slack;
}
