import { append, largest } from '../geometry/lists';
import type { Film, Roll } from '../films/film';
import type { Finding } from '../findings/finding';
import type { Bounds } from '../geometry/bounds';
import { heightOf, widthOf } from '../geometry/bounds';
import type { Matrix } from '../geometry/matrix';
import { IDENTITY, multiply, translation } from '../geometry/matrix';
import type { Spot } from '../geometry/spot';
import type { Part } from '../panels/part';
import type { Bed } from './cutter';
import { cuttableWidth } from './cutter';
import {
  endOfStrip,
  fewerAbreast,
  filmFindings,
  mirrorFindings,
  noRoll,
  offcutGone,
  onlyOffcuts,
  rollMisfit,
  tooWide,
} from './layoutFindings';
import type { Item, Laid, Room, Shelf } from './shelves';
import { finishedStrip, topOf } from './finishedStrip';
import type { MakeOutline, OnFilm } from './onFilm';
import { outlineOfPart } from './onFilm';
import { packedStrips } from './packedStrips';
import { packOnFilm } from './packOnFilm';
import { missingOffcut, rimsOf, rollsFor, startOf, SWING_ROOM } from './roll';
import type { Layout, LyingChoices, Placement, Strip } from './strip';
import { packOf } from './strip';
import { byOrder } from './shares';
import { gapBefore, isShelves, lay, lengthOf, shelvesOf } from './shelves';

/**
 * Lays one film's parts on its rolls: side by side across the film, row after row along it. A film that runs true for
 * less than it needs, or of which less is left on the roll, goes over several strips, as few as that allows.
 * @param film as it is on the shelf now
 * @param outlines of pieces, by a maker that may know them from before
 */
export function layOut(
  film: Film,
  parts: readonly Part[],
  choices: LyingChoices,
  cutter: Bed,
  outlines: MakeOutline = outlineOfPart,
): Layout {
  const { strips, findings } = ontoRolls(film, parts, choices, cutter, outlines);
  const missing = missingOffcut(film, choices);
  const gone = missing === undefined ? [] : [offcutGone(film, missing)];
  return { strips, findings: [...findings, ...gone, ...mirrorFindings(film, choices)] };
}

function ontoRolls(
  film: Film,
  parts: readonly Part[],
  choices: LyingChoices,
  cutter: Bed,
  outlines: MakeOutline,
): Layout {
  if (film.rolls.length === 0) return { strips: [], findings: [noRoll(film)] };
  let rolls = rollsFor(film, choices, cutter);
  if (rolls.length === 0) return { strips: [], findings: [noneTaken(film, cutter)] };
  if (packOf(choices, film) !== 'one') return packed(film, rolls, parts, choices, cutter, outlines);
  const strips: Strip[] = [];
  let widest = 0;
  let left = parts.flatMap((part) => copiesOf(part, choices));
  while (left.length > 0) {
    const best = bestRoll(left, rolls, choices, cutter);
    if ('code' in best) return { strips: [], findings: [best] };
    widest = Math.max(widest, largest(best.shelves.map(({ items }) => items.length)));
    const others = rolls.filter((roll) => roll !== best.roll);
    const batches = batchesOn(best, endOfStrip(film, best.roll, cutter).limit, others.length > 0);
    for (const shelves of batches) strips.push(stripOf(film, strips.length, shelves, best, choices, cutter));
    // shelves keep the order of what lies on them
    left = left.slice(batches.flat().reduce((sum, { items }) => sum + items.length, 0));
    rolls = others;
  }
  return {
    strips,
    findings: [...filmFindings(film, strips, cutter), ...abreastFindings(film, parts, widest, choices)],
  };
}

/** Why a cutter takes nothing of a film that is on the shelf. */
const noneTaken = (film: Film, cutter: Bed): Finding =>
  film.rolls.every(({ offcut }) => offcut !== undefined) ? onlyOffcuts(film) : rollMisfit(film, cutter);

/** Copies that were to lie side by side and do not; panels are no copies of each other. */
function abreastFindings(
  film: Film,
  parts: readonly Part[],
  widest: number,
  { abreast, copies }: LyingChoices,
): Finding[] {
  if (abreast === null || parts.length !== 1) return [];
  const wanted = Math.min(abreast, parts[0].copies ?? copies);
  return widest < wanted ? [fewerAbreast(film, widest, wanted)] : [];
}

