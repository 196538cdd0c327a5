/** What of a film is left, what is wanted of it, and how much of it to order. */
import { csvText } from '../units/csvText';
import type { Film, Roll } from './film';
import { stockOf } from './film';

/** mm of a film that are wanted. */
export interface Wanted {
  /** By cuts in the queue. */
  readonly queued: number;
  /** By orders that are not in the queue yet. */
  readonly planned: number;
}

/** A film on the shelf against what is wanted of it, mm. */
export interface Balance extends Wanted {
  readonly film: Film;
  readonly left: number;
  /** On its way. */
  readonly coming: number;
  /** Of all that once all that is wanted is cut; less than nothing: it does not reach. */
  readonly leaves: number;
  /** Packs to order so that no less is left than is kept; 0: none. */
  readonly packs: number;
}

/** Films are ordered when less is left of them, mm (common practice, no source). */
const USUAL_LOW = 2000;
export const lowOf = ({ low }: Pick<Film, 'low'>): number => low ?? USUAL_LOW;

/** A roll as it is sold, mm along; sheets in a pack (common practice, no source). */
const [ROLL_LENGTH, PACK_SHEETS, ROLL_WIDTH] = [25_000, 50, 610];
/** As it is bought: said by the shop, or like what lies there. */
export function packOf({ pack, rolls }: Pick<Film, 'pack' | 'rolls'>): Roll {
  if (pack) return pack;
  const whole = rolls.find(({ offcut }) => offcut === undefined);
  if (whole?.sheets === undefined) return { width: whole?.width ?? ROLL_WIDTH, lengthLeft: ROLL_LENGTH };
  return { width: whole.width, lengthLeft: whole.lengthLeft, sheets: PACK_SHEETS };
}

/** What a film's stock comes to. A film that is put away is ordered only where it does not reach. */
export function balanceOf(film: Film, { queued, planned }: Wanted): Balance {
  const left = stockOf(film);
  const pack = stockOf({ rolls: [packOf(film)] });
  const coming = (film.coming ?? 0) * pack;
  const leaves = left + coming - queued - planned;
  const short = (film.putAway ? 0 : lowOf(film)) - leaves;
  return { film, queued, planned, left, coming, leaves, packs: short > 0 ? Math.ceil(short / pack) : 0 };
}

/** The shelf once all that is on its way has come. */
export const arrived = (film: Film): Pick<Film, 'rolls' | 'coming'> => {
  const pack = packOf(film);
  const packs = film.coming ?? 0;
  const came: Roll[] =
    pack.sheets === undefined
      ? Array.from({ length: packs }, () => pack)
      : [{ ...pack, sheets: pack.sheets * packs }];
  return { rolls: packs === 0 ? film.rolls : [...film.rolls, ...came], coming: 0 };
};

/** What is ordered as a table that any spreadsheet opens (RFC 4180). */
export function toOrderCsv(rows: readonly { readonly film: Film; readonly packs: number }[]): string {
  const fields = ['film', 'code', 'packs', 'width mm', 'length mm', 'sheets in a pack'];
  const data = rows.map(({ film, packs }) => {
    const { width, lengthLeft, sheets = '' } = packOf(film);
    return [film.name, film.code, packs, width, lengthLeft, sheets];
  });
  return csvText(fields, data);
}

const NOTHING: Wanted = { queued: 0, planned: 0 };
export const wantedOf = (wanted: ReadonlyMap<string, Wanted>, film: string): Wanted =>
  wanted.get(film) ?? NOTHING;
