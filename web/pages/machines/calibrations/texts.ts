/** Values of calibrations as people read them. */
import { daysBetween } from '../../../../core/calibration/stale';
import type { CalibrationKind } from '../../../../core/calibration/run';
import type { useUnits } from '../../../stores/units';

type Units = ReturnType<typeof useUnits>;

/** What each value of a run is called. */
export function valueNames(kind: CalibrationKind): readonly string[] {
  switch (kind) {
    case 'sensor-pen':
    case 'sensor-print':
      return ['along the film', 'across it'];
    case 'contrast':
      return ['marks are under', 'least difference'];
    case 'length':
      return ['moves'];
    case 'overcut-row':
      return ['overcut'];
    case 'force':
      return ['force'];
    default:
      return ['trails by'];
  }
}

/** Of all light that white throws back. */
const light = (share: number): string => `${(100 * share).toFixed(1)} %`;

/** A share of 1 as what it is off by. */
const percent = (share: number, digits: number): string =>
  `${share < 0 ? '−' : '+'}${Math.abs(100 * share).toFixed(digits)} %`;

export function valueText(kind: CalibrationKind, value: number, units: Units): string {
  if (kind === 'length') return percent(value - 1, 3);
  if (kind === 'contrast') return light(value);
  if (kind === 'force') return `${Math.round(value)} g`;
  return signed(value, kind, units);
}
const signed = (value: number, kind: CalibrationKind, units: Units): string =>
  `${kind.startsWith('sensor') && value < 0 ? '−' : ''}${units.length(Math.abs(value), true)}`;

/** How sure a value is. */
export function sureText(kind: CalibrationKind, sure: number, units: Units): string {
  if (kind === 'length') return `± ${(100 * sure).toFixed(3)} %`;
  if (kind === 'contrast') return `± ${light(sure)}`;
  return kind === 'force' ? `± ${Math.ceil(sure)} g` : `± ${units.length(Math.max(sure, 0.005), true)}`;
}

export const daysSince = (date: string, now = Date.now()): number => daysBetween(Date.parse(date), now);

export const shortDate = (date: string): string =>
  new Date(date).toLocaleDateString(undefined, { day: 'numeric', month: 'short' });
