/** What a cutter makes of a roll or sheet: whether it takes it, and how much of it the knife reaches. */
import type { Film, Roll } from '../films/film';
import { own } from '../units/own';
import type { Bed } from './cutter';
import { cuttableWidth } from './cutter';
import { endOfStrip } from './layoutFindings';
import type { LyingChoices } from './strip';

/** Room kept at both edges of the cuttable width: the holder swings past the art by its blade offset, mm. */
export const SWING_ROOM = 0.5;

const isTaken = ({ width }: Roll, { narrowest, widest }: Bed): boolean =>
  width >= narrowest && width <= widest;

/**
 * The rolls and sheets of a film that a cutter takes: what was picked, when it is there. An offcut is taken only when it
 * was picked: somebody has to fetch it.
 */
export function rollsFor(film: Film, { rolls }: Pick<LyingChoices, 'rolls'>, cutter: Bed): readonly Roll[] {
  const pick = own(rolls, film.id);
  if (typeof pick === 'object') return [{ width: pick.width, lengthLeft: pick.length }];
  const fitting = film.rolls.filter((roll) => isTaken(roll, cutter));
  const picked = fitting.filter(({ width, offcut }) => (offcut ?? width) === pick);
  return picked.length > 0 ? picked : fitting.filter(({ offcut }) => offcut === undefined);
}

/** What is written on an offcut that was picked and is not there any more. */
export function missingOffcut(film: Film, { rolls }: Pick<LyingChoices, 'rolls'>): string | undefined {
  const pick = own(rolls, film.id);
  if (typeof pick !== 'string' || film.rolls.some(({ offcut }) => offcut === pick)) return undefined;
  return pick;
}

/** mm of weed border around all that is cut. */
export const rimOf = ({ border, borderDistance }: LyingChoices): number =>
  border === 'none' ? 0 : borderDistance;

/** The same around each of what is laid in rows, and around all of it, or all of an order's. */
export function rimsOf(choices: LyingChoices): { readonly rim: number; readonly around: number } {
  const distance = rimOf(choices);
  const isAround = choices.border === 'box' || choices.border === 'order';
  return isAround ? { rim: 0, around: distance } : { rim: distance, around: 0 };
}

/** mm kept free before what is cut: across, the least that the holder needs; along, nothing, unless it is placed by hand. */
export const startOf = ({ place, placeAt }: Pick<LyingChoices, 'place' | 'placeAt'>) =>
  place === 'at'
    ? { across: Math.max(SWING_ROOM, placeAt.y), along: placeAt.x }
    : { across: SWING_ROOM, along: 0 };

/** mm that the knife reaches on a roll, and what art may take of it across and along, weed border left out. */
export interface RollRoom {
  readonly cuttable: number;
  readonly across: number;
  readonly along: number;
}

/**
 * As long as film runs true there and is left; a rest that is shorter than it is wide does not count.
 */
export function roomOnRoll(film: Film, roll: Roll, choices: LyingChoices, cutter: Bed): RollRoom {
  const cuttable = cuttableWidth(cutter, roll.width);
  const rim = 2 * rimOf(choices);
  const { limit } = endOfStrip(film, roll, cutter);
  const run = roll.lengthLeft < roll.width ? limit : Math.min(limit, roll.lengthLeft);
  const { lead, tail } = cutter.margins;
  const start = startOf(choices);
  const across = cuttable - start.across - SWING_ROOM - rim;
  return { cuttable, across: Math.max(0, across), along: run - lead - tail - rim - start.along };
}
