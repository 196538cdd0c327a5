/** A printed sheet as PDF: art with bleed, marks and code at exact scale; cut lines, when they are wanted, as spot colours in layers. */
import PDFDocument from 'pdfkit';
import type { Cmyk } from '../../core/colour/ink';
import type { Bounds } from '../../core/geometry/bounds';
import { joinBounds } from '../../core/geometry/bounds';
import { lineToPathData, regionToPathData } from '../../core/geometry/pathText';
import type { Region } from '../../core/geometry/region';
import { ringBounds } from '../../core/geometry/region';
import type { PrintMarkChoices } from '../../core/print/choices';
import { markShape, patchOn } from '../../core/print/marks';
import type { PrintSheet, PrintUnit, SheetLabel, SheetLines } from '../../core/print/sheets';
import { cutOnSheet } from '../../core/print/sheets';
import { LAYERS } from './lineLayers';
import type { ColourArea } from '../../core/print/bleed';
import type { LaidPicture, LaidPictures } from './printedPictures';
import type { Doc } from './sheet';
import { LaidPages } from './laidPages';
import { drawn, qrCode } from './sheet';

export interface PrintPdfChoices {
  readonly marks: PrintMarkChoices;
  /** Cut lines are in the file, each kind as a spot colour in a layer of its own. */
  readonly withLines: boolean;
  /** White is printed behind the marks: the film itself would not show them up. */
  readonly patch?: boolean;
  /** Missing: pictures are areas of their colour. */
  readonly pictures?: LaidPictures;
  /** When what it shows was decided: the same sheet gives the same file. Missing: on no day. */
  readonly made?: Date;
}

const UNDATED = new Date('2000-01-01T00:00:00Z');

const POINTS = 72 / 25.4;
/** Marks and code print in black alone: %. */
const BLACK: PDFKit.Mixins.ColorValue = [0, 0, 0, 100];

/** What the library has and its types do not tell. */
interface MoreOfDoc {
  readonly ref: (data: object) => { readonly end: () => void };
  readonly openImage: (bytes: Buffer) => PDFKit.Mixins.ImageSrc;
  readonly addSpotColor: (name: string, c: number, m: number, y: number, k: number) => unknown;
  readonly spotColors: Readonly<Record<string, { readonly id: string; readonly ref: unknown }>>;
  readonly page: {
    readonly colorSpaces: Record<string, unknown>;
    readonly ext_gstates: Record<string, unknown>;
    readonly resources: { readonly data: Record<string, unknown> };
  };
  readonly _root: { readonly data: Record<string, unknown> };
}

/** @param unit what every place of the sheet shows */
export async function printPdf(
  unit: PrintUnit,
  sheet: PrintSheet,
  label: SheetLabel,
  choices: PrintPdfChoices,
): Promise<Buffer> {
  const size: [number, number] = [sheet.width * POINTS, sheet.height * POINTS];
  const doc = new PDFDocument({
    size,
    margin: 0,
    pdfVersion: '1.7',
    info: { Title: label.text, CreationDate: choices.made ?? UNDATED },
  });
  const pages = new LaidPages();
  const pdf = await drawn(doc, () => drawSheet(doc, unit, sheet, label, choices, pages));
  return pages.filledIn(pdf);
}

function drawSheet(
  doc: Doc,
  unit: PrintUnit,
  sheet: PrintSheet,
  label: SheetLabel,
  choices: PrintPdfChoices,
  pages: LaidPages,
): void {
  const lines = cutOnSheet(unit, sheet);
  boxes(doc, sheet, lines);
  doc.save().scale(POINTS);
  if (choices.patch) patches(doc, sheet, choices.marks.line);
  const place = pictureRack(doc, pages);
  const paintIn = inkWell(doc);
  for (const { matrix } of sheet.places) {
    doc.save().transform(...(matrix as Six));
    if (unit.clip) doc.path(regionToPathData(unit.clip)).clip();
    const paint = (area: ColourArea, isClipped: boolean): void => {
      const picture = choices.pictures?.get(area);
      if (!picture) return void paintIn(area);
      doc.save();
      if (isClipped) doc.path(regionToPathData(area.region)).clip();
      place(picture);
      doc.restore();
    };
    for (const area of unit.bleed) paint(area, true);
    for (const area of unit.art) paint(area, false);
    doc.restore();
  }
  fill(
    doc,
    sheet.marks.flatMap((mark) => markShape(mark, choices.marks.line)),
    BLACK,
  );
  if (sheet.code) code(doc, sheet.code, sheet.art.minX, label);
  if (choices.withLines) cutLines(doc, lines);
  doc.restore();
}

type Six = [number, number, number, number, number, number];

/** Places pictures, each of which is in the file once however often it is seen. */
function pictureRack(doc: Doc, pages: LaidPages): (picture: LaidPicture) => void {
  const opened = new Map<Buffer, PDFKit.Mixins.ImageSrc>();
  return ({ bytes, isPage, matrix, x, y, width, height }) => {
    // a page is 1 wide and 1 high, y up
    if (isPage)
      return pages.lay(
        doc.transform(...(matrix as Six)).transform(width, 0, 0, -height, x, y + height),
        bytes,
      );
    const image = opened.get(bytes) ?? (doc as unknown as MoreOfDoc).openImage(bytes);
    opened.set(bytes, image);
    doc.transform(...(matrix as Six)).image(image, x, y, { width, height });
  };
}

