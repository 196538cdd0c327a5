/** Text in PDF and EPS by independent writers, read by us and compared with poppler's drawing of it. */
import { describe, expect, test } from '@jest/globals';
import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { chromium } from '@playwright/test';
import { BROWSER } from '../../scripts/browser.mjs';
import PDFDocument from 'pdfkit';
import type { Artwork } from '../../core/readers/artwork';
import { fontFiles } from './fonts';
import { SHIPPED_FONTS } from './shippedFonts';
import { differsFromPoppler } from './poppler.testing';
import { readFile } from './readFile';

const dir = mkdtempSync(join(tmpdir(), 'pdf-text-'));
const TEXT = 'I I  Tern Lane, 7 (a b)';
const WIDTH = 400;

const fontFile = async (id: string): Promise<string> =>
  (await fontFiles(SHIPPED_FONTS.find((font) => font.id === id)!))[0];

async function kit(draw: (doc: PDFKit.PDFDocument) => void): Promise<Buffer> {
  const doc = new PDFDocument({ size: [WIDTH, 100], margin: 0 });
  const chunks: Buffer[] = [];
  doc.on('data', (chunk: Buffer) => chunks.push(chunk));
  const done = new Promise<void>((give) => doc.on('end', () => give()));
  draw(doc);
  doc.end();
  await done;
  return Buffer.concat(chunks);
}

const byPdfkit = async (id: string): Promise<Buffer> => {
  const file = await fontFile(id);
  return kit((doc) => doc.font(file).fontSize(28).text(TEXT, 10, 20, { lineBreak: false }));
};

function byCairo(): Buffer {
  const [from, to] = [join(dir, 'cairo.svg'), join(dir, 'cairo.pdf')];
  const text = `<text x="10" y="60" font-size="28" font-family="sans-serif" xml:space="preserve">${TEXT}</text>`;
  writeFileSync(from, `<svg xmlns="http://www.w3.org/2000/svg" width="${WIDTH}" height="100">${text}</svg>`);
  execFileSync('rsvg-convert', ['-f', 'pdf', '-o', to, from]);
  return readFileSync(to);
}

async function byBrowser(): Promise<Buffer> {
  const browser = await chromium.launch(BROWSER);
  try {
    const font = readFileSync(await fontFile('anton')).toString('base64');
    const page = await browser.newPage();
    await page.setContent(
      `<style>@font-face{font-family:A;src:url(data:font/ttf;base64,${font})}@page{margin:0}body{margin:10px;font:28px A;white-space:pre}</style>${TEXT}`,
    );
    await page.evaluate(() => document.fonts.ready);
    return await page.pdf({ width: `${WIDTH}px`, height: '100px', pageRanges: '1' });
  } finally {
    await browser.close();
  }
}

const LIVE_EPS = `%!PS-Adobe-3.0 EPSF-3.0
%%BoundingBox: 0 0 ${WIDTH} 100
/Helvetica findfont 28 scalefont setfont 10 50 moveto (I I  Tern Lane) show
/Times-Roman findfont 20 scalefont setfont 10 15 moveto (a b  c) show
showpage
%%EOF
`;

function viaGhostscript(pdf: Buffer): Buffer {
  const [from, to] = [join(dir, 'gs-in.pdf'), join(dir, 'gs-out.pdf')];
  writeFileSync(from, pdf);
  execFileSync('gs', ['-q', '-dBATCH', '-dNOPAUSE', '-sDEVICE=pdfwrite', `-sOutputFile=${to}`, from]);
  return readFileSync(to);
}

async function shareOf(pdf: Buffer, artwork: Artwork): Promise<number> {
  const path = join(dir, 'page.pdf');
  writeFileSync(path, pdf);
  return differsFromPoppler(path, artwork);
}

const codes = ({ findings }: Artwork): string[] => findings.map(({ code }) => code);

describe('spaces draw nothing', () => {
  test.each<[string, () => Promise<Buffer> | Buffer]>([
    ['pdfkit, one weight', () => byPdfkit('anton')],
    ['pdfkit, variable', () => byPdfkit('oswald')],
    ['pdfkit, condensed', () => byPdfkit('barlow-condensed-600')],
    ['cairo', byCairo],
    ['Chromium’s print', byBrowser],
    ['Ghostscript', async () => viaGhostscript(await byPdfkit('lobster'))],
  ])(
    '%s',
    async (_, write) => {
      const pdf = await write();
      const artwork = await readFile(pdf);
      expect(codes(artwork)).toEqual([]);
      expect(artwork.shapes).toHaveLength(TEXT.replace(/\s/g, '').length);
      expect(await shareOf(pdf, artwork)).toBeLessThanOrEqual(0.003);
    },
    60_000,
  );

  test('EPS with live text', async () => {
    const artwork = await readFile(Buffer.from(LIVE_EPS));
    expect(artwork.shapes).toHaveLength('IITernLaneabc'.length);
    expect(codes(artwork)).toEqual(expect.arrayContaining(['font-missing']));
  }, 60_000);
});

describe('what is not in the file', () => {
  test('a letter that the face lacks is told and never drawn as a box', async () => {
    const file = await fontFile('anton');
    const pdf = await kit((doc) => doc.font(file).fontSize(28).text('A☃B', 10, 20));
    const artwork = await readFile(pdf);
    expect(artwork.shapes).toHaveLength(2);
    const told = artwork.findings.find(({ code }) => code === 'letters-missing');
    expect(told?.message).toMatch(/1 character has no outline in Anton/);
  });

  test.each([
    ['Helvetica-Bold', /Helvetica-Bold is not in the file.*Liberation Sans/],
    ['Times-Roman', /Times-Roman is not in the file.*standard face/],
  ])('%s without its file is told with its stand-in, and drawn as poppler does', async (face, says) => {
    const pdf = await kit((doc) => doc.font(face).fontSize(28).text('I I  Tern', 10, 20));
    const artwork = await readFile(pdf);
    expect(artwork.findings.map(({ message }) => message).join()).toMatch(says);
    expect(artwork.shapes).toHaveLength('IITern'.length);
  });

  test('a typeface that nobody has is drawn in the stand-in, at its own widths', async () => {
    const plain = await kit((doc) => doc.font('Helvetica').fontSize(28).text('Tern  Lane', 10, 20));
    const unknown = Buffer.from(plain.toString('latin1').replaceAll('/Helvetica', '/Marshtype'), 'latin1');
    const artwork = await readFile(unknown);
    expect(artwork.shapes).toHaveLength('TernLane'.length);
    expect(artwork.findings[0].message).toMatch(/Marshtype is not in the file: .* Liberation Sans/);
  });
});

test('a stroke near the edge of an EPS does not reach past its page', async () => {
  const eps =
    '%!PS-Adobe-3.0 EPSF-3.0\n%%BoundingBox: 0 0 100 100\n0.1 0.1 scale 10 setlinewidth 20 20 960 960 rectstroke showpage\n%%EOF\n';
  expect(codes(await readFile(Buffer.from(eps)))).toEqual([]);
}, 30_000);
