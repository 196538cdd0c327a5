/** Pages as poppler draws them, an independent reader of PDFs. Only tests use this. */
import { execFileSync } from 'node:child_process';
import sharp from 'sharp';
import type { Artwork } from '../../core/readers/artwork';
import type { Pixels } from './pixels.testing';
import { differingShare, pixels, stackedSvg } from './pixels.testing';

/** The page on the grey that our pictures have. @param page from 1 */
export async function drawnByPoppler(path: string, page = 1, width = 1600): Promise<Pixels> {
  const args = ['-png', '-transp', '-singlefile', '-f', String(page), '-scale-to-x', String(width)];
  const png = execFileSync('pdftocairo', [...args, '-scale-to-y', '-1', path, '-'], { maxBuffer: 1e8 });
  const image = sharp(png).flatten({ background: '#8c8c8c' }).ensureAlpha();
  const { data, info } = await image.raw().toBuffer({ resolveWithObject: true });
  return { data, width: info.width, height: info.height };
}

/** The same by poppler's other renderer, on white: that one draws every kind of Type 3 glyph. */
export async function drawnBySplash(path: string, page = 1, width = 1600): Promise<Pixels> {
  const args = ['-png', '-singlefile', '-f', String(page), '-scale-to-x', String(width)];
  const png = execFileSync('pdftoppm', [...args, '-scale-to-y', '-1', path], { maxBuffer: 1e8 });
  const { data, info } = await sharp(png).ensureAlpha().raw().toBuffer({ resolveWithObject: true });
  return { data, width: info.width, height: info.height };
}

/** Share of the page that we draw otherwise than poppler, edges left out. */
export async function differsFromPoppler(path: string, artwork: Artwork, page = 1): Promise<number> {
  const theirs = await drawnByPoppler(path, page);
  const ours = pixels(stackedSvg(artwork).svg, theirs.width);
  return differingShare(theirs, ours);
}
