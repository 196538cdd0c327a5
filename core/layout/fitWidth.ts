import { heightOf } from '../geometry/bounds';
import { smallest } from '../geometry/lists';
import { rimsOf, startOf, SWING_ROOM } from './roll';
import type { LyingChoices, Placement, Strip } from './strip';

/** What of a strip counts. */
interface LaidBoxes extends Pick<Strip, 'cuttable'> {
  readonly placements: readonly Pick<Placement, 'box'>[];
}

/**
 * By how much art has to be made larger or smaller to take the whole width that the knife reaches, weed borders and its
 * place kept: the film that has the least room says.
 * @param strips of films that are laid as one
 * @returns undefined: nothing is laid
 */
export function scaleToWidth(strips: readonly LaidBoxes[], choices: LyingChoices): number | undefined {
  const { rim, around } = rimsOf(choices);
  const scale = smallest(
    strips.flatMap(({ placements, cuttable }) =>
      placements.map(({ box }) => {
        const room = cuttable - startOf(choices).across - SWING_ROOM - 2 * (rim + around);
        // a border of its own is part of a placement's box
        return room / Math.max(heightOf(box) - 2 * rim, 1e-6);
      }),
    ),
  );
  return Number.isFinite(scale) && scale > 0 ? scale : undefined;
}
