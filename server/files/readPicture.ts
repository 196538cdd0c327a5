import { join } from 'node:path';
import type { Artwork } from '../../core/artwork/artwork';
import type { Finding } from '../../core/findings/finding';
import type { TraceChoices } from '../../core/artwork/choices';
import { DEFAULT_TRACE } from '../../core/artwork/choices';
import type { Picture } from '../../core/artwork/trace/picture';
import { artworkOfTrace, suggestTrace, trace } from '../../core/artwork/trace/trace';
import { FileProblem } from './fileProblem';
import { launchOwn, tooComplicated } from './launch';
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

interface Opened {
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
  readonly problem?: string;
}

/** What the decoder gives: its words about the picture, and bytes. @throws FileProblem when it cannot be read */
async function decode(bytes: Uint8Array, width?: number): Promise<{ head: PictureHead; data: Buffer }> {
  const answer = await launchOwn(CHILD, [JSON.stringify({ mostPixels: MOST_PIXELS, width })], bytes);
  if (answer.length < 4) throw tooComplicated('picture');
  const end = 4 + answer.readUInt32LE(0);
  const head = JSON.parse(answer.subarray(4, end).toString()) as PictureHead;
  if (head.problem !== undefined) throw pictureProblem(head);
  return { head, data: answer.subarray(end) };
}

async function open(bytes: Uint8Array): Promise<Opened> {
  const { head, data } = await decode(bytes);
  const { width = 0, height = 0, density, smoothed = false } = head;
  const dpi = density && density >= 20 && density <= 4800 ? density : ORDINARY_DENSITY;
  return { picture: { width, height, data }, mmPerPixel: 25.4 / dpi, isSmoothed: smoothed };
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
export async function suggestFor(bytes: Uint8Array): Promise<TraceChoices> {
  return suggestTrace((await open(bytes)).picture, DEFAULT_TRACE);
}

/** Traces a picture. */
export async function readPicture(
  bytes: Uint8Array,
  choices: TraceChoices | null,
  tell?: Tell,
): Promise<Artwork> {
  const { picture, mmPerPixel, isSmoothed } = await open(bytes);
  const traced = trace(picture, choices ?? suggestTrace(picture, DEFAULT_TRACE), (share) => {
    tell?.(0.1 + 0.9 * share);
    return true;
  });
  const artwork = artworkOfTrace(traced, mmPerPixel);
  return isSmoothed ? { ...artwork, findings: [grainy, ...artwork.findings] } : artwork;
}

/** The picture for a page to look at, no more than `width` pixels across. */
export const pictureForPage = async (bytes: Uint8Array, width: number): Promise<Uint8Array> =>
  (await decode(bytes, width)).data;
