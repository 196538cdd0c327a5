/** Inks of PDFs: what is sent to print by its colours keeps them, as Ghostscript's plates and pdf-lib's own drawing show. */
import { beforeAll, describe, expect, test } from '@jest/globals';
import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { cmyk, grayscale, PDFDocument, PDFName, rgb } from 'pdf-lib';
import sharp from 'sharp';
import { pieceOfFile, sourceKey } from '../../core/artwork/choices';
import { mapped } from '../../core/geometry/matrix';
import { DEFAULT_CHOICES } from '../../core/plan/choices';
import { createPlanner } from '../../core/plan/plan';
import type { Printed } from '../../core/plan/planned';
import type { Artwork } from '../../core/readers/artwork';
import { DEMO_SHOP } from '../../demo/shop';
import { readFile } from './readFile';
import { sheetPdf } from './sheetFiles';

const PT = 72 / 25.4;

/** A page of 100 × 60 mm that draws a text of steps, with one spot colour at hand. */
async function pageOf(text: string, alternate = 'DeviceCMYK'): Promise<Buffer> {
  const file = await PDFDocument.create();
  const page = file.addPage([100 * PT, 60 * PT]);
  const { context } = file;
  const full = alternate === 'DeviceCMYK' ? [0.9, 0.2, 0, 0.05] : [0.1, 0.6, 0.8];
  const tinting = { FunctionType: 2, Domain: [0, 1], N: 1, C0: full.map(() => 0), C1: full };
  const spot = context.obj(['Separation', PDFName.of('Lido 7'), alternate, tinting]);
  page.node.set(PDFName.of('Resources'), context.obj({ ColorSpace: { Lido: spot } }));
  page.node.set(PDFName.of('Contents'), context.register(context.flateStream(text)));
  return Buffer.from(await file.save());
}
const inksOf = async (bytes: Buffer): Promise<unknown[]> =>
  (await readFile(bytes)).shapes.map(({ ink }) => ink);

const LIDO = { kind: 'spot', name: 'Lido 7', tint: 1, full: [0.9, 0.2, 0, 0.05] };
const BLACK = { kind: 'cmyk', shares: [0, 0, 0, 1] };

describe('reading', () => {
  test('each shape has the ink that was set last, for fills and strokes apart, kept and brought back with the state', async () => {
    const text = `0 0 0 1 k 0 1 0 0 K q /Lido cs 1 scn 10 10 20 20 re f 0.5 scn 40 10 20 20 re B Q 70 10 20 20 re f
      0.25 g 10 40 20 10 re f 1 0 0 rg 40 40 20 10 re f`;
    expect(await inksOf(await pageOf(text))).toEqual([
      LIDO,
      { ...LIDO, tint: 0.5 },
      { kind: 'cmyk', shares: [0, 1, 0, 0] },
      BLACK,
      { kind: 'grey', white: 0.25 },
      undefined,
    ]);
  });

  test('words, notes and pixels that only look like steps are passed over', async () => {
    const text = `0 0 0 1 k % 1 0 0 0 k
      /P << /Word (1 0 0 0 k \\) 1 0 0 0 k) >> BDC EMC <312030203020302k> pop
      q 5 0 0 5 80 5 cm BI /W 2 /H 1 /BPC 8 /CS /G ID k\x00 EI Q
      10 10 20 20 re f`;
    const [ink] = (await inksOf(await pageOf(text))).slice(-1);
    expect(ink).toEqual(BLACK);
  });

  test('a drawing within the page has its own (drawn by pdf-lib)', async () => {
    const inner = await PDFDocument.create();
    inner
      .addPage([100, 100])
      .drawRectangle({ x: 10, y: 10, width: 30, height: 30, color: cmyk(0.2, 0, 1, 0) });
    const outer = await PDFDocument.create();
    const page = outer.addPage([300, 200]);
    page.drawPage(await outer.embedPage(inner.getPage(0)));
    page.drawRectangle({ x: 150, y: 10, width: 30, height: 30, color: grayscale(0.5) });
    page.drawRectangle({ x: 200, y: 10, width: 30, height: 30, color: rgb(1, 0, 0) });
    expect(await inksOf(Buffer.from(await outer.save()))).toEqual([
      { kind: 'cmyk', shares: [0.2, 0, 1, 0] },
      { kind: 'grey', white: 0.5 },
      undefined,
    ]);
  });

  test('a drawing that lies in itself, and is drawn twice, is marked once', async () => {
    const file = await PDFDocument.create();
    const page = file.addPage([200, 100]);
    const { context } = file;
    const self = context.nextRef();
    const form = context.flateStream('0.2 0 1 0 k 10 10 30 30 re f', {
      Type: 'XObject',
      Subtype: 'Form',
      BBox: [0, 0, 100, 100],
      Resources: { XObject: { Self: self } },
    });
    context.assign(self, form);
    page.node.set(PDFName.of('Resources'), context.obj({ XObject: { A: self, B: self } }));
    page.node.set(
      PDFName.of('Contents'),
      context.register(context.flateStream('/A Do 1 0 0 1 100 0 cm /B Do')),
    );
    const ink = { kind: 'cmyk', shares: [0.2, 0, 1, 0] };
    expect(await inksOf(Buffer.from(await file.save()))).toEqual([ink, ink]);
  });

  test('a spot colour that is told in colours of light is shown in them, and keeps its name', async () => {
    const { shapes } = await readFile(await pageOf('/Lido cs 1 scn 10 10 20 20 re f', 'DeviceRGB'));
    expect(shapes[0].ink).toBeUndefined();
    expect(shapes[0].spot).toBe('Lido 7');
  });

  test('EPS keeps them on its way (Ghostscript)', async () => {
    const eps =
      '%!PS-Adobe-3.0 EPSF-3.0\n%%BoundingBox: 0 0 100 50\n0 1 1 0 setcmykcolor 10 10 80 30 rectfill\nshowpage\n';
    const [ink] = await inksOf(Buffer.from(eps));
    expect(ink).toEqual({ kind: 'cmyk', shares: [0, 1, 1, 0] });
  });
});

