/** Pictures printed as they are: what poppler draws of the sheet is compared with the picture's own pixels. */
import { beforeAll, describe, expect, test } from '@jest/globals';
import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import sharp from 'sharp';
import { DEFAULT_TRACE, pieceOfFile, sourceKey } from '../../core/artwork/choices';
import type { FileSource, Piece } from '../../core/artwork/choices';
import { inverse } from '../../core/geometry/matrix';
import { mapped } from '../../core/geometry/matrix';
import { regionBounds } from '../../core/geometry/region';
import type { Choices } from '../../core/plan/choices';
import { DEFAULT_CHOICES } from '../../core/plan/choices';
import { createPlanner } from '../../core/plan/plan';
import type { Printed } from '../../core/plan/planned';
import { DEMO_SHOP } from '../../demo/shop';
import { readFile } from './readFile';
import { sheetPdf, sheetPng } from './sheetFiles';

const dir = mkdtempSync(join(tmpdir(), 'pictures-'));
/** px of the picture, and how many make a mm. */
const [SIZE, RADIUS, PX_PER_MM] = [400, 180, 10];
const isIn = (x: number, y: number): boolean => Math.hypot(x + 0.5 - SIZE / 2, y + 0.5 - SIZE / 2) <= RADIUS;
/** Slowly changing, so that a place is told by its colour. */
const colourAt = (x: number, y: number): readonly [number, number, number] => [
  Math.round((255 * x) / SIZE),
  Math.round((255 * y) / SIZE),
  90,
];

/** A disc of many colours on nothing. */
async function disc(): Promise<Buffer> {
  const data = Buffer.alloc(4 * SIZE * SIZE);
  for (let y = 0; y < SIZE; y++)
    for (let x = 0; x < SIZE; x++) data.set([...colourAt(x, y), isIn(x, y) ? 255 : 0], 4 * (y * SIZE + x));
  return sharp(data, { raw: { width: SIZE, height: SIZE, channels: 4 } })
    .withMetadata({ density: 25.4 * PX_PER_MM })
    .png()
    .toBuffer();
}

interface Made {
  readonly printed: Printed;
  readonly files: ReadonlyMap<string, Uint8Array>;
  readonly choices: Choices;
}

/** The picture as an order prints it. */
async function planned(bytes: Buffer, piece: Partial<Piece> = {}): Promise<Made> {
  const own = { ...pieceOfFile('disc', 'disc.png', { trace: { ...DEFAULT_TRACE, by: 'print' } }), ...piece };
  const artworks = new Map([[sourceKey(own.source), await readFile(bytes, own.source as FileSource)]]);
  const choices: Choices = {
    ...DEFAULT_CHOICES,
    artwork: { ...DEFAULT_CHOICES.artwork, pieces: [own] },
    layout: { ...DEFAULT_CHOICES.layout, copies: 2 },
    print: { ...DEFAULT_CHOICES.print, bleed: 2, sheet: { width: 297, height: 210 } },
  };
  const { printed } = createPlanner().plan(artworks, choices, DEMO_SHOP);
  return { printed: printed!, files: new Map([['disc', bytes]]), choices };
}
const pdfOf = ({ printed, files, choices }: Made): Promise<Buffer> =>
  sheetPdf({ printed, index: 0, order: '#2050', print: choices.print, files }, false);

/** As poppler draws it. */
async function drawn(pdf: Buffer, name: string): Promise<(x: number, y: number) => number[]> {
  writeFileSync(join(dir, `${name}.pdf`), pdf);
  const dpi = String(25.4 * PX_PER_MM);
  spawnSync('pdftocairo', ['-png', '-singlefile', '-r', dpi, join(dir, `${name}.pdf`), join(dir, name)]);
  return pixelsOf(readFileSync(join(dir, `${name}.png`)));
}
async function pixelsOf(png: Uint8Array): Promise<(x: number, y: number) => number[]> {
  const { data, info } = await sharp(png).removeAlpha().raw().toBuffer({ resolveWithObject: true });
  return (x, y) => {
    const k = 3 * (Math.round(y * PX_PER_MM) * info.width + Math.round(x * PX_PER_MM));
    return [...data.subarray(k, k + 3)];
  };
}
const off = (a: readonly number[], b: readonly number[]): number =>
  Math.max(...a.map((value, i) => Math.abs(value - b[i])));

