/** Pictures of SVG by an independent renderer (resvg), and how far two of them differ. Only tests use this. */
import { Resvg } from '@resvg/resvg-js';
import type { Artwork, Clip, Shape, StrokeStyle } from '../../core/readers/artwork';
import { stretch } from '../../core/geometry/matrix';
import type { Path } from '../../core/geometry/path';
import { preparePiece } from '../../core/artwork/preparePiece';
import { seenColours } from '../../core/films/seen';
import { regionToPathData } from '../../core/geometry/pathText';

export interface Pixels {
  readonly data: Buffer;
  readonly width: number;
  readonly height: number;
}

/** What lies behind the art. */
export const GREY = '#8c8c8c';

export function pixels(svg: string, width = 300, background = GREY): Pixels {
  const image = new Resvg(svg, {
    font: { loadSystemFonts: false },
    fitTo: { mode: 'width', value: width },
    background,
  }).render();
  return { data: image.pixels, width: image.width, height: image.height };
}

/** Share of pixels that differ where neither picture has an edge within a pixel. */
export function differingShare(a: Pixels, b: Pixels): number {
  const at = (p: Buffer, x: number, y: number, k: number): number => p[4 * (y * a.width + x) + k];
  const flat = (p: Buffer, x: number, y: number): boolean => {
    for (let k = 0; k < 3; k++) {
      const c = at(p, x, y, k);
      for (let dy = -1; dy <= 1; dy++) {
        for (let dx = -1; dx <= 1; dx++) if (Math.abs(at(p, x + dx, y + dy, k) - c) > 4) return false;
      }
    }
    return true;
  };
  let different = 0;
  for (let y = 1; y < a.height - 1; y++) {
    for (let x = 1; x < a.width - 1; x++) {
      const off = [0, 1, 2].some((k) => Math.abs(at(a.data, x, y, k) - at(b.data, x, y, k)) > 8);
      if (off && flat(a.data, x, y) && flat(b.data, x, y)) different++;
    }
  }
  return different / (a.width * a.height);
}

/** Shades by which neighbouring pixels of two renderers may differ. */
const NEAR = 48;

/**
 * Share of pixels of either picture for which the other has nothing like it within a pixel, both softened a little: their
 * writers smooth and hint letters each in their own way. Unlike `differingShare` it sees thin lines and small letters.
 */
export function unmatchedShare(a: Pixels, b: Pixels): number {
  const [soft, other] = [softened(a), softened(b)];
  return Math.max(unmatched(soft, other), unmatched(other, soft));
}

/** The mean of each pixel and its eight neighbours. */
function softened({ data, width, height }: Pixels): Pixels {
  const out = Buffer.alloc(data.length);
  const row = 4 * width;
  for (let at = row + 4; at < data.length - row - 4; at++) {
    let sum = 0;
    for (const line of [at - row, at, at + row]) sum += data[line - 4] + data[line] + data[line + 4];
    out[at] = sum / 9;
  }
  return { data: out, width, height };
}

function unmatched(a: Pixels, b: Pixels): number {
  const height = Math.min(a.height, b.height);
  const isLike = (i: number, j: number): boolean =>
    Math.abs(a.data[i] - b.data[j]) <= NEAR &&
    Math.abs(a.data[i + 1] - b.data[j + 1]) <= NEAR &&
    Math.abs(a.data[i + 2] - b.data[j + 2]) <= NEAR;
  const [row, beside] = [4 * a.width, [0, -4, 4]];
  const steps = [...beside, ...beside.map((by) => by - row), ...beside.map((by) => by + row)];
  let different = 0;
  for (let y = 2; y < height - 2; y++)
    for (let at = y * row + 8; at < (y + 1) * row - 8; at += 4)
      if (!steps.some((by) => isLike(at, at + by))) different++;
  return different / (a.width * height);
}

/** What is seen of every colour at a size of `across` mm, as SVG on the file's own page. */
export function stackedSvg(artwork: Artwork, across = 400): { svg: string; colours: number } {
  const prepared = preparePiece(artwork, { width: across, height: null, lockAspect: true });
  const seen = seenColours(prepared.shapes);
  const { x, y, width } = prepared.natural;
  const page = `viewBox="0 0 ${artwork.page.width} ${artwork.page.height}" width="${artwork.page.width}" height="${artwork.page.height}"`;
  const paths = seen.map((s) => `<path fill="${s.colour}" d="${regionToPathData(s.region)}"/>`).join('');
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" ${page}><g transform="translate(${x} ${y}) scale(${width / prepared.width})">${paths}</g></svg>`;
  return { svg, colours: seen.length };
}

/**
 * The artwork as it was read, shape by shape with its strokes and clips, as SVG on its own page: nothing is separated.
 * @param pixel lines are drawn this wide at least, as renderers of pages do, mm
 */
export function artworkSvg({ page: { width, height }, shapes, clips }: Artwork, pixel = 0): string {
  const defs = clips.map((clip, i) => clipSvg(clip, i, `x="0" y="0" width="${width}" height="${height}"`));
  const drawn = shapes.map((shape) => {
    const least = pixel / Math.max(stretch(shape.matrix), 1e-9);
    const paint = shape.stroke
      ? `fill="none" stroke="${shape.colour}" ${strokeSvg(shape.stroke, least)}`
      : `fill="${shape.colour}" fill-rule="${shape.fill}"`;
    const path = `<path ${paint} ${placeSvg(shape)}/>`;
    return shape.clips.reduce((inner, clip) => `<g mask="url(#c${clip})">${inner}</g>`, path);
  });
  return `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${width} ${height}" width="${width}" height="${height}"><defs>${defs.join('')}</defs>${drawn.join('')}</svg>`;
}

function clipSvg({ outlines, parent }: Clip, i: number, area: string): string {
  const parts = outlines.map(({ fill, stroke, isHole, ...place }) => {
    const colour = isHole ? 'black' : 'white';
    const paint = stroke
      ? `fill="none" stroke="${colour}" ${strokeSvg(stroke)}`
      : `fill="${colour}" fill-rule="${fill}"`;
    return `<path ${paint} ${placeSvg(place)}/>`;
  });
  const outer = parent === undefined ? '' : `mask="url(#c${parent})"`;
  return `<mask id="c${i}" maskUnits="userSpaceOnUse" ${area} ${outer}>${parts.join('')}</mask>`;
}

const placeSvg = ({ path, matrix }: Pick<Shape, 'path' | 'matrix'>): string =>
  `transform="matrix(${matrix.join(' ')})" d="${pathDataOf(path)}"`;

function pathDataOf({ ops, xy }: Path): string {
  let at = 0;
  return [...ops]
    .map((op) => {
      const takes = op === 'C' ? 6 : op === 'Z' ? 0 : 2;
      at += takes;
      return op + xy.slice(at - takes, at).join(' ');
    })
    .join('');
}

const strokeSvg = ({ width, cap, join, miterLimit, dashes, dashStart }: StrokeStyle, least = 0): string =>
  `stroke-width="${Math.max(width, least)}" stroke-linecap="${cap}" stroke-linejoin="${join}" stroke-miterlimit="${miterLimit}"` +
  (dashes.length > 0 ? ` stroke-dasharray="${dashes.join(' ')}" stroke-dashoffset="${dashStart}"` : '');
