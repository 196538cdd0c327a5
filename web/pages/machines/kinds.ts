import type { Cutter } from '../../../core/layout/cutter';

export const KIND_NAMES: Readonly<Record<Cutter['kind'], string>> = {
  roll: 'roll cutter',
  desk: 'desk cutter',
  flatbed: 'flatbed',
};
export const KINDS = (['roll', 'desk', 'flatbed'] as const).map((value) => ({
  value,
  label: KIND_NAMES[value],
}));
