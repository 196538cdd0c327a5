import sharp from 'sharp';
import type { Artwork } from '../../core/artwork/artwork';
import type { TraceChoices } from '../../core/artwork/choices';
import { DEFAULT_TRACE } from '../../core/artwork/choices';
import type { Picture } from '../../core/artwork/trace/picture';
import { artworkOfTrace, suggestTrace, trace } from '../../core/artwork/trace/trace';
import { FileProblem } from './fileProblem';
import type { Tell } from './tell';

/** A picture of more pixels needs more memory than one file may take. */
const MOST_PIXELS = 40_000_000;
/** Pixels an inch when the picture does not say (CSS: 96). */
const ORDINARY_DENSITY = 96;

interface Opened {
  readonly picture: Picture;
  readonly mmPerPixel: number;
}

async function open(bytes: Uint8Array): Promise<Opened> {
  try {
    const image = sharp(bytes, { limitInputPixels: MOST_PIXELS, failOn: 'truncated' });
    const { width = 0, height = 0, density } = await image.metadata();
    if (width * height > MOST_PIXELS) throw tooManyPixels(width, height);
    const { data, info } = await image
      .rotate()
      .toColourspace('srgb')
      .ensureAlpha()
      .raw()
      .toBuffer({ resolveWithObject: true });
    const dpi = density && density >= 20 && density <= 4800 ? density : ORDINARY_DENSITY;
    return { picture: { width: info.width, height: info.height, data }, mmPerPixel: 25.4 / dpi };
  } catch (error) {
    if (error instanceof FileProblem) throw error;
    throw pictureProblem(String(error));
  }
}

const tooManyPixels = (width: number, height: number): FileProblem =>
  new FileProblem(
    'too-many-pixels',
    `The picture has ${width} × ${height} pixels; ${MOST_PIXELS / 1e6} million is the most. Make it smaller and bring it in again: tracing needs no more.`,
  );

function pictureProblem(message: string): FileProblem {
  if (/pixel limit/i.test(message)) {
    return new FileProblem(
      'too-many-pixels',
      `The picture has more than ${MOST_PIXELS / 1e6} million pixels. Make it smaller and bring it in again: tracing needs no more.`,
    );
  }
  if (/premature|truncated|end of|corrupt/i.test(message)) {
    return new FileProblem(
      'cut-off',
      'The picture stops in the middle: part of it is missing. Send it again and bring the whole file in.',
    );
  }
  return new FileProblem(
    'unreadable',
    'The picture is damaged and cannot be read. Save it again as PNG and bring that in.',
  );
}

/** How a picture is traced when nobody has said it. */
export async function suggestFor(bytes: Uint8Array): Promise<TraceChoices> {
  return suggestTrace((await open(bytes)).picture, DEFAULT_TRACE);
}

/** Traces a picture. */
export async function readPicture(
  bytes: Uint8Array,
  choices: TraceChoices | null,
  tell?: Tell,
): Promise<Artwork> {
  const { picture, mmPerPixel } = await open(bytes);
  const traced = trace(picture, choices ?? suggestTrace(picture, DEFAULT_TRACE), (share) => {
    tell?.(0.1 + 0.9 * share);
    return true;
  });
  return artworkOfTrace(traced, mmPerPixel);
}

/** The picture for a page to look at, no more than `width` pixels across. */
export async function pictureForPage(bytes: Uint8Array, width: number): Promise<Uint8Array> {
  try {
    return await sharp(bytes, { limitInputPixels: MOST_PIXELS })
      .rotate()
      .resize({ width, withoutEnlargement: true })
      .png({ compressionLevel: 3 })
      .toBuffer();
  } catch (error) {
    throw pictureProblem(String(error));
  }
}
