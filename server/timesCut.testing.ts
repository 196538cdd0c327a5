/** How often each line of a cut lies on film, by what a machine recorded: reckoned apart from what As cut says of it. */
import type { Drawing } from '../contracts/cuts';
import type { Bounds } from '../core/geometry/bounds';
import { emptyBounds, growBounds, outset } from '../core/geometry/bounds';
import { largest } from '../core/geometry/lists';
import { lineLength } from '../core/geometry/path';
import type { CutStroke } from '../cutter-sim/machine';

/** mm from a stroke's start to its end. */
export const lengthOf = (points: readonly number[]): number =>
  lineLength({ points: Float64Array.from(points), closed: false });

/** mm: what lies further off its line is spoilt: cut while the film was elsewhere, or the swing of a blade that began anew */
export const NEAR = 0.45;
/** The same of film whose place was found by two corners: lines far from them may be expected half a millimetre off. */
export const FOUND = 1.2;
export type Stroke = Pick<CutStroke, 'points' | 'film'>;
/** How often each line is on a film by its length, the film on which it is most; the tip goes about as far as the holder. */
export function timesCut(
  strokes: readonly Stroke[],
  drawing: Pick<Drawing, 'lines' | 'parts'>,
  near = NEAR,
): number[] {
  return drawing.lines.map((line, i) => {
    // the stroke that turns the blade is in the waste, and drags its tip a shorter way
    if (drawing.parts[i] === 'align') return 1;
    const [box, way] = [outset(growBounds(emptyBounds(), line), 1), lengthOf(line)];
    const own = strokes.filter(({ points }) => {
      const [x, y] = middleOf(points);
      return isIn(box, x, y) && sampled(points).every(([px, py]) => isNear(line, px, py, near));
    });
    const films = new Map<number, number>();
    for (const { film, points } of own) films.set(film, (films.get(film) ?? 0) + lengthOf(points));
    return largest(films.values(), 0) / way;
  });
}
/** Some dozens of its places, evenly. */
const sampled = (points: readonly number[]): [number, number][] => {
  const all = points.length / 2;
  const step = Math.max(1, Math.floor(all / SAMPLES));
  return Array.from({ length: Math.ceil(all / step) }, (_, k) => [
    points[2 * k * step],
    points[2 * k * step + 1],
  ]);
};
const SAMPLES = 60;
const isIn = ({ minX, maxX, minY, maxY }: Bounds, x: number, y: number): boolean =>
  x >= minX && x <= maxX && y >= minY && y <= maxY;
const middleOf = (points: readonly number[]): [number, number] => {
  const k = 2 * Math.floor(points.length / 4);
  return [points[k], points[k + 1]];
};
function isNear(line: readonly number[], x: number, y: number, near: number): boolean {
  for (let i = 2; i < line.length; i += 2) {
    const [ax, ay, bx, by] = [line[i - 2], line[i - 1], line[i], line[i + 1]];
    const [dx, dy] = [bx - ax, by - ay];
    const t = Math.max(0, Math.min(1, ((x - ax) * dx + (y - ay) * dy) / (dx * dx + dy * dy || 1)));
    if (Math.hypot(x - ax - t * dx, y - ay - t * dy) <= near) return true;
  }
  return false;
}
