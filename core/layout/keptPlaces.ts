/** Pieces where they were packed to, or put by hand. */
import type { Film, Roll } from '../films/film';
import type { Body } from '../packing/body';
import { layable } from '../packing/body';
import { fill } from '../packing/fill';
import type { Lying } from '../packing/lying';
import type { Batch, OnFilm, Packing } from './onFilm';
import { bodiesOf, lengthOf } from './onFilm';
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
  const { across, along } = room;
  const strip = { across, spacing: packing.choices.between };
  const bodies = bodiesOf(film, items, across, packing);
  const known = new Map(
    items.map((item, i) => [pieceName(item.part.id, item.copy), { item, body: bodies[i] }]),
  );
  const kept = strips.map(({ pieces }) => {
    // what was put by hand comes first: the others make way
    const inOrder = [...pieces].sort((a, b) => Number(b.pinned) - Number(a.pinned));
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
  const isAll = known.size === 0 && kept.flat().length === strips.flatMap(({ pieces }) => pieces).length;
  if (!isAll && !kept.flat().some(({ body }) => body.isPinned)) return undefined;
  const batches = withRest(kept, [...known.values()], strip, along);
  return batches && { ...room, film, roll, packing, batches };
}

/** Rounding that does not count, mm. */
const SLACK = 1e-3;

const endOf = ({ body, lying }: Kept): number => lengthOf({ bodies: [body], lying: [lying] });

/** What lies already, strip by strip, and all the rest where there is room beside it. */
function withRest(
  kept: readonly (readonly Kept[])[],
  rest: readonly Pick<Kept, 'item' | 'body'>[],
  strip: { readonly across: number; readonly spacing: number },
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
