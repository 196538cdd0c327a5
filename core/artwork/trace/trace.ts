/** Pictures into outlines: by brightness, by opacity, or by a few colours. */
import type { Artwork, Shape } from '../artwork';
import type { TraceChoices } from '../choices';
import type { Finding } from '../../findings/finding';
import { groupNested } from '../../geometry/nesting';
import { IDENTITY, scaling } from '../../geometry/matrix';
import type { Path } from '../../geometry/path';
import { flatten } from '../../geometry/path';
import { contours } from './contours';
import { areaOf, fitRing } from './fitCurve';
import type { LabelMap } from './labels';
import { labelMap, maskOf } from './labels';
import { findPalette } from './palette';
import type { EdgeZone } from './edges';
import { edgeZone } from './edges';
import type { Field, Picture } from './picture';
import { darker, opaque } from './picture';
import { rasterise } from './raster';

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
  const { layers, wanted } =
    choices.by === 'colours' ? byColours(picture, choices) : byField(picture, choices);
  go(0.3);
  const shown = new Uint8Array(picture.width * picture.height);
  let zone: EdgeZone | undefined;
  const colours = layers.map(({ colour, field }, k): TracedColour => {
    zone = edgeZone(field(), choices.smooth, zone);
    go(0.3 + (0.7 * (k + 0.3)) / layers.length);
    const rings = contours(zone).filter((ring) => areaOf(ring) >= Math.max(1, choices.despeckle));
    const paths = grouped(rings, choices.corner);
    go(0.3 + (0.7 * (k + 0.8)) / layers.length);
    paint(shown, paths, picture, k + 1);
    return { colour, paths };
  });
  let differing = 0;
  for (let i = 0; i < shown.length; i++) if (shown[i] !== wanted(i)) differing++;
  return {
    width: picture.width,
    height: picture.height,
    colours: colours.filter(({ paths }) => paths.length > 0),
    nodes: colours.reduce((sum, { paths }) => sum + paths.reduce((n, { ops }) => n + ops.length - 2, 0), 0),
    differing: differing / Math.max(1, shown.length),
  };
}

interface Layer {
  readonly colour: string;
  /** Made when it is wanted: one for each colour at once would not fit into memory. */
  readonly field: () => Field;
}

interface Layers {
  readonly layers: readonly Layer[];
  /** Which layer, counted from 1, the picture itself shows at a pixel; 0 for none. */
  readonly wanted: (pixel: number) => number;
}

function byField(picture: Picture, { by, threshold, invert }: TraceChoices): Layers {
  const field = (by === 'alpha' ? opaque : darker)(picture, threshold, invert);
  const { values } = field;
  return {
    layers: [{ colour: inkOf(picture, field), field: () => field }],
    wanted: (pixel) => (values[pixel] > 0.5 ? 1 : 0),
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

function byColours(picture: Picture, choices: TraceChoices): Layers {
  const palette = findPalette(picture, choices.colours);
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

function grouped(rings: readonly Float64Array[], corner: number): Path[] {
  return groupNested(rings).map((group) => {
    const paths = group.rings.map((index) => fitRing(rings[index], corner, FIT));
    return { ops: paths.map((path) => path.ops).join(''), xy: paths.flatMap((path) => path.xy) };
  });
}

function paint(shown: Uint8Array, paths: readonly Path[], { width, height }: Picture, mark: number): void {
  const rings = paths.flatMap((path) => flatten(path, IDENTITY, 0.1).map((line) => line.points));
  rasterise(rings, width, height, shown, mark);
}

/**
 * A trace as artwork.
 * @param mmPerPixel how large a pixel is
 */
export function artworkOfTrace(traced: Trace, mmPerPixel: number): Artwork {
  const matrix = scaling(mmPerPixel);
  const shapes = traced.colours.flatMap(({ colour, paths }) =>
    paths.map((path): Shape => ({ path, matrix, colour, fill: 'evenodd', clips: [] })),
  );
  const findings: Finding[] =
    shapes.length > 0
      ? []
      : [
          {
            code: 'nothing-traced',
            severity: 'stop',
            message: 'Nothing was found in this picture with the limits as they are.',
            waysOut: ['Move the limit, or trace by colours', 'Lower what is left out as a speck'],
          },
        ];
  const { width, height } = traced;
  return {
    page: { width: width * mmPerPixel, height: height * mmPerPixel },
    shapes,
    clips: [],
    findings,
    offers: { picture: { width, height, mmPerPixel } },
  };
}

/** How a picture is best traced to begin with. */
export function suggestTrace(picture: Picture, otherwise: TraceChoices): TraceChoices {
  const { width, height, data } = picture;
  let clear = 0;
  let middle = 0;
  let coloured = 0;
  let n = 0;
  const step = Math.max(1, Math.floor((width * height) / 40_000)) | 1;
  for (let i = 0; i < width * height; i += step, n++) {
    const [r, g, b, a] = [data[4 * i], data[4 * i + 1], data[4 * i + 2], data[4 * i + 3]];
    if (a < 128) {
      clear++;
      continue;
    }
    if (Math.max(r, g, b) - Math.min(r, g, b) > 40) coloured++;
    else if (Math.max(r, g, b) > 60 && Math.min(r, g, b) < 195) middle++;
  }
  if (coloured > 0.02 * n || middle > 0.25 * n)
    return { ...otherwise, by: 'colours', colours: clear > 0.05 * n ? 3 : 4 };
  if (clear > 0.05 * n) return { ...otherwise, by: 'alpha' };
  return { ...otherwise, by: 'brightness' };
}
