import type { CellLook } from '../../../core/calibration/grid';

/** How a cell looks, in words. */
export const LOOK_NAMES: Readonly<Record<CellLook, string>> = {
  clean: 'clean',
  'into-backing': 'into the backing',
  'not-through': 'not through',
};
