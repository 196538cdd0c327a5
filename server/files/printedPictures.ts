/** Pictures of a printed sheet, ready to be laid on its page: as they came, and grown past their edges for the bleed. */
import sharp from 'sharp';
import type { ShownPicture } from '../../core/artwork/preparePiece';
import type { Matrix } from '../../core/geometry/matrix';
import type { ColourArea } from '../../core/print/bleed';
import { grownPicture, reachOf } from '../../core/print/grownPicture';
import type { PrintUnit } from '../../core/print/sheets';
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
  const known = new Map<string, Buffer>();
  const lay = async (
    area: ColourArea,
    as: (picture: ShownPicture, bytes: Uint8Array) => Promise<LaidPicture>,
  ): Promise<void> => {
    const bytes = area.picture && files.get(area.picture.file);
    if (area.picture && bytes) laid.set(area, await as(area.picture, bytes));
  };
  for (const area of art)
    await lay(area, async (picture, file) => {
      const bytes = known.get(picture.file) ?? (await pictureForPrint(file, isJpegKept));
      // pieces with the same picture share its bytes, and so does the page
      known.set(picture.file, bytes);
      return { bytes, x: 0, y: 0, ...picture };
    });
  for (const area of bleed) await lay(area, (picture, file) => grown(area, picture, file));
  return laid;
}

/** The picture's edges drawn out as far as the bleed goes. */
async function grown({ region }: ColourArea, picture: ShownPicture, file: Uint8Array): Promise<LaidPicture> {
  const { width, height, matrix } = picture;
  const { at, data, ...size } = grownPicture((await openPicture(file)).picture, reachOf(region, picture));
  const bytes = await sharp(data, { raw: { ...size, channels: 4 } })
    .removeAlpha()
    .png()
    .toBuffer();
  const scale = width / at.width;
  return {
    bytes,
    x: -at.x * scale,
    y: -at.y * (height / at.height),
    width: size.width * scale,
    height: size.height * (height / at.height),
    matrix,
  };
}
