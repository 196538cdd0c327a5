import type { Film, Roll } from '../films/film';
import type { Bed } from './cutter';
import { startOf } from './roll';
import type { LyingChoices, Strip } from './strip';

/** mm from the far edge of the cuttable width to what lies on it. @param width of all of it, weed borders included */
export const topOf = (choices: LyingChoices, cuttable: number, width: number): number =>
  choices.place === 'middle' ? (cuttable - width) / 2 : startOf(choices).across;

/** A strip with what follows from what lies on it. @param before strips of the same film before it */
export function finishedStrip(
  film: Film,
  before: number,
  { roll, cuttable }: { readonly roll: Roll; readonly cuttable: number },
  { margins: { far, near } }: Bed,
  laid: Pick<Strip, 'mirrored' | 'turned' | 'placements' | 'length'>,
): Strip {
  const area = laid.length * roll.width;
  return {
    ...laid,
    id: before === 0 ? film.id : `${film.id}.${before + 1}`,
    film,
    roll,
    cuttable,
    edges: { far, near },
    area,
    used: laid.placements.reduce((sum, { part }) => sum + part.area, 0) / area,
  };
}
