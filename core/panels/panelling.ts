/** Which films of an order are taken apart, and along which seams. */
import type { FilmLayer } from '../films/separate';
import type { Bounds } from '../geometry/bounds';
import { emptyBounds, joinBounds } from '../geometry/bounds';
import type { Region } from '../geometry/region';
import type { PanelChoices, PanelWay } from './choices';
import type { Axis } from './ink';
import { costAt, inkProfile } from './ink';
import type { PanelRoom } from './room';
import { boxFits, keptRoom, narrowest } from './room';
import type { Panelling, SeamSum } from './seams';
import { placeSeams } from './seams';

/** A film, and the room that it has in its own cutter. */
interface Roomed {
  readonly layer: FilmLayer;
  readonly room: PanelRoom;
}

/** Films that are taken apart: by hand and by number all of them, otherwise those that fit neither way. */
export function takenApart<T extends Roomed>(
  films: readonly T[],
  { way, reserve }: PanelChoices,
): readonly T[] {
  if (way === 'never') return [];
  if (way === 'by-hand' || way === 'grid') return films;
  return films.filter(({ layer, room }) => !boxFits(layer.bounds, keptRoom(room, reserve)));
}

/** One set of seams for all of them, in the room of the narrowest. */
export function panelling(
  layers: readonly FilmLayer[],
  rooms: readonly PanelRoom[],
  choices: Omit<PanelChoices, 'skip'>,
): Panelling {
  return placeSeams(boxOf(layers), regionsOf(layers), narrowest(rooms), choices);
}

const boxOf = (layers: readonly FilmLayer[]): Bounds =>
  layers.reduce((all, { bounds }) => joinBounds(all, bounds), emptyBounds());
const regionsOf = (layers: readonly FilmLayer[]): Region[] => layers.map(({ region }) => region);

/** Ways that need nothing further from a person. */
const READY: readonly PanelWay[] = ['when-needed', 'equal', 'media'];
/** Places at which a chart shows the ink. */
const SAMPLES = 600;

/** mm of art that a seam would cut, at even steps from `from` to `to`. */
export interface InkSamples {
  readonly from: number;
  readonly to: number;
  readonly at: readonly number[];
}

/** What a person chooses between, each with what it comes to; those that cannot be are left out. */
export interface SeamOffers {
  readonly ways: readonly { readonly way: PanelWay; readonly sum: SeamSum }[];
  readonly ink: Readonly<Record<Axis, InkSamples>>;
}

/**
 * @param shown films that seams cross as they are chosen now: what the chart shows
 * @param layers films that have to be taken apart, each with its room
 */
export function seamOffers(
  shown: readonly FilmLayer[],
  layers: readonly FilmLayer[],
  rooms: readonly PanelRoom[],
  choices: Omit<PanelChoices, 'skip' | 'way'>,
): SeamOffers {
  const ways =
    layers.length === 0
      ? []
      : READY.map((way) => ({ way, made: panelling(layers, rooms, { ...choices, way }) }));
  const box = boxOf(shown);
  const sampled = (axis: Axis, from: number, to: number): InkSamples => {
    const profile = inkProfile(regionsOf(shown), axis);
    const step = (to - from) / SAMPLES;
    return {
      from,
      to,
      at: Array.from({ length: SAMPLES + 1 }, (_, i) => costAt(profile, from + i * step).ink),
    };
  };
  return {
    ways: ways
      .filter(({ made }) => made.findings.every(({ severity }) => severity !== 'stop'))
      .map(({ way, made }) => ({ way, sum: made.sum })),
    ink: {
      upright: sampled('upright', box.minX, box.maxX),
      level: sampled('level', box.minY, box.maxY),
    },
  };
}
