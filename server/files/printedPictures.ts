/** Pictures of a printed sheet, ready to be laid on its page: as they came, and grown past their edges for the bleed. */
import sharp from 'sharp';
import type { Matrix } from '../../core/geometry/matrix';
import type { ColourArea } from '../../core/print/bleed';
import { grownPicture, reachOf } from '../../core/print/grownPicture';
import type { PrintUnit } from '../../core/print/sheets';
import type { Picture } from '../../core/tracing/picture';
import { openPicture, pictureForPrint } from './readPicture';

/** A picture laid on a page. */
export interface LaidPicture {
  /** JPEG as it came, or PNG. */
  readonly bytes: Buffer;
  /** Where it lies, in pixels of the picture as it came. */
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
  /** From those pixels to mm. */
  readonly matrix: Matrix;
}

/** What is laid in the areas that show a picture. */
export type LaidPictures = ReadonlyMap<ColourArea, LaidPicture>;

/**
 * @param files what is in them, by hash; a picture that is not among them stays an area of its colour
 * @param isJpegKept a JPEG stays as it came, in its own inks; else all are PNG
 * @throws FileProblem when a picture cannot be read
 */
export async function laidPictures(
  { art, bleed }: Pick<PrintUnit, 'art' | 'bleed'>,
  files: ReadonlyMap<string, Uint8Array>,
  isJpegKept: boolean,
): Promise<LaidPictures> {
  const laid = new Map<ColourArea, LaidPicture>();
  // pieces with the same picture share what is made of it, and so does the page
  const original = onceEach((hash: string) => pictureForPrint(files.get(hash)!, isJpegKept));
  const opened = onceEach((hash: string) => openPicture(files.get(hash)!));
  const grown = onceEach(async (hash: string, reach: number) =>
    grownPng((await opened(hash)).picture, reach),
  );
  const isThere = ({ picture }: ColourArea): boolean => picture !== undefined && files.has(picture.file);
  for (const area of art.filter(isThere)) {
    const { file, ...picture } = area.picture!;
    laid.set(area, { bytes: await original(file), x: 0, y: 0, ...picture });
  }
  for (const area of bleed.filter(isThere)) {
    const { file, ...picture } = area.picture!;
    const { bytes, at, size } = await grown(file, reachOf(area.region, area.picture!));
    const [across, down] = [picture.width / at.width, picture.height / at.height];
    const place = {
      x: -at.x * across,
      y: -at.y * down,
      width: size.width * across,
      height: size.height * down,
    };
    laid.set(area, { bytes, ...place, matrix: picture.matrix });
  }
  return laid;
}

/** What is asked for twice is made once. */
function onceEach<Asked extends readonly (string | number)[], T>(
  make: (...asked: Asked) => Promise<T>,
): (...asked: Asked) => Promise<T> {
  const known = new Map<string, Promise<T>>();
  return (...asked) => {
    const name = asked.join(' ');
    const made = known.get(name) ?? make(...asked);
    known.set(name, made);
    return made;
  };
}

/** A picture with its edges drawn out, and where in it the picture itself lies. */
async function grownPng(picture: Picture, reach: number) {
  const { at, data, ...size } = grownPicture(picture, reach);
  const bytes = await sharp(data, { raw: { ...size, channels: 4 } })
    .removeAlpha()
    .png()
    .toBuffer();
  return { bytes, at, size };
}