/** A film's pieces on the roll of which they take the least, or why they fit on none. */
function packedOn(
  film: Film,
  rolls: readonly Roll[],
  parts: readonly Part[],
  choices: LyingChoices,
  cutter: Bed,
  outlines: MakeOutline,
): OnFilm | Finding {
  const items = parts.flatMap((part) => copiesOf(part, choices));
  return packOnFilm(film, rolls, items, { choices, cutter, mirrored: isMirrored(film, choices), outlines });
}

function packed(
  film: Film,
  rolls: readonly Roll[],
  parts: readonly Part[],
  choices: LyingChoices,
  cutter: Bed,
  outlines: MakeOutline,
): Layout {
  const on = packedOn(film, rolls, parts, choices, cutter, outlines);
  if ('code' in on) return { strips: [], findings: [on] };
  const strips = packedStrips(on);
  return { strips, findings: filmFindings(film, strips, cutter) };
}

/**
 * A film's pieces as they are packed: what is searched for closer places, and what is taken up by hand.
 * @returns undefined: it is laid as one, or has no room
 */
export function laidPieces(
  film: Film,
  parts: readonly Part[],
  choices: LyingChoices,
  cutter: Bed,
  outlines: MakeOutline = outlineOfPart,
): OnFilm | undefined {
  const rolls = rollsFor(film, choices, cutter);
  if (packOf(choices, film) === 'one' || parts.length === 0 || rolls.length === 0) return undefined;
  const on = packedOn(film, rolls, parts, choices, cutter, outlines);
  return 'code' in on ? undefined : on;
}

const copiesOf = (part: Part, { copies }: LyingChoices): Item[] =>
  Array.from({ length: part.copies ?? copies }, (_, copy) => ({ part, copy }));

/** Items as they would lie on one roll. */
interface OnRoll {
  readonly roll: Roll;
  readonly cuttable: number;
  readonly shelves: readonly Shelf[];
  readonly lead: number;
  readonly tail: number;
  readonly spacing: number;
  /** mm more between two orders, each with a border of its own */
  readonly apart: number;
}

const stripLength = (shelves: readonly Shelf[], { lead, tail, spacing, apart }: OnRoll): number =>
  lead + lengthOf(shelves, spacing, apart) + tail;

/** The roll of which the items take the least and that is long enough for them, or why they fit on none. */
function bestRoll(
  items: readonly Item[],
  rolls: readonly Roll[],
  choices: LyingChoices,
  cutter: Bed,
): OnRoll | Finding {
  const tries = rolls.map((roll) => onRoll(items, roll, choices, cutter));
  const fits = tries.filter((made): made is OnRoll => !('code' in made));
  const area = (made: OnRoll): number => stripLength(made.shelves, made) * made.roll.width;
  fits.sort((a, b) => missingOn(a) - missingOn(b) || area(a) - area(b));
  // when it is too wide for all of them, the widest roll tells by how much
  return fits[0] ?? tries.reduce((best, next) => (limitIn(next) > limitIn(best) ? next : best));
}

/** mm of film that a roll lacks for its items; of sheets that are too short for one of them, more than any pile lacks. */
function missingOn(on: OnRoll): number {
  const { lengthLeft, sheets } = on.roll;
  const needs = stripLength(on.shelves, on);
  if (sheets === undefined) return Math.max(0, needs - lengthLeft);
  const longest = largest(on.shelves.map((shelf) => stripLength([shelf], on)));
  return longest > lengthLeft ? Infinity : Math.max(0, needs - sheets * lengthLeft);
}

const limitIn = (made: OnRoll | Finding): number => ('code' in made ? (made.limit ?? 0) : 0);

function onRoll(items: readonly Item[], roll: Roll, choices: LyingChoices, cutter: Bed): OnRoll | Finding {
  const cuttable = cuttableWidth(cutter, roll.width);
  const { rim, around } = rimsOf(choices);
  const start = startOf(choices);
  const usable = Math.max(0, cuttable - start.across - SWING_ROOM - 2 * around);
  const { spacing, turn, abreast } = choices;
  const room = { usable, spacing, rim, turn, abreast };
  const shelves = choices.border === 'order' ? orderAfterOrder(items, room) : shelvesOf(items, room);
  if (!isShelves(shelves)) {
    const other = lay(shelves, rim, !shelves.turned);
    return tooWide(shelves, roll, usable, cutter, other.across <= usable);
  }
  const { lead, tail } = cutter.margins;
  const apart = choices.border === 'order' ? 2 * around : 0;
  return { roll, cuttable, shelves, lead: lead + start.along + around, tail: tail + around, spacing, apart };
}

