/** How much one order can hold: what lies over it is refused before work starts. */
import type { Artwork } from '../../core/readers/artwork';
import { FileProblem } from './fileProblem';

export interface Work {
  readonly shapes: number;
  /** Outlines and lines. */
  readonly loops: number;
  /** Ends of lines and curves. */
  readonly points: number;
}

/** What a plan takes a minute or two for on a small machine; see `npm run bench`. */
export const MOST: Work = { shapes: 50_000, loops: 250_000, points: 4_000_000 };

const NAMES: Readonly<Record<keyof Work, string>> = {
  shapes: 'shapes',
  loops: 'outlines',
  points: 'points',
};

/** @returns a problem with both numbers when it is too much */
export function tooMuch(work: Work): FileProblem | undefined {
  const over = (Object.keys(MOST) as (keyof Work)[]).find((key) => work[key] > MOST[key]);
  if (!over) return undefined;
  const count = work[over] > 1e9 ? 'more than a thousand million' : work[over].toLocaleString('en-GB');
  return new FileProblem(
    `too-many-${over}`,
    `The drawing has ${count} ${NAMES[over]}; ${MOST[over].toLocaleString('en-GB')} is the most that can be cut in one order. Weld shapes of one colour or split the drawing, and bring it in again.`,
  );
}

/** How much work artwork is. */
export function workOf({ shapes }: Pick<Artwork, 'shapes'>): Work {
  let loops = 0;
  let points = 0;
  for (const { path } of shapes) {
    points += path.ops.length;
    for (let i = path.ops.indexOf('M'); i >= 0; i = path.ops.indexOf('M', i + 1)) loops++;
  }
  return { shapes: shapes.length, loops, points };
}

export const LARGEST_UPLOAD = 40 * 1024 * 1024;

/** @param bytes how large it is; missing: nobody waited for its end */
export const tooBig = (bytes?: number): FileProblem =>
  new FileProblem(
    'too-big',
    `The file is ${bytes ? `${(bytes / 1024 / 1024).toFixed(0)} MB` : 'too large'}; 40 MB is the most. Take placed pictures out of the drawing or split it, and bring it in again.`,
  );
