/** Boxes side by side across the film, row after row along it. */
import { largest } from '../geometry/lists';
import type { Part } from '../panels/part';
import { heightOf, widthOf } from '../geometry/bounds';

/** One copy of a part that wants a place. */
export interface Item {
  readonly part: Part;
  readonly copy: number;
}

/** An item as it will lie: mm along and across the film, weed border included. */
export interface Laid extends Item {
  readonly turned: boolean;
  readonly along: number;
  readonly across: number;
}

/** What lies side by side across the film. */
export interface Shelf {
  readonly items: readonly Laid[];
  readonly along: number;
  readonly across: number;
}

export interface Room {
  /** mm that the knife reaches across the film */
  readonly usable: number;
  /** mm between items */
  readonly spacing: number;
  /** mm of weed border around each */
  readonly rim: number;
  readonly turn: 'as-drawn' | 'turned' | 'shorter';
  /** Items side by side at the most; null: as many as fit. */
  readonly abreast: number | null;
}

/** Items on shelves, in their order; the first that fits neither way that is allowed is given back instead. */
export function shelvesOf(items: readonly Item[], room: Room): readonly Shelf[] | Laid {
  if (room.turn !== 'shorter') return arrange(items, room, room.turn === 'turned');
  const asDrawn = arrange(items, room, false);
  const turned = arrange(items, room, true);
  if (!isShelves(asDrawn) || !isShelves(turned)) return asDrawn;
  return lengthOf(turned, room.spacing) < lengthOf(asDrawn, room.spacing) - 1e-6 ? turned : asDrawn;
}

export const isShelves = (made: readonly Shelf[] | Laid): made is readonly Shelf[] => Array.isArray(made);

/** mm along the film that shelves take one behind the other. @param apart mm more between two orders */
export const lengthOf = (shelves: readonly Shelf[], spacing: number, apart = 0): number =>
  shelves.reduce((sum, { along }, i) => sum + along + gapBefore(shelves, i, spacing, apart), 0);

/** mm of film before a shelf that others lie before. */
export function gapBefore(shelves: readonly Shelf[], i: number, spacing: number, apart: number): number {
  if (i === 0) return 0;
  return orderOf(shelves[i]) === orderOf(shelves[i - 1]) ? spacing : spacing + apart;
}

const orderOf = ({ items: [{ part }] }: Shelf): number | undefined => part.order;

/** An item laid one way. */
export function lay(item: Item, rim: number, turned: boolean): Laid {
  const width = widthOf(item.part.bounds) + 2 * rim;
  const height = heightOf(item.part.bounds) + 2 * rim;
  return { ...item, turned, along: turned ? height : width, across: turned ? width : height };
}

const ROUNDING = 1e-6;

/** All items one way; where either way will do, one that is too wide lies the other way. */
function arrange(
  items: readonly Item[],
  { usable, spacing, rim, turn, abreast }: Room,
  turned: boolean,
): Shelf[] | Laid {
  const shelves: Shelf[] = [];
  let open: Laid[] = [];
  let across = 0;
  const close = (): void => {
    if (open.length > 0) shelves.push({ items: open, along: largest(open.map(alongOf)), across });
  };
  for (const item of items) {
    const first = lay(item, rim, turned);
    const other = lay(item, rim, !turned);
    const laid = first.across > usable + ROUNDING && turn === 'shorter' ? other : first;
    if (laid.across > usable + ROUNDING) return first;
    const beside = open.length === 0 ? laid.across : across + spacing + laid.across;
    const isFull = abreast !== null && open.length >= abreast;
    if (open.length > 0 && (isFull || beside > usable + ROUNDING)) {
      close();
      [open, across] = [[laid], laid.across];
    } else {
      open.push(laid);
      across = beside;
    }
  }
  close();
  return shelves;
}

const alongOf = ({ along }: Laid): number => along;
