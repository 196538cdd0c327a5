/** What a tool does to the film: where its point is, and how deep it goes. */
import { dragStraight } from '../core/swivel/tractrix';
import type { LoadedFilm, Spot, Tool } from './spec';

export type Depth = 'not-through' | 'clean' | 'into-backing' | 'through' | 'drawn' | 'creased';

/** A tool in its holder. */
export interface Point {
  /** Where the point touches while the holder is here. */
  readonly at: (holder: Spot) => Spot;
  /** The holder moves straight with the point on the film. */
  readonly drag: (from: Spot, to: Spot, film?: LoadedFilm) => void;
  /** How worn it is now: 0 new, 1 done for. */
  readonly wear: () => number;
  /** @param speed cm/s */
  readonly depth: (force: number, speed: number, film: LoadedFilm | undefined) => Depth;
}

/** g that ordinary film asks of a new blade. */
const ORDINARY_TOUGHNESS = 60;
/** m of ordinary film after which a blade is done for; what is faster asks for so much more force (our own). */
const LIFE = 600;
const FASTER = 0.003;
/** cm/s that toughness is told for. */
const USUAL_SPEED = 20;

export function createPoint(tool: Tool): Point {
  if (tool.kind === 'knife') return createBlade(tool.bladeOffset, tool.wear);
  const depth = tool.kind === 'pen' ? 'drawn' : 'creased';
  return { at: (holder) => holder, drag: () => {}, depth: () => depth, wear: () => 0 };
}

/** A blade trails behind its holder and turns only while it is dragged. */
function createBlade(offset: number, wearAtFirst: number): Point {
  let wear = wearAtFirst;
  let rod = 2.1; // the blade lies as it was left: nobody knows how
  return {
    at: ({ x, y }) => ({ x: x - offset * Math.cos(rod), y: y - offset * Math.sin(rod) }),
    drag: (from, to, film) => {
      const metres = Math.hypot(to.x - from.x, to.y - from.y) / 1000;
      wear += (metres * ((film?.toughness ?? 0) / ORDINARY_TOUGHNESS)) / LIFE;
      if (offset > 0) rod = dragStraight(rod, from.x, from.y, to.x, to.y, offset);
    },
    // force against what the film asks of a blade this worn (common practice: a worn blade wants about three times)
    depth: (force, speed, film) => {
      const faster = 1 + FASTER * (speed - USUAL_SPEED);
      const needed = (film?.toughness ?? ORDINARY_TOUGHNESS) * (1 + 2 * wear) * faster;
      if (force < needed * 0.85) return 'not-through';
      if (force <= needed * 1.8) return 'clean';
      return force <= needed * 2.8 ? 'into-backing' : 'through';
    },
    wear: () => wear,
  };
}
