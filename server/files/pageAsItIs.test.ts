/** Drawings printed as they are: what poppler and Ghostscript make of the sheet is compared with what they make of the file. */
import { beforeAll, describe, expect, test } from '@jest/globals';
import { spawnSync } from 'node:child_process';
import { mkdtempSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import PDFDocument from 'pdfkit';
import sharp from 'sharp';
import type { FileSource, Piece } from '../../core/artwork/choices';
import { pieceOfFile, PRINTED_AS_IT_IS, sourceKey } from '../../core/artwork/choices';
import { mapped } from '../../core/geometry/matrix';
import { widthOf } from '../../core/geometry/bounds';
import { regionBounds } from '../../core/geometry/region';
import { DEFAULT_CHOICES } from '../../core/plan/choices';
import { createPlanner } from '../../core/plan/plan';
import type { Printed } from '../../core/plan/planned';
import { random } from '../../core/random';
import type { Artwork } from '../../core/readers/artwork';
import { DEMO_SHOP } from '../../demo/shop';
import { pageForPrint, pagePng } from './pageAsItIs';
import { readFile, readFirst } from './readFile';
import { sheetPdf, sheetPng } from './sheetFiles';
import { times } from '../../core/sample.testing';

const dir = mkdtempSync(join(tmpdir(), 'pages-'));
const PT = 72 / 25.4;
/** Pixels that renderers draw a mm with. */
const PX_PER_MM = 8;
const NO_PART = { page: null, box: null, font: null } as const;

/** Of a page 100 × 60 mm: black alone, a spot colour, a gradient that fades, and a photograph in CMYK. */
function drawing(jpeg: Buffer, change: (doc: PDFKit.PDFDocument) => void = () => {}): Promise<Buffer> {
  const doc = new PDFDocument({ size: [100 * PT, 60 * PT], margin: 0 });
  const chunks: Buffer[] = [];
  doc.on('data', (chunk: Buffer) => chunks.push(chunk));
  const done = new Promise<Buffer>((resolve) => doc.on('end', () => resolve(Buffer.concat(chunks))));
  change(doc);
  doc.scale(PT);
  doc.rect(10, 10, 20, 15).fill([0, 0, 0, 100]);
  (doc as unknown as { addSpotColor: (name: string, ...cmyk: number[]) => void }).addSpotColor(
    'Lido 7',
    90,
    20,
    0,
    5,
  );
  doc.rect(35, 10, 20, 15).fill('Lido 7');
  const shade = doc.linearGradient(10, 30, 55, 30).stop(0, '#c02040').stop(1, '#2040c0');
  doc.rect(10, 30, 45, 20).fill(shade);
  doc.image(jpeg, 60, 10, { width: 30, height: 40 });
  doc.end();
  return done;
}

const photo = (): Promise<Buffer> => {
  const [width, height] = [90, 120];
  const data = Buffer.alloc(3 * width * height);
  for (let i = 0; i < width * height; i++) data.set([2 * (i % width), 255 - (i / width) * 2, 120], 3 * i);
  return sharp(data, { raw: { width, height, channels: 3 } })
    .toColourspace('cmyk')
    .jpeg({ quality: 95 })
    .toBuffer();
};

interface Made {
  readonly artwork: Artwork;
  readonly printed: Printed;
  readonly pdf: () => Promise<Buffer>;
  readonly png: () => Promise<Uint8Array>;
}

/** The file as an order prints it: as it is, and cut around 2 mm off. */
async function planned(
  bytes: Buffer,
  piece: Partial<Piece> = {},
  reading: Partial<FileSource> = {},
  bleed = 2,
): Promise<Made> {
  const source = { trace: PRINTED_AS_IT_IS, ...reading };
  const own = { ...pieceOfFile('hash', 'drawing', source), ...piece };
  const artwork = await readFile(bytes, own.source as FileSource);
  const choices = {
    ...DEFAULT_CHOICES,
    artwork: { ...DEFAULT_CHOICES.artwork, pieces: [own] },
    print: { ...DEFAULT_CHOICES.print, bleed, sheet: { width: 297, height: 210 } },
  };
  const { printed } = createPlanner().plan(new Map([[sourceKey(own.source), artwork]]), choices, DEMO_SHOP);
  const files = new Map([['hash', bytes]]);
  const of = { printed: printed!, index: 0, order: '#2050', print: choices.print, files };
  return {
    artwork,
    printed: printed!,
    pdf: () => sheetPdf(of, false),
    png: () => sheetPng(of, 25.4 * PX_PER_MM),
  };
}

type Seen = (x: number, y: number) => readonly number[];

/** What poppler draws, asked by places in mm. */
async function drawn(pdf: Uint8Array, name: string, more: readonly string[] = []): Promise<Seen> {
  const [input, output] = [join(dir, `${name}.pdf`), join(dir, name)];
  writeFileSync(input, pdf);
  spawnSync('pdftocairo', ['-png', '-singlefile', '-r', String(25.4 * PX_PER_MM), ...more, input, output]);
  return seenIn(readFileSync(`${output}.png`));
}
async function seenIn(png: Uint8Array): Promise<Seen> {
  const { data, info } = await sharp(png)
    .flatten({ background: '#fff' })
    .raw()
    .toBuffer({ resolveWithObject: true });
  return (x, y) => {
    const k = info.channels * (Math.floor(y * PX_PER_MM) * info.width + Math.floor(x * PX_PER_MM));
    return [...data.subarray(k, k + 3)];
  };
}

/** Where a place of the file's page, mm, lies on the sheet. */
function onSheet({ artwork, printed }: Made, x: number, y: number): Float64Array {
  const { picture } = printed.unit.art[0];
  const { page } = artwork;
  const inPicture = [(x * picture!.width) / page.width, (y * picture!.height) / page.height];
  return mapped(mapped(inPicture, picture!.matrix), printed.sheets[0].sheet.places[0].matrix);
}

const off = (a: readonly number[], b: readonly number[]): number =>
  Math.max(...a.map((value, i) => Math.abs(value - b[i])));

/** Places of a page, away from where two things of it meet. */
const PLACES: readonly (readonly [number, number])[] = [
  ...[
    [12, 12],
    [28, 23],
    [20, 17],
  ],
  ...[
    [37, 12],
    [53, 23],
  ],
  ...[
    [13, 33],
    [30, 40],
    [52, 47],
  ],
  ...[
    [63, 13],
    [75, 30],
    [87, 47],
  ],
] as [number, number][];

function worst(made: Made, of: Seen, sheet: Seen, places = PLACES): number {
  return Math.max(
    ...places.map(([x, y]) => {
      const [sx, sy] = onSheet(made, x, y);
      return off(of(x, y), sheet(sx, sy));
    }),
  );
}

let jpeg: Buffer;
let bytes: Buffer;
let straight: Made;
let sheet: Buffer;
beforeAll(async () => {
  jpeg = await photo();
  bytes = await drawing(jpeg);
  straight = await planned(bytes);
  sheet = await straight.pdf();
}, 60_000);

describe('a PDF that is printed as it is', () => {
  test('goes to print by itself, and is cut around all that it paints', () => {
    const { unit } = straight.printed;
    expect(unit.art).toHaveLength(1);
    expect(straight.artwork.findings).toEqual([]);
    // from the left edge of the black to the right edge of the photograph, 2 mm outside
    const line = regionBounds(unit.lines[0].region);
    expect(widthOf(line)).toBeGreaterThan(84 - 0.15);
    expect(widthOf(line)).toBeLessThan(84 + 0.15);
  });

  test('an edge of it lies within 0.03 mm of where the plan has it (poppler)', async () => {
    const bare = await planned(bytes, {}, {}, 0);
    const seen = await drawn(await bare.pdf(), 'edges');
    // the share of ink in the pixels on the way over the edge says where it is
    for (const [from, to, edge] of [
      [8, 12, 10],
      [28, 32, 30],
    ]) {
      const [[a, y], [b]] = [onSheet(bare, from, 17), onSheet(bare, to, 17)];
      const first = Math.floor(a * PX_PER_MM);
      const values = Array.from(
        { length: Math.floor(b * PX_PER_MM) - first },
        (_, i) => seen((first + i + 0.5) / PX_PER_MM, y)[0],
      );
      const [dark, light] = [Math.min(...values), 255];
      const ink = values.reduce((sum, value) => sum + (light - value) / (light - dark), 0);
      const at = edge === 10 ? first + values.length - ink : first + ink;
      expect(Math.abs(at / PX_PER_MM - onSheet(bare, edge, 17)[0])).toBeLessThan(0.03);
    }
  });

  test('everything on it lies where the plan has it (poppler)', async () => {
    const of = await drawn(bytes, 'own');
    expect(worst(straight, of, await drawn(sheet, 'sheet'))).toBeLessThanOrEqual(4);
    // and as a picture of the sheet, drawn by another renderer whose CMYK is its own
    const rgb = PLACES.slice(5, 8);
    expect(worst(straight, of, await seenIn(await straight.png()), rgb)).toBeLessThanOrEqual(6);
  });

  test('its inks stay its inks: black prints in black alone, the spot colour has a plate of its own (Ghostscript)', async () => {
    writeFileSync(join(dir, 'plates.pdf'), sheet);
    const dpi = 25.4 * PX_PER_MM;
    spawnSync('gs', [
      '-q',
      '-dBATCH',
      '-dNOPAUSE',
      '-sDEVICE=tiffsep',
      `-r${dpi}`,
      `-sOutputFile=${join(dir, 'plate.tif')}`,
      join(dir, 'plates.pdf'),
    ]);
    const plate = async (ink: string): Promise<Seen> => seenIn(readFileSync(join(dir, `plate(${ink}).tif`)));
    const [cyan, black, spot] = await Promise.all([plate('Cyan'), plate('Black'), plate('Lido 7')]);
    const at = (seen: Seen, x: number, y: number): number => {
      const [sx, sy] = onSheet(straight, x, y);
      return seen(sx, sy)[0];
    };
    // 0 is full ink
    expect([at(black, 20, 17), at(cyan, 20, 17), at(spot, 20, 17)]).toEqual([0, 255, 255]);
    expect([at(black, 45, 17), at(cyan, 45, 17), at(spot, 45, 17)]).toEqual([255, 255, 0]);
  });

  test('its pictures stay untouched', () => {
    expect(sheet.includes(jpeg)).toBe(true);
  });

  test('turned, mirrored and larger, of a page that is turned and has a box of its own', async () => {
    const turned = await drawing(jpeg, (doc) => {
      const page = doc.page.dictionary.data as Record<string, unknown>;
      page.Rotate = 90;
      page.TrimBox = [8 * PT, 5 * PT, 95 * PT, 55 * PT];
      page.CropBox = page.TrimBox;
    });
    const made = await planned(turned, { turn: 30, mirror: true, width: 70 }, { box: 'trim' });
    // a quarter turn to the right: what was (x, y) lies at (bottom − y, x − left)
    const places = PLACES.map(([x, y]) => [55 - y, x - 8] as const);
    const of = await drawn(turned, 'turned', ['-cropbox']);
    expect(worst(made, of, await drawn(await made.pdf(), 'turned-sheet'), places)).toBeLessThanOrEqual(6);
  });

  test('one that may not be changed is not laid on a sheet, and says so', async () => {
    const doc = new PDFDocument({ size: [100, 100], ownerPassword: 'lido' });
    const chunks: Buffer[] = [];
    doc.on('data', (chunk: Buffer) => chunks.push(chunk));
    const done = new Promise((resolve) => doc.on('end', resolve));
    doc.rect(10, 10, 50, 50).fill('#204080').end();
    await done;
    await expect(planned(Buffer.concat(chunks))).rejects.toMatchObject({ code: 'protected' });
  });
});

describe('an SVG', () => {
  const svg = (inside: string): Buffer =>
    Buffer.from(
      `<svg xmlns="http://www.w3.org/2000/svg" width="60mm" height="40mm" viewBox="0 0 60 40">${inside}</svg>`,
    );

  test('that is nothing but a picture is printed as it is by itself', async () => {
    const data = (await sharp(jpeg).toColourspace('srgb').png().toBuffer()).toString('base64');
    const picture = svg(
      `<image x="5" y="5" width="30" height="30" preserveAspectRatio="none" href="data:image/png;base64,${data}"/>`,
    );
    const { reading, artwork } = await readFirst(picture, () => {});
    expect(reading.trace?.by).toBe('print');
    // to look at, too, there is nothing behind it
    const shown = await sharp(await pagePng(picture, NO_PART, 120))
      .raw()
      .toBuffer();
    expect([shown[3], shown[4 * (120 * 40 + 40) + 3]]).toEqual([0, 255]);
    expect(artwork.offers).toMatchObject({ asIs: true });
    const made = await planned(picture);
    const seen = await drawn(await made.pdf(), 'picture');
    const [left, right] = [onSheet(made, 6, 20), onSheet(made, 34, 20)];
    expect(seen(left[0], left[1])[0]).toBeLessThan(60);
    expect(seen(right[0], right[1])[0]).toBeGreaterThan(140);
    // from its left edge to its right one, and 2 mm more on both sides
    expect(widthOf(regionBounds(made.printed.unit.lines[0].region))).toBeCloseTo(34, 1);
  });

  test('with hairlines says that they print; nothing of another file is in it', async () => {
    const made = await planned(
      svg(`<rect x="5" y="5" width="30" height="30" fill="#c02040"/><rect x="2" y="2" width="36" height="36" fill="none" stroke="#000" stroke-width="0.1"/>
        <image x="0" y="0" width="9" height="9" href="file:///etc/hostname"/><script>alert(1)</script>`),
    );
    const codes = made.artwork.findings.map(({ code }) => code);
    expect(codes).toEqual(expect.arrayContaining(['lines-printed', 'script', 'outside']));
  });

  test('an effect that no film shows is printed: a shape that fades to nothing', async () => {
    const made = await planned(
      svg(`<defs><linearGradient id="g"><stop offset="0" stop-color="#fff"/><stop offset="1" stop-color="#000"/></linearGradient>
        <mask id="m"><rect width="60" height="40" fill="url(#g)"/></mask></defs><rect width="60" height="40" fill="#2040c0" mask="url(#m)"/>`),
    );
    const seen = await drawn(await made.pdf(), 'mask');
    const reds = [2, 15, 27].map((x) => seen(...(onSheet(made, x, 20) as unknown as [number, number]))[0]);
    expect(reds[1] - reds[0]).toBeGreaterThan(40);
    expect(reds[2] - reds[1]).toBeGreaterThan(40);
  });

  test('an EPS has its page too', async () => {
    const eps = Buffer.from(
      '%!PS-Adobe-3.0 EPSF-3.0\n%%BoundingBox: 0 0 100 50\n0 1 1 0 setcmykcolor 10 10 80 30 rectfill\nshowpage\n',
    );
    const made = await planned(eps);
    expect(made.artwork.page.width).toBeCloseTo(100 / PT, 2);
    expect(widthOf(regionBounds(made.printed.unit.art[0].region))).toBeCloseTo(80 / PT, 1);
  });
});

test('flags of the registry, drawn by others, look on paper as an independent renderer (resvg) shows them', async () => {
  const { Resvg } = await import('@resvg/resvg-js');
  const folder = 'node_modules/flag-icons/flags/4x3';
  const next = random(8_713);
  const names = readdirSync(folder).filter((name) => name.endsWith('.svg'));
  for (let k = 0; k < times(8, 2); k++) {
    const name = names[Math.floor(next() * names.length)];
    const file = readFileSync(join(folder, name));
    const width = 320;
    writeFileSync(join(dir, 'flag.pdf'), await pageForPrint(file, NO_PART));
    spawnSync('pdftoppm', [
      '-png',
      '-singlefile',
      '-scale-to-x',
      String(width),
      '-scale-to-y',
      '-1',
      join(dir, 'flag.pdf'),
      join(dir, 'flag'),
    ]);
    const [a, b] = await Promise.all(
      [
        readFileSync(join(dir, 'flag.png')),
        new Resvg(file.toString(), { fitTo: { mode: 'width', value: width } }).render().asPng(),
      ].map(
        // a pixel's worth of edges is no difference
        (png) => sharp(png).flatten({ background: '#fff' }).resize(80, 60, { fit: 'fill' }).raw().toBuffer(),
      ),
    );
    const far = a.filter((value, i) => Math.abs(value - b[i]) > 40).length / a.length;
    expect([name, far < 0.01]).toEqual([name, true]);
  }
}, 120_000);
