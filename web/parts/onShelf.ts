/** Film on the shelf in words: what it is, and its size. */
import type { Roll } from '../../core/films/film';
import type { useUnits } from '../stores/units';

type Units = Pick<ReturnType<typeof useUnits>, 'length' | 'number' | 'run'>;

/** A roll, or a pile of sheets, by its size and what is left of it. */
export const onShelf = (roll: Roll, units: Units): string => {
  const { width, lengthLeft, sheets, offcut } = roll;
  if (offcut !== undefined) return `${offcut} ${sizeOf(roll, units)}`;
  return sheets === undefined
    ? `${units.length(width)} × ${units.run(lengthLeft)}`
    : `${sheets} sheets ${units.number(width)} × ${units.length(lengthLeft)}`;
};

export const sizeOf = ({ width, lengthLeft }: Roll, units: Pick<Units, 'number' | 'run'>): string =>
  `${units.number(width)} × ${units.run(lengthLeft)}`;

export function stockWord({ sheets, offcut }: Roll): string {
  if (offcut !== undefined) return `Offcut ${offcut}`;
  return sheets === undefined ? 'Roll' : `${sheets} sheets`;
}
