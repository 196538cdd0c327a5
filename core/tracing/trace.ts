/** Pictures into outlines: by brightness, by opacity, or by a few colours. */
import type { Artwork, Shape } from '../readers/artwork';
import type { TraceChoices } from './choices';
import type { Finding } from '../findings/finding';
import { emptyBounds, growBounds, heightOf, widthOf } from '../geometry/bounds';
import { groupNested } from '../geometry/nesting';
import { IDENTITY, scaling } from '../geometry/matrix';
import type { Path } from '../geometry/path';
import { flatten } from '../geometry/path';
import { contours } from './contours';
import { areaOf, fitRing } from './fitCurve';
import type { LabelMap } from './labels';
import { labelMap, maskOf, roughEdges } from './labels';
import { findPalette } from './palette';
import type { EdgeZone } from './edges';
import { edgeZone } from './edges';
import type { Field, Picture } from './picture';
import { darker, halved, opaque } from './picture';
import { rasterise } from './raster';
import { smoothedAway } from './specks';

/** How far a curve may lie from the traced outline, px. */
const FIT = 0.35;
/** px that a colour goes on under the colours above it. */
const UNDER = 2;

/** One colour of a picture as outlines, px; a path holds an outline with all that lies in it. */
export interface TracedColour {
  readonly colour: string;
  readonly paths: readonly Path[];
}

export interface Trace {
  readonly width: number;
  readonly height: number;
  /** Bottom colour first. */
  readonly colours: readonly TracedColour[];
  /** Points of all paths, handles left out. */
  readonly nodes: number;
  /** Share of pixels that the result shows otherwise than the picture's colours do, 0 … 1. */
  readonly differing: number;
  /** How many times smaller the picture was made first, because it has more outlines than a knife can follow. */
  readonly times: number;
  /** Outlines that are left out for being too small. */
  readonly specks: Specks;
  /** What was traced is where the picture itself is printed. */
  readonly isShown: boolean;
}

/** How many, and px that the largest is wide or high. */
export interface Specks {
  readonly count: number;
  readonly largest: number;
}

/** Says how far a trace has come, 0 … 1; when it returns false the trace is given up. */
export type Progress = (share: number) => boolean;

/** Given up because {@link Progress} said so. */
export class TraceStopped extends Error {}

/**
 * Traces a picture.
 * @throws TraceStopped when `progress` returns false
 */
export function trace(picture: Picture, choices: TraceChoices, progress: Progress = () => true): Trace {
  const go = (share: number): void => {
    if (!progress(share)) throw new TraceStopped();
  };
  go(0);
  const { picture: traced, times, layers, wanted, lost = [] } = layersOf(picture, choices, () => go(0.1));
  const limits = shrunk(choices, times);
  go(0.3);
  const shown = new Uint8Array(traced.width * traced.height);
  let zone: EdgeZone | undefined;
  const specks = { count: 0, largest: 0 };
  for (const size of lost) add(specks, times * size);
  const colours = layers.map(({ colour, field }, k): TracedColour => {
    const own = field();
    zone = edgeZone(own, limits.smooth, zone);
    if (choices.by !== 'colours') for (const size of smoothedAway(own, zone)) add(specks, times * size);
    go(0.3 + (0.7 * (k + 0.3)) / layers.length);
    const all = contours(zone);
    const isLarge = (ring: Float64Array): boolean => areaOf(ring) >= Math.max(1, limits.despeckle);
    const rings = all.filter(isLarge);
    for (const ring of all) if (!isLarge(ring)) add(specks, times * acrossOf(ring));
    const paths = grouped(rings, limits);
    go(0.3 + (0.7 * (k + 0.8)) / layers.length);
    paint(shown, paths, traced, k + 1);
    return { colour, paths: times === 1 ? paths : paths.map((path) => enlarged(path, times)) };
  });
  let differing = 0;
  for (let i = 0; i < shown.length; i++) if (shown[i] !== wanted(i)) differing++;
  return {
    width: picture.width,
    height: picture.height,
    colours: colours.filter(({ paths }) => paths.length > 0),
    nodes: colours.reduce((sum, { paths }) => sum + paths.reduce((n, { ops }) => n + ops.length - 2, 0), 0),
    differing: differing / Math.max(1, shown.length),
    times,
    specks,
    isShown: choices.by === 'print',
  };
}

