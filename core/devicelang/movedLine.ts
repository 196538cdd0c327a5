/** A line's bytes for film that lies elsewhere than it was written for. */
import type { Matrix } from '../geometry/matrix';
import { mapped } from '../geometry/matrix';
import type { Axes } from '../layout/cutter';
import { toStrip, toUnits } from './axes';
import { opened, written } from './lineText';

/**
 * Moves and turns a line. Film slips by degrees: the blade begins a line turned by as little as the film is, and is in its way
 * after a fraction of its offset.
 * @param line as it was written for a strip that lies straight
 * @param cuttable width the knife reaches, mm
 */
export function movedLine(line: string, matrix: Matrix, axes: Axes, cuttable: number): string {
  const [onStrip, inUnits] = [toStrip(axes, cuttable), toUnits(axes, cuttable)];
  const { settings, points } = opened(line);
  return written({
    settings,
    points: points.map(({ x, y, ...rest }) => {
      const [mx, my] = mapped(onStrip(x, y), matrix);
      const [ux, uy] = inUnits(mx, my);
      return { x: ux, y: uy, ...rest };
    }),
  });
}
