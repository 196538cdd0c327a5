import type { Roll } from '../../core/films/film';
import type { useUnits } from '../stores/units';

/** A roll, or a pile of sheets, by its size and what is left of it. */
export const onShelf = (
  { width, lengthLeft, sheets }: Roll,
  units: Pick<ReturnType<typeof useUnits>, 'length' | 'number' | 'run'>,
): string =>
  sheets === undefined
    ? `${units.length(width)} × ${units.run(lengthLeft)}`
    : `${sheets} sheets ${units.number(width)} × ${units.length(lengthLeft)}`;
