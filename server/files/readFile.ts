/** Any file a customer sends: known by what is in it, whatever its name says. */
import type { Artwork } from '../../core/readers/artwork';
import type { FileSource } from '../../core/artwork/choices';
import { PRINTED_AS_IT_IS } from '../../core/artwork/choices';
import { readDxf } from '../../core/readers/dxf/readDxf';
import { readPlt } from '../../core/readers/plt/readPlt';
import { FileProblem } from './fileProblem';
import { hasPages } from './pageAsItIs';
import { readAsItIs } from './readAsItIs';
import { unpacked } from './unpacked';
import type { FileKind } from './fileKind';
import { kindOf } from './fileKind';
import { LARGEST_UPLOAD, tooBig, tooMuch, workOf } from './limits';
import type { Tell } from './tell';
import { readSvg } from './readSvg';
import { readEps, readPdfFile } from './readPdfFile';
import { openPicture, suggestFor, tracePicture } from './readPicture';

const toNobody: Tell = () => {};

/** What could be chosen when a file is read; all null: as it comes. */
export type Reading = Pick<FileSource, 'page' | 'box' | 'units' | 'trace' | 'font'>;

export const AS_IT_COMES: Reading = { page: null, box: null, units: null, trace: null, font: null };

/**
 * Reads a customer's file.
 * @throws FileProblem with a sentence for a person when it cannot be read, or holds nothing at all
 */
export async function readFile(
  bytes: Uint8Array,
  reading: Reading = AS_IT_COMES,
  tell: Tell = toNobody,
): Promise<Artwork> {
  if (bytes.length > LARGEST_UPLOAD) throw tooBig(bytes.length);
  const kind = kindOf(bytes);
  const artwork = await readAs(kind, bytes, reading, tell);
  if (artwork.shapes.length === 0 && kind !== 'picture') throw nothingToCut(artwork);
  return workable(artwork);
}

/** @throws FileProblem when there is more in it than one order can hold */
function workable(artwork: Artwork): Artwork {
  const problem = tooMuch(workOf(artwork));
  if (problem) throw problem;
  return artwork;
}

/** A page of which nothing can be cut may still be printed, and cut around. */
const PRINTED: Reading = { ...AS_IT_COMES, trace: PRINTED_AS_IT_IS };

/** Reads a file that has just come in, and says how; a picture is unpacked once for both. */
export async function readFirst(
  bytes: Uint8Array,
  tell: Tell,
): Promise<{ readonly artwork: Artwork; readonly reading: Reading }> {
  if (bytes.length > LARGEST_UPLOAD) throw tooBig(bytes.length);
  const kind = kindOf(bytes);
  if (kind === 'picture') {
    const opened = await openPicture(bytes);
    const trace = suggestFor(opened);
    return { artwork: workable(tracePicture(opened, trace, tell)), reading: { ...AS_IT_COMES, trace } };
  }
  const drawn = await readDrawn(kind, bytes, AS_IT_COMES, tell);
  for (const reading of [AS_IT_COMES, PRINTED]) {
    const artwork = await readPage(kind, drawn, bytes, reading);
    if (artwork.shapes.length > 0) return { artwork: workable(artwork), reading };
  }
  throw nothingToCut(drawn);
}

const readAs = async (kind: FileKind, bytes: Uint8Array, reading: Reading, tell: Tell): Promise<Artwork> =>
  readPage(kind, await readDrawn(kind, bytes, reading, tell), bytes, reading);

/** What has a page may be printed as it is instead of being drawn by its shapes. */
async function readPage(
  kind: FileKind,
  drawn: Artwork,
  bytes: Uint8Array,
  reading: Reading,
): Promise<Artwork> {
  if (!hasPages(kind)) return drawn;
  const { trace } = reading;
  const artwork = trace?.by === 'print' ? await readAsItIs(drawn, bytes, reading, trace) : drawn;
  return { ...artwork, offers: { ...artwork.offers, asIs: true } };
}

async function readDrawn(kind: FileKind, bytes: Uint8Array, reading: Reading, tell: Tell): Promise<Artwork> {
  switch (kind) {
    case 'svg':
      return readSvg(unpacked(bytes), reading.font, tell);
    case 'pdf':
      return readPdfFile(bytes, reading, tell);
    case 'eps':
      return readEps(bytes, tell);
    case 'picture': {
      const opened = await openPicture(bytes);
      return tracePicture(opened, reading.trace ?? suggestFor(opened), tell);
    }
    case 'dxf':
      return readText('DXF', () => readDxf(textOf(bytes), reading.units));
    default:
      return readText('HP-GL', () => readPlt(textOf(bytes)));
  }
}

/** Drawing text comes in UTF-8 or, from older programs, one byte a letter. */
function textOf(bytes: Uint8Array): string {
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes);
  } catch {
    return Buffer.from(bytes).toString('latin1');
  }
}

function readText(kind: string, read: () => Artwork): Artwork {
  try {
    return read();
  } catch (error) {
    const message = String(error);
    if (/in the middle/.test(message)) {
      throw new FileProblem(
        'cut-off',
        `The ${kind} file stops in the middle: part of it is missing. Send it again and bring the whole file in.`,
      );
    }
    if (/coordinate|no plotter reaches/.test(message)) {
      throw new FileProblem(
        'no-place',
        `The ${kind} file has a place that is no number or lies further off than any sheet. Save it again, or as SVG or PDF.`,
      );
    }
    if (/too many/.test(message)) {
      throw new FileProblem(
        'unworkable',
        `The ${kind} file has more lines than can be cut in one order. Split the drawing and bring it in again.`,
      );
    }
    throw new FileProblem(
      'unreadable',
      `The ${kind} file is damaged and cannot be read. Save it again, or as SVG or PDF.`,
    );
  }
}

function nothingToCut({ findings }: Artwork): FileProblem {
  const why = findings.map((finding) => `${finding.message} `).join('');
  return new FileProblem(
    'nothing-to-cut',
    `There is nothing in this file that a knife can cut: no filled shape and no line. ${why}Turn text and pictures into outlines in the drawing and bring it in again.`,
  );
}

/** How a file is read to begin with: a picture with what suits it, all else as it comes. */
export async function firstReading(bytes: Uint8Array): Promise<Reading> {
  if (kindOf(bytes) !== 'picture') return AS_IT_COMES;
  return { ...AS_IT_COMES, trace: suggestFor(await openPicture(bytes)) };
}
