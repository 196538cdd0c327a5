/** A cutter's record: how a new one begins, and what cannot be. */
import { formatLength } from '../units/length';
import type { Cutter, Recipe } from './cutter';
import { USUAL_RESERVE } from './cutter';

/** Sizes of an ordinary machine of each kind, mm (common practice, no source). */
const SIZES: Readonly<Record<Cutter['kind'], Pick<Cutter, 'widest' | 'narrowest' | 'trackLength'>>> = {
  roll: { widest: 1370, narrowest: 300, trackLength: 5000 },
  desk: { widest: 320, narrowest: 100, trackLength: 1500 },
  flatbed: { widest: 600, narrowest: 50, trackLength: 900 },
};
/** Held by rollers of half an inch at both edges of a roll (common practice, no source). */
const MARGINS: Readonly<Record<Cutter['kind'], Cutter['margins']>> = {
  roll: { far: 12.7, near: 12.7, lead: 10, tail: 10 },
  desk: { far: 8, near: 8, lead: 8, tail: 8 },
  flatbed: { far: 5, near: 5, lead: 8, tail: 5 },
};

/** A cutter as it begins: what most of its kind are like, to be corrected. Its force is set by hand until its record says that it is sent. */
export const newCutter = (id: string, name: string, kind: Cutter['kind']): Cutter => ({
  id,
  name,
  kind,
  ...SIZES[kind],
  margins: MARGINS[kind],
  reserve: kind === 'flatbed' ? 0 : USUAL_RESERVE,
  force: { least: 10, most: 300 },
  speed: { least: 5, most: 60 },
  ownSpeed: 20,
  motion: { acceleration: 4000, travelSpeed: 40, cornerTolerance: 0.03, down: 0.04, up: 0.04 },
  device: {
    step: 0.025,
    feedAxis: 'x',
    feedReversed: false,
    acrossReversed: false,
    sendsForce: false,
    sendsSpeed: true,
    pointsInDown: 20,
    bufferBytes: 1024,
  },
});

/** What a new cutter cuts every film with, until its own recipes are found: as it is set at the machine, with an ordinary blade (common practice, no source). */
export const FIRST_RECIPE: Recipe = {
  force: null,
  speed: null,
  blade: '45°',
  bladeOffset: 0.25,
  overcut: 0.6,
};

/** Why a record cannot be that of a machine; undefined: it can. */
export function cutterTrouble({
  widest,
  narrowest,
  margins,
  trackLength,
  force,
  speed,
  ownSpeed,
}: Cutter): string | undefined {
  const mm = (value: number): string => formatLength(value, 'mm');
  if (narrowest > widest)
    return `The narrowest film (${mm(narrowest)}) is wider than the widest (${mm(widest)}).`;
  if (margins.far + margins.near >= narrowest)
    return `Of the narrowest film (${mm(narrowest)}) the margins leave nothing: they take ${mm(margins.far + margins.near)}.`;
  if (margins.lead + margins.tail >= trackLength)
    return `Of the length (${mm(trackLength)}) the margins leave nothing: they take ${mm(margins.lead + margins.tail)}.`;
  if (force.least > force.most)
    return `The least force (${force.least} g) is above the most (${force.most} g).`;
  if (speed.least > speed.most)
    return `The least speed (${speed.least} cm/s) is above the most (${speed.most} cm/s).`;
  if (ownSpeed > speed.most)
    return `Its own speed (${ownSpeed} cm/s) is above its most (${speed.most} cm/s).`;
  return undefined;
}
