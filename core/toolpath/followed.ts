/** Lines of a part that a tool follows, with what each tool that the cutter has is for. */
import type { LineKind } from '../artwork/choices';
import { mapped } from '../geometry/matrix';
import type { Polyline } from '../geometry/path';
import type { Placement } from '../layout/strip';
import type { Part } from '../panels/part';
import { toolsNeeded } from './kinds';

export interface Followed extends Polyline {
  readonly kind: LineKind;
  readonly part: 'art' | 'waste';
}

/**
 * Lines of the art, and keys and numbers in the waste. A kind that the cutter has no tool for is left out, and told;
 * what is written into the waste is cut then.
 * @param tools how many the cutter holds
 */
export const followedOn = ({ lines, waste }: Part, tools: number): Followed[] => [
  ...lines
    .filter(({ kind }) => toolsNeeded(kind) <= tools)
    .map(({ points, closed, kind }): Followed => ({ points, closed, kind, part: 'art' })),
  ...waste.map(({ points, closed, kind }): Followed => ({
    points,
    closed,
    kind: toolsNeeded(kind) <= tools ? kind : 'kiss',
    part: 'waste',
  })),
];

/** The same of all that lies on a strip, where it lies there. */
export const followedOnStrip = (
  placements: readonly Pick<Placement, 'part' | 'matrix'>[],
  tools: number,
): Followed[] =>
  placements.flatMap(({ part, matrix }) =>
    followedOn(part, tools).map((line) => ({ ...line, points: mapped(line.points, matrix) })),
  );
