/** Pieces of a film close together: where they lie at once, where they were packed to, and the search for better. */
import type { Film, Roll } from '../films/film';
import { hasGrain } from '../films/film';
import type { Finding } from '../findings/finding';
import type { Bounds } from '../geometry/bounds';
import { largest } from '../geometry/lists';
import type { Matrix } from '../geometry/matrix';
import { multiply, translation } from '../geometry/matrix';
import { mapRegion, strokeOutline, weld } from '../geometry/region';
import { fill, squareOf } from '../packing/fill';
import type { Lying } from '../packing/lying';
import { cosOf, sinOf } from '../packing/lying';
import type { Outline } from '../packing/outline';
import { outlineOf, turnedBox } from '../packing/outline';
import type { Body } from '../packing/body';
import { isApart } from '../packing/body';
import { createSearch, pressed } from '../packing/search';
import type { Part } from '../panels/part';
import { own } from '../units/own';
import type { Bed } from './cutter';
import { finishedStrip, topOf } from './finishedStrip';
import { pieceTooLarge, tooManyToPack } from './layoutFindings';
import type { RollRoom } from './roll';
import { rimOf, roomOnRoll } from './roll';
import type { Item } from './shelves';
import { isShelves, shelvesOf } from './shelves';
import type { LyingChoices, PackedStrip, Placement, Strip } from './strip';

/** More than these a search gets nowhere with. */
const MOST_PIECES = 1000;

/** What lies on one strip. */
interface Batch {
  readonly items: readonly Item[];
  readonly bodies: readonly Body[];
  readonly lying: readonly Lying[];
}

/** How a film is packed. */
interface Packing {
  readonly choices: LyingChoices;
  readonly cutter: Bed;
  readonly mirrored: boolean;
}

/** A film's pieces on one of its rolls. */
export interface OnFilm extends RollRoom {
  readonly film: Film;
  readonly roll: Roll;
  readonly packing: Packing;
  readonly batches: readonly Batch[];
}

/**
 * Pieces on the roll of which they take the least: as they were packed, or side by side at once.
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
  const again = kept && roll && asPacked(film, roll, items, kept, packing);
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
const lengthOn = (on: OnFilm): number => packedStrips(on).reduce((sum, { length }) => sum + length, 0);

/** mm of film that a roll, or a pile of sheets, lacks for its pieces. */
function missingOn(on: OnFilm): number {
  const { lengthLeft, sheets } = on.roll;
  if (sheets !== undefined) return Math.max(0, on.batches.length - sheets) * lengthLeft;
  return Math.max(0, lengthOn(on) - lengthLeft);
}

/** What a film allows, of what is asked for. */
function turnsOf(film: Film, { turns }: LyingChoices): readonly number[] {
  if (turns === 'none') return [0];
  if (hasGrain(film)) return [0, 180];
  return turns === 'free' ? [] : [0, 90, 180, 270];
}

function bodiesOf(
  film: Film,
  items: readonly Item[],
  across: number,
  { choices, mirrored }: Packing,
): Body[] {
  const turns = turnsOf(film, choices);
  const known = new Map<Part, Outline>();
  return items.map(({ part }): Body => {
    const outline = known.get(part) ?? outlineOfPart(part, mirrored, choices.between + 2 * squareOf(across));
    known.set(part, outline);
    return { outline, turns, isPinned: false };
  });
}

/** Art and lines of a part as they will be cut. */
function outlineOfPart(part: Part, mirrored: boolean, reach: number): Outline {
  const { bounds, region, lines } = part;
  const drawn = lines.length === 0 ? [] : strokeOutline(lines, LINE_WIDTH, LINE);
  const all = drawn.length === 0 ? region : weld([...region, ...drawn]);
  return outlineOf(mirrored ? mapRegion(all, mirrorOf(bounds)) : all, bounds, reach);
}

/** A line that a tool follows takes room too, mm. */
const LINE_WIDTH = 0.5;
const LINE = { join: 'round', cap: 'butt', miterLimit: 2 } as const;

/** Left to right about the middle of a box. */
const mirrorOf = ({ minX, maxX }: Bounds): Matrix => [-1, 0, 0, 1, minX + maxX, 0];

function atOnce(film: Film, roll: Roll, items: readonly Item[], packing: Packing): OnFilm | Finding {
  const room = roomOnRoll(film, roll, packing.choices, packing.cutter);
  const { across, along } = room;
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
  return { ...room, film, roll, packing, batches };
}

/** The same in rows, where they fit so: packing is never worse. */
function inRows(batch: Batch, across: number, { choices }: Packing): Batch | undefined {
  const { between, turns } = choices;
  const isTurned = turns !== 'none' && !hasGrain(batch.items[0].part.film);
  const turn = isTurned ? 'shorter' : 'as-drawn';
  const shelves = shelvesOf(batch.items, { usable: across, spacing: between, rim: 0, turn });
  if (!isShelves(shelves)) return undefined;
  const at = new Map<string, Lying>();
  let x = 0;
  for (const { items, along } of shelves) {
    let y = 0;
    for (const item of items) {
      const lying = { turn: item.turned ? 90 : 0, x: x + item.along / 2, y: y + item.across / 2 };
      at.set(nameOf(item.part.id, item.copy), lying);
      y += item.across + between;
    }
    x += along + between;
  }
  return { ...batch, lying: batch.items.map(({ part, copy }) => at.get(nameOf(part.id, copy))!) };
}