/** Shelves on which no two orders lie side by side. */
function orderAfterOrder(items: readonly Item[], room: Room): readonly Shelf[] | Laid {
  const shelves: Shelf[] = [];
  for (const own of byOrder(items, ({ part }) => part.order).values()) {
    const made = shelvesOf(own, room);
    if (!isShelves(made)) return made;
    append(shelves, made);
  }
  return shelves;
}

/**
 * The shelves strip by strip: none longer than a strip may be, and all together no longer than the roll (no more than
 * there are sheets), unless a single shelf is, or there is no other roll for what is left.
 */
function batchesOn(on: OnRoll, longest: number, hasOther: boolean): Shelf[][] {
  const batches: Shelf[][] = [];
  const { lengthLeft, sheets = 1 } = on.roll;
  const isRoll = on.roll.sheets === undefined;
  let remaining = sheets > 0 ? lengthLeft : 0;
  for (let from = 0; from < on.shelves.length;) {
    let to = from + 1;
    const fits = (end: number, limit: number): boolean =>
      stripLength(on.shelves.slice(from, end), on) <= limit;
    if (!fits(to, remaining)) {
      if (hasOther) break;
      remaining = Infinity;
    }
    while (to < on.shelves.length && fits(to + 1, Math.min(longest, remaining))) to++;
    const batch = on.shelves.slice(from, to);
    batches.push(batch);
    if (isRoll) remaining -= stripLength(batch, on);
    else if (batches.length === sheets) remaining = 0;
    from = to;
  }
  return batches;
}

function stripOf(
  film: Film,
  before: number,
  shelves: readonly Shelf[],
  on: OnRoll,
  choices: LyingChoices,
  cutter: Bed,
): Strip {
  const mirrored = isMirrored(film, choices);
  const { rim, around } = rimsOf(choices);
  const width = largest(shelves.map(({ across }) => across)) + 2 * around;
  const top = topOf(choices, on.cuttable, width) + around;
  const placements = place(shelves, [on.lead, top], on, rim, mirrored);
  return finishedStrip(film, before, on, cutter, {
    mirrored,
    turned: shelves.some(({ items }) => items.some(({ turned }) => turned)),
    placements,
    length: stripLength(shelves, on),
  });
}

function place(
  shelves: readonly Shelf[],
  [left, top]: Spot,
  { spacing, apart }: OnRoll,
  rim: number,
  mirrored: boolean,
): Placement[] {
  let x = left;
  return shelves.flatMap(({ items, along }, i) => {
    x += gapBefore(shelves, i, spacing, apart);
    let y = top;
    const placed = items.map((item): Placement => {
      const box = { minX: x, minY: y, maxX: x + item.along, maxY: y + item.across };
      const toCell = intoCell(item.part.bounds, rim, mirrored, item.turned);
      const matrix = multiply(translation(x, y), toCell);
      y += item.across + spacing;
      return { part: item.part, copy: item.copy, matrix, box };
    });
    x += along;
    return placed;
  });
}

/** Film that is cut from the back is mirrored by itself: its face lies down in the cutter. */
function isMirrored(film: Film, choices: LyingChoices): boolean {
  return choices.mirror === 'by-film' ? film.cutFromBack : choices.mirror === 'mirrored';
}

/** Face view → a cell whose upper left corner is 0, 0: mirrored left to right first, then turned. */
function intoCell(box: Bounds, rim: number, mirrored: boolean, turned: boolean): Matrix {
  const w = widthOf(box) + 2 * rim;
  const h = heightOf(box) + 2 * rim;
  const toCorner = translation(rim - box.minX, rim - box.minY);
  const mirror: Matrix = mirrored ? [-1, 0, 0, 1, w, 0] : IDENTITY;
  // a quarter turn clockwise: the art's top then points across the film
  const turn: Matrix = turned ? [0, 1, -1, 0, h, 0] : IDENTITY;
  return multiply(turn, multiply(mirror, toCorner));
}
