/** A sheet's cut moved to where the sheet lies. */
import type { Spot } from '../geometry/spot';
import type { Steps } from '../layout/cutter';
import type { CutProgram } from './program';
import { ontoGrid } from './machineSteps';

/** A way may bend: mm from one point to the next at the most. */
const LONGEST = 5;

/**
 * Moves every place of a program to where the sheet's marks say that it lies. Straight stretches are taken in short ones, since
 * a bowed sheet bends them.
 * @param map from where it was designed to where it lies, mm in the cutter
 * @param steps mm of the cutter's own grid
 */
export function ontoSheet<Program extends Pick<CutProgram, 'lines' | 'doneAt'>>(
  program: Program,
  map: (at: Spot) => Spot,
  steps: Steps,
): Program {
  const kept = program.lines.flatMap((line, i) => {
    const way = moved(line.points, map);
    const { points, kept: whose } = ontoGrid(way.points, steps);
    // what is shorter than a step is no line any more
    if (points.length < 4) return [];
    const speeds = line.speeds && whose.subarray(1).map((place) => way.moves[place - 1]);
    return [
      {
        line: {
          ...line,
          points,
          ...(speeds && { speeds: Float64Array.from(speeds, (move) => line.speeds![move]) }),
        },
        doneAt: program.doneAt[i],
      },
    ];
  });
  return {
    ...program,
    lines: kept.map(({ line }) => line),
    doneAt: Float64Array.from(kept, ({ doneAt }) => doneAt),
  };
}

/** Its places, and of which of the line's moves each of theirs is a part. */
function moved(
  points: Float64Array,
  map: (at: Spot) => Spot,
): { readonly points: Float64Array; readonly moves: readonly number[] } {
  const out: number[] = [...map([points[0], points[1]])];
  const moves: number[] = [];
  for (let i = 2; i < points.length; i += 2) {
    const [fx, fy, tx, ty] = [points[i - 2], points[i - 1], points[i], points[i + 1]];
    const parts = Math.max(1, Math.ceil(Math.hypot(tx - fx, ty - fy) / LONGEST));
    for (let k = 1; k <= parts; k++) {
      const [x, y] = map([fx + ((tx - fx) * k) / parts, fy + ((ty - fy) * k) / parts]);
      out.push(x, y);
      moves.push(i / 2 - 1);
    }
  }
  return { points: Float64Array.from(out), moves };
}