/** As they were packed, when they are still the same pieces and lie apart. */
function asPacked(
  film: Film,
  roll: Roll,
  items: readonly Item[],
  strips: readonly PackedStrip[],
  packing: Packing,
): OnFilm | undefined {
  const room = roomOnRoll(film, roll, packing.choices, packing.cutter);
  const { across, along } = room;
  const spacing = packing.choices.between;
  const bodies = new Map(
    bodiesOf(film, items, across, packing).map((body, i) => [
      nameOf(items[i].part.id, items[i].copy),
      { body, item: items[i] },
    ]),
  );
  const batches: Batch[] = [];
  for (const { pieces } of strips) {
    const known = pieces.map(({ part, copy }) => bodies.get(nameOf(part, copy)));
    const own = known.flatMap((one, i) => (one ? [{ ...one, piece: pieces[i] }] : []));
    if (own.length < pieces.length) return undefined;
    for (const { part, copy } of pieces) bodies.delete(nameOf(part, copy));
    const batch = {
      items: own.map(({ item }) => item),
      bodies: own.map(({ body, piece }) => ({ ...body, isPinned: piece.pinned })),
      lying: own.map(({ piece: { turn, x, y } }) => ({ turn, x, y })),
    };
    if (!isApart(batch.bodies, { across, spacing }, batch.lying)) return undefined;
    if (lengthOf(batch) > along + 1e-3) return undefined;
    batches.push(batch);
  }
  if (bodies.size > 0) return undefined;
  return { ...room, film, roll, packing, batches };
}

const nameOf = (part: string, copy: number): string => `${part} ${copy}`;

function lengthOf({ bodies, lying }: Batch): number {
  return largest(
    lying.map((one, i) => one.x + boxOf(bodies[i], one).maxX),
    0,
  );
}

const boxOf = ({ outline }: Body, { turn }: Lying): Bounds => turnedBox(outline, cosOf(turn), sinOf(turn));

/** Strips as they are cut: pieces in the order in which they lie along the film. */
export function packedStrips(on: OnFilm): Strip[] {
  const { film, cuttable, packing } = on;
  const { choices, cutter, mirrored } = packing;
  const rim = rimOf(choices);
  const { lead, tail } = cutter.margins;
  return on.batches.map((batch, k): Strip => {
    const across = largest(batch.lying.map((one, i) => one.y + boxOf(batch.bodies[i], one).maxY));
    const corner = [lead + rim, topOf(choices, cuttable, across + 2 * rim) + rim] as const;
    const placements = batch.items.map((item, i) =>
      placed(item, batch.bodies[i], batch.lying[i], mirrored, corner),
    );
    placements.sort((a, b) => a.box.minX - b.box.minX || a.box.minY - b.box.minY);
    return finishedStrip(film, k, on, cutter, {
      mirrored,
      turned: batch.lying.some(({ turn }) => turn % 360 !== 0),
      placements,
      length: lead + rim + lengthOf(batch) + rim + tail,
    });
  });
}

function placed(
  { part, copy }: Item,
  body: Body,
  lying: Lying,
  mirrored: boolean,
  [left, top]: readonly [number, number],
): Placement {
  const { bounds } = part;
  const [mx, my] = body.outline.middle;
  const [cos, sin] = [cosOf(lying.turn), sinOf(lying.turn)];
  const at = translation(left + lying.x, top + lying.y);
  const turned = multiply([cos, sin, -sin, cos, 0, 0], translation(-mx, -my));
  const matrix = multiply(at, mirrored ? multiply(turned, mirrorOf(bounds)) : turned);
  const { minX, minY, maxX, maxY } = boxOf(body, lying);
  const [x, y] = [left + lying.x, top + lying.y];
  return { part, copy, matrix, box: { minX: x + minX, minY: y + minY, maxX: x + maxX, maxY: y + maxY } };
}

/** How far a search for less film is. */
export interface PackStep {
  readonly film: string;
  /** Rounds that are over, of all. */
  readonly share: number;
  /** Where pieces lie now. */
  readonly packed: readonly PackedStrip[];
  /** mm of film, and the share of it that stays on the sign. */
  readonly length: number;
  readonly used: number;
}

/**
 * Packs a film's pieces closer, round by round.
 * @param rounds for each strip; the same seed and rounds end in the same places
 */
export function* packCloser(
  on: OnFilm,
  { rounds, seed }: { readonly rounds: number; readonly seed: number },
): Generator<PackStep, void, void> {
  const { across, roll, film, packing } = on;
  const batches = [...on.batches];
  const step = (share: number): PackStep => {
    const strips = packedStrips({ ...on, batches });
    const length = strips.reduce((sum, strip) => sum + strip.length, 0);
    const area = strips.reduce((sum, strip) => sum + strip.area, 0);
    const used = strips.reduce((sum, strip) => sum + strip.used * strip.area, 0) / area;
    const packed = batches.map(({ items, bodies, lying }) => ({
      roll: roll.width,
      pieces: lying.map((one, i) => ({
        part: items[i].part.id,
        copy: items[i].copy,
        turn: one.turn,
        x: one.x,
        y: one.y,
        pinned: bodies[i].isPinned,
      })),
    }));
    return { film: film.id, share, packed, length, used };
  };
  for (let b = 0; b < batches.length; b++) {
    const { bodies, lying } = batches[b];
    const search = createSearch(bodies, { across, spacing: packing.choices.between }, lying, seed + b);
    let now = step(b / batches.length);
    for (let round = 0; round < rounds;) {
      const did = search.step();
      if (did === 'done') break;
      if (did === 'round') round++;
      const { lying: best } = search.best();
      const share = (b + round / rounds) / batches.length;
      if (best === batches[b].lying) now = { ...now, share };
      else {
        batches[b] = { ...batches[b], lying: best };
        now = step(share);
      }
      yield now;
    }
    batches[b] = { ...batches[b], lying: search.best().lying };
  }
  yield step(1);
}
