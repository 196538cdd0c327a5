/** Pieces of a film close together: where they were kept, or where they lie at once. */
import type { Film, Roll } from '../films/film';
import { hasGrain } from '../films/film';
import type { Finding } from '../findings/finding';
import { append } from '../geometry/lists';
import { fill } from '../packing/fill';
import type { Lying } from '../packing/lying';
import { pressed } from '../packing/search';
import { own } from '../units/own';
import { keptPlaces } from './keptPlaces';
import { pieceTooLarge, tooManyToPack } from './layoutFindings';
import type { Batch, OnFilm, Packing } from './onFilm';
import { bodiesOf, lengthOf, stretchesFor } from './onFilm';
import { packedStrips } from './packedStrips';
import type { RollRoom } from './roll';
import { roomOnRoll } from './roll';
import type { Item } from './shelves';
import { isShelves, shelvesOf } from './shelves';
import { lengthOfStrips, pieceName } from './strip';

/** More than these a search gets nowhere with. */
const MOST_PIECES = 1000;

/**
 * Pieces on the roll of which they take the least: as they were kept, or side by side at once.
 * @param rolls that the cutter takes
 */
export function packOnFilm(
  film: Film,
  rolls: readonly Roll[],
  items: readonly Item[],
  packing: Packing,
): OnFilm | Finding {
  if (items.length > MOST_PIECES) return tooManyToPack(film, items.length, MOST_PIECES);
  const kept = own(packing.choices.packed, film.id);
  const roll = kept && rolls.find(({ width }) => width === kept[0]?.roll);
  const again = kept && roll && keptPlaces(film, roll, items, kept, packing);
  if (again) return again;
  const made = rolls.map((one) => atOnce(film, one, items, packing));
  const fits = made.filter((one): one is OnFilm => !('code' in one));
  const area = (one: OnFilm): number => one.roll.width * lengthOn(one);
  fits.sort((a, b) => missingOn(a) - missingOn(b) || area(a) - area(b));
  // when a piece is too large for all of them, the widest roll tells by how much
  const limit = (one: OnFilm | Finding): number => ('code' in one ? (one.limit ?? 0) : 0);
  return fits[0] ?? made.reduce((best, next) => (limit(next) > limit(best) ? next : best));
}

/** mm of film that pieces take, all strips together. */
const lengthOn = (on: OnFilm): number => lengthOfStrips(packedStrips(on));

/** mm of film that a roll, or a pile of sheets, lacks for its pieces. */
function missingOn(on: OnFilm): number {
  const { lengthLeft, sheets } = on.roll;
  if (sheets !== undefined) return Math.max(0, packedStrips(on).length - sheets) * lengthLeft;
  return Math.max(0, lengthOn(on) - lengthLeft);
}

function atOnce(film: Film, roll: Roll, items: readonly Item[], packing: Packing): OnFilm | Finding {
  const room = roomOnRoll(film, roll, packing.choices, packing.cutter);
  const batches: Batch[] = [];
  for (const group of stretchesFor(items, packing)) {
    const own = batchesAtOnce(film, group.items, room, packing);
    if ('code' in own) return own;
    append(
      batches,
      own.map((batch) => ({ ...batch, order: group.order })),
    );
  }
  return { ...room, film, roll, packing, batches };
}

/** Pieces side by side at once, on as many strips as they need. */
function batchesAtOnce(
  film: Film,
  items: readonly Item[],
  { across, along }: RollRoom,
  packing: Packing,
): Batch[] | Finding {
  const strip = { across, spacing: packing.choices.between };
  let left = [...items];
  let bodies = bodiesOf(film, left, across, packing);
  const batches: Batch[] = [];
  while (left.length > 0) {
    const lying = fill(bodies, strip, along);
    const isOn = lying.map((one) => one !== undefined);
    const [first] = left;
    if (!isOn.includes(true)) return pieceTooLarge(first.part, across, along);
    const on = <T>(list: readonly T[]): T[] => list.filter((_, i) => isOn[i]);
    const batch = { items: on(left), bodies: on(bodies), lying: on(lying) as Lying[] };
    const best = pressed(batch.bodies, strip, batch.lying);
    const rows =
      batches.length === 0 && batch.items.length === items.length && inRows(batch, across, packing);
    const isWorse = rows && lengthOf(rows) < best.length;
    batches.push(isWorse ? rows : { ...batch, lying: best.lying });
    left = left.filter((_, i) => !isOn[i]);
    bodies = bodies.filter((_, i) => !isOn[i]);
  }
  return batches;
}

/** The same in rows, where they fit so: packing is never worse. */
function inRows(batch: Batch, across: number, { choices }: Packing): Batch | undefined {
  const { between, turns } = choices;
  const isTurned = turns !== 'none' && !hasGrain(batch.items[0].part.film);
  const turn = isTurned ? 'shorter' : 'as-drawn';
  const shelves = shelvesOf(batch.items, { usable: across, spacing: between, rim: 0, turn, abreast: null });
  if (!isShelves(shelves)) return undefined;
  const at = new Map<string, Lying>();
  let x = 0;
  for (const { items, along } of shelves) {
    let y = 0;
    for (const item of items) {
      const lying = { turn: item.turned ? 90 : 0, x: x + item.along / 2, y: y + item.across / 2 };
      at.set(pieceName(item.part.id, item.copy), lying);
      y += item.across + between;
    }
    x += along + between;
  }
  return { ...batch, lying: batch.items.map(({ part, copy }) => at.get(pieceName(part.id, copy))!) };
}