function add(specks: { count: number; largest: number }, size: number): void {
  specks.count++;
  specks.largest = Math.max(specks.largest, size);
}

function acrossOf(ring: Float64Array): number {
  const box = growBounds(emptyBounds(), ring);
  return Math.max(widthOf(box), heightOf(box));
}

/** More pixels along outlines than this are more than a knife can follow, and more than a person waits for. */
const MOST_EDGES = 220_000;
/** No drawing is outline all over. */
const DENSEST = 0.25;
/** So many are traced whatever the picture is. */
const ALWAYS = 30_000;
const mostEdges = ({ width, height }: Picture): number =>
  Math.max(ALWAYS, Math.min(MOST_EDGES, DENSEST * width * height));
/** Fringes and specks go, so that fewer edges are left than there were labels that change. */
const FAR_MORE = 4;

/** What is traced: of a picture with too many outlines a smaller one, `times` as small. */
function layersOf(
  picture: Picture,
  choices: TraceChoices,
  breathe: () => void,
): Layers & { readonly picture: Picture; readonly times: number } {
  let smaller = picture;
  for (let times = 1; ; times *= 2) {
    const most = mostEdges(smaller);
    const layers = choices.by === 'colours' ? byColours(smaller, choices, most) : byField(smaller, choices);
    if (layers && layers.edges <= most) return { ...layers, picture: smaller, times };
    breathe();
    smaller = halved(smaller);
  }
}

/** Limits in pixels of a picture so many times as small. */
const shrunk = (choices: TraceChoices, times: number): TraceChoices => ({
  ...choices,
  despeckle: choices.despeckle / times ** 2,
});

const enlarged = ({ ops, xy }: Path, times: number): Path => ({ ops, xy: xy.map((v) => v * times) });

interface Layer {
  readonly colour: string;
  /** Made when it is wanted: one for each colour at once would not fit into memory. */
  readonly field: () => Field;
}

interface Layers {
  readonly layers: readonly Layer[];
  /** Which layer, counted from 1, the picture itself shows at a pixel; 0 for none. */
  readonly wanted: (pixel: number) => number;
  /** Pixels along outlines. */
  readonly edges: number;
  /** Sizes of what is too thin for its colour to be told, px. */
  readonly lost?: readonly number[];
}

function byField(picture: Picture, { by, threshold, invert }: TraceChoices): Layers {
  const field =
    by === 'brightness'
      ? darker(picture, threshold, invert)
      : opaque(picture, threshold, invert && by === 'alpha');
  const { values } = field;
  return {
    layers: [{ colour: inkOf(picture, field), field: () => field }],
    wanted: (pixel) => (values[pixel] > 0.5 ? 1 : 0),
    edges: field.edges.length,
  };
}

/** The mean colour of what is inside. */
function inkOf({ data }: Picture, { values }: Field): string {
  const sum = [0, 0, 0];
  let n = 0;
  const step = Math.max(1, Math.floor(values.length / 50_000));
  for (let i = 0; i < values.length; i += step) {
    if (values[i] <= 0.6 || data[4 * i + 3] < 128) continue;
    for (let c = 0; c < 3; c++) sum[c] += data[4 * i + c];
    n++;
  }
  const mean = sum.map((v) => Math.round(n === 0 ? 0 : v / n));
  return `#${mean.map((v) => v.toString(16).padStart(2, '0')).join('')}`;
}

