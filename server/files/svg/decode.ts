/** A file's bytes as text, in the encoding it says or, where it says a wrong one, in the one it is in. */
import { FileProblem } from '../fileProblem';

export interface Decoded {
  readonly text: string;
  /** The file says or implies another encoding than it is in. */
  readonly mended: boolean;
}

/** Characters that XML 1.0 forbids (2.2); some programs leave them in names. */

const FORBIDDEN = /[\0-\x08\x0b\x0c\x0e-\x1f]/g;

/** @throws FileProblem when there is nothing in it */
export function decode(bytes: Uint8Array): Decoded {
  const { text, mended } = inItsEncoding(bytes);
  const clean = text.replace(/^\uFEFF/, '').replace(FORBIDDEN, '');
  if (clean.trim().length === 0) {
    throw new FileProblem(
      'empty',
      'The file is empty. Save the drawing again as SVG and drop it here once more.',
    );
  }
  return { text: clean, mended };
}

function inItsEncoding(bytes: Uint8Array): Decoded {
  const [a, b] = bytes;
  if (a === 0xff && b === 0xfe) return { text: new TextDecoder('utf-16le').decode(bytes), mended: false };
  if (a === 0xfe && b === 0xff) return { text: new TextDecoder('utf-16be').decode(bytes), mended: false };
  const head = Buffer.from(bytes.subarray(0, 200)).toString('latin1');
  const said = /^\s*<\?xml[^>]*encoding\s*=\s*["']([\w.:-]+)["']/i.exec(head)?.[1] ?? 'utf-8';
  // without its mark a file that says UTF-16 in one-byte letters is none
  const label = /^utf-?16|^ucs/i.test(said) ? 'utf-8' : said;
  for (const [encoding, mended] of [
    [label, label !== said],
    ['utf-8', true],
  ] as const) {
    try {
      return { text: new TextDecoder(encoding, { fatal: true }).decode(bytes), mended };
    } catch {
      // the next one
    }
  }
  return { text: new TextDecoder('windows-1252').decode(bytes), mended: true };
}
