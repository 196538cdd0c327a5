import { gunzipSync } from 'node:zlib';
import { FileProblem } from './fileProblem';
import { LARGEST_UPLOAD } from './limits';

/** An SVG that was packed to travel. */
export function unpacked(bytes: Uint8Array): Uint8Array {
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
