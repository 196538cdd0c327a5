import type { Bounds } from '../geometry/bounds';
import type { Region } from '../geometry/region';
import type { Inks } from './ink';
import { inkProfile } from './ink';

/** Art that is taken apart. */
export interface Ground {
  readonly box: Bounds;
  /** What is seen of it, film by film; each lies as its seams lie beside the common ones. */
  readonly regions: readonly Region[];
  /** Of all of them. */
  readonly ink: Inks;
  /** Boxes that seams spare where they can. */
  readonly kept: readonly Bounds[];
  /** Narrowest film that weeds, mm. */
  readonly narrowest: number;
  /** How far films' seams lie apart, the first from the last, mm. */
  readonly spread: number;
}

/** With the ink that seams go by. */
export const withInk = (art: Omit<Ground, 'ink'>): Ground => ({
  ...art,
  ink: { upright: inkProfile(art.regions, 'upright'), level: inkProfile(art.regions, 'level') },
});
