import type { Polyline } from './path';
import { lineLength } from './path';

/** Past this many dashes a line is as good as whole, and the file is likely broken. */
const MOST_DASHES = 20_000;

/**
 * Cuts lines into dashes by arc length, as SVG strokes do (SVG 2, stroke-dasharray): pattern on, off, on …,
 * an odd pattern repeated, a closed line starting where it is drawn.
 * @param pattern mm; all nought means no dashes
 * @param start mm into the pattern at which the line begins
 */
export function dash(lines: readonly Polyline[], pattern: readonly number[], start: number): Polyline[] {
  const period = pattern.reduce((sum, d) => sum + d, 0) * (pattern.length % 2 ? 2 : 1);
  if (!(period > 0) || pattern.some((d) => d < 0)) return [...lines];
  const steps = pattern.length % 2 ? [...pattern, ...pattern] : pattern;
  if (lines.some((line) => lineLength(line) / period > MOST_DASHES)) return [...lines];
  return lines.flatMap((line) => dashOne(line, steps, ((start % period) + period) % period));
}

function dashOne(line: Polyline, steps: readonly number[], start: number): Polyline[] {
  const out: Polyline[] = [];
  let index = 0;
  let left = steps[0] - start;
  // a dash without length is a dot where it lies, also at the line's start
  while (left < 0 || (left === 0 && (steps[index] > 0 || index % 2 === 1))) {
    index = (index + 1) % steps.length;
    left += steps[index];
  }
  const { points, closed } = line;
  let run: number[] = index % 2 === 0 ? [points[0], points[1]] : [];
  const end = closed ? points.length + 2 : points.length;
  for (let i = 2; i < end; i += 2) {
    let x = points[i - 2];
    let y = points[i - 1];
    const toX = points[i % points.length];
    const toY = points[(i + 1) % points.length];
    let rest = Math.hypot(toX - x, toY - y);
    while (rest > left) {
      const t = left / rest;
      x += (toX - x) * t;
      y += (toY - y) * t;
      rest -= left;
      if (index % 2 === 0) {
        run.push(x, y);
        out.push({ points: Float64Array.from(run), closed: false });
        run = [];
      } else run = [x, y];
      index = (index + 1) % steps.length;
      left = steps[index];
    }
    left -= rest;
    if (index % 2 === 0) run.push(toX, toY);
  }
  if (run.length > 2) out.push({ points: Float64Array.from(run), closed: false });
  return out;
}
