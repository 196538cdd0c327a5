import { inflateSync } from 'node:zlib';
import { decompress } from 'wawoff2';
import { FileProblem } from './fileProblem';

const LARGEST_FONT = 30 * 1024 * 1024;

/**
 * A font file as plain OpenType: TTF and OTF as they are, WOFF (W3C, WOFF File Format 1.0) and WOFF2 unpacked.
 * @throws FileProblem when it is no font or a damaged one
 */
export async function toSfnt(bytes: Uint8Array): Promise<Uint8Array> {
  const tag = Buffer.from(bytes.subarray(0, 4)).toString('latin1');
  try {
    if (tag === 'wOF2') return limited(await unpackWoff2(bytes));
    if (tag === 'wOFF') return limited(unpackWoff(Buffer.from(bytes)));
  } catch (error) {
    if (error instanceof FileProblem) throw error;
    throw new FileProblem(
      'font-damaged',
      'This typeface is damaged and cannot be read. Ask for the file again.',
    );
  }
  if (tag === 'OTTO' || tag === 'true' || tag === '\0\x01\0\0') return bytes;
  throw new FileProblem('no-font', 'This is no typeface. TTF, OTF, WOFF and WOFF2 files can be used.');
}

let before: Promise<unknown> = Promise.resolve();

/** One after the other: the unpacker gives a view of its own memory, which the next font overwrites. */
function unpackWoff2(bytes: Uint8Array): Promise<Uint8Array> {
  const mine = before.then(async () => Uint8Array.from(await decompress(bytes)));
  before = mine.catch(() => {});
  return mine;
}

function limited(bytes: Uint8Array): Uint8Array {
  if (bytes.length > LARGEST_FONT)
    throw new FileProblem('font-too-big', 'This typeface is larger than 30 MB unpacked.');
  return bytes;
}

function unpackWoff(woff: Buffer): Uint8Array {
  const count = woff.readUInt16BE(12);
  const tables = Array.from({ length: count }, (_, i) => {
    const at = 44 + 20 * i;
    const [offset, packed, length] = [4, 8, 12].map((k) => woff.readUInt32BE(at + k));
    if (length > LARGEST_FONT) throw new Error('too long');
    const raw = woff.subarray(offset, offset + packed);
    const data = packed < length ? inflateSync(raw, { maxOutputLength: LARGEST_FONT }) : raw;
    return { tag: woff.subarray(at, at + 4), checksum: woff.readUInt32BE(at + 16), data };
  });
  const head = Buffer.alloc(12 + 16 * count);
  woff.copy(head, 0, 4, 8);
  head.writeUInt16BE(count, 4);
  const power = 2 ** Math.floor(Math.log2(Math.max(1, count)));
  head.writeUInt16BE(power * 16, 6);
  head.writeUInt16BE(Math.log2(power), 8);
  head.writeUInt16BE(count * 16 - power * 16, 10);
  const parts: Buffer[] = [head];
  let offset = head.length;
  tables.forEach(({ tag, checksum, data }, i) => {
    const at = 12 + 16 * i;
    tag.copy(head, at);
    head.writeUInt32BE(checksum, at + 4);
    head.writeUInt32BE(offset, at + 8);
    head.writeUInt32BE(data.length, at + 12);
    const padded = Buffer.alloc((data.length + 3) & ~3);
    Buffer.from(data).copy(padded);
    parts.push(padded);
    offset += padded.length;
  });
  return Buffer.concat(parts);
}
