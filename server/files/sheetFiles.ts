/** A printed sheet as files: what is printed as PDF or picture, what is cut as SVG, DXF or HP-GL. */
import { Resvg } from '@resvg/resvg-js';
import { DxfWriter, LWPolylineFlags, point2d, Units } from '@tarikjabiri/dxf';
import { hpglBytes, writeHpgl } from '../../core/devicelang/writeHpgl';
import { lineToPathData, regionToPathData } from '../../core/geometry/pathText';
import type { Printed } from '../../core/plan/planned';
import type { PrintChoices } from '../../core/print/choices';
import { codePath } from '../../core/print/code';
import { markShape, needsPatch } from '../../core/print/marks';
import type { PrintSheet, PrintUnit } from '../../core/print/sheets';
import { cutOnSheet, sheetLabel } from '../../core/print/sheets';
import { MM_PER_INCH } from '../../core/units/length';
import type { ColourArea } from '../../core/print/bleed';
import { LAYERS } from './lineLayers';
import type { LaidPictures } from './printedPictures';
import { laidPictures } from './printedPictures';
import { printPdf } from './printPdf';

/** What a file of a sheet is made of. */
export interface SheetAsked {
  readonly printed: Printed;
  /** Which of its sheets, from 0. */
  readonly index: number;
  /** As it is written on it: the order's number or name. */
  readonly order: string;
  readonly print: Pick<PrintChoices, 'marks' | 'patch'>;
  /** Files of pictures that are printed as they are, by hash. */
  readonly files: ReadonlyMap<string, Uint8Array>;
  /** When the order was decided to be as it is; missing: it is none. */
  readonly made?: Date;
}

/** @param withLines cut lines are in it too */
export async function sheetPdf(
  { printed, index, order, print, files, made }: SheetAsked,
  withLines: boolean,
): Promise<Buffer> {
  const { film, sheets } = printed;
  const { unit, sheet, panel } = sheets[index];
  const pictures = await laidPictures(unit, files, 'original');
  const how = { marks: print.marks, withLines, patch: needsPatch(film, print.patch), pictures, made };
  return printPdf(unit, sheet, sheetLabel(order, index, sheets.length, panel), how);
}

/** px: a picture is no wider or higher, whatever is asked. */
const MOST_PIXELS = 16_000;

/** @param dpi dots an inch */
export async function sheetPng(
  { printed, index, order, print, files }: SheetAsked,
  dpi: number,
): Promise<Uint8Array> {
  const { sheets } = printed;
  const { unit, sheet } = sheets[index];
  const most = MOST_PIXELS * Math.min(1, sheet.width / sheet.height);
  const value = Math.max(1, Math.round(Math.min((sheet.width / MM_PER_INCH) * dpi, most)));
  const pictures = await laidPictures(unit, files, 'png');
  const svg = printSvg(unit, sheet, print.marks.line, sheetLabel(order, index, sheets.length).code, pictures);
  return new Resvg(svg, { font: { loadSystemFonts: false }, fitTo: { mode: 'width', value } })
    .render()
    .asPng();
}

/** The cut in HP-GL, of a sheet that lies straight. */
export function sheetPlt({ printed, index }: Pick<SheetAsked, 'printed' | 'index'>): Uint8Array {
  const { program, cutter, strip } = printed.sheets[index].cut;
  return hpglBytes(writeHpgl(program, cutter.device, strip.cuttable));
}

const page = ({ width, height }: PrintSheet, inside: string): string =>
  `<svg xmlns="http://www.w3.org/2000/svg" width="${width}mm" height="${height}mm" viewBox="0 0 ${width} ${height}">${inside}</svg>\n`;

/** What is printed: art with bleed, marks and code, no cut lines. @param line mm that marks are wide @param code what it says */
function printSvg(
  unit: PrintUnit,
  sheet: PrintSheet,
  line: number,
  code: string,
  pictures: LaidPictures,
): string {
  const paint = (area: ColourArea, clip: string | undefined): string => {
    const laid = pictures.get(area);
    const d = regionToPathData(area.region);
    if (!laid) return `<path fill="${area.colour}" d="${d}"/>`;
    const { bytes, x, y, width, height, matrix } = laid;
    const image = `<image x="${x}" y="${y}" width="${width}" height="${height}" preserveAspectRatio="none" transform="matrix(${matrix.join(' ')})" href="data:image/png;base64,${bytes.toString('base64')}"/>`;
    return clip
      ? `<clipPath id="${clip}"><path d="${d}"/></clipPath><g clip-path="url(#${clip})">${image}</g>`
      : image;
  };
  const unitArt = [
    ...unit.bleed.map((area, i) => paint(area, `bleed-${i}`)),
    ...unit.art.map((area) => paint(area, undefined)),
  ].join('');
  const clip = unit.clip ? `<clipPath id="clip"><path d="${regionToPathData(unit.clip)}"/></clipPath>` : '';
  const clipped = unit.clip ? ' clip-path="url(#clip)"' : '';
  const copies = sheet.places.map(
    ({ matrix }) => `<use href="#unit" transform="matrix(${matrix.join(' ')})"/>`,
  );
  const marks = regionToPathData(sheet.marks.flatMap((mark) => markShape(mark, line)));
  const square = sheet.code ? `<path d="${codePath(code, sheet.code)}"/>` : '';
  return page(
    sheet,
    `<defs>${clip}<g id="unit"${clipped}>${unitArt}</g></defs><rect width="100%" height="100%" fill="#fff"/>${copies.join('')}<path d="${marks}"/>${square}`,
  );
}

/** What is cut, each kind of line in a group of its own. */
export function sheetSvg(unit: PrintUnit, sheet: PrintSheet): string {
  const groups = cutOnSheet(unit, sheet).map(
    ({ kind, lines }) =>
      `<g id="${LAYERS[kind].spot.replace(' ', '-')}" fill="none" stroke="#000" stroke-width="0.1">${lines
        .map((line) => `<path d="${lineToPathData(line)}"/>`)
        .join('')}</g>`,
  );
  return page(sheet, groups.join(''));
}

/** What is cut, each kind of line on a layer of its own; mm, y up. */
export function sheetDxf(unit: PrintUnit, sheet: PrintSheet): string {
  const dxf = new DxfWriter();
  dxf.setUnits(Units.Millimeters);
  for (const { kind, lines } of cutOnSheet(unit, sheet)) {
    const { spot, aci } = LAYERS[kind];
    dxf.addLayer(spot, aci, 'Continuous');
    dxf.setCurrentLayerName(spot);
    for (const { points, closed } of lines) {
      const vertices = Array.from({ length: points.length / 2 }, (_, i) => ({
        point: point2d(points[2 * i], sheet.height - points[2 * i + 1]),
      }));
      dxf.addLWPolyline(vertices, { flags: closed ? LWPolylineFlags.Closed : LWPolylineFlags.None });
    }
  }
  return dxf.stringify();
}
