/** A printed sheet as files beside its PDF: what is printed as SVG for a picture, what is cut as SVG and DXF. */
import { DxfWriter, LWPolylineFlags, point2d, Units } from '@tarikjabiri/dxf';
import { lineToPathData, regionToPathData } from '../../core/geometry/pathText';
import { codePath } from '../../core/print/code';
import { markShape } from '../../core/print/marks';
import type { PrintSheet, PrintUnit } from '../../core/print/sheets';
import { cutOnSheet } from '../../core/print/sheets';
import { LAYERS } from './lineLayers';

const page = ({ width, height }: PrintSheet, inside: string): string =>
  `<svg xmlns="http://www.w3.org/2000/svg" width="${width}mm" height="${height}mm" viewBox="0 0 ${width} ${height}">${inside}</svg>\n`;

/** What is printed: art with bleed, marks and code, no cut lines. @param line mm that marks are wide @param code what it says */
export function printSvg(unit: PrintUnit, sheet: PrintSheet, line: number, code: string): string {
  const painted = [...unit.bleed, ...unit.art].map(
    ({ colour, region }) => `<path fill="${colour}" d="${regionToPathData(region)}"/>`,
  );
  const copies = sheet.places.map(
    ({ matrix }) => `<g transform="matrix(${matrix.join(' ')})">${painted.join('')}</g>`,
  );
  const marks = regionToPathData(sheet.marks.flatMap((mark) => markShape(mark, line)));
  const square = sheet.code ? `<path d="${codePath(code, sheet.code)}"/>` : '';
  return page(
    sheet,
    `<rect width="100%" height="100%" fill="#fff"/>${copies.join('')}<path d="${marks}"/>${square}`,
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
