// Draws one page in a process of its own: a file that makes a parser hang or crash takes nothing with it.
// argv: JSON { kind: 'svg' | 'pdf', as: 'pixels' | 'png' | 'pdf', most?, width?, page?, box? }: in about `most` pixels or so
// many across, or as a PDF of one page that lies upright. stdin: resolved SVG, or a PDF.
// stdout: four bytes of length, JSON { width, height, across, down } in px and mm or { problem }, then RGBA, PNG or PDF.
import { answerWith } from './answer.mjs';
import { openPdf } from './pdfjs.mjs';

const asked = JSON.parse(process.argv[2]);
const chunks = [];
for await (const chunk of process.stdin) chunks.push(chunk);
const given = Buffer.concat(chunks);
process.on('unhandledRejection', () => {});

/** A drawing of paths and pictures as PDF: paths stay paths, and a JPEG stays what it was. */
async function pdfOfSvg(svg) {
  const { default: PDFDocument } = await import('pdfkit');
  const { default: drawSvg } = await import('svg-to-pdfkit');
  const [width, height] = ['width', 'height'].map(
    (side) => (Number(new RegExp(`^[^>]*\\s${side}="([\\d.]+)"`).exec(svg)?.[1]) * 72) / 96,
  );
  const document = new PDFDocument({ size: [width, height], margin: 0 });
  const parts = [];
  document.on('data', (part) => parts.push(part));
  const done = new Promise((resolve) => document.on('end', resolve));
  // nothing but what is in the drawing itself is opened
  const imageCallback = (link) => (/^data:/i.test(link) ? link : '');
  drawSvg(document, svg, 0, 0, { width, height, preserveAspectRatio: 'none', imageCallback });
  document.end();
  await done;
  return Buffer.concat(parts);
}

/** Whole pixels that cover so many mm exactly: they may be a little less wide than high. */
function pixelsFor(across, down) {
  const perMm = asked.width ? asked.width / across : Math.sqrt(asked.most / (across * down));
  return { width: Math.max(1, Math.round(across * perMm)), height: Math.max(1, Math.round(down * perMm)) };
}

async function main() {
  const bytes = asked.kind === 'svg' ? await pdfOfSvg(given.toString('utf8')) : given;
  const { PDFDocument } = await import('pdf-lib');
  const source = await PDFDocument.load(bytes, { ignoreEncryption: true, updateMetadata: false });
  // its parts could not be taken over into a page that is printed
  if (source.isEncrypted) return { head: { problem: 'protected' } };
  const document = await openPdf(bytes);
  const number = Math.min(Math.max(1, asked.page ?? 1), document.numPages);
  const page = await document.getPage(number);
  const part = placeOf(page, boxOf(source.getPage(number - 1)) ?? page.view);
  return asked.as === 'pdf'
    ? { head: {}, data: await upright(PDFDocument, source.getPage(number - 1), part) }
    : rendered(page, part);
}

const BOXES = { crop: 'CropBox', media: 'MediaBox', trim: 'TrimBox', bleed: 'BleedBox', art: 'ArtBox' };

/** The part of the page that was asked for: x0, y0, x1, y1 in its own units, y up. */
function boxOf(page) {
  if (!asked.box) return undefined;
  const { x, y, width, height } = page[`get${BOXES[asked.box]}`]();
  return [x, y, x + width, y + height];
}

/** Where a part comes to lie when it is turned as the page says: its size in points, and the map from its own places. */
function placeOf({ rotate, userUnit: u }, box) {
  const [w, h] = [(box[2] - box[0]) * u, (box[3] - box[1]) * u];
  const [x, y] = [-box[0] * u, -box[1] * u];
  const turned = {
    0: { width: w, height: h, matrix: [u, 0, 0, u, x, y] },
    90: { width: h, height: w, matrix: [0, -u, u, 0, y, w - x] },
    180: { width: w, height: h, matrix: [-u, 0, 0, -u, w - x, h - y] },
    270: { width: h, height: w, matrix: [0, u, -u, 0, h - y, x] },
  };
  return { box, ...turned[((rotate % 360) + 360) % 360] };
}

/** The page with nothing behind it: what it paints is opaque, the rest is clear. */
async function rendered(page, { box, width: w, height: h }) {
  const { createCanvas } = await import('@napi-rs/canvas');
  const [across, down] = [w, h].map((points) => (points * 25.4) / 72);
  const { width, height } = pixelsFor(across, down);
  const canvas = createCanvas(width, height);
  const viewport = page.getViewport({ scale: 1 });
  const [x0, y0, x1, y1] = viewport.convertToViewportRectangle(box);
  const [sx, sy] = [width / w, height / h];
  const transform = [sx, 0, 0, sy, -Math.min(x0, x1) * sx, -Math.min(y0, y1) * sy];
  await page.render({
    canvas,
    canvasContext: canvas.getContext('2d'),
    viewport,
    transform,
    background: '#0000',
  }).promise;
  const head = { across, down, width, height };
  const data = Buffer.from(canvas.getContext('2d').getImageData(0, 0, width, height).data.buffer);
  if (asked.as === 'pixels') return { head, data };
  // the canvas itself would lay white behind it
  const { default: sharp } = await import('sharp');
  return {
    head,
    data: await sharp(data, { raw: { width, height, channels: 4 } })
      .png()
      .toBuffer(),
  };
}

/** A file of this one page alone: what it paints, in its own colours and with its own pictures, and nothing else of it. */
async function upright(PDFDocument, page, { box: [left, bottom, right, top], width, height, matrix }) {
  const file = await PDFDocument.create({ updateMetadata: false });
  const form = await file.embedPage(page, { left, bottom, right, top }, matrix);
  file.addPage([width, height]).drawPage(form);
  return Buffer.from(await file.save());
}

await answerWith(main, (error) => ({
  problem: error?.name === 'PasswordException' ? 'password' : 'unreadable',
}));
