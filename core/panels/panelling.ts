/** Which films of an order are taken apart, along which seams, and what of them is cut whole. */
import { limitsOf } from '../films/film';
import type { FilmLayer } from '../films/separate';
import type { Bounds } from '../geometry/bounds';
import { boundsTouch, emptyBounds, heightOf, joinBounds, outset, widthOf } from '../geometry/bounds';
import { largest } from '../geometry/lists';
import { translation } from '../geometry/matrix';
import { mapRegion, ringArea, ringBounds } from '../geometry/region';
import type { MakeStage } from '../stages/remember';
import { forgetful } from '../stages/remember';
import type { Axis } from './axis';
import { spanOf } from './axis';
import type { PanelChoices, PanelWay, SeamChoices } from './choices';
import { OFFERED_WAYS } from './choices';
import type { Gathering, Group, TypedLetter } from './gather';
import { gather, largestThatFit, shapesOf } from './gather';
import type { Ground } from './ground';
import { withInk } from './ground';
import { costAt, inkProfile } from './ink';
import { inkedBy } from './inked';
import { keptWhole } from './keptWhole';
import { placeSeams } from './placeSeams';
import type { PanelRoom } from './room';
import { boxFits, fitsIn, keptRoom, narrowest } from './room';
import { tooManyPieces } from './seamFindings';
import { KEY_NEEDS, KEY_WIDTH, seamKeys } from './seamKeys';
import type { Panelling, Seams, SeamSum } from './seams';
import { besideCommon, moved, NO_SEAMS } from './seams';
import { cellsOf, framed } from './split';

/** A film, and the room that it has in its own cutter. */
interface Roomed {
  readonly layer: FilmLayer;
  readonly room: PanelRoom;
  /** Whether it goes in one; missing: as its box tells. */
  readonly fits?: boolean;
}

/** Films that are taken apart: by hand and by number all of them, otherwise those that fit neither way. */
export function takenApart<T extends Roomed>(
  films: readonly T[],
  { way }: Pick<PanelChoices, 'way'>,
): readonly T[] {
  if (way === 'never') return [];
  if (way === 'by-hand' || way === 'grid') return films;
  return films.filter(({ layer, room, fits }) => !(fits ?? boxFits(layer.bounds, keptRoom(room))));
}

/** What belongs together of films that are taken apart, in the room of the narrowest. */
function gathered(
  layers: readonly FilmLayer[],
  rooms: readonly PanelRoom[],
  typed: readonly TypedLetter[],
  gathering: Gathering,
): { readonly groups: readonly Group[] } {
  const room = keptRoom(narrowest(rooms));
  return { groups: gather(shapesOf(layers), typed, gathering, (box) => boxFits(box, room)) };
}

type Sparing = Pick<PanelChoices, 'keepLetters' | 'whole' | 'stagger'>;

/** Films as seams see them: each lies against the common seams as it will against its own. */
function groundOf(layers: readonly FilmLayer[], groups: readonly Group[], choices: Sparing): Ground {
  const beside = besideCommon(layers.length, choices.stagger);
  const spread = Math.abs(beside[beside.length - 1] - beside[0]);
  return withInk({
    box: boxOf(layers),
    regions: layers.map(({ region }, i) =>
      beside[i] === 0 ? region : mapRegion(region, translation(-beside[i], -beside[i])),
    ),
    kept: keptWhole(groups, choices).map(({ bounds }) => outset(bounds, spread / 2)),
    narrowest: largest(layers.map(({ film }) => limitsOf(film).narrowest)),
    spread,
  });
}

/** What is cut whole, what is left to be taken apart, and along which seams. */
type Taken = Omit<Panelling, 'keys' | 'beside'>;

/** @param ground of all the films, for ways that take all of them apart */
function takenBy(
  layers: readonly FilmLayer[],
  room: PanelRoom,
  groups: readonly Group[],
  ground: Ground,
  choices: SeamChoices,
): Taken {
  if (choices.way !== 'pieces') return { ...placed(layers, ground, room, choices), pieces: [] };
  const { whole: pieces, rest } = largestThatFit(groups, choices.together, (box) =>
    boxFits(box, keptRoom(room)),
  );
  const tooMany = tooManyPieces(pieces.length);
  if (rest.length === 0 || tooMany.length > 0) {
    const sum = { panels: pieces.length, ink: 0, crossings: 0 };
    return { box: ground.box, seams: NO_SEAMS, sum, findings: tooMany, pieces, layers: [] };
  }
  const left = layers.map((layer) => restOf(layer, rest));
  const made = placed(left, groundOf(left, rest, choices), room, choices);
  return { ...made, sum: { ...made.sum, panels: made.sum.panels + pieces.length }, pieces };
}

/** A film without its pieces, and without layer marks: they line up films as wholes. */
function restOf(layer: FilmLayer, rest: readonly Group[]): FilmLayer {
  const own = rest.flatMap(({ shapes }) => shapes.filter(({ film }) => film === layer.film.id));
  return {
    ...layer,
    region: own.flatMap(({ region }) => region),
    lines: own.flatMap(({ lines }) => lines),
    marks: [],
    bounds: own.reduce((all, { bounds }) => joinBounds(all, bounds), emptyBounds()),
  };
}

function placed(
  layers: readonly FilmLayer[],
  ground: Ground,
  room: PanelRoom,
  choices: SeamChoices,
): Omit<Taken, 'pieces'> {
  const made = placeSeams(ground, room, choices);
  return {
    ...made,
    box: ground.box,
    layers,
    sum: { ...made.sum, panels: heldPanels(made.seams, layers, choices) },
  };
}