/** @returns undefined when there are far more than `most` edges, which is told long before they are all found */
function byColours(picture: Picture, choices: TraceChoices, most: number): Layers | undefined {
  const palette = findPalette(picture, choices.colours);
  if (roughEdges(palette.labels, picture.width) > FAR_MORE * most) return undefined;
  const map = labelMap(palette.labels, picture.width, picture.height);
  const ground = choices.dropGround ? edgeColour(map) : -1;
  // one mask for all: pictures are large, and each is done with before the next is made
  const mask = new Uint8Array(map.labels.length);
  const kept = palette.colours.map((_, k) => k).filter((k) => k !== ground);
  const layerOf = new Uint8Array(256);
  kept.forEach((k, layer) => (layerOf[k] = layer + 1));
  return {
    layers: kept.map((k) => ({ colour: palette.colours[k], field: () => maskOf(map, k, UNDER, mask) })),
    wanted: (pixel) => layerOf[map.labels[pixel]],
    edges: map.edges.length,
    lost: map.lost,
  };
}

/** The colour that lines most of the picture's edge; -1 when the edge is see-through or mixed. */
function edgeColour({ labels, width, height }: LabelMap): number {
  const counts = new Map<number, number>();
  const add = (i: number): void => void counts.set(labels[i], (counts.get(labels[i]) ?? 0) + 1);
  for (let x = 0; x < width; x++) {
    add(x);
    add((height - 1) * width + x);
  }
  for (let y = 0; y < height; y++) {
    add(y * width);
    add(y * width + width - 1);
  }
  const all = 2 * (width + height);
  for (const [label, n] of counts) if (n > all / 2) return label === 255 ? -1 : label;
  return -1;
}

function grouped(rings: readonly Float64Array[], { corner, smooth }: TraceChoices): Path[] {
  return groupNested(rings).map((group) => {
    const paths = group.rings.map((index) => fitRing(rings[index], corner, FIT, smooth));
    return { ops: paths.map((path) => path.ops).join(''), xy: paths.flatMap((path) => path.xy) };
  });
}

function paint(shown: Uint8Array, paths: readonly Path[], { width, height }: Picture, mark: number): void {
  const rings = paths.flatMap((path) => flatten(path, IDENTITY, 0.1).map((line) => line.points));
  rasterise(rings, width, height, shown, mark);
}

const NOTHING: Finding = {
  code: 'nothing-traced',
  severity: 'stop',
  message: 'Nothing was found in this picture with the limits as they are.',
  waysOut: ['Move the limit, or trace by colours', 'Lower what is left out as a speck'],
};

const simplified = (width: number, height: number, times: number): Finding => ({
  code: 'simplified',
  severity: 'check',
  message: `The picture has more outlines than a knife can follow: it was traced as if it had ${Math.floor(width / times)} × ${Math.floor(height / times)} pixels.`,
  waysOut: [
    'Trace by fewer colours, or by brightness',
    'Bring in a drawing or a cleaner picture',
    'Print it',
  ],
});

/**
 * A trace as artwork.
 * @param mmPerPixel how large a pixel is
 */
export function artworkOfTrace(traced: Trace, mmPerPixel: number, mmDown = mmPerPixel): Artwork {
  const matrix = scaling(mmPerPixel, mmDown);
  const { width, height, times, isShown } = traced;
  const shapes = traced.colours.flatMap(({ colour, paths }): Shape[] => {
    const painted = { matrix, colour, fill: 'evenodd', clips: [] } as const;
    if (isShown) return [{ ...painted, path: joined(paths), picture: { width, height } }];
    return paths.map((path) => ({ ...painted, path }));
  });
  const findings: Finding[] = [
    ...(shapes.length > 0 ? [] : [NOTHING]),
    ...(times > 1 ? [simplified(width, height, times)] : []),
  ];
  return {
    page: { width: width * mmPerPixel, height: height * mmDown },
    shapes,
    clips: [],
    findings,
    offers: { picture: { width, height, mmPerPixel, ...(isShown ? {} : { specks: traced.specks }) } },
  };
}

const joined = (paths: readonly Path[]): Path => ({
  ops: paths.map(({ ops }) => ops).join(''),
  xy: paths.flatMap(({ xy }) => Array.from(xy)),
});
