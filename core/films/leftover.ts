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
  /** The roll ended with it, whatever is written down of it. */
  readonly isAtEnd?: boolean;
  /** mm that it was thought to be long enough for; missing: for what it took. */
  readonly needed?: number;
}

/** The shelf after a cut. */
export interface ShelfAfter {
  /** Offcuts among them, new ones at the end. */
  readonly rolls: readonly Roll[];
  readonly offcuts: readonly Roll[];
  /** mm along the film that left the shelf: of a sheet or an offcut all of it */
  readonly off: number;
  /** mm of that which were not on the shelf, as it was written down; less than nothing: so much was written down that was not there */
  readonly missing: number;
}

/**
 * What is on the shelf of the roll, sheets or offcut that a cut was planned on; undefined: none like it.
 * @param needed mm that it was thought to be long enough for
 */
export const leftOf = (stock: readonly Roll[], roll: Roll, needed = 0): Roll | undefined =>
  stock[placeIn(stock, roll, needed)];

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
  const at = placeIn(stock, used.roll, used.needed ?? used.length);
  const off = offOf(used.roll, used.length);
  const kept = stock.flatMap((roll, i) => (i === at ? lessUsed(roll, used) : [roll]));
  const there = at < 0 ? 0 : thereOf(stock[at], off, used.isAtEnd);
  const offcuts = restsOf(used)
    .filter((rest) => isKept(rest, least))
    .map(({ width, length }): Roll => ({ width, lengthLeft: length, sheets: 1, offcut: code() }));
  return { rolls: [...kept, ...offcuts], offcuts, off, missing: off - there };
}

/** mm along the film that a strip takes off the shelf: of a sheet or an offcut all of it. */
export const offOf = ({ sheets, lengthLeft }: Roll, length: number): number =>
  sheets === undefined ? length : lengthLeft;

/**
 * Which roll of the stock it was: of several of one width the one with as much left, then the first that is long enough, then
 * the longest; less than 0: there is none like it.
 * @param needed mm
 */
function placeIn(
  stock: readonly Roll[],
  { width, lengthLeft, sheets, offcut }: Roll,
  needed: number,
): number {
  const isAlike = (roll: Roll): boolean =>
    roll.width === width &&
    roll.offcut === offcut &&
    (roll.sheets === undefined) === (sheets === undefined) &&
    (sheets === undefined || roll.lengthLeft === lengthLeft);
  const alike = stock.filter(isAlike);
  const it =
    alike.find((roll) => roll.lengthLeft === lengthLeft) ??
    alike.find((roll) => roll.lengthLeft > 0 && roll.lengthLeft >= needed) ??
    alike.toSorted((a, b) => b.lengthLeft - a.lengthLeft).at(0);
  return it ? stock.indexOf(it) : -1;
}

function lessUsed(roll: Roll, { length, isAtEnd }: FilmUsed): Roll[] {
  if (roll.offcut !== undefined) return [];
  const left = isAtEnd ? 0 : Math.max(0, roll.lengthLeft - length);
  if (roll.sheets === undefined) return [{ ...roll, lengthLeft: left }];
  return [{ ...roll, sheets: Math.max(0, roll.sheets - 1) }];
}

/** mm of what was taken that was there; of a roll at its end all of it was taken. */
function thereOf({ lengthLeft, sheets }: Roll, off: number, isAtEnd = false): number {
  if (sheets !== undefined) return sheets > 0 ? off : 0;
  return isAtEnd ? lengthLeft : Math.min(off, lengthLeft);
}

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