/** Panels with something on them. */
function heldPanels(seams: Seams, layers: readonly FilmLayer[], choices: SeamChoices): number {
  const boxes = layers.flatMap(({ region }) => region.filter((ring) => ringArea(ring) > 0).map(ringBounds));
  const cells = cellsOf({ upright: seams.upright, level: seams.level }, choices);
  return cells.filter(({ seen }) => boxes.some((box) => boundsTouch(box, seen))).length;
}

/** Keys along each film's own seams, by film id. */
function keysOf(
  { seams, box, layers }: Taken,
  beside: Readonly<Record<string, number>>,
  room: PanelRoom,
  choices: SeamChoices,
): Panelling['keys'] {
  const cells = cellsOf(seams, choices).map(({ cut }) => framed(cut, box));
  // panels with keys at both ends of their upright seams are so much higher, at those of level ones so much wider
  const grown = (wider: number, higher: number): boolean =>
    cells.every((cell) => fitsIn(widthOf(cell) + wider, heightOf(cell) + higher, room));
  const isOutside: Record<Axis, boolean> = {
    upright: grown(KEY_WIDTH, 2 * KEY_NEEDS),
    level: seams.upright.length === 0 && grown(2 * KEY_NEEDS, KEY_WIDTH),
  };
  const art = layers.map(inkedBy);
  return Object.fromEntries(
    layers.map(({ film }) => [film.id, seamKeys(moved(seams, beside[film.id]), art, box, isOutside)]),
  );
}

const boxOf = (layers: readonly FilmLayer[]): Bounds =>
  layers.reduce((all, { bounds }) => joinBounds(all, bounds), emptyBounds());

/** Places at which a chart shows the ink. */
const SAMPLES = 600;

/** mm of art that a seam would cut, at even steps from `from` to `to`. */
export interface InkSamples {
  readonly from: number;
  readonly to: number;
  readonly at: readonly number[];
}

/** What one way comes to. */
export interface SeamOffer {
  readonly way: PanelWay;
  readonly sum: SeamSum;
  /** Whether all panels fit: of a grid they need not. */
  readonly fits: boolean;
}

/** What a person chooses between, each with what it comes to; those that cannot be are left out. */
export interface SeamOffers {
  readonly ways: readonly SeamOffer[];
  readonly ink: Readonly<Record<Axis, InkSamples>>;
}

/** The art that a straight seam would cut of some films. */
export function inkSamples(layers: readonly FilmLayer[]): SeamOffers['ink'] {
  const box = boxOf(layers);
  const sampled = (axis: Axis): InkSamples => {
    const [from, to] = spanOf(box, axis);
    const profile = inkProfile(
      layers.map(({ region }) => region),
      axis,
    );
    const step = (to - from) / SAMPLES;
    return {
      from,
      to,
      at: Array.from({ length: SAMPLES + 1 }, (_, i) => costAt(profile, from + i * step).ink),
    };
  };
  return { upright: sampled('upright'), level: sampled('level') };
}

/** One set of seams for all films that are taken apart, in the room of the narrowest. */
function panellingOf(
  layers: readonly FilmLayer[],
  room: PanelRoom,
  groups: readonly Group[],
  ground: Ground,
  choices: SeamChoices,
): Panelling {
  const taken = takenBy(layers, room, groups, ground, choices);
  const apart = besideCommon(layers.length, choices.stagger);
  const beside = Object.fromEntries(layers.map(({ film }, i) => [film.id, apart[i]]));
  const isStopped = taken.findings.some(({ severity }) => severity === 'stop');
  return {
    ...taken,
    beside,
    keys: choices.keys && !isStopped ? keysOf(taken, beside, room, choices) : {},
  };
}

/** What one way to place seams would come to; none: it cannot be. */
function offerOf(
  layers: readonly FilmLayer[],
  room: PanelRoom,
  groups: readonly Group[],
  ground: Ground,
  choices: SeamChoices,
): { readonly offer: SeamOffer | undefined } {
  const { findings, sum, seams, box } = takenBy(layers, room, groups, ground, choices);
  const fits = cellsOf(seams, choices).every(({ cut }) => boxFits(framed(cut, box, 0), room));
  const isStopped = findings.some(({ severity }) => severity === 'stop');
  return { offer: isStopped ? undefined : { way: choices.way, sum, fits } };
}

/** Offers of all ways, before and after a change. */
const KEPT_OFFERS = 2 * OFFERED_WAYS.length;

/** Seams and offers of seams with their steps as stages, so that a planner's remember what they made. */
export function panellingBy(stage: MakeStage) {
  const groupsOf = stage('gather', gathered);
  const groundFrom = stage('ground', groundOf);
  const panellingFrom = stage('seams', panellingOf);
  const offerFrom = stage('offer', offerOf, KEPT_OFFERS);
  const before = (
    layers: readonly FilmLayer[],
    rooms: readonly PanelRoom[],
    typed: readonly TypedLetter[],
    { groups: put, alone, keepLetters, whole, stagger }: SeamChoices,
  ) => {
    const { groups } = groupsOf(layers, rooms, typed, { groups: put, alone });
    const ground = groundFrom(layers, groups, { keepLetters, whole, stagger });
    return [layers, narrowest(rooms), groups, ground] as const;
  };
  type Input = Parameters<typeof before>;
  return {
    panelling: (...input: Input): Panelling => panellingFrom(...before(...input), input[3]),
    offer: (...input: Input): SeamOffer | undefined => offerFrom(...before(...input), input[3]).offer,
  };
}

/** Without memory. */
export const { panelling } = panellingBy(forgetful);
