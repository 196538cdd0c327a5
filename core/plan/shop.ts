import type { StaleCalibration } from '../calibration/stale';
import type { Film } from '../films/film';
import type { Cutter, Recipe } from '../layout/cutter';
import type { Printer } from '../print/choices';
import type { Sharing } from './sharing';

/** What the shop has. */
export interface Shop {
  readonly films: readonly Film[];
  readonly cutters: readonly Cutter[];
  /**
   * By `cutterId/filmId` for what is kiss cut, `cutterId/filmId/kind` for other kinds of line; a film without one takes
   * `cutterId/*`, a kind without one is made from the kiss cut's.
   */
  readonly recipes: Readonly<Record<string, Recipe>>;
  /** What is printed with; missing: the usual. */
  readonly printer?: Printer;
  /** Calibrations that are not to be relied on any more; missing: none. */
  readonly stale?: readonly StaleCalibration[];
  /** What the order that is planned shares with others; missing: nothing. */
  readonly sharing?: Sharing;
}
