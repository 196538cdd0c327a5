/** Pieces where they were packed to, or put by hand. */
import type { Film, Roll } from '../films/film';
import { append } from '../geometry/lists';
import type { Body } from '../packing/body';
import { layable } from '../packing/body';
import { fill } from '../packing/fill';
import type { Lying } from '../packing/lying';
import type { Batch, OnFilm, Packing } from './onFilm';
import { bodiesOf, lengthOf, stretchesFor } from './onFilm';
import { roomOnRoll } from './roll';
import type { Item } from './shelves';
import type { PackedStrip } from './strip';
import { pieceName } from './strip';

/** A piece, and where it was kept. */
interface Kept {
  readonly item: Item;
  readonly body: Body;
  readonly lying: Lying;
}

/** Pieces of one stretch that keep their places, strip by strip, and all others. */
interface Sorted {
  readonly order: number | undefined;
  readonly kept: readonly (readonly Kept[])[];
  readonly rest: readonly Pick<Kept, 'item' | 'body'>[];
}

/**
 * Pieces as they were packed, when they are still the same pieces and lie apart. Otherwise, when some were put where they
 * lie by hand, these stay, and so does everything that keeps clear of them; what does not finds another place.
 * @returns undefined: what was kept does not count
 */
export function keptPlaces(
  film: Film,
  roll: Roll,
  items: readonly Item[],
  strips: readonly PackedStrip[],
  packing: Packing,
): OnFilm | undefined {
  const room = roomOnRoll(film, roll, packing.choices, packing.cutter);
  const strip = { across: room.across, spacing: packing.choices.between };
  const sorted = stretchesFor(items, packing).map(({ order, items: own }): Sorted => {
    const bodies = bodiesOf(film, own, room.across, packing);
    const all = own.map((item, i) => ({ item, body: bodies[i] }));
    const its = strips.filter((one) => one.order === order);
    return { order, ...sortedOut(all, its, strip, room.along) };
  });
  const kept = sorted.flatMap((group) => group.kept.flat());
  const isAll =
    sorted.every(({ rest }) => rest.length === 0) &&
    kept.length === strips.reduce((sum, { pieces }) => sum + pieces.length, 0);
  if (!isAll && !kept.some(({ body }) => body.isPinned)) return undefined;
  const batches: Batch[] = [];
  for (const { order, kept: own, rest } of sorted) {
    const made = withRest(own, rest, strip, room.along);
    if (!made) return undefined;
    append(
      batches,
      made.map((batch) => ({ ...batch, order })),
    );
  }
  return { ...room, film, roll, packing, batches };
}

type StripRoom = Parameters<typeof layable>[1];

/** Which pieces stay where they were kept. */
function sortedOut(
  pieces: readonly Pick<Kept, 'item' | 'body'>[],
  strips: readonly PackedStrip[],
  strip: StripRoom,
  along: number,
): Pick<Sorted, 'kept' | 'rest'> {
  const known = new Map(pieces.map((one) => [pieceName(one.item.part.id, one.item.copy), one]));
  const kept = strips.map(({ pieces: its }) => {
    // what was put by hand comes first: the others make way
    const inOrder = [...its].sort((a, b) => Number(b.pinned) - Number(a.pinned));
    const all = inOrder.flatMap(({ part, copy, turn, x, y, pinned }): Kept[] => {
      const own = known.get(pieceName(part, copy));
      return own ? [{ item: own.item, body: { ...own.body, isPinned: pinned }, lying: { turn, x, y } }] : [];
    });
    const isFree = layable(
      all.map(({ body }) => body),
      strip,
      all.map(({ lying }) => lying),
    );
    return all.filter((one, i) => isFree[i] && endOf(one) <= along + SLACK);
  });
  for (const { item } of kept.flat()) known.delete(pieceName(item.part.id, item.copy));
  return { kept, rest: [...known.values()] };
}

/** Rounding that does not count, mm. */
const SLACK = 1e-3;

const endOf = ({ body, lying }: Kept): number => lengthOf({ bodies: [body], lying: [lying] });

/** What lies already, strip by strip, and all the rest where there is room beside it. */
function withRest(
  kept: readonly (readonly Kept[])[],
  rest: readonly Pick<Kept, 'item' | 'body'>[],
  strip: StripRoom,
  along: number,
): Batch[] | undefined {
  const batches: Batch[] = [];
  let left = rest;
  for (let k = 0; k < kept.length || left.length > 0; k++) {
    const own = kept[k] ?? [];
    const all = [...own, ...left];
    const fixed = own.map(({ lying }) => lying);
    const lying =
      left.length === 0
        ? fixed
        : fill(
            all.map(({ body }) => body),
            strip,
            along,
            fixed,
          );
    const laid = all.flatMap((one, i) => (lying[i] ? [{ ...one, lying: lying[i] }] : []));
    if (laid.length === 0 && k >= kept.length) return undefined;
    if (laid.length > 0)
      batches.push({
        items: laid.map(({ item }) => item),
        bodies: laid.map(({ body }) => body),
        lying: laid.map((one) => one.lying),
      });
    left = left.filter((_, i) => !lying[own.length + i]);
  }
  return batches;
}