describe('printing by colours', () => {
  const dir = mkdtempSync(join(tmpdir(), 'inks-'));
  const PX_PER_MM = 6;
  let artwork: Artwork;
  let printed: Printed;

  beforeAll(async () => {
    const text = `${PT} 0 0 ${PT} 0 0 cm 0 0 0 1 k 10 10 20 40 re f /Lido cs 0.5 scn 30 10 20 40 re f
      0.5 g 50 10 20 40 re f 1 0 0 rg 70 10 20 40 re f`;
    const piece = pieceOfFile('hash', 'inks.pdf');
    artwork = await readFile(await pageOf(text));
    const artworks = new Map([[sourceKey(piece.source), artwork]]);
    const print = artwork.shapes.map(({ colour }) => colour);
    const choices = {
      ...DEFAULT_CHOICES,
      artwork: { ...DEFAULT_CHOICES.artwork, pieces: [piece] },
      films: { ...DEFAULT_CHOICES.films, print },
      print: { ...DEFAULT_CHOICES.print, bleed: 2, sheet: { width: 297, height: 210 } },
    };
    printed = createPlanner().plan(artworks, choices, DEMO_SHOP).printed!;
    const of = { printed, index: 0, order: '#2050', print: choices.print, files: new Map() };
    writeFileSync(join(dir, 'sheet.pdf'), await sheetPdf(of, true));
    const r = `-r${25.4 * PX_PER_MM}`;
    const output = `-sOutputFile=${join(dir, 'plate.tif')}`;
    spawnSync('gs', ['-q', '-dBATCH', '-dNOPAUSE', '-sDEVICE=tiffsep', r, output, join(dir, 'sheet.pdf')]);
  }, 60_000);

  /** Share of an ink, 0 … 1, at a place of the art, mm from its upper left corner. */
  async function plate(ink: string): Promise<(x: number, y: number) => number> {
    const { data, info } = await sharp(readFileSync(join(dir, `plate(${ink}).tif`)))
      .raw()
      .toBuffer({ resolveWithObject: true });
    const [{ matrix }] = printed.sheets[0].sheet.places;
    return (x, y) => {
      const [sx, sy] = mapped([x, y], matrix).map((mm) => Math.floor(mm * PX_PER_MM));
      return 1 - data[info.channels * (sy * info.width + sx)] / 255;
    };
  }

  test('every colour is on the plates it was on, and so is its bleed', async () => {
    const [black, cyan, lido] = await Promise.all(['Black', 'Cyan', 'Lido 7'].map(plate));
    const at = (x: number, y: number): number[] =>
      [black, cyan, lido].map((seen) => Number(seen(x, y).toFixed(1)));
    expect(at(10, 20)).toEqual([1, 0, 0]);
    expect(at(30, 20)).toEqual([0, 0, 0.5]);
    expect(at(50, 20)).toEqual([0.5, 0, 0]);
    // past the art, and past the line that is cut 2 mm outside
    expect(at(10, -3)).toEqual([1, 0, 0]);
    expect(at(30, -3)).toEqual([0, 0, 0.5]);
    expect(at(50, 43)).toEqual([0.5, 0, 0]);
    // a colour of light is mixed as the printer mixes it
    expect(at(70, 20)[2]).toBe(0);
  });
});
