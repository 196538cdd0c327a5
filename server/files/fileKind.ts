/** What kind of file it is, known by what is in it. */
import { FileProblem } from './fileProblem';

export type FileKind = 'svg' | 'dxf' | 'pdf' | 'eps' | 'plt' | 'picture';

/** @throws FileProblem when it is none of the kinds that can be read */
export function kindOf(bytes: Uint8Array): FileKind {
  if (bytes.length === 0) throw empty();
  const head = Buffer.from(bytes.subarray(0, 4096)).toString('latin1');
  if (/^PK\x03\x04/.test(head)) throw unknownKind(head);
  if (/^\x89PNG|^\xff\xd8\xff|^RIFF[\s\S]{4}WEBP|^GIF8[79]a|^II\*\0|^MM\0\*/.test(head)) return 'picture';
  if (isBmp(bytes)) return 'picture';
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

/** By its first letters, and by the length of its header: HP-GL may begin with these letters too. */
function isBmp(bytes: Uint8Array): boolean {
  if (bytes.length < 18 || bytes[0] !== 0x42 || bytes[1] !== 0x4d) return false;
  return [12, 40, 52, 56, 64, 108, 124].includes(Buffer.from(bytes.subarray(14, 18)).readUInt32LE());
}

const empty = (): FileProblem =>
  new FileProblem('empty', 'The file is empty. Save the drawing again and drop it here once more.');

function unknownKind(head: string): FileProblem {
  const known = /^PK/.test(head)
    ? 'This is a packed folder: unpack it and drop the drawing that is in it.'
    : 'This is no drawing that can be read. SVG, PDF, EPS, DXF, HP-GL, PNG, JPEG, WebP, GIF, TIFF and BMP can.';
  return new FileProblem('unknown-kind', known);
}
