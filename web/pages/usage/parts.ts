/** What film became, in the order and the colours in which it is shown. */
import type { Doing, FilmSums } from '../../../contracts/usage';
import { DOINGS } from '../../../contracts/usage';

const [PALE_DAMSON, PALE_BILBERRY] = ['damson', 'bilberry'].map(
  (ink) => `color-mix(in srgb, var(--${ink}) 34%, var(--card))`,
);
export const PARTS = [
  { key: 'kept', says: 'on signs', colour: 'var(--damson)' },
  { key: 'waste', says: 'weeded, leads and tails', colour: PALE_DAMSON },
  { key: 'spoilt', says: 'spoilt or cut again', colour: 'var(--currant)' },
  { key: 'tested', says: 'tests', colour: 'var(--bilberry)' },
] as const;
/** The same of a cutter's time. */
export const TIMES: Readonly<Record<Doing, { readonly says: string; readonly colour: string }>> = {
  cutting: { says: 'cutting', colour: 'var(--gooseberry)' },
  reading: { says: 'reading marks', colour: 'var(--bilberry)' },
  waiting: { says: 'waiting for film', colour: 'var(--quince)' },
  stopped: { says: 'stopped', colour: 'var(--currant)' },
  calibrating: { says: 'calibrating', colour: PALE_BILBERRY },
};
export const timeOf = (times: Readonly<Record<Doing, number>>): number =>
  DOINGS.reduce((sum, one) => sum + times[one], 0);
export type PartKey = (typeof PARTS)[number]['key'];

export const NO_FILM: FilmSums = { used: 0, kept: 0, spoilt: 0, tested: 0, cost: 0 };

/** mm of each; together what was used. */
export const partsOf = ({ used, kept, spoilt, tested }: FilmSums): Readonly<Record<PartKey, number>> => ({
  kept,
  waste: Math.max(0, used - kept - spoilt - tested),
  spoilt,
  tested,
});

/** Of what was used, how much is on signs. */
export const shareKept = ({ used, kept }: FilmSums): string =>
  used > 0 ? `${Math.round((100 * kept) / used)} %` : '–';
