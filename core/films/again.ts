/** Spoilt pieces cut again, without the rest of their film. */
import { liesOn, piecesOf } from '../geometry/nesting';
import type { Region } from '../geometry/region';
import type { Spot } from '../geometry/spot';

/** Pieces of one film, each named by a place that lies on it, mm on the sign. */
export interface Again {
  readonly film: string;
  readonly at: readonly { readonly x: number; readonly y: number }[];
}

/** The piece of a region that a place lies on. */
export const pieceAt = (region: Region, at: Spot): Region | undefined =>
  piecesOf(region).find((piece) => liesOn(piece, at));
