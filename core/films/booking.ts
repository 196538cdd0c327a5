/** Film as it is booked: every change of the shelf is written down, so that what was used adds up with what is left. */
import type { NewFilm } from '../swivel/asCut';
import type { Roll } from './film';
import { areaOf } from './film';

/**
 * `cut`: cut for an order; `again`: cut once more, because it was spoilt; `spoilt`: begun and left; `calibration`: for a
 * test; `counted`: by hand, with what came in.
 */
export const BOOKING_KINDS = ['cut', 'again', 'spoilt', 'calibration', 'counted'] as const;
export type BookingKind = (typeof BOOKING_KINDS)[number];

/** Film that a test was cut in, mm. */
export interface FilmTaken {
  readonly width: number;
  /** 0: none. */
  readonly length: number;
  /** A whole sheet, not some of a roll. */
  readonly isSheet: boolean;
}

/** Film of one width that left the shelf, mm. */
export interface Taken {
  readonly width: number;
  /** Along the film; less than nothing: so much came in. */
  readonly off: number;
  /** Offcuts of it that lie on the shelf now. */
  readonly back: readonly Roll[];
}

/** mm along a film of its width that are gone for good. */
export const usedOf = ({ width, off, back }: Taken): number => off - areaOf(back) / width;

/**
 * mm along the film that are on signs.
 * @param used mm that are gone for good
 * @param art mm² that stay on the backing when all else is weeded
 */
export const keptOf = (used: number, width: number, art: number): number =>
  Math.max(0, Math.min(used, art / width));

/** A cut whose film ended: the rest of it is cut from the start of new film. */
export interface OnNewFilm extends NewFilm {
  /** The same of film between the first and this, that ended too. */
  readonly earlier?: readonly NewFilm[];
}

/**
 * What of a cut comes from its last film, when the former ones are booked already: mm along, and mm² that are on signs,
 * shared out by how far the films go.
 */
export function lastPartOf({
  length,
  art,
  onNewFilm,
}: {
  readonly length: number;
  readonly art: number;
  readonly onNewFilm: OnNewFilm | null;
}): { readonly length: number; readonly art: number } {
  const rest = length - (onNewFilm?.along ?? 0);
  return { length: rest, art: length > 0 ? (art * rest) / length : 0 };
}

/** What somebody changed of the shelf, width by width; less than nothing: film came in. */
export function countedBy(before: readonly Roll[], after: readonly Roll[]): readonly Taken[] {
  const off = new Map<number, number>();
  const add = (rolls: readonly Roll[], sign: number): void => {
    for (const roll of rolls) off.set(roll.width, (off.get(roll.width) ?? 0) + sign * lengthOf(roll));
  };
  add(before, 1);
  add(after, -1);
  return [...off]
    .filter(([, mm]) => Math.abs(mm) > NOTHING)
    .map(([width, mm]): Taken => ({ width, off: mm, back: [] }));
}
/** Less than this is a sum's last digit, mm. */
const NOTHING = 1e-6;

const lengthOf = ({ lengthLeft, sheets = 1 }: Roll): number => lengthLeft * sheets;
