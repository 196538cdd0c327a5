/** What a film can be cut from, as choices of a list: picks by their keys. */
import type { Film } from '../../../../core/films/film';
import type { RollPick } from '../../../../core/layout/strip';
import { onShelf } from '../../../parts/onShelf';
import type { useUnits } from '../../../stores/units';

export const LEAST_FILM = 'least';

/** A pick as the key of a list; the same pick has the same key. */
export const pickKey = (pick: RollPick | undefined): string =>
  pick === undefined ? LEAST_FILM : JSON.stringify(pick);

export const pickOf = (key: string): RollPick | undefined =>
  key === LEAST_FILM ? undefined : (JSON.parse(key) as RollPick);

type Units = Pick<ReturnType<typeof useUnits>, 'length' | 'number' | 'run'>;

/** All that lies on the shelf of a film, and what was taken over from a cutter. */
export function picksOf({ rolls }: Film, picked: RollPick | undefined, units: Units) {
  const own = rolls.map((roll) => ({
    value: pickKey(roll.offcut ?? roll.width),
    label: onShelf(roll, units),
  }));
  const loaded =
    typeof picked === 'object'
      ? [
          {
            value: pickKey(picked),
            label: `as loaded, ${onShelf({ width: picked.width, lengthLeft: picked.length }, units)}`,
          },
        ]
      : [];
  return [{ value: LEAST_FILM, label: 'which takes least' }, ...own, ...loaded];
}
