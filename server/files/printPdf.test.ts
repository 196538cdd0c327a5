/** Read back by pdfjs, poppler and pdf-lib, none of which wrote it; its code by jsQR from what poppler draws. */
import { beforeAll, describe, expect, test } from '@jest/globals';
import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import jsQR from 'jsqr';
import { PDFArray, PDFDict, PDFDocument, PDFName } from 'pdf-lib';
import sharp from 'sharp';
import { rectangle } from '../../core/geometry/region';
import { evenEdges, USUAL_CUT_LINE, USUAL_EDGE, USUAL_MARKS } from '../../core/print/choices';
import { layOnSheets, printUnit } from '../../core/print/sheets';
import { printPdf } from './printPdf';

const dir = mkdtempSync(join(tmpdir(), 'print-'));
const RED = rectangle({ minX: 0, minY: 0, maxX: 40, maxY: 30 });
const ART = [{ colour: '#b0202f', region: RED }];
const unit = printUnit(
  ART,
  ART,
  [
    { ...USUAL_CUT_LINE, offset: 0, smallestRadius: 0 },
    { ...USUAL_CUT_LINE, kind: 'perforated', offset: 4 },
  ],
  2,
);
const [sheet] = layOnSheets(unit, {
  room: { width: 297, height: 210, edges: evenEdges(USUAL_EDGE) },
  turn: 'shorter',
  copies: 6,
  spacing: 4,
  marks: USUAL_MARKS,
}).sheets;
const LABEL = { code: 'JP 2048 1 A', text: '#2048 · sheet 1 of 1 · this side up' };
const made = (withLines: boolean): Promise<Buffer> =>
  printPdf(unit, sheet, LABEL, { marks: USUAL_MARKS, withLines });

let plain: Buffer;
let lined: Buffer;
/** As poppler draws it: dots per mm, and its pixels. */
const PER_MM = 10;
let pixels: Buffer;
let wide: number;

beforeAll(async () => {
  [plain, lined] = await Promise.all([made(false), made(true)]);
  writeFileSync(join(dir, 'plain.pdf'), plain);
  writeFileSync(join(dir, 'lined.pdf'), lined);
  const dpi = String(25.4 * PER_MM);
  spawnSync('pdftocairo', ['-png', '-singlefile', '-r', dpi, join(dir, 'plain.pdf'), join(dir, 'plain')]);
  const { data, info } = await sharp(readFileSync(join(dir, 'plain.png')))
    .removeAlpha()
    .raw()
    .toBuffer({ resolveWithObject: true });
  [pixels, wide] = [data, info.width];
}, 60_000);

const at = (x: number, y: number): number[] => {
  const k = 3 * (Math.round(y * PER_MM) * wide + Math.round(x * PER_MM));
  return [...pixels.subarray(k, k + 3)];
};
/** Middle of what is black in a box, mm. */
function blackIn(x0: number, y0: number, x1: number, y1: number): [number, number] {
  let [sx, sy, n] = [0, 0, 0];
  for (let y = Math.round(y0 * PER_MM); y < y1 * PER_MM; y++)
    for (let x = Math.round(x0 * PER_MM); x < x1 * PER_MM; x++)
      if (pixels[3 * (y * wide + x)] < 100) [sx, sy, n] = [sx + x + 0.5, sy + y + 0.5, n + 1];
  return [sx / n / PER_MM, sy / n / PER_MM];
}

/** pdfjs in a process of its own: it is no CommonJS. */
function seenByPdfjs(name: string): { pages: number; view: number[]; layers: string[] } {
  const script = `
    const { getDocument } = await import('pdfjs-dist/legacy/build/pdf.mjs');
    const { readFileSync } = await import('node:fs');
    const data = Uint8Array.from(readFileSync(${JSON.stringify(join(dir, name))}));
    const doc = await getDocument({ data, verbosity: 0 }).promise;
    const { view } = await doc.getPage(1);
    const layers = [...(await doc.getOptionalContentConfig())].map(([, { name }]) => name);
    console.log(JSON.stringify({ pages: doc.numPages, view, layers }));`;
  const { stdout } = spawnSync(process.execPath, ['--input-type=module', '-e', script], { encoding: 'utf8' });
  return JSON.parse(stdout.trim().split('\n').at(-1)!);
}

