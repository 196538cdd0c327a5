import { append } from '../../geometry/lists';
import type { Path } from '../../geometry/path';

/** The parser packs paths as numbers: 0 move, 1 line, 2 cubic, 3 quadratic, 4 close, each followed by its points. */
export function unpackPath(data: readonly number[]): Path {
  let ops = '';
  const xy: number[] = [];
  for (let i = 0; i < data.length;) {
    const code = data[i++];
    if (code === 4) {
      ops += 'Z';
      continue;
    }
    const takes = code === 2 ? 6 : code === 3 ? 4 : 2;
    const points = data.slice(i, i + takes);
    i += takes;
    if (!points.every(Number.isFinite)) break;
    if (code === 3) {
      const [x0, y0, [x1, y1, x2, y2]] = [xy[xy.length - 2], xy[xy.length - 1], points];
      xy.push(
        x0 + (2 / 3) * (x1 - x0),
        y0 + (2 / 3) * (y1 - y0),
        x2 + (2 / 3) * (x1 - x2),
        y2 + (2 / 3) * (y1 - y2),
        x2,
        y2,
      );
      ops += 'C';
    } else {
      append(xy, points);
      ops += code === 0 ? 'M' : code === 1 ? 'L' : 'C';
    }
  }
  return { ops, xy };
}
