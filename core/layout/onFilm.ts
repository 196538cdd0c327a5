/** Pieces of a film on the strips of one of its rolls. */
import type { Film, Roll } from '../films/film';
import type { Bounds } from '../geometry/bounds';
import { largest } from '../geometry/lists';
import type { Matrix } from '../geometry/matrix';
import { mapRegion } from '../geometry/region';
import type { Body } from '../packing/body';
import { squareOf } from '../packing/fill';
import type { Lying } from '../packing/lying';
import { cosOf, sinOf } from '../packing/lying';
import type { Outline } from '../packing/outline';
import { outlineOf, turnedBox } from '../packing/outline';
import type { Part } from '../panels/part';
import { solidOf } from '../panels/part';
import type { Bed } from './cutter';
import type { RollRoom } from './roll';
import { byOrder } from './shares';
import type { Item } from './shelves';
import type { LyingChoices, PackedPiece } from './strip';
import { turnsOf } from './strip';

/** What lies on one strip, or on one order's stretch of it. */
export interface Batch {
  /** Where every order has a stretch of its own: whose it is. */
  readonly order?: number;
  readonly items: readonly Item[];
  readonly bodies: readonly Body[];
  readonly lying: readonly Lying[];
}

/** How a film is packed. */
export interface Packing {
  readonly choices: LyingChoices;
  readonly cutter: Bed;
  readonly mirrored: boolean;
  readonly outlines: MakeOutline;
}

/** Makes the outline that pieces are packed by, or knows it. */
export type MakeOutline = typeof outlineOfPart;

/** A film's pieces on one of its rolls. */
export interface OnFilm extends RollRoom {
  readonly film: Film;
  readonly roll: Roll;
  readonly packing: Packing;
  readonly batches: readonly Batch[];
}

/** Pieces that are packed among one another: all of a film, or every order's own where each has a stretch of its own. */
interface Group {
  readonly order?: number;
  readonly items: readonly Item[];
}

export function stretchesFor(items: readonly Item[], { choices: { border } }: Packing): Group[] {
  if (border !== 'order') return [{ items }];
  const orders = byOrder(items, ({ part }) => part.order);
  return [...orders].map(([order = 0, own]) => ({ order, items: own }));
}

export function bodiesOf(
  film: Film,
  items: readonly Item[],
  across: number,
  { choices, mirrored, outlines }: Packing,
): Body[] {
  const turns = turnsOf(choices, film);
  const reach = choices.between + 2 * squareOf(across);
  const known = new Map<Part, Outline>();
  return items.map(({ part }): Body => {
    const outline = known.get(part) ?? outlines(part, mirrored, reach);
    known.set(part, outline);
    return { outline, turns, isPinned: false };
  });
}

/** A part as it will be cut. */
export function outlineOfPart(part: Part, mirrored: boolean, reach: number): Outline {
  const { bounds } = part;
  const all = solidOf(part, LINE_WIDTH);
  return outlineOf(mirrored ? mapRegion(all, mirrorOf(bounds)) : all, bounds, reach);
}

/** A line that a tool follows takes room too, mm. */
const LINE_WIDTH = 0.5;

/** Left to right about the middle of a box. */
export const mirrorOf = ({ minX, maxX }: Bounds): Matrix => [-1, 0, 0, 1, minX + maxX, 0];

export function lengthOf({ bodies, lying }: Pick<Batch, 'bodies' | 'lying'>): number {
  return largest(
    lying.map((one, i) => one.x + boxOf(bodies[i], one).maxX),
    0,
  );
}

export const boxOf = ({ outline }: Body, { turn }: Lying): Bounds =>
  turnedBox(outline, cosOf(turn), sinOf(turn));

/** A piece as it is stored where it lies. */
export const keptPiece = ({ part, copy }: Item, { isPinned }: Body, { turn, x, y }: Lying): PackedPiece => ({
  part: part.id,
  copy,
  turn,
  x,
  y,
  pinned: isPinned,
});
