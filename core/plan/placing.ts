/** Where pieces that were packed on the film sit on the sign. */
import type { Bounds } from '../geometry/bounds';
import { joinBounds } from '../geometry/bounds';
import type { Matrix } from '../geometry/matrix';
import { mapPoints } from '../geometry/matrix';
import { placeOn } from '../geometry/nesting';
import type { Region } from '../geometry/region';
import { mapRegion } from '../geometry/region';
import type { Spot } from '../geometry/spot';
import type { Placement } from '../layout/strip';
import type { Part } from '../panels/part';
import type { PlannedCut } from './planned';

/** A piece by the number that it has on the film and on the sign. */
export interface NumberedPiece {
  readonly number: number;
  /** A place on it, mm. */
  readonly at: Spot;
}

/** A strip with its pieces, as it is cut. */
export interface NumberedStrip {
  readonly length: number;
  readonly cuttable: number;
  readonly region: Region;
  /** What other orders have on it. */
  readonly others: Region;
  readonly pieces: readonly NumberedPiece[];
}

export interface Placing {
  /** Of all pieces on the sign. */
  readonly box: Bounds;
  /** Where each sits on the sign. */
  readonly sign: readonly NumberedPiece[];
  readonly strips: readonly NumberedStrip[];
}

/**
 * Pieces of a film numbered as they are cut; copies of one have its number. Undefined: it is not taken apart into pieces.
 * @param order whose pieces; missing: those of the planned order
 */
export function placingOf(cuts: readonly PlannedCut[], film: string, order?: number): Placing | undefined {
  const strips = cuts.flatMap(({ strip }) => (strip.film.id === film ? [strip] : []));
  const own = strips.flatMap(({ placements }) => placements.filter(({ part }) => part.order === order));
  const parts = new Set(own.map(({ part }) => part));
  const pieces = [...parts].filter(({ number }) => number !== undefined);
  if (pieces.length < 2) return undefined;
  const numbers = new Map(pieces.map((part, i) => [part, i + 1]));
  const places = new Map(pieces.map((part) => [part, placeOf(part)]));
  return {
    box: pieces.map(({ bounds }) => bounds).reduce(joinBounds),
    sign: pieces.map((part) => ({ number: numbers.get(part)!, at: places.get(part)! })),
    strips: strips.map(({ length, cuttable, placements }) => ({
      length,
      cuttable,
      region: cutOf(placements.filter(({ part }) => part.order === order)),
      others: cutOf(placements.filter(({ part }) => part.order !== order)),
      pieces: placements.flatMap(({ part, matrix }) => {
        const number = numbers.get(part);
        return number === undefined ? [] : [{ number, at: mapSpot(places.get(part)!, matrix) }];
      }),
    })),
  };
}

const cutOf = (placements: readonly Placement[]): Region =>
  placements.flatMap(({ part, matrix }) => mapRegion(part.region, matrix));

function placeOf({ region, bounds }: Part): Spot {
  if (region.length === 0) return middleOf(bounds);
  const { x, y } = placeOn(region);
  return [x, y];
}

const middleOf = ({ minX, minY, maxX, maxY }: Bounds): Spot => [(minX + maxX) / 2, (minY + maxY) / 2];

function mapSpot(spot: Spot, matrix: Matrix): Spot {
  const [x, y] = mapPoints(spot, matrix, [0, 0]);
  return [x, y];
}
