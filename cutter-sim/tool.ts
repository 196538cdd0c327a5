/** What a tool does to the film: where its point is, and how deep it goes. */
import { dragStraight } from '../core/swivel/tractrix';
import type { LoadedFilm, Spot, Tool } from './spec';

export type Depth = 'not-through' | 'clean' | 'into-backing' | 'through' | 'drawn' | 'creased';

/** A tool in its holder. */
export interface Point {
  /** Where the point touches while the holder is here. */
  readonly at: (holder: Spot) => Spot;
  /** The holder moves straight with the point on the film. */
  readonly drag: (from: Spot, to: Spot) => void;
  readonly depth: (force: number, film: LoadedFilm | undefined) => Depth;
}

/** g that ordinary film asks of a new blade. */
const ORDINARY_TOUGHNESS = 60;

export function createPoint(tool: Tool): Point {
  if (tool.kind === 'knife') return createBlade(tool.bladeOffset, tool.wear);
  const depth = tool.kind === 'pen' ? 'drawn' : 'creased';
  return { at: (holder) => holder, drag: () => {}, depth: () => depth };
}

/** A blade trails behind its holder and turns only while it is dragged. */
function createBlade(offset: number, wear: number): Point {
  let rod = 2.1; // the blade lies as it was left: nobody knows how
  return {
    at: ({ x, y }) => ({ x: x - offset * Math.cos(rod), y: y - offset * Math.sin(rod) }),
    drag: (from, to) => {
      if (offset > 0) rod = dragStraight(rod, from.x, from.y, to.x, to.y, offset);
    },
    // force against what the film asks of a blade this worn (common practice: a worn blade wants about three times)
    depth: (force, film) => {
      const needed = (film?.toughness ?? ORDINARY_TOUGHNESS) * (1 + 2 * wear);
      if (force < needed * 0.85) return 'not-through';
      if (force <= needed * 1.8) return 'clean';
      return force <= needed * 2.8 ? 'into-backing' : 'through';
    },
  };
}
