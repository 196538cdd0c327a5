/** Every kind of file, written by others, read by us, and compared as an independent renderer (resvg) draws it. */
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { execFileSync, spawnSync } from 'node:child_process';
import { mkdtempSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { gzipSync } from 'node:zlib';
import { Resvg } from '@resvg/resvg-js';
import { DxfWriter, point2d, point3d, Units } from '@tarikjabiri/dxf';
import PDFDocument from 'pdfkit';
import sharp from 'sharp';
import { gaussian } from '../../core/random';
import type { Artwork, Shape } from '../../core/readers/artwork';
import { preparePiece } from '../../core/artwork/preparePiece';
import { readResolvedSvg } from '../../core/readers/svg/readResolvedSvg';
import { seenColours } from '../../core/films/seen';
import { IDENTITY } from '../../core/geometry/matrix';
import { flatten, mapPath } from '../../core/geometry/path';
import { regionToPathData } from '../../core/geometry/pathText';
import { regionArea, weld } from '../../core/geometry/region';
import type { FileProblem } from './fileProblem';
import { differingShare, pixels, stackedSvg } from './pixels.testing';
import { SHIPPED_FONTS } from './shippedFonts';
import { kindOf } from './fileKind';
import { AS_IT_COMES, firstReading, readFile } from './readFile';
import type { WorkPool } from '../work/pool';
import { openPool } from '../work/pool';
import { sample } from '../../core/sample.testing';

const EMOJI = 'node_modules/@twemoji/svg';
const SIDE = 36;
const PER_SHEET = 36;
const OWN = { width: null, height: null, lockAspect: true };

const dir = mkdtempSync(join(tmpdir(), 'kinds-'));
const resolved = (svg: string): Artwork =>
  readResolvedSvg(new Resvg(svg, { font: { loadSystemFonts: false } }).toString());

/** Shapes of icons of the registry that need nothing but paths. */
const icons: readonly (readonly Shape[])[] = readdirSync(EMOJI)
  .filter((name, i) => name.endsWith('.svg') && i % 9 === 0)
  .map((name) => resolved(readFileSync(join(EMOJI, name), 'utf8')))
  .filter(
    ({ shapes, findings }) => findings.length === 0 && shapes.every((s) => s.clips.length === 0 && !s.look),
  )
  .map(({ shapes }) => shapes)
  .slice(0, 8 * PER_SHEET);
const sheets = Array.from({ length: Math.floor(icons.length / PER_SHEET) }, (_, i) =>
  icons.slice(i * PER_SHEET, (i + 1) * PER_SHEET),
);

const pathText = ({ path, matrix }: Shape): string => {
  const { ops, xy } = mapPath(path, matrix);
  let at = 0;
  return [...ops]
    .map((op) => op + xy.slice(at, (at += op === 'C' ? 6 : op === 'Z' ? 0 : 2)).join(' '))
    .join('');
};
const place = (i: number): readonly [number, number] => [(i % 6) * SIDE, Math.floor(i / 6) * SIDE];
/** An icon is 36 px = 9.525 mm; a sheet of 6 × 6 is drawn with one unit a px. */
const PX = 96 / 25.4;

function sheetSvg(sheet: readonly (readonly Shape[])[]): string {
  const all = sheet.map((shapes, i) => {
    const paths = shapes.map((shape) => {
      const paint = shape.stroke
        ? `fill="none" stroke="${shape.colour}" stroke-width="${shape.stroke.width * shape.matrix[0]}" stroke-linejoin="${shape.stroke.join}" stroke-linecap="${shape.stroke.cap}" stroke-miterlimit="${shape.stroke.miterLimit}"`
        : `fill="${shape.colour}" fill-rule="${shape.fill}"`;
      return `<path ${paint} d="${pathText(shape)}"/>`;
    });
    return `<g transform="translate(${place(i).join()}) scale(${PX})">${paths.join('')}</g>`;
  });
  return `<svg xmlns="http://www.w3.org/2000/svg" width="216" height="216" viewBox="0 0 216 216"><rect width="216" height="216" fill="#fff"/>${all.join('')}</svg>`;
}

function sheetPdf(sheet: readonly (readonly Shape[])[]): Promise<Buffer> {
  const doc = new PDFDocument({ size: [216, 216], margin: 0 });
  const chunks: Buffer[] = [];
  doc.on('data', (chunk: Buffer) => chunks.push(chunk));
  const done = new Promise<Buffer>((give) => doc.on('end', () => give(Buffer.concat(chunks))));
  doc.rect(0, 0, 216, 216).fill('#ffffff');
  sheet.forEach((shapes, i) => {
    doc
      .save()
      .translate(...place(i))
      .scale(PX);
    for (const shape of shapes) {
      const path = doc.path(pathText(shape));
      if (!shape.stroke) path.fill(shape.colour, shape.fill === 'evenodd' ? 'even-odd' : 'non-zero');
      else {
        const { width, join: corner, cap, miterLimit } = shape.stroke;
        path
          .lineWidth(width * shape.matrix[0])
          .lineJoin(corner)
          .lineCap(cap)
          .miterLimit(miterLimit)
          .stroke(shape.colour);
      }
    }
    doc.restore();
  });
  doc.end();
  return done;
}

const share = (artwork: Artwork, svg: string): number =>
  differingShare(pixels(svg, 1200), pixels(stackedSvg(artwork).svg, 1200));

describe('PDF', () => {
  test('icons, written by pdfkit, come back as drawn', async () => {
    expect(icons.length).toBeGreaterThanOrEqual(200);
    for (const sheet of sample(sheets, 2)) {
      const artwork = await readFile(await sheetPdf(sheet));
      expect(artwork.findings.map(({ code }) => code)).toEqual([]);
      expect(artwork.page.width).toBeCloseTo(76.2, 3);
      expect(share(artwork, sheetSvg(sheet))).toBeLessThanOrEqual(0.003);
    }
  }, 180_000);

  const pdf = (
    draw: (doc: PDFKit.PDFDocument) => void,
    options: PDFKit.PDFDocumentOptions = {},
  ): Promise<Buffer> => {
    const doc = new PDFDocument({ size: [300, 200], margin: 0, ...options });
    const chunks: Buffer[] = [];
    doc.on('data', (chunk: Buffer) => chunks.push(chunk));
    const done = new Promise<Buffer>((give) => doc.on('end', () => give(Buffer.concat(chunks))));
    draw(doc);
    doc.end();
    return done;
  };

  test('colours in RGB, CMYK, grey and spot with its name; text as outlines; clips; gradients told', async () => {
    const artwork = await readFile(
      await pdf((doc) => {
        // not in the published types yet
        (doc as unknown as { addSpotColor: (...spot: unknown[]) => void }).addSpotColor(
          'Harbour Blue',
          100,
          60,
          0,
          10,
        );
        doc.rect(0, 0, 50, 50).fill('#ff8000');
        doc.rect(50, 0, 50, 50).fill([0, 100, 50, 0]);
        doc.rect(100, 0, 50, 50).fill('Harbour Blue');
        doc.fillColor('#123456').fontSize(40).text('OI', 20, 100);
        doc.save().rect(200, 20, 30, 30).clip().circle(230, 50, 30).fill('red').restore();
        doc
          .rect(150, 100, 60, 30)
          .fill(doc.linearGradient(150, 0, 210, 0).stop(0, '#000000').stop(1, '#ffffff'));
      }),
    );
    const by = (colour: string): Shape | undefined => artwork.shapes.find((shape) => shape.colour === colour);
    expect(by('#ff8000')).toBeDefined();
    expect(artwork.shapes.find(({ spot }) => spot !== undefined)?.spot).toBe('Harbour Blue');
    expect(artwork.shapes.filter(({ colour }) => colour === '#123456')).toHaveLength(2);
    expect(artwork.shapes.filter(({ look }) => look === 'gradient')).toHaveLength(1);
    const { shapes } = preparePiece(artwork, OWN);
    const red = seenColours(shapes).find(({ colour }) => colour === '#ff0000')!;
    // a quarter of the disc is left by the clip; pt² into mm²
    expect(red.area / (Math.PI * 900 * (25.4 / 72) ** 2)).toBeCloseTo(0.25, 3);
  }, 30_000);

  test('pages to choose from, each with its size', async () => {
    const bytes = await pdf((doc) => {
      doc.rect(10, 10, 20, 20).fill('#ff0000');
      doc
        .addPage({ size: [144, 72] })
        .rect(10, 10, 20, 20)
        .fill('#0000ff');
    });
    const first = await readFile(bytes);
    expect(first.offers?.pages?.map(({ value, width }) => [value, Math.round(width * 10) / 10])).toEqual([
      [1, 105.8],
      [2, 50.8],
    ]);
    const second = await readFile(bytes, { ...AS_IT_COMES, page: 2 });
    expect(second.shapes.map(({ colour }) => colour)).toEqual(['#0000ff']);
    expect(second.page.height).toBeCloseTo(25.4, 3);
  }, 30_000);

  test('a late page of a long PDF is as large as it is, and can be chosen', async () => {
    const bytes = await pdf((doc) => {
      for (let i = 1; i < 260; i++) doc.addPage({ size: [144, 72] });
      doc.rect(10, 10, 20, 20).fill('#0000ff');
    });
    const late = await readFile(bytes, { ...AS_IT_COMES, page: 260 });
    expect(late.page.width).toBeCloseTo(50.8, 3);
    expect(late.findings).toEqual([]);
    expect(late.offers?.pages).toHaveLength(260);
  }, 30_000);

  test('a locked PDF and half a PDF are told', async () => {
    const locked = await pdf((doc) => doc.rect(0, 0, 9, 9).fill('red'), { userPassword: 'tern' });
    await expect(readFile(locked)).rejects.toMatchObject({ code: 'password' });
    const whole = await pdf((doc) => doc.rect(0, 0, 9, 9).fill('red'));
    await expect(readFile(whole.subarray(0, 300))).rejects.toMatchObject({
      code: expect.stringMatching(/unreadable|nothing/),
    });
  }, 30_000);
});

describe('EPS and HP-GL', () => {
  const tool = (command: string, args: string[]): void => {
    const { status, stderr } = spawnSync(command, args);
    if (status !== 0) throw new Error(String(stderr));
  };

  test('icons through Ghostscript’s EPS come back as drawn', async () => {
    const sheet = sheets[0];
    writeFileSync(join(dir, 'sheet.pdf'), await sheetPdf(sheet));
    tool('gs', [
      '-q',
      '-dBATCH',
      '-dNOPAUSE',
      '-sDEVICE=eps2write',
      `-sOutputFile=${join(dir, 'sheet.eps')}`,
      join(dir, 'sheet.pdf'),
    ]);
    const artwork = await readFile(readFileSync(join(dir, 'sheet.eps')));
    expect(share(artwork, sheetSvg(sheet))).toBeLessThanOrEqual(0.003);
  }, 60_000);

  test('silhouettes plotted by pstoedit come back filled, holes and all', async () => {
    const region = silhouettes(sheets[1]);
    const doc = new PDFDocument({ size: [216, 216], margin: 0 });
    const chunks: Buffer[] = [];
    doc.on('data', (chunk: Buffer) => chunks.push(chunk));
    const done = new Promise((give) => doc.on('end', give));
    doc.rect(0, 0, 216, 216).stroke('#000000');
    doc.path(regionToPathData(region)).lineWidth(0.01).stroke('#000000');
    doc.end();
    await done;
    writeFileSync(join(dir, 'lines.pdf'), Buffer.concat(chunks));
    tool('gs', [
      '-q',
      '-dBATCH',
      '-dNOPAUSE',
      '-sDEVICE=ps2write',
      `-sOutputFile=${join(dir, 'lines.ps')}`,
      join(dir, 'lines.pdf'),
    ]);
    tool('pstoedit', [
      '-f',
      'hpgl',
      '-xscale',
      '8',
      '-yscale',
      '8',
      join(dir, 'lines.ps'),
      join(dir, 'lines.plt'),
    ]);
    const bytes = readFileSync(join(dir, 'lines.plt'));
    expect(kindOf(bytes)).toBe('plt');
    const artwork = await readFile(bytes);
    // the frame and every outline, whatever order the plotter draws them in
    const outer = `<svg xmlns="http://www.w3.org/2000/svg" width="216" height="216" viewBox="0 0 216 216"><path fill-rule="evenodd" d="M0 0H216V216H0Z${regionToPathData(region)}"/></svg>`;
    expect(
      share({ ...artwork, shapes: artwork.shapes.map((s) => ({ ...s, colour: '#000000' })) }, outer),
    ).toBeLessThanOrEqual(0.003);
  }, 60_000);
});

/** Every icon of a sheet as one black shape, px. */
function silhouettes(sheet: readonly (readonly Shape[])[]) {
  return sheet.flatMap((shapes, i) => {
    const [x, y] = place(i);
    const art = { page: { width: 1, height: 1 }, shapes, clips: [], findings: [] };
    const { natural } = preparePiece(art, OWN);
    const side = natural.width > natural.height ? { width: 34 } : { height: 34 };
    const { shapes: made } = preparePiece(art, { ...OWN, ...side });
    return weld(made.flatMap((shape) => shape.region)).map((ring) =>
      Float64Array.from(ring, (v, k) => v + (k % 2 === 0 ? x : y) + 1),
    );
  });
}

describe('DXF', () => {
  const areasOf = (artwork: Artwork): number[] =>
    preparePiece(artwork, OWN)
      .shapes.map(({ region }) => regionArea(region))
      .sort((a, b) => a - b);
  const dxf = (draw: (writer: DxfWriter) => void, units?: Units): Buffer => {
    const writer = new DxfWriter();
    if (units !== undefined) writer.setUnits(units);
    draw(writer);
    return Buffer.from(writer.stringify());
  };

  test('icons as polylines, written by another library, come back filled, holes and all', async () => {
    for (const sheet of sheets.slice(0, 3)) {
      const region = silhouettes(sheet);
      const bytes = dxf((writer) => {
        writer.addLWPolyline(
          [
            [0, 0],
            [216, 0],
            [216, 216],
            [0, 216],
          ].map(([x, y]) => ({ point: point2d(x, y) })),
          { flags: 1 },
        );
        for (const ring of region) {
          const vertices = Array.from({ length: ring.length / 2 }, (_, i) => ({
            point: point2d(ring[2 * i], 216 - ring[2 * i + 1]),
          }));
          writer.addLWPolyline(vertices, { flags: 1 });
        }
      }, Units.Millimeters);
      const outer = `<svg xmlns="http://www.w3.org/2000/svg" width="216" height="216" viewBox="0 0 216 216"><path fill-rule="evenodd" d="M0 0H216V216H0Z${regionToPathData(region)}"/></svg>`;
      expect(share(await readFile(bytes), outer)).toBeLessThanOrEqual(0.003);
    }
  }, 120_000);

  test('arcs, circles, ellipses, bulges, loose lines, blocks: areas in closed form', async () => {
    const artwork = await readFile(
      dxf((writer) => {
        writer.addCircle(point3d(0, 0), 10);
        writer.addEllipse(point3d(100, 0), point3d(20, 0), 0.5, 0, 2 * Math.PI);
        // a stadium of two bulges
        writer.addLWPolyline(
          [
            { point: point2d(200, 0) },
            { point: point2d(240, 0), bulge: 1 },
            { point: point2d(240, 20) },
            { point: point2d(200, 20), bulge: 1 },
          ],
          { flags: 1 },
        );
        // a half disc of an arc and a line, which meet at their ends
        writer.addArc(point3d(300, 0), 15, 0, 180);
        writer.addLine(point3d(285, 0), point3d(315, 0));
        const block = writer.addBlock('plate');
        block.addCircle(point3d(0, 0), 2);
        writer.addInsert('plate', point3d(400, 0), { scaleFactor: { x: 3, y: 3, z: 1 }, rotationAngle: 30 });
      }, Units.Millimeters),
    );
    const expected = [
      Math.PI * 36,
      (Math.PI * 225) / 2,
      Math.PI * 100,
      Math.PI * 200,
      40 * 20 + Math.PI * 100,
    ];
    const found = areasOf(artwork);
    expect(found).toHaveLength(5);
    expected
      .sort((a, b) => a - b)
      .forEach((area, i) => expect(Math.abs(found[i] / area - 1)).toBeLessThan(0.002));
    expect(artwork.findings).toEqual([]);
  });

  test('layers and colours are kept; inches are inches', async () => {
    const artwork = await readFile(
      dxf((writer) => {
        writer.addLayer('Cut', 1);
        writer.setCurrentLayerName('Cut');
        writer.addCircle(point3d(0, 0), 1);
      }, Units.Inches),
    );
    expect(artwork.shapes.map(({ layer, colour }) => [layer, colour])).toEqual([['Cut', '#ff0000']]);
    expect(artwork.page.width).toBeCloseTo(50.8, 6);
  });

  test('a drawing without units asks, and says what each answer would give', async () => {
    const bytes = dxf((writer) => writer.addCircle(point3d(0, 0), 5), Units.Unitless);
    const asked = await readFile(bytes);
    expect(asked.findings.map(({ code }) => code)).toContain('no-units');
    expect(asked.offers?.units?.find(({ value }) => value === 'in')?.width).toBeCloseTo(254, 6);
    const answered = await readFile(bytes, { ...AS_IT_COMES, units: 'in' });
    expect(answered.findings).toEqual([]);
    expect(answered.page.width).toBeCloseTo(254, 6);
  });

  const text = (body: string): Buffer => Buffer.from(`0\nSECTION\n2\nENTITIES\n${body}0\nENDSEC\n0\nEOF\n`);
  test('a spline with weights is a circle; a hatch keeps its outlines; solids in space are told', async () => {
    // the quarter circle of nine control points (Piegl & Tiller, The NURBS Book, 7.5)
    const w = Math.SQRT1_2;
    const points = [
      [1, 0, 1],
      [1, 1, w],
      [0, 1, 1],
      [-1, 1, w],
      [-1, 0, 1],
      [-1, -1, w],
      [0, -1, 1],
      [1, -1, w],
      [1, 0, 1],
    ];
    const knots = [0, 0, 0, 1, 1, 2, 2, 3, 3, 4, 4, 4];
    const spline = `0\nSPLINE\n8\n0\n70\n4\n71\n2\n${knots.map((k) => `40\n${k}\n`).join('')}${points.map(([, , v]) => `41\n${v}\n`).join('')}${points.map(([x, y]) => `10\n${x * 10}\n20\n${y * 10}\n`).join('')}`;
    const [area] = areasOf(await readFile(text(spline), { ...AS_IT_COMES, units: 'mm' }));
    expect(Math.abs(area / (Math.PI * 100) - 1)).toBeLessThan(0.002);
    const hatch = `0\nHATCH\n8\n0\n62\n5\n70\n1\n91\n2\n92\n1\n93\n1\n72\n2\n10\n0\n20\n0\n40\n10\n50\n0\n51\n360\n73\n1\n97\n0\n92\n3\n72\n0\n73\n1\n93\n4\n10\n-2\n20\n-2\n10\n2\n20\n-2\n10\n2\n20\n2\n10\n-2\n20\n2\n97\n0\n75\n0\n`;
    const hatched = await readFile(text(hatch), { ...AS_IT_COMES, units: 'mm' });
    expect(hatched.shapes[0].colour).toBe('#0000ff');
    expect(Math.abs(areasOf(hatched)[0] / (Math.PI * 100 - 16) - 1)).toBeLessThan(0.002);
    await expect(readFile(text('0\n3DSOLID\n8\n0\n0\n3DSOLID\n8\n0\n'))).rejects.toMatchObject({
      code: 'nothing-to-cut',
      message: expect.stringContaining('2 solids or surfaces in space are left out'),
    });
  });

  test.each([
    ['cut off', '0\nSECTION\n2\nENTITIES\n0\nLINE\n10\n0', 'cut-off'],
    [
      'no numbers',
      '0\nSECTION\n2\nENTITIES\n0\nLINE\n10\nNaN\n20\n0\n11\n1\n21\n1\n0\nENDSEC\n0\nEOF\n',
      'no-place',
    ],
    [
      'out of the world',
      '0\nSECTION\n2\nENTITIES\n0\nCIRCLE\n10\n1e300\n20\n0\n40\n1\n0\nENDSEC\n0\nEOF\n',
      'no-place',
    ],
    ['its binary form', 'Some CAD Binary DXF\r\n\x1a\0', 'binary-dxf'],
  ])('%s: a sentence', async (_, body, code) => {
    const problem = await readFile(Buffer.from(body)).then(
      () => undefined,
      (error: FileProblem) => error,
    );
    expect(problem?.code).toBe(code);
    expect(problem?.message).toMatch(/\.$/);
  });
});

describe('pictures', () => {
  const circle = (format: 'png' | 'jpeg' | 'webp'): Promise<Buffer> =>
    sharp(
      Buffer.from(
        '<svg xmlns="http://www.w3.org/2000/svg" width="400" height="300"><rect width="400" height="300" fill="#fff"/><circle cx="200" cy="150" r="100"/></svg>',
      ),
    )
      .toFormat(format, { quality: 95 })
      .toBuffer();

  test.each(['png', 'jpeg', 'webp'] as const)(
    'a circle in %s is a circle within half a pixel',
    async (format) => {
      const artwork = await readFile(await circle(format));
      const mm = artwork.page.width / 400;
      const [line, ...more] = artwork.shapes.flatMap(({ path }) => flatten(path, IDENTITY, 0.01));
      expect(more).toEqual([]);
      for (let i = 0; i < line.points.length; i += 2) {
        expect(Math.abs(Math.hypot(line.points[i] - 200, line.points[i + 1] - 150) - 100)).toBeLessThan(0.5);
      }
      expect(artwork.offers?.picture).toMatchObject({ width: 400, height: 300 });
      expect(mm).toBeGreaterThan(0);
    },
  );

  test.each([14, 25])(
    'a black drawing under grain of σ = %d is proposed as black on white, and traced as one disc',
    async (sigma) => {
      const [width, height] = [900, 700];
      const grain = gaussian(7, sigma);
      const data = Buffer.alloc(3 * width * height);
      for (let i = 0; i < width * height; i++) {
        const inside = Math.hypot((i % width) - 450, Math.floor(i / width) - 350) < 250;
        for (let c = 0; c < 3; c++)
          data[3 * i + c] = Math.max(0, Math.min(255, Math.round((inside ? 30 : 225) + grain())));
      }
      const png = await sharp(data, { raw: { width, height, channels: 3 } })
        .png()
        .toBuffer();
      const reading = await firstReading(png);
      expect(reading.trace?.by).toBe('brightness');
      const artwork = await readFile(png, reading);
      expect(artwork.findings.map(({ code }) => code)).toEqual(['grainy']);
      expect(artwork.shapes).toHaveLength(1);
      const [ring] = flatten(artwork.shapes[0].path, IDENTITY, 0.01);
      for (let i = 0; i < ring.points.length; i += 2)
        expect(Math.abs(Math.hypot(ring.points[i] - 450, ring.points[i + 1] - 350) - 250)).toBeLessThan(2);
    },
    30_000,
  );

  test('half a picture and one of 400 million pixels are told', async () => {
    const whole = await circle('png');
    await expect(readFile(whole.subarray(0, whole.length / 2))).rejects.toMatchObject({
      code: expect.stringMatching(/cut-off|unreadable/),
    });
    // a PNG's head says its size: nothing of that size is ever unpacked
    const huge = Buffer.from(whole);
    huge.writeUInt32BE(20_000, 16);
    huge.writeUInt32BE(20_000, 20);
    await expect(readFile(huge)).rejects.toMatchObject({
      code: expect.stringMatching(/too-many-pixels|unreadable/),
    });
  });
});

describe('SVG', () => {
  test('packed, with layers by name and text in a typeface that is here', async () => {
    const svg = `<svg xmlns="http://www.w3.org/2000/svg" xmlns:d="urn:drawing" width="100" height="100"><g id="g1" d:groupmode="layer" d:label="Letters"><text x="5" y="60" font-family="Oswald" font-size="40">Hi</text></g></svg>`;
    const artwork = await readFile(gzipSync(svg));
    expect(artwork.shapes.length).toBeGreaterThan(0);
    expect(artwork.shapes[0].layer).toBe('Letters');
    expect(artwork.findings).toEqual([]);
  }, 30_000);

  test('text in a typeface that is not here is named, and set in the one that was picked', async () => {
    const svg = Buffer.from(
      '<svg xmlns="http://www.w3.org/2000/svg" width="100" height="100"><text x="5" y="60" font-family="Nobody Grotesk" font-size="40">Hi</text></svg>',
    );
    const first = await readFile(svg);
    expect(first.findings.map(({ code, severity }) => [code, severity])).toEqual([['font-missing', 'check']]);
    expect(first.findings[0].message).toContain('Nobody Grotesk');
    expect(first.offers?.fonts).toEqual(['Nobody Grotesk']);
    const picked = await readFile(svg, { ...AS_IT_COMES, font: 'anton' });
    expect(picked.findings[0].severity).toBe('note');
    expect(JSON.stringify(picked.shapes)).not.toBe(JSON.stringify(first.shapes));
  }, 30_000);
});

describe('characters that a typeface lacks', () => {
  let pool: WorkPool;
  beforeAll(() => void (pool = openPool(1)));
  afterAll(() => pool.close());
  // the shaper is an ES module: it runs in a thread as in the server
  const text = async (words: string, font: string): Promise<Artwork> => {
    const line = { weight: 500, capHeight: 50, tracking: 0, lineSpacing: 1.2, arcRadius: 0 };
    const source = { kind: 'text', text: words, font, align: 'left', colour: '#000000', ...line } as const;
    const answer = await pool.run('typeset', { source });
    if (!answer.ok) throw new Error(answer.message);
    return answer.value;
  };
  const told = ({ findings }: Artwork, code: string): string =>
    findings.find((finding) => finding.code === code)?.message ?? '';

  test('typed: nothing is cut for those that no typeface has, and they are named', async () => {
    const artwork = await text('Tern 日本語', 'archivo');
    expect(artwork.shapes).toHaveLength(4);
    expect(told(artwork, 'letters-missing')).toBe(
      '3 characters are not in Archivo: 日本語. Nothing is cut for them.',
    );
  });

  test('typed: those that another shipped face has are taken from it, and told', async () => {
    // Welsh: the stencil face ships without its extended part
    const faces = await Promise.all(SHIPPED_FONTS.map(({ id }) => text('ŵ', id)));
    const borrowing = faces.find(({ findings }) => findings.some(({ code }) => code === 'letters-borrowed'));
    expect(borrowing?.shapes).toHaveLength(1);
    for (const face of faces) expect(told(face, 'letters-missing')).toBe('');
  }, 30_000);

  test('in an SVG: no box is drawn', async () => {
    const svg = (words: string): Buffer =>
      Buffer.from(
        `<svg xmlns="http://www.w3.org/2000/svg" width="300" height="100"><text x="5" y="60" font-family="Archivo" font-size="40">${words}</text></svg>`,
      );
    const [with3, without] = await Promise.all([readFile(svg('I日本語')), readFile(svg('I'))]);
    expect(with3.shapes.map(({ path }) => path)).toEqual(without.shapes.map(({ path }) => path));
    expect(told(with3, 'letters-missing')).toContain('3 characters are not in Archivo: 日本語');
  }, 30_000);
});

test('a file under a wrong ending is known by what is in it; what is none is told', async () => {
  expect(kindOf(Buffer.from('%PDF-1.7 …'))).toBe('pdf');
  expect(kindOf(Buffer.from('IN;SP1;PU0,0;PD100,0;'))).toBe('plt');
  expect(kindOf(Buffer.from('GIF89a'))).toBe('picture');
  // HP-GL may begin with the letters of a BMP
  expect(() => kindOf(Buffer.from('BM, the second one of two plans'))).toThrow(/TIFF and BMP can/);
  expect(() => kindOf(Buffer.from('PK\x03\x04'))).toThrow(/unpack it/);
  expect(() => kindOf(Buffer.from('Dear Tern Lane Signs, please cut this'))).toThrow(
    /no drawing that can be read/,
  );
});

describe('pictures of every kind come in as their PNG does', () => {
  // Ghostscript writes BMP and TIFF, sharp GIF
  const page =
    '%!PS\n%%BoundingBox: 0 0 144 72\n0.8 0.1 0.2 setrgbcolor 20 10 60 50 rectfill 0 0.3 0.7 setrgbcolor 100 36 24 0 360 arc fill showpage';
  const dir = mkdtempSync(join(tmpdir(), 'pictures-'));
  const drawn = (device: string): Buffer => {
    const out = join(dir, device);
    const size = ['-dDEVICEWIDTHPOINTS=144', '-dDEVICEHEIGHTPOINTS=72', '-dFIXEDMEDIA', '-r150'];
    execFileSync('gs', ['-q', '-dSAFER', '-dBATCH', '-dNOPAUSE', ...size, `-sDEVICE=${device}`, `-sOutputFile=${out}`, '-'], { input: page }); // prettier-ignore
    return readFileSync(out);
  };
  const seen = async (bytes: Buffer) => {
    const { page, shapes } = await readFile(bytes);
    return { page, shapes: shapes.map(({ colour, path }) => [colour, path.xy.length]) };
  };

  test.each(['bmp16m', 'tiff24nc'])('%s', async (device) => {
    const [own, png] = [await seen(drawn(device)), await seen(drawn('png16m'))];
    expect(own.page.width).toBeCloseTo(50.8, 1);
    expect(own.page.width).toBeCloseTo(png.page.width, 1);
    expect(own.shapes).toEqual(png.shapes);
  });

  test('gif, and a BMP that stops in the middle', async () => {
    const png = drawn('png16m');
    const gif = await sharp(png).gif().toBuffer();
    expect((await seen(gif)).shapes.map(([, points]) => points)).toEqual((await seen(png)).shapes.map(([, points]) => points)); // prettier-ignore
    await expect(readFile(drawn('bmp16m').subarray(0, 400))).rejects.toMatchObject({ name: 'FileProblem' });
  });
});
