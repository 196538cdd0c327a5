// Decodes a picture in a process of its own: a file that makes the decoder hang or crash takes nothing with it.
// argv: JSON { mostPixels, width? }: all of its pixels, or a PNG no more than so many pixels across. stdin: the file.
// stdout: four bytes of length, JSON { width, height, density } or { problem }, then RGBA or the PNG.
import sharp from 'sharp';

const { mostPixels, width: across } = JSON.parse(process.argv[2]);
sharp.concurrency(1);
sharp.cache(false);
const chunks = [];
for await (const chunk of process.stdin) chunks.push(chunk);

async function main() {
  const image = sharp(Buffer.concat(chunks), { limitInputPixels: mostPixels, failOn: 'truncated' });
  if (across !== undefined) {
    const png = image
      .rotate()
      .resize({ width: across, withoutEnlargement: true })
      .png({ compressionLevel: 3 });
    return { head: {}, data: await png.toBuffer() };
  }
  const { width = 0, height = 0, density } = await image.metadata();
  if (width * height > mostPixels) return { head: { problem: 'pixel limit', width, height } };
  const { data, info } = await image
    .rotate()
    .toColourspace('srgb')
    .ensureAlpha()
    .raw()
    .toBuffer({ resolveWithObject: true });
  return { head: { width: info.width, height: info.height, density }, data };
}

const { head, data = Buffer.alloc(0) } = await main().catch((error) => ({
  head: { problem: String(error?.message ?? error) },
}));
const text = Buffer.from(JSON.stringify(head));
const length = Buffer.alloc(4);
length.writeUInt32LE(text.length);
process.stdout.write(Buffer.concat([length, text, data]), () => process.exit(0));
