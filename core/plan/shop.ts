import type { Film } from '../films/film';
import type { Cutter, Recipe } from '../layout/cutter';

/** What the shop has. */
export interface Shop {
  readonly films: readonly Film[];
  readonly cutters: readonly Cutter[];
  /**
   * By `cutterId/filmId` for what is kiss cut, `cutterId/filmId/kind` for other kinds of line; a film without one takes
   * `cutterId/*`, a kind without one is made from the kiss cut's.
   */
  readonly recipes: Readonly<Record<string, Recipe>>;
}
