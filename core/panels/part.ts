import type { PreparedLine } from '../artwork/preparePiece';
import type { Film } from '../films/film';
import type { Bounds } from '../geometry/bounds';
import type { Region } from '../geometry/region';

/** What stays together on the film, face view. */
export interface Part {
  /** Made from what it is, so that it is the same in the next plan. */
  readonly id: string;
  readonly film: Film;
  /** What a person calls it. */
  readonly label: string;
  /** What is cut, layer marks with it. */
  readonly region: Region;
  /** Layer marks with their tabs, which the region holds too. */
  readonly marks: Region;
  /** Lines followed and not cut around. */
  readonly lines: readonly PreparedLine[];
  /** Of both. */
  readonly bounds: Bounds;
  /** mm² */
  readonly area: number;
  /** Copies of it; missing: as many as of all. */
  readonly copies?: number;
}
