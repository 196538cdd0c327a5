/** What is left of the film on the shelf once a strip has been cut from it. */
import type { Roll } from './film';

/** A rectangle of film, mm: its width lies across the cutter. */
export interface FilmSize {
  readonly width: number;
  readonly length: number;
}

/** What a strip took. */
export interface FilmUsed {
  readonly roll: Roll;
  /** mm of it along the film */
  readonly length: number;
  /** mm of its width beside what is cut, in one piece with no cut in it */
  readonly beside: number;
}

/** The shelf after a cut. */
export interface ShelfAfter {
  /** Offcuts among them, new ones at the end. */
  readonly rolls: readonly Roll[];
  readonly offcuts: readonly Roll[];
  /** mm along the film that left the shelf: of a sheet or an offcut all of it */
  readonly off: number;
  /** mm of that which were not on the shelf, as it was written down */
  readonly missing: number;
}

/**
 * Stock after a cut: a roll is so much shorter, a sheet or an offcut is gone, and what is left of them in one piece, if it
 * is large enough, comes back as an offcut with a code to write on it.
 * @param least smallest offcut that is kept, whichever way round
 * @param code for each new offcut
 */
export function stockAfter(
  stock: readonly Roll[],
  used: FilmUsed,
  least: FilmSize,
  code: () => string,
): ShelfAfter {
  const at = placeIn(stock, used.roll);
  const off = offOf(used.roll, used.length);
  const kept = stock.flatMap((roll, i) => (i === at ? lessUsed(roll, used) : [roll]));
  const there = at < 0 ? 0 : thereOf(stock[at], off);
  const offcuts = restsOf(used)
    .filter((rest) => isKept(rest, least))
    .map(({ width, length }): Roll => ({ width, lengthLeft: length, sheets: 1, offcut: code() }));
  return { rolls: [...kept, ...offcuts], offcuts, off, missing: off - there };
}

/** mm along the film that a strip takes off the shelf: of a sheet or an offcut all of it. */
export const offOf = ({ sheets, lengthLeft }: Roll, length: number): number =>
  sheets === undefined ? length : lengthLeft;

/** Which roll of the stock it was; of several of one width the one with as much left, then the first. */
function placeIn(stock: readonly Roll[], { width, lengthLeft, sheets, offcut }: Roll): number {
  const isAlike = (roll: Roll): boolean =>
    roll.width === width &&
    roll.offcut === offcut &&
    (roll.sheets === undefined) === (sheets === undefined) &&
    (sheets === undefined || roll.lengthLeft === lengthLeft);
  const exact = stock.findIndex((roll) => isAlike(roll) && roll.lengthLeft === lengthLeft);
  return exact >= 0 ? exact : stock.findIndex(isAlike);
}

function lessUsed(roll: Roll, { length }: FilmUsed): Roll[] {
  if (roll.offcut !== undefined) return [];
  if (roll.sheets === undefined) return [{ ...roll, lengthLeft: Math.max(0, roll.lengthLeft - length) }];
  return [{ ...roll, sheets: Math.max(0, roll.sheets - 1) }];
}

/** mm of what was taken that was there. */
const thereOf = ({ lengthLeft, sheets }: Roll, off: number): number =>
  sheets === undefined ? Math.min(off, lengthLeft) : sheets > 0 ? off : 0;

/** What a strip leaves in one piece: beside it, and of a sheet or an offcut behind it. */
function restsOf({ roll, length, beside }: FilmUsed): FilmSize[] {
  const behind = roll.sheets === undefined ? 0 : roll.lengthLeft - length;
  return [
    { width: beside, length },
    { width: roll.width, length: behind },
  ].map((rest) => ({ width: Math.floor(rest.width), length: Math.floor(rest.length) }));
}

const isKept = (rest: FilmSize, least: FilmSize): boolean =>
  (rest.width >= least.width && rest.length >= least.length) ||
  (rest.width >= least.length && rest.length >= least.width);
