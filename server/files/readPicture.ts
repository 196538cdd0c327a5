import { join } from 'node:path';
import type { Artwork } from '../../core/readers/artwork';
import type { Finding } from '../../core/findings/finding';
import type { TraceChoices } from '../../core/tracing/choices';
import { DEFAULT_TRACE } from '../../core/artwork/choices';
import type { Picture } from '../../core/tracing/picture';
import { hasGradients, isPhotograph, suggestTrace } from '../../core/tracing/suggest';
import { artworkOfTrace, trace } from '../../core/tracing/trace';
import { FileProblem } from './fileProblem';
import type { HeadedAnswer } from './launch';
import { askForBytes } from './launch';
import type { Tell } from './tell';

const CHILD = join(process.cwd(), 'server/files/picture-child.mjs');
/** A picture of more pixels needs more memory than one file may take. */
const MOST_PIXELS = 40_000_000;
/** Pixels an inch when the picture does not say (CSS: 96). */
const ORDINARY_DENSITY = 96;

const grainy: Finding = {
  code: 'grainy',
  severity: 'note',
  message:
    'The picture is grainy: it was smoothed before it was traced. A cleaner scan gives sharper corners.',
};

const photograph: Finding = {
  code: 'photograph',
  severity: 'check',
  message: 'This looks like a photograph: films show a few flat colours of it, and its shades are lost.',
  waysOut: [
    'Print it as it is, and cut around it: Picture under Artwork',
    'Trace by brightness, for one colour',
  ],
};

const shades: Finding = {
  code: 'picture-gradient',
  severity: 'check',
  message: 'Colours fade into one another in this picture: films show a few flat colours of them.',
  waysOut: ['Print it as it is, and cut around it: Picture under Artwork', 'Trace by more colours'],
};

/** A picture unpacked, and smoothed where it was grainy. */
export interface OpenedPicture {
  readonly isSmoothed: boolean;
  readonly picture: Picture;
  readonly mmPerPixel: number;
}

interface PictureHead {
  readonly width?: number;
  readonly height?: number;
  readonly density?: number;
  /** It was grainy. */
  readonly smoothed?: boolean;
  /** Standard deviation of the grain that is left, of 255. */
  readonly noise?: number;
  readonly problem?: string;
}

/** What the decoder gives: its words about the picture, and bytes. @throws FileProblem when it cannot be read */
async function decode(
  bytes: Uint8Array,
  asked: { readonly width?: number; readonly print?: 'jpeg' | 'png' } = {},
): Promise<HeadedAnswer<PictureHead>> {
  const how = { mostPixels: MOST_PIXELS, ...asked };
  const answer = await askForBytes<PictureHead>(CHILD, how, bytes, 'picture');
  if (answer.head.problem !== undefined) throw pictureProblem(answer.head);
  return answer;
}

/** @throws FileProblem when it cannot be read */
export async function openPicture(bytes: Uint8Array): Promise<OpenedPicture> {
  const { head, data } = await decode(bytes);
  const { width = 0, height = 0, density, smoothed = false, noise } = head;
  const dpi = density && density >= 20 && density <= 4800 ? density : ORDINARY_DENSITY;
  return { picture: { width, height, data, noise }, mmPerPixel: 25.4 / dpi, isSmoothed: smoothed };
}

const tooManyPixels = (size: string): FileProblem =>
  new FileProblem(
    'too-many-pixels',
    `The picture has ${size}; ${MOST_PIXELS / 1e6} million is the most. Make it smaller and bring it in again: tracing needs no more.`,
  );

function pictureProblem({ problem = '', width, height }: PictureHead): FileProblem {
  if (/pixel limit/i.test(problem)) {
    return tooManyPixels(
      width && height ? `${width} × ${height} pixels` : `more than ${MOST_PIXELS / 1e6} million pixels`,
    );
  }
  if (/premature|truncated|end of|corrupt/i.test(problem)) {
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
export const suggestFor = ({ picture }: OpenedPicture): TraceChoices => suggestTrace(picture, DEFAULT_TRACE);

/** Traces a picture. */
export function tracePicture(
  { picture, mmPerPixel, isSmoothed }: OpenedPicture,
  choices: TraceChoices,
  tell?: Tell,
): Artwork {
  const traced = trace(picture, choices, (share) => {
    tell?.(0.1 + 0.9 * share);
    return true;
  });
  const artwork = artworkOfTrace(traced, mmPerPixel);
  // what is printed as it is loses nothing by it
  if (choices.by === 'print') return artwork;
  const lost = isPhotograph(picture) ? [photograph] : hasGradients(picture) ? [shades] : [];
  const told = [...(isSmoothed ? [grainy] : []), ...lost];
  return { ...artwork, findings: [...told, ...artwork.findings] };
}

/** Smallest picture that is unpacked only to be measured, px across. */
const TO_MEASURE = 64;

/** Pixels of a picture as it is seen, turned as it says. @throws FileProblem when it cannot be read */
export async function sizeOfPicture(
  bytes: Uint8Array,
): Promise<{ readonly width: number; readonly height: number }> {
  const { width = 0, height = 0 } = (await decode(bytes, { width: TO_MEASURE })).head;
  return { width, height };
}

/** The picture for a page to look at, no more than `width` pixels across. */
export const pictureForPage = async (bytes: Uint8Array, width: number): Promise<Uint8Array> =>
  (await decode(bytes, { width })).data;

/**
 * A picture as it is printed, with every pixel untouched.
 * @param isJpegKept a JPEG stays the file that it was, in its own inks; everything else becomes a PNG
 * @throws FileProblem when it cannot be read
 */
export const pictureForPrint = async (bytes: Uint8Array, isJpegKept: boolean): Promise<Buffer> =>
  (await decode(bytes, { print: isJpegKept ? 'jpeg' : 'png' })).data;
