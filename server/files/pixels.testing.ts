/** Pictures of SVG by an independent renderer (resvg), and how far two of them differ. Only tests use this. */
import { Resvg } from '@resvg/resvg-js';
import type { Artwork } from '../../core/readers/artwork';
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