/** White ink, where the printer has it: C, M, Y, K in % that stand in for it. */
const WHITE = { spot: 'White', shown: [0, 0, 0, 0] } as const;

function patches(doc: Doc, { marks, code: square }: PrintSheet, line: number): void {
  (doc as unknown as MoreOfDoc).addSpotColor(WHITE.spot, ...WHITE.shown);
  doc.path(regionToPathData(patchOn(marks, square, line))).fill(WHITE.spot);
}

const fill = (doc: Doc, region: Region, colour: PDFKit.Mixins.ColorValue): unknown =>
  region.length > 0 && doc.path(regionToPathData(region)).fill(colour);

/** Names of inks that say something else in these files: art in one of them prints in the colour it is shown in. */
const OURS: ReadonlySet<string> = new Set([WHITE.spot, ...Object.values(LAYERS).map(({ spot }) => spot)]);

/** Fills areas in their inks; a spot colour is in the file once, as it is met first. */
function inkWell(doc: Doc): (area: ColourArea) => void {
  const { page, spotColors, addSpotColor } = doc as unknown as MoreOfDoc;
  const spaceOf = (name: string, full: Cmyk): string => {
    if (!spotColors[name]) addSpotColor.call(doc, name, ...percent(full));
    const { id, ref } = spotColors[name];
    page.colorSpaces[id] = ref;
    return id;
  };
  return ({ colour, ink, region }) => {
    if (region.length === 0) return;
    if (!ink || (ink.kind === 'spot' && OURS.has(ink.name))) doc.fillColor(colour);
    else if (ink.kind === 'cmyk') doc.fillColor(percent(ink.shares));
    // the library itself takes neither
    else if (ink.kind === 'grey') doc.addContent(`${ink.white} g`);
    else doc.addContent(`/${spaceOf(ink.name, ink.full)} cs ${ink.tint} scn`);
    doc.path(regionToPathData(region)).fill();
  };
}

const percent = (shares: Cmyk): [number, number, number, number] =>
  shares.map((share) => 100 * share) as [number, number, number, number];

/** Trimmed at the cut lines; bleed reaches past them. */
function boxes(doc: Doc, { art, height }: PrintSheet, cut: readonly SheetLines[]): void {
  const lines = cut.flatMap((kind) => kind.lines);
  const trim = lines.length > 0 ? lines.map(({ points }) => ringBounds(points)).reduce(joinBounds) : art;
  const box = ({ minX, minY, maxX, maxY }: Bounds): number[] =>
    [minX, height - maxY, maxX, height - minY].map((mm) => mm * POINTS);
  const page = doc.page.dictionary.data as Record<string, unknown>;
  page.TrimBox = box(trim);
  page.BleedBox = box(joinBounds(art, trim));
}

/** mm that a label is high, and from which on it is read; mm between it and the code. */
const [LABEL, LEAST_LABEL, BESIDE] = [3, 1.5, 2];

/** The code, and beside it in words what it says, no further to the left than `from`: there a mark may be. */
function code(doc: Doc, box: Bounds, from: number, { code: says, text }: SheetLabel): void {
  qrCode(doc, says, box.minX, box.minY, box.maxX - box.minX, BLACK);
  const room = box.minX - BESIDE - from;
  const height = Math.min(LABEL, (LABEL * room) / doc.font('text').fontSize(LABEL).widthOfString(text));
  if (height < LEAST_LABEL) return;
  const width = doc.fontSize(height).fillColor(BLACK).widthOfString(text);
  doc.text(text, box.minX - BESIDE - width, box.maxY - height * 1.6, { lineBreak: false });
}

/** Every kind in a layer of its own, overprinting: a printer that prints it after all spoils nothing under it. */
function cutLines(doc: Doc, cut: readonly SheetLines[]): void {
  const more = doc as unknown as MoreOfDoc;
  const overprint = more.ref({ Type: 'ExtGState', OP: true, op: true, OPM: 1 });
  overprint.end();
  more.page.ext_gstates.Overprint = overprint;
  const properties: Record<string, unknown> = {};
  const layers = cut.map(({ kind, lines }, i) => {
    const { spot, shown, step } = LAYERS[kind];
    const layer = more.ref({
      Type: 'OCG',
      Name: new String(spot),
      ...(step && { GTS_Metadata: { GTS_ProcStepsGroup: 'Structural', GTS_ProcStepsType: step } }),
    });
    layer.end();
    properties[`Layer${i}`] = layer;
    more.addSpotColor(spot, ...shown);
    doc.addContent(`/OC /Layer${i} BDC`);
    doc.save();
    doc.addContent('/Overprint gs');
    doc.path(lines.map(lineToPathData).join('')).lineWidth(0.25).stroke(spot);
    doc.restore();
    doc.addContent('EMC');
    return layer;
  });
  more.page.resources.data.Properties = properties;
  more._root.data.OCProperties = { OCGs: layers, D: { Order: layers, ON: layers } };
}
