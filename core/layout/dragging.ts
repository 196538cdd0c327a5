/** A piece held over its film. */
import { areApart, isAcross, movedInside, posed } from '../packing/body';
import type { Lying } from '../packing/lying';
import type { OnFilm } from './onFilm';
import type { Item } from './shelves';
import type { PackedPiece } from './strip';
import { pieceName } from './strip';

/** Which piece of a film is held. */
export type HeldPiece = Pick<PackedPiece, 'part' | 'copy'>;

/** How a piece would lie. */
export interface Held {
  /** Pieces that it would be too close to. */
  readonly touches: readonly Pick<PackedPiece, 'part' | 'copy'>[];
  /** It lies within what the knife reaches. */
  readonly isInside: boolean;
  /** The same place, moved into what the knife reaches. */
  readonly inside: Lying;
}

/**
 * Takes a piece up: how it would lie anywhere on its strip.
 * @returns undefined: it is not there
 */
export function holdPiece(
  { batches, across, along, packing }: OnFilm,
  { part, copy }: HeldPiece,
): ((lying: Lying) => Held) | undefined {
  const isIt = (item: Item): boolean => pieceName(item.part.id, item.copy) === pieceName(part, copy);
  const batch = batches.find(({ items }) => items.some(isIt));
  if (!batch) return undefined;
  const held = batch.items.findIndex(isIt);
  const room = { across, spacing: packing.choices.between };
  const { items, bodies } = batch;
  const poses = batch.lying.map((one, i) => posed(bodies[i].outline, one));
  const { outline } = bodies[held];
  return (lying) => {
    const pose = posed(outline, lying);
    const { x, y } = movedInside(pose, room, along);
    const touches = items.flatMap((item, i) => {
      if (i === held || areApart(outline, pose, bodies[i].outline, poses[i], room)) return [];
      return [{ part: item.part.id, copy: item.copy }];
    });
    const isInside = isAcross(pose, room) && lying.x + pose.box.maxX <= along;
    return { touches, isInside, inside: { ...lying, x, y } };
  };
}
