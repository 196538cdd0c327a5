/** Any file a customer sends: known by what is in it, whatever its name says. */
import { gunzipSync } from 'node:zlib';
import type { Artwork } from '../../core/readers/artwork';
import type { FileSource } from '../../core/artwork/choices';
import { readDxf } from '../../core/readers/dxf/readDxf';
import { readPlt } from '../../core/readers/plt/readPlt';
import { FileProblem } from './fileProblem';
import { tooMuch, workOf } from './limits';
import type { Tell } from './tell';
import { LARGEST_UPLOAD, readSvg, tooBig } from './readSvg';
import { readEps, readPdfFile } from './readPdfFile';
import { openPicture, suggestFor, tracePicture } from './readPicture';

export type FileKind = 'svg' | 'dxf' | 'pdf' | 'eps' | 'plt' | 'picture';

const toNobody: Tell = () => {};

/** What could be chosen when a file is read; all null: as it comes. */
export type Reading = Pick<FileSource, 'page' | 'box' | 'units' | 'trace' | 'font'>;

export const AS_IT_COMES: Reading = { page: null, box: null, units: null, trace: null, font: null };

/** @throws FileProblem when it is none of the kinds that can be read */
export function kindOf(bytes: Uint8Array): FileKind {
  if (bytes.length === 0) throw empty();
  const head = Buffer.from(bytes.subarray(0, 4096)).toString('latin1');
  if (/^PK\x03\x04/.test(head)) throw unknownKind(head);
  if (/^\x89PNG|^\xff\xd8\xff|^RIFF[\s\S]{4}WEBP/.test(head)) return 'picture';
  if (head.slice(0, 1024).includes('%PDF-')) return 'pdf';
  if (head.startsWith('%!') || head.startsWith('\xc5\xd0\xd3\xc6')) return 'eps';
  if (head.startsWith('\x1f\x8b')) return 'svg';
  if (/^.{0,12}Binary DXF/.test(head)) {
    throw new FileProblem(
      'binary-dxf',
      'This is a DXF in its binary form. Save it as DXF text and bring that in.',
    );
  }
  if (/^\s*(?:999\r?\n.*\r?\n\s*)*0\s*\r?\n\s*SECTION/.test(head)) return 'dxf';
  const text = head.replace(/\0/g, '');
  if (/<(?:[\w-]+:)?svg[\s>/]/.test(text) || /^\uFEFF?\s*<|^\xef\xbb\xbf\s*</.test(text)) return 'svg';
  if (/^[\s\x1b%\-\d.A-Z]*\b(?:IN|DF|PU|PD|PA|SP|IP|RO|BP)[\s\d,;.-]/.test(head) && head.includes(';'))
    return 'plt';
  if (text.trim() === '') throw empty();
  throw unknownKind(head);
}

const empty = (): FileProblem =>
  new FileProblem('empty', 'The file is empty. Save the drawing again and drop it here once more.');

function unknownKind(head: string): FileProblem {
  const known = /^PK/.test(head)
    ? 'This is a packed folder: unpack it and drop the drawing that is in it.'
    : /^GIF8|^BM|^II\*|^MM\0\*/.test(head)
      ? 'This kind of picture cannot be read: save it as PNG, JPEG or WebP and drop that here.'
      : 'This is no drawing that can be read. SVG, PDF, EPS, DXF, HP-GL, PNG, JPEG and WebP can.';
  return new FileProblem('unknown-kind', known);
}

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

/** Reads a file that has just come in, and says how; a picture is unpacked once for both. */
export async function readFirst(
  bytes: Uint8Array,
  tell: Tell,
): Promise<{ readonly artwork: Artwork; readonly reading: Reading }> {
  if (bytes.length > LARGEST_UPLOAD) throw tooBig(bytes.length);
  if (kindOf(bytes) !== 'picture')
    return { artwork: await readFile(bytes, AS_IT_COMES, tell), reading: AS_IT_COMES };
  const opened = await openPicture(bytes);
  const trace = suggestFor(opened);
  return { artwork: workable(tracePicture(opened, trace, tell)), reading: { ...AS_IT_COMES, trace } };
}

async function readAs(kind: FileKind, bytes: Uint8Array, reading: Reading, tell: Tell): Promise<Artwork> {
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

/** An SVG that was packed to travel. */
function unpacked(bytes: Uint8Array): Uint8Array {
  if (bytes[0] !== 0x1f || bytes[1] !== 0x8b) return bytes;
  try {
    return gunzipSync(bytes, { maxOutputLength: LARGEST_UPLOAD });
  } catch {
    throw new FileProblem(
      'unreadable',
      'The file is packed and cannot be unpacked, or is larger than 40 MB inside.',
    );
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
