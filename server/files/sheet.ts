/** A sheet of A4: its heading, with a code that opens the order, and what all sheets are drawn with. */
import PDFDocument from 'pdfkit';
import { regionToPathData } from '../../core/geometry/pathText';
import type { Region } from '../../core/geometry/region';
import type { Spot } from '../../core/geometry/spot';
import { simplify } from '../../core/geometry/simplify';
import { codePath } from '../../core/print/code';
import { fontFiles } from './fonts';
import { SHIPPED_FONTS } from './shippedFonts';

/** What an order is called on paper, and the address that opens it on a tablet. */
export interface PaperOrder {
  readonly number: number;
  readonly name: string;
  readonly due: string | null;
  readonly address: string;
  /** When what it shows was decided: the same order gives the same file. */
  readonly made: Date;
}

export type Doc = PDFKit.PDFDocument;

export const MARGIN = 42;
export const INK = '#261c2c';
export const SOFT = '#665b6c';
export const RULE = '#d8cebc';
/** Pictures on paper need no more than this share of their size in detail. */
const DETAIL = 1 / 900;
/** A PDF of one order, drawn by `draw` below its heading. */
export async function sheet(
  title: string,
  order: PaperOrder,
  layout: 'portrait' | 'landscape',
  draw: (doc: Doc) => void,
): Promise<Buffer> {
  const doc = new PDFDocument({
    size: 'A4',
    layout,
    margin: MARGIN,
    info: { Title: `${order.name}, #${order.number}`, CreationDate: order.made },
  });
  return drawn(doc, () => {
    heading(doc, title, order);
    draw(doc);
  });
}

/** The bytes of a PDF once it is drawn; our typefaces are `text` and `bold` in it. */
export async function drawn(doc: Doc, draw: () => void): Promise<Buffer> {
  const chunks: Buffer[] = [];
  doc.on('data', (chunk: Buffer) => chunks.push(chunk));
  const ended = new Promise<void>((done) => doc.on('end', () => done()));
  await registerFonts(doc);
  draw();
  doc.end();
  await ended;
  return Buffer.concat(chunks);
}

async function registerFonts(doc: Doc): Promise<void> {
  for (const [name, id] of [
    ['text', 'atkinson-hyperlegible-next'],
    ['bold', 'barlow-condensed-600'],
  ] as const) {
    const [file] = await fontFiles(SHIPPED_FONTS.find((font) => font.id === id)!);
    doc.registerFont(name, file);
  }
}

function heading(doc: Doc, title: string, { number, name, due, address }: PaperOrder): void {
  doc.font('bold').fontSize(22).fillColor(INK).text(name, MARGIN, MARGIN, { width: 390 });
  doc
    .font('text')
    .fontSize(11)
    .fillColor(SOFT)
    .text(`${title} · #${number}${due ? ` · due ${due}` : ''}`);
  qrCode(doc, address, doc.page.width - MARGIN - 78, MARGIN, 78);
  doc.y = Math.max(doc.y, MARGIN + 84) + 8;
  rule(doc);
}

/** QR code (ISO/IEC 18004) with its quiet zone of four modules inside the side given. */
export function qrCode(
  doc: Doc,
  text: string,
  x: number,
  y: number,
  side: number,
  colour: PDFKit.Mixins.ColorValue = '#000000',
): void {
  doc.path(codePath(text, { minX: x, minY: y, maxX: x + side, maxY: y + side })).fill(colour);
}

export function rule(doc: Doc): void {
  doc
    .moveTo(MARGIN, doc.y)
    .lineTo(doc.page.width - MARGIN, doc.y)
    .lineWidth(0.7)
    .stroke(RULE);
  doc.y += 9;
}

/** What is drawn, mm. */
export interface Frame {
  readonly minX: number;
  readonly minY: number;
  readonly width: number;
  readonly height: number;
}

/** Where it is drawn, points on the page: x, y, width, height. */
export type OnPaper = readonly [number, number, number, number];

const scaleOf = (sign: Frame, [, , width, height]: OnPaper): number =>
  Math.min(width / sign.width, height / sign.height);

/** Where a place lies on the page in what {@link drawing} drew. */
export function drawnAt([px, py]: Spot, sign: Frame, box: OnPaper): Spot {
  const scale = scaleOf(sign, box);
  const [x, y, width, height] = box;
  return [
    x + (width - sign.width * scale) / 2 + (px - sign.minX) * scale,
    y + (height - sign.height * scale) / 2 + (py - sign.minY) * scale,
  ];
}

/** Draws regions to fit a box, from a common origin so that films drawn alike lie alike. */
export function drawing(
  doc: Doc,
  parts: readonly { readonly region: Region; readonly colour: string }[],
  sign: Frame,
  box: OnPaper,
): void {
  const [x, y, width, height] = box;
  const scale = scaleOf(sign, box);
  doc.save();
  doc.translate(x + (width - sign.width * scale) / 2, y + (height - sign.height * scale) / 2).scale(scale);
  doc.translate(-sign.minX, -sign.minY);
  for (const { region, colour } of parts) {
    const rough = region.map(
      (points) => simplify({ points, closed: true }, Math.max(sign.width, sign.height) * DETAIL).points,
    );
    if (rough.length === 0) continue;
    doc
      .path(regionToPathData(rough))
      .lineWidth(0.4 / scale)
      .fillAndStroke(colour, INK);
  }
  doc.restore();
}

export function line(doc: Doc, text: string): void {
  doc.text(text, MARGIN, doc.y, { width: doc.page.width - 2 * MARGIN });
}
