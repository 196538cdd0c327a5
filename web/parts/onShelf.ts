import type { Roll } from '../../core/films/film';
import type { useUnits } from '../stores/units';

/** A roll, or a pile of sheets, by its size and what is left of it. */
export const onShelf = (
  { width, lengthLeft, sheets, offcut }: Roll,
  units: Pick<ReturnType<typeof useUnits>, 'length' | 'number' | 'run'>,
): string => {
  if (offcut !== undefined) return `${offcut} ${units.number(width)} × ${units.run(lengthLeft)}`;
  return sheets === undefined
    ? `${units.length(width)} × ${units.run(lengthLeft)}`
    : `${sheets} sheets ${units.number(width)} × ${units.length(lengthLeft)}`;
};