/** How far pixels of what is seen are from the picture's own, at places `far` px from its middle, on every copy. */
function worst({ printed }: Made, seen: (x: number, y: number) => number[], far: number): number {
  const [{ picture }] = printed.unit.art;
  let most = 0;
  for (const { matrix } of printed.sheets[0].sheet.places) {
    for (let k = 0; k < 24; k++) {
      const a = (2 * Math.PI * k) / 24;
      const [x, y] = [0, 1].map((i) => SIZE / 2 + far * [Math.cos(a), Math.sin(a)][i]);
      // the nearest pixel of the disc itself
      const from = Math.min(far, RADIUS - 1);
      const [ownX, ownY] = [0, 1].map((i) => SIZE / 2 + from * [Math.cos(a), Math.sin(a)][i]);
      const [sx, sy] = mapped(mapped([x, y], picture!.matrix), matrix);
      most = Math.max(most, off(seen(sx, sy), colourAt(ownX, ownY)));
    }
  }
  return most;
}

let bytes: Buffer;
let straight: Made;
beforeAll(async () => {
  bytes = await disc();
  straight = await planned(bytes);
}, 60_000);

describe('a picture that is printed as it is', () => {
  test('goes to print by itself, at its own size, and is cut around where it is opaque', () => {
    const { art, lines } = straight.printed.unit;
    expect(art.map(({ picture }) => picture?.file)).toEqual(['disc']);
    // within half a pixel, and the usual line 2 mm outside
    const { minX, maxX } = regionBounds(lines[0].region);
    expect(Math.abs(maxX - minX - (2 * RADIUS) / PX_PER_MM - 4)).toBeLessThan(1 / PX_PER_MM);
    for (const ring of art[0].region) {
      const pixels = mapped(ring, inverse(art[0].picture!.matrix));
      for (let i = 0; i < pixels.length; i += 2)
        expect(Math.abs(Math.hypot(pixels[i] - SIZE / 2, pixels[i + 1] - SIZE / 2) - RADIUS)).toBeLessThan(1);
    }
  });

  test('each of its pixels is where the plan has it; past its edge the edge’s own colours go on (poppler)', async () => {
    const seen = await drawn(await pdfOf(straight), 'straight');
    for (const far of [0, 60, 120, 170]) expect(worst(straight, seen, far)).toBeLessThanOrEqual(3);
    // 1 mm outside the disc, and half way from the cut line to the end of the bleed
    for (const far of [RADIUS + 10, RADIUS + 30]) expect(worst(straight, seen, far)).toBeLessThanOrEqual(6);
    // and past the bleed there is paper
    expect(worst(straight, seen, RADIUS + 45)).toBeGreaterThan(100);
  });

  test('turned, mirrored and larger it is where it lies', async () => {
    const turned = await planned(bytes, { turn: 30, mirror: true, width: 50 });
    const seen = await drawn(await pdfOf(turned), 'turned');
    for (const far of [0, 60, 120, 170, RADIUS + 8]) expect(worst(turned, seen, far)).toBeLessThanOrEqual(6);
  });

  test('as a picture of the sheet it shows the same', async () => {
    const { printed, files, choices } = straight;
    const of = { printed, index: 0, order: '#2050', print: choices.print, files };
    const seen = await pixelsOf(await sheetPng(of, 25.4 * PX_PER_MM));
    for (const far of [0, 120, 170, RADIUS + 10]) expect(worst(straight, seen, far)).toBeLessThanOrEqual(6);
  });

  test('a JPEG lies in the file as it came, in its own inks, once for all copies', async () => {
    const flat = sharp(bytes).flatten({ background: '#fff' });
    const cmyk = await flat.toColourspace('cmyk').jpeg({ quality: 92 }).toBuffer();
    const pdf = await pdfOf(await planned(cmyk, { width: 40 }));
    expect(pdf.indexOf(cmyk)).toBeGreaterThan(0);
    expect(pdf.indexOf(cmyk, pdf.indexOf(cmyk) + 1)).toBe(-1);
    expect(pdf.includes('DeviceCMYK')).toBe(true);
  });
});
