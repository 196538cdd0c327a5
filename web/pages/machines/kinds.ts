import type { Cutter } from '../../../core/layout/cutter';

export const KIND_NAMES: Readonly<Record<Cutter['kind'], string>> = {
  roll: 'roll cutter',
  desk: 'desk cutter',
  flatbed: 'flatbed',
};
