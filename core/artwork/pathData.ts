import type { Path } from '../geometry/path';

const NUMBER = /[-+]?(?:\d+\.?\d*|\.\d+)(?:[eE][-+]?\d+)?/g;
const TAKES: Readonly<Record<string, number>> = { M: 2, L: 2, C: 6, Q: 4, Z: 0 };

/**
 * Reads resolved path data: absolute M, L, C, Q and Z only. Quadratics are raised to cubics exactly.
 * Steps with coordinates that are not finite end the path there.
 */
export function parsePathData(d: string): Path {
  let ops = '';
  const xy: number[] = [];
  const step = /([MLCQZ])([^MLCQZ]*)/g;
  for (let m = step.exec(d); m; m = step.exec(d)) {
    const takes = TAKES[m[1]];
    if (takes === 0) {
      ops += 'Z';
      continue;
    }
    const numbers = (m[2].match(NUMBER) ?? []).map(Number);
    for (let i = 0; i + takes <= numbers.length; i += takes) {
      const values = numbers.slice(i, i + takes);
      if (!values.every(Number.isFinite)) return { ops, xy };
      if (m[1] === 'Q') {
        xy.push(...raise(xy[xy.length - 2], xy[xy.length - 1], values));
        ops += 'C';
      } else {
        for (const value of values) xy.push(value);
        ops += m[1] === 'M' && i > 0 ? 'L' : m[1];
      }
    }
  }
  return { ops, xy };
}

/** Degree elevation of a quadratic Bézier. */
function raise(x0: number, y0: number, [x1, y1, x2, y2]: readonly number[]): number[] {
  return [
    x0 + (2 / 3) * (x1 - x0),
    y0 + (2 / 3) * (y1 - y0),
    x2 + (2 / 3) * (x1 - x2),
    y2 + (2 / 3) * (y1 - y2),
    x2,
    y2,
  ];
}
