/** What waits for foreign parsers, and a cut's own record, run in threads of their own so that no request and no planning waits behind it. */
import { readlinkSync } from 'node:fs';
import type { MessagePort } from 'node:worker_threads';
import type { FilePart, TextSource } from '../../core/artwork/choices';
import type { Artwork } from '../../core/readers/artwork';
import { kindOf } from '../files/fileKind';
import { FileProblem } from '../files/fileProblem';
import { hasPages, pagePng } from '../files/pageAsItIs';
import type { Reading } from '../files/readFile';
import { readFile, readFirst } from '../files/readFile';
import { pictureForPage, sizeOfPicture } from '../files/readPicture';
import { inspectFont, setText } from '../files/setText';

export { readRecord } from './readRecord';

/** A problem with a file is an answer, not a crash of the thread. */
export type Answer<T> =
  | { readonly ok: true; readonly value: T }
  | { readonly ok: false; readonly code: string; readonly message: string };

/** Whoever gave a task out: hears which thread does it, so as to end one that computes too long, and how far it has come. */
interface Watched {
  readonly port?: MessagePort;
}

async function answer<T>({ port }: Watched, work: () => Promise<T>): Promise<Answer<T>> {
  port?.postMessage({ thread: readlinkSync('/proc/thread-self') });
  try {
    return { ok: true, value: await work() };
  } catch (error) {
    if (!(error instanceof FileProblem)) throw error;
    return { ok: false, code: error.code, message: error.message };
  }
}

/** Reads a file that has just come in, and says how; its shares come over `port` on the way. */
export const takeIn = ({
  bytes,
  ...watched
}: { bytes: Uint8Array } & Watched): Promise<Answer<{ artwork: Artwork; reading: Reading }>> =>
  answer(watched, () => readFirst(bytes, (share) => watched.port?.postMessage(share)));

/** Reads a file as a person chose. */
export const read = ({
  bytes,
  reading,
  ...watched
}: { bytes: Uint8Array; reading: Reading } & Watched): Promise<Answer<Artwork>> =>
  answer(watched, () => readFile(bytes, reading));

/** Sets text; `font` is the file of a typeface that the shop brought. */
export const typeset = ({
  source,
  font,
  ...watched
}: { source: TextSource; font?: Uint8Array } & Watched): Promise<Answer<Artwork>> =>
  answer(watched, () => setText(source, font));

export const lookAtFont = ({ bytes, ...watched }: { bytes: Uint8Array } & Watched) =>
  answer(watched, () => inspectFont(bytes));

/** How many pixels a picture has, as it is seen. */
export const measurePicture = ({ bytes, ...watched }: { bytes: Uint8Array } & Watched) =>
  answer(watched, () => {
    if (kindOf(bytes) !== 'picture')
      throw new FileProblem(
        'no-picture',
        'That file is no picture. A photograph as JPEG, PNG, WebP, GIF, TIFF or BMP will do.',
      );
    return sizeOfPicture(bytes);
  });

export const showPicture = ({
  bytes,
  width,
  part,
  ...watched
}: { bytes: Uint8Array; width: number; part: FilePart } & Watched) =>
  answer(watched, async () =>
    hasPages(kindOf(bytes)) ? pagePng(bytes, part, width) : pictureForPage(bytes, width),
  );
