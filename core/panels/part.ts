import type { LineKind } from '../artwork/choices';
import type { PreparedLine } from '../artwork/preparePiece';
import type { Film } from '../films/film';
import type { Bounds } from '../geometry/bounds';
import type { Polyline } from '../geometry/path';
import type { Region } from '../geometry/region';
import { PLAIN_STROKE, strokeOutline, weld } from '../geometry/region';

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
  /** Lines that are no part of the art, for whoever puts it up. */
  readonly waste: readonly WasteLine[];
  /** Of all. */
  readonly bounds: Bounds;
  /** mm² of art */
  readonly area: number;
  /** Of a film that is taken apart to be packed: in reading order, from 1. */
  readonly number?: number;
  /** Copies of it; missing: as many as of all. */
  readonly copies?: number;
  /** The number of the order that it is of; missing: of the one that is planned. */
  readonly order?: number;
}

/** All that is cut of a part, lines and what is written into its waste as strokes so wide, mm. */
export function solidOf({ region, lines, waste }: Part, width: number): Region {
  const drawn = [...lines, ...waste];
  return drawn.length === 0 ? region : weld([...region, ...strokeOutline(drawn, width, PLAIN_STROKE)]);
}

/** A seam key, or a stroke of a panel's number. */
export interface WasteLine extends Polyline {
  readonly what: 'key' | 'number';
  /** Without a second tool what is for the pen is cut. */
  readonly kind: LineKind & ('kiss' | 'pen');
}
