// Decodes a picture in a process of its own: a file that makes the decoder hang or crash takes nothing with it.
// argv: JSON { mostPixels, width?, print? }: all of its pixels, or a PNG no more than so many pixels across, or one to print:
// `jpeg` leaves a JPEG that lies upright as it came, all else is a PNG with every pixel. stdin: the file.
// stdout: four bytes of length, JSON { width, height, density } or { problem }, then RGBA, the PNG or the file.
import { decode } from 'bmp-ts';
import sharp from 'sharp';
import { answerWith } from './answer.mjs';

const { mostPixels, width: across, print } = JSON.parse(process.argv[2]);
sharp.concurrency(1);
sharp.cache(false);
const chunks = [];
for await (const chunk of process.stdin) chunks.push(chunk);

async function main() {
  const file = Buffer.concat(chunks);
  const isBitmap = file.toString('latin1', 0, 2) === 'BM';
  const image = isBitmap ? bitmap(file) : sharp(file, { limitInputPixels: mostPixels, failOn: 'truncated' });
  if (across !== undefined) {
    const { width = 0, height = 0, orientation = 1 } = await image.metadata();
    const seenAs = orientation > 4 ? { width: height, height: width } : { width, height };
    const small = await image
      .rotate()
      .resize({ width: across, withoutEnlargement: true })
      .ensureAlpha()
      .raw()
      .toBuffer({ resolveWithObject: true });
    // as smooth as what is traced in the end
    const size = windowFor(noiseOf(small.data, small.info.width, small.info.height, 1));
    const seen = sharp(small.data, { raw: small.info });
    const png = (size === 0 ? seen : seen.median(size)).png({ compressionLevel: 3 });
    return { head: seenAs, data: await png.toBuffer() };
  }
  const { width = 0, height = 0, format, orientation = 1, ...rest } = await image.metadata();
  const density = isBitmap ? bitmapDensity(file) : rest.density;
  if (print !== undefined) {
    if (print === 'jpeg' && format === 'jpeg' && orientation === 1)
      return { head: { width, height }, data: file };
    const { data, info } = await image
      .rotate()
      .toColourspace('srgb')
      .png({ compressionLevel: 6 })
      .toBuffer({ resolveWithObject: true });
    return { head: { width: info.width, height: info.height }, data };
  }
  if (width * height > mostPixels) return { head: { problem: 'pixel limit', width, height } };
  const { data, info } = await image
    .rotate()
    .toColourspace('srgb')
    .ensureAlpha()
    .raw()
    .toBuffer({ resolveWithObject: true });
  const { width: w, height: h } = info;
  const size = windowFor(noiseOf(data, w, h, 1));
  // the median keeps edges where they are
  const smooth = size === 0 ? data : await sharp(data, { raw: info }).median(size).raw().toBuffer();
  // what is left is told by pixels that no window has in common
  const noise = size === 0 ? 0 : noiseOf(smooth, w, h, size + 1);
  return { head: { width: w, height: h, density, smoothed: size > 0, noise }, data: smooth };
}

/** A BMP, which the decoder of all other kinds does not read: 32-bit ones without any alpha have none. */
function bitmap(file) {
  const [width, height] = file.readUInt32LE(14) === 12 ? [file.readUInt16LE(18), file.readUInt16LE(20)] : [Math.abs(file.readInt32LE(18)), Math.abs(file.readInt32LE(22))]; // prettier-ignore
  if (width * height > mostPixels) throw new Error('pixel limit');
  const { data } = decode(file, { toRGBA: true });
  const image = sharp(data, { raw: { width, height, channels: 4 } });
  return data.some((value, i) => i % 4 === 3 && value > 0) ? image : image.removeAlpha();
}

/** Pixels an inch that a BMP is said to have, when it is said. */
const bitmapDensity = (file) => file.readUInt32LE(14) >= 40 ? Math.round(file.readInt32LE(38) * 0.0254) || undefined : undefined; // prettier-ignore

/** Grain below the first leaves outlines as they are, above the second it needs the larger window; of 255. */
const [QUIET, LOUD] = [5, 11];

const windowFor = (noise) => (noise < QUIET ? 0 : noise < LOUD ? 3 : 5);

/**
 * Grain of a scanner or camera as a standard deviation, by the median absolute deviation of neighbours' differences,
 * `apart` pixels from each other, which edges hardly change (Hampel 1974; 1.4826 makes it that of a normal
 * distribution, √2 is for the difference).
 */
function noiseOf(data, width, height, apart) {
  const counts = new Uint32Array(256);
  const step = Math.max(1, Math.floor((width * height) / 200_000)) | 1;
  let n = 0;
  for (let i = 0; i < width * height - apart; i += step) {
    // the ends of the scale cut grain off: there is none to be seen in pure white
    if ((i % width) + apart >= width || data[4 * i + 3] < 128) continue;
    const [a, b] = [data[4 * i + 1], data[4 * (i + apart) + 1]];
    if ((a <= 1 && b <= 1) || (a >= 254 && b >= 254)) continue;
    counts[Math.abs(a - b)]++;
    n++;
  }
  if (n < 0.05 * ((width * height) / step)) return 0;
  let seen = 0;
  for (let d = 0; d < 256; d++) {
    seen += counts[d];
    if (seen >= n / 2) return (1.4826 * d) / Math.SQRT2;
  }
  return 0;
}

await answerWith(main, (error) => ({ problem: String(error?.message ?? error) }));
