import type { Bounds } from '../geometry/bounds';
import { emptyBounds, growBounds, joinBounds } from '../geometry/bounds';
import type { WeededStrip } from './weeding';

/** Film next to a cut that is not counted as whole, mm: the holder swings past what it cuts. */
const SWING = 2;

/** mm of a strip's width, from one edge of the film on, that nothing is cut in: the wider of both sides. */
export function besideStrip({ placements, weeding, edges, roll }: WeededStrip): number {
  const lines = [...weeding.borders, ...weeding.lines].flat();
  const cut = lines.reduce(
    (all: Bounds, { points }) => growBounds(all, points),
    placements.reduce((all, { box }) => joinBounds(all, box), emptyBounds()),
  );
  const far = edges.far + cut.minY - SWING;
  const near = roll.width - edges.far - cut.maxY - SWING;
  return Math.max(0, far, near);
}
