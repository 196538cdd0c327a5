import type { Cell, CellLook, CutAs } from '../../../core/calibration/grid';

/** How a cell looks, in words. */
const LOOK_NAMES: Readonly<Record<CellLook, string>> = {
  clean: 'clean',
  'into-backing': 'into the backing',
  'not-through': 'not through',
};
/** The same of perforated cells: what counts is how they tear. */
const TEAR_NAMES: Readonly<Record<CellLook, string>> = {
  clean: 'tears along it',
  'into-backing': 'falls apart',
  'not-through': 'does not tear',
};
/** How a cell is cut beside its force. */
export const cutAsText = ({ speed, dashes }: CutAs): string =>
  dashes ? `with dashes of ${dashes[0]} mm and gaps of ${dashes[1]} mm` : `at ${speed} cm/s`;
export const looksOf = (cells: readonly Cell[]): Readonly<Record<CellLook, string>> =>
  cells[0]?.dashes ? TEAR_NAMES : LOOK_NAMES;