describe('a printed sheet', () => {
  test('has its size and its boxes to a hundredth of a millimetre (poppler)', () => {
    const { stdout } = spawnSync('pdfinfo', ['-box', join(dir, 'plain.pdf')], { encoding: 'utf8' });
    const box = (name: string): number[] =>
      new RegExp(`${name}:\\s+([\\d. -]+)`)
        .exec(stdout)![1]
        .trim()
        .split(/\s+/)
        .map((points) => (Number(points) * 25.4) / 72);
    const near = (found: number[], wanted: number[]): void =>
      wanted.forEach((mm, i) => expect(Math.abs(found[i] - mm)).toBeLessThan(0.01));
    near(box('MediaBox'), [0, 0, 297, 210]);
    const { minX, minY, maxX, maxY } = sheet.art;
    // all of a copy ends with its outer line: it reaches further than the bleed
    near(box('TrimBox'), [minX, 210 - maxY, maxX, 210 - minY]);
    near(box('BleedBox'), [minX, 210 - maxY, maxX, 210 - minY]);
  });

  test('is one page of that size for pdfjs too', () => {
    const { pages, view } = seenByPdfjs('plain.pdf');
    expect(pages).toBe(1);
    expect((view[2] * 25.4) / 72).toBeCloseTo(297, 2);
    expect((view[3] * 25.4) / 72).toBeCloseTo(210, 2);
  });

  test('shows art, bleed and white where they are', () => {
    for (const { box } of sheet.places) {
      const [x, y] = [(box.minX + box.maxX) / 2, (box.minY + box.maxY) / 2];
      expect(at(x, y)).toEqual([176, 32, 47]);
      // half way into the bleed, and past it
      expect(at(x, box.minY + 4 - 1)).toEqual([176, 32, 47]);
      expect(at(x, box.minY + 1)).toEqual([255, 255, 255]);
    }
  });

  test('has its marks where the plan has them, to a twentieth of a millimetre', () => {
    for (const {
      at: [x, y],
      arms: [ax, ay],
    } of sheet.marks) {
      // across each arm, half way along it
      const [mx] = blackIn(x - 2, y + ay / 2 - 0.5, x + 2, y + ay / 2 + 0.5);
      const [, my] = blackIn(x + ax / 2 - 0.5, y - 2, x + ax / 2 + 0.5, y + 2);
      expect(Math.abs(mx - x)).toBeLessThan(0.05);
      expect(Math.abs(my - y)).toBeLessThan(0.05);
    }
  });

  test('has a code that an independent reader reads', async () => {
    const { minX, minY, maxX, maxY } = sheet.code!;
    const [left, top] = [minX, minY].map((mm) => Math.round(mm * PER_MM));
    const [width, height] = [maxX - minX, maxY - minY].map((mm) => Math.round(mm * PER_MM));
    const { data, info } = await sharp(readFileSync(join(dir, 'plain.png')))
      .extract({ left, top, width, height })
      .resize(4 * width, 4 * height, { kernel: 'nearest' })
      .ensureAlpha()
      .raw()
      .toBuffer({ resolveWithObject: true });
    expect(jsQR(Uint8ClampedArray.from(data), info.width, info.height)?.data).toBe(LABEL.code);
  });

  test('has white ink, as a spot colour, only where marks are to have a patch', async () => {
    const spots = (pdf: Buffer): boolean => pdf.toString('latin1').includes('/White');
    const patched = await printPdf(unit, sheet, LABEL, { marks: USUAL_MARKS, withLines: false, patch: true });
    expect([spots(plain), spots(patched)]).toEqual([false, true]);
  });

  test('has its label between its marks, however long it is, or none', async () => {
    for (const copies of [1, 2]) {
      const room = { width: 297, height: 210, edges: evenEdges(USUAL_EDGE) };
      const how = { room, copies, spacing: 4, turn: 'shorter', marks: USUAL_MARKS } as const;
      const [small] = layOnSheets(unit, how).sheets;
      const text = 'A name that goes on and on · sheet 1 of 1 · this side up';
      const name = join(dir, `label-${copies}`);
      writeFileSync(`${name}.pdf`, await printPdf(unit, small, { ...LABEL, text }, { marks: USUAL_MARKS, withLines: false })); // prettier-ignore
      const { stdout } = spawnSync('pdftotext', ['-bbox', `${name}.pdf`, '-'], { encoding: 'utf8' });
      const lefts = [...stdout.matchAll(/xMin="([\d.]+)"/g)].map(
        ([, points]) => (Number(points) * 25.4) / 72,
      );
      expect(lefts.every((left) => left >= small.art.minX - 0.1)).toBe(true);
      // beside two copies there is room for it
      expect(lefts.length > 0).toBe(copies === 2);
    }
  });

  test('has no cut lines, unless they are wanted', () => {
    expect(plain.includes('Separation')).toBe(false);
    expect(plain.includes('OCProperties')).toBe(false);
    expect(plain.length).toBeLessThan(lined.length);
  });
});

describe('cut lines in the file', () => {
  test('are named spot colours that overprint, each in a layer with its processing step (pdf-lib)', async () => {
    const doc = await PDFDocument.load(lined);
    const page = doc.getPage(0);
    const resources = page.node.Resources()!;
    const spots = resources.lookup(PDFName.of('ColorSpace'), PDFDict);
    const names = spots.values().map((ref) => {
      const [kind, name] = (doc.context.lookup(ref) as PDFArray).asArray();
      return `${kind} ${(name as PDFName).decodeText()}`;
    });
    expect(names).toEqual(['/Separation Kiss cut', '/Separation Perforated cut']);
    const states = resources.lookup(PDFName.of('ExtGState'), PDFDict).values();
    expect(states.map((ref) => (doc.context.lookup(ref) as PDFDict).toString()).join()).toMatch(/\/OP true/);
    const layers = resources.lookup(PDFName.of('Properties'), PDFDict).values();
    const steps = layers.map((ref) => {
      const layer = doc.context.lookup(ref) as PDFDict;
      const metadata = layer.lookup(PDFName.of('GTS_Metadata'), PDFDict);
      return [
        layer.get(PDFName.of('Type')),
        ...['GTS_ProcStepsGroup', 'GTS_ProcStepsType'].map((key) => metadata.get(PDFName.of(key))),
      ].map(String);
    });
    expect(steps).toEqual([
      ['/OCG', '/Structural', '/PartialCutting'],
      ['/OCG', '/Structural', '/Perforating'],
    ]);
  });

  test('are layers that pdfjs shows and hides', () =>
    expect(seenByPdfjs('lined.pdf').layers).toEqual(['Kiss cut', 'Perforated cut']));
});
