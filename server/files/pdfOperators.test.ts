/**
 * Every operator of a PDF's content (ISO 32000-2, annex A), each in a page of its own beside poppler's drawing of it.
 * That none is missing from the table is held against the list of an independent library (pdf-lib).
 */
import { beforeAll, expect, test } from '@jest/globals';
import { execFileSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { PDFOperatorNames } from 'pdf-lib';
import type { Artwork } from '../../core/readers/artwork';
import type { PdfPage } from '../../core/readers/pdf/parsed';
import { readPdf } from '../../core/readers/pdf/readPdf';
import { minimalPdf } from './minimalPdf.testing';
import type { Pixels } from './pixels.testing';
import { GREY, pixels, stackedSvg } from './pixels.testing';
import { drawnByPoppler, drawnBySplash } from './poppler.testing';
import { sample } from '../../core/sample.testing';

/**
 * `drawn`: as poppler draws it; `letters`: as its renderer for drawn letters does; `covered`: in the same places, in a
 * colour that is reported; `like`: as poppler draws another page, where it does not follow the standard; else its finding.
 */
type Outcome = 'drawn' | 'letters' | 'covered' | { readonly like: string } | { readonly reported: string };

interface Case {
  readonly name: string;
  readonly content: string;
  readonly outcome: Outcome;
}

const drawn = (name: string, content: string): Case => ({ name, content, outcome: 'drawn' });
const letters = (name: string, content: string): Case => ({ name, content, outcome: 'letters' });
const like = (name: string, content: string, other: string): Case => ({
  name,
  content,
  outcome: { like: other },
});
const covered = (name: string, content: string): Case => ({ name, content, outcome: 'covered' });
const reported = (name: string, content: string, code: string): Case => ({
  name,
  content,
  outcome: { reported: code },
});

/** Beside what a case shows, so that a page on which nothing is drawn cannot pass. */
const CORNER = 'q 0.1 0.3 0.2 rg 4 4 24 10 re f Q';

const PLACES = {
  upright: '1 0 0 1 40 190 Tm',
  turned: '0.8 0.45 -0.45 0.8 110 40 Tm',
  'turned and mirrored': '-0.8 0.3 0.3 0.8 330 60 Tm',
};

/** Text operators and text state, in a text object that has a typeface and a place. */
const TEXT: Readonly<Record<string, string>> = {
  Tc: '6 Tc (Tern) Tj -2 Tc ( Lane) Tj',
  Tw: '20 Tw (a b c) Tj',
  Tz: '60 Tz (Tern) Tj 140 Tz (Ln) Tj',
  TL: '50 TL (Tern) Tj T* (Lane) Tj',
  Tf: '(Tern) Tj /F1 20 Tf (small) Tj /F1 -20 Tf (back) Tj',
  Tr: '0.8 0.1 0.1 rg 0 0 0.8 RG 2 w 0 Tr (T) Tj 1 Tr (e) Tj 2 Tr (r) Tj 3 Tr (n) Tj 0 Tr (L) Tj',
  Ts: '15 Ts (up) Tj -20 Ts (down) Tj',
  Td: '(Tern) Tj 30 -50 Td (Lane) Tj 10 -50 Td (Signs) Tj',
  TD: '(Tern) Tj 10 -55 TD (Lane) Tj T* (Signs) Tj',
  Tm: '(Tern) Tj 1.2 0 0.3 0.8 60 60 Tm (Lane) Tj',
  'T*': '45 TL (Tern) Tj T* (Lane) Tj 60 TL T* (Signs) Tj',
  Tj: '(Tern Lane) Tj',
  TJ: '[(T) 120 (ern) -400 (L) -50 (ane)] TJ',
  "'": "50 TL (Tern) ' (Lane) '",
  '"': '50 TL 12 3 (a b c) " 0 0 (a b c) " T* (d e) Tj',
};

const DOWN = '/Down 60 Tf 1 0 0 1 150 260 Tm 4 Tc [<0025> 300 <0026>] TJ 20 Ts <00270025> Tj';

const textCases = (operator: string): Case[] =>
  Object.entries(PLACES).flatMap(([place, matrix]) =>
    ['', '70 Tz '].map((scaled) =>
      drawn(
        `${operator}, ${place}${scaled === '' ? '' : ', narrowed'}`,
        `BT /F1 40 Tf ${scaled}${matrix} ${TEXT[operator]} ET`,
      ),
    ),
  );

const FRAME = '0.7 0.1 0.1 rg 0.1 0.1 0.7 RG 10 w';
/** Twice around, so that the two rules for what is inside differ. */
const STAR = '60 40 m 340 180 l 60 180 l 340 40 l 200 270 l h 120 60 m 280 60 l 280 160 l 120 160 l h';
const OPEN = '60 60 m 300 60 l 200 240 l';
const paints = (operator: string): Case[] => [
  drawn(operator, `${FRAME} ${STAR} ${operator}`),
  drawn(`${operator}, open`, `${FRAME} ${OPEN} ${operator}`),
];
const lines = (state: string): string => `${FRAME} ${state} ${OPEN} S`;
const SQUARE = '100 60 200 180 re f';
const ACROSS = '60 60 m 200 180 l 340 80 l S';
const colours = (which: 'fill' | 'stroke', steps: string): string =>
  which === 'fill' ? `${steps} ${SQUARE}` : `20 w ${steps} ${ACROSS}`;

const OPERATORS: Readonly<Record<string, readonly Case[] | 'nothing to draw'>> = {
  ...Object.fromEntries(Object.keys(TEXT).map((operator) => [operator, textCases(operator)])),
  Tj: [...textCases('Tj'), drawn('Tj, downwards', `BT ${DOWN} ET`)],
  BT: [
    drawn(
      'BT',
      '200 0 0 50 0 0 cm 0.02 0 0 0.02 0 0 cm BT /F1 40 Tf (far) Tj ET BT /F1 9 Tf 2 2 Td (T) Tj ET',
    ),
  ],
  ET: [
    drawn('ET clips by the text', `BT /F1 120 Tf 7 Tr 40 100 Td (Tern) Tj ET ${FRAME} 0 0 400 150 re f`),
    drawn(
      'ET fills, strokes and clips',
      `${FRAME} 3 w BT /F1 120 Tf 6 Tr 40 100 Td (Te) Tj (r) Tj ET 0 0 400 130 re f`,
    ),
    // ISO 32000-2, 9.3.6; poppler clips all away
    like(
      'ET of blank text clips nothing',
      `BT /F1 60 Tf 7 Tr 40 100 Td ( ) Tj ET ${FRAME} 0 0 400 150 re f`,
      `${FRAME} 0 0 400 150 re f`,
    ),
  ],
  d0: [letters('d0', 'BT 0.8 0.2 0.1 rg /Drawn 100 Tf 40 100 Td (bab) Tj ET')],
  d1: [
    letters(
      'd1',
      'BT 0.8 0.2 0.1 rg /Drawn 100 Tf 10 Tc 0.8 0.3 -0.3 0.8 40 60 Tm 80 Tz [(a) -300 (ba)] TJ ET',
    ),
    letters('d1, a letter of pixels', 'BT 0.2 0.2 0.8 rg /Drawn 150 Tf 40 60 Td (c) Tj ET'),
    letters('letters in letters', 'BT 0.2 0.2 0.8 rg /Drawn2 90 Tf 40 120 Td (AA) Tj ET'),
    letters('a drawn letter does not clip', `BT 5 Tr /Drawn 90 Tf 40 120 Td (a) Tj ET ${SQUARE}`),
    letters('a drawn letter that is invisible', 'BT 3 Tr /Drawn 90 Tf 40 120 Td (a) Tj 0 Tr (a) Tj ET'),
  ],

  m: [drawn('m', '20 w 60 60 m 100 100 m 300 100 l S')],
  l: [drawn('l', '20 w 60 60 m 300 100 l 300 200 l S')],
  c: [drawn('c', '20 w 60 60 m 60 300 300 300 300 60 c S')],
  v: [drawn('v', '20 w 60 60 m 60 280 300 60 v S')],
  y: [drawn('y', '20 w 60 60 m 60 280 300 60 y S')],
  h: [drawn('h', '20 w 60 60 m 300 60 l 200 240 l h 60 240 l S')],
  re: [
    drawn('re', '60 200 m 300 60 l 60 60 200 100 re 380 280 -100 -40 re f'),
    drawn('re, flat', '12 w 60 60 200 0 re S'),
  ],

  S: paints('S'),
  s: paints('s'),
  f: paints('f'),
  F: paints('F'),
  'f*': paints('f*'),
  B: paints('B'),
  'B*': paints('B*'),
  b: paints('b'),
  'b*': paints('b*'),
  n: [drawn('n', `${STAR} n ${SQUARE}`)],
  W: [
    drawn('W', `q ${STAR} W n 0 0 400 150 re f Q 300 200 60 60 re f`),
    drawn('W, painted too', `q ${FRAME} ${STAR} W S 0 0 400 150 re f Q 300 200 60 60 re f`),
    drawn('W in W', `${STAR} W n 0 0 200 300 re W n 0 0 400 150 re f`),
    drawn('W of nothing', `q 50 50 m W n 0 0 400 150 re f Q 300 200 60 60 re f`),
    drawn('W on a hidden layer', `/OC /Off BDC ${STAR} W n EMC 0 0 400 150 re f`),
  ],
  'W*': [drawn('W*', `q ${STAR} W* n 0 0 400 150 re f Q 300 200 60 60 re f`)],

  w: [drawn('w', lines('25 w')), drawn('w, squeezed', `q 1 0 0 0.3 0 0 cm ${lines('25 w')} Q`)],
  J: [0, 1, 2].map((cap) => drawn(`J ${cap}`, lines(`30 w ${cap} J`))),
  j: [0, 1, 2].map((join) => drawn(`j ${join}`, lines(`30 w ${join} j`))),
  M: [drawn('M', lines('30 w 1.5 M')), drawn('M, far', lines('30 w 20 M'))],
  d: [
    drawn('d', lines('[30 12 6 12] 10 d')),
    drawn('d, round', lines('1 J [0 25] 0 d')),
    drawn('d, off', lines('[9] 0 d [] 0 d')),
  ],
  gs: [
    drawn('gs, lines', lines('/Wide gs')),
    drawn('gs, typeface', 'BT /Face gs 40 100 Td (Tern) Tj ET'),
    covered('gs, half covering', `/Half gs ${SQUARE}`),
    reported('gs, blended', `/Multiply gs ${SQUARE}`, 'blend'),
    reported('gs, faded by a mask', `/Faded gs ${SQUARE}`, 'mask'),
  ],
  q: [
    drawn(
      'q',
      `q 0.7 0.1 0.1 rg 2 0 0 2 0 0 cm q 0 0 0.8 rg 20 20 30 30 re f Q 60 20 30 30 re f Q ${SQUARE}`,
    ),
  ],
  // poppler draws nothing at all after it
  Q: [
    like(
      'Q, once too often',
      `Q Q q 0.7 0 0 rg 20 20 30 30 re f Q Q ${SQUARE}`,
      `q 0.7 0 0 rg 20 20 30 30 re f Q ${SQUARE}`,
    ),
  ],
  cm: [drawn('cm', `0.8 0.4 -0.2 0.9 40 0 cm 1 0 0 1 20 20 cm ${SQUARE}`)],

  g: [drawn('g', colours('fill', '0.4 g'))],
  G: [drawn('G', colours('stroke', '0.4 G'))],
  rg: [drawn('rg', colours('fill', '0.4 0.2 0.7 rg'))],
  RG: [drawn('RG', colours('stroke', '0.4 0.2 0.7 RG'))],
  k: [covered('k', colours('fill', '0.4 0.2 0.7 0.1 k'))],
  K: [covered('K', colours('stroke', '0.4 0.2 0.7 0.1 K'))],
  cs: [
    drawn('cs begins with black', colours('fill', '0.9 0.1 0.1 rg /DeviceRGB cs')),
    drawn('cs, grey', colours('fill', '0.9 0.1 0.1 rg /DeviceGray cs')),
    drawn('cs, inks', colours('fill', '0.9 0.1 0.1 rg /Few cs')),
    drawn('cs of both', `0.9 0.1 0.1 rg 0.9 0.1 0.1 RG 20 w /DeviceRGB cs /Few CS q 60 60 200 120 re B Q`),
    covered('cs, a spot colour in full', colours('fill', '0.1 0.9 0.1 rg /Spot cs')),
    // ISO 32000-2, 8.6.6.4; poppler draws what stands in for it
    like(
      'cs of the ink that leaves no mark',
      `/Nothing cs 1 scn ${SQUARE} 0 g 20 20 60 60 re f`,
      '20 20 60 60 re f',
    ),
  ],
  CS: [
    drawn('CS', colours('stroke', '0.9 0.1 0.1 RG /DeviceRGB CS')),
    drawn('CS, inks', colours('stroke', '/Few CS')),
  ],
  sc: [
    drawn('sc', colours('fill', '/DeviceRGB cs 0.2 0.6 0.3 sc')),
    drawn('sc, of few', colours('fill', '/Few cs 1 sc')),
  ],
  SC: [drawn('SC', colours('stroke', '/DeviceRGB CS 0.2 0.6 0.3 SC'))],
  scn: [
    covered('scn, a spot colour', colours('fill', '/Spot cs 0.5 scn')),
    covered('scn, two inks', colours('fill', '/Two cs 0.5 0.2 scn')),
    covered('scn, measured', colours('fill', '/Lab cs 60 40 20 scn')),
    covered('scn, a gradient', colours('fill', '/Pattern cs /Sheen scn')),
    reported('scn, a pattern', colours('fill', '/Pattern cs /Dots scn'), 'pattern'),
  ],
  SCN: [
    covered('SCN, a spot colour', colours('stroke', '/Spot CS 0.5 SCN')),
    covered('SCN, a gradient', colours('stroke', '/Pattern CS /Sheen SCN')),
    reported('SCN, a pattern', colours('stroke', '/Pattern CS /Dots SCN'), 'pattern'),
  ],
  ri: 'nothing to draw',
  i: 'nothing to draw',

  sh: [
    ...['Axial', 'AxialOn', 'Radial', 'Cone', 'Mesh'].flatMap((shading) => [
      covered(`sh, ${shading}`, `q 20 20 350 250 re W n /${shading} sh Q`),
      covered(`sh, ${shading}, turned`, `q 0.8 0.3 -0.3 0.8 60 -20 cm /${shading} sh Q`),
    ]),
    reported('sh by a formula', 'q 20 20 350 250 re W n /Formula sh Q', 'shading'),
  ],
  Do: [
    drawn('Do, a form', '0.7 0 0 rg /Form Do 300 20 40 40 re f'),
    drawn('Do, a group', '0.9 0.5 0.1 rg q 1 0 0 1 40 40 cm /Group Do Q'),
    covered('Do, a group that half covers', '/Half gs q 1 0 0 1 40 40 cm /Group Do Q'),
    reported('Do, a picture', 'q 100 0 0 50 40 40 cm /Picture Do Q', 'image'),
    reported('Do, a mask of pixels', 'q 100 0 0 50 40 40 cm /Mask Do Q', 'image'),
    drawn('Do, a program', '/Script Do'),
  ],
  BI: [reported('BI', 'q 100 0 0 50 40 40 cm BI /W 2 /H 1 /BPC 8 /CS /G ID \x00\x40 EI Q', 'image')],
  ID: [reported('ID', 'q 9 0 0 9 40 40 cm BI /W 1 /H 1 /BPC 8 /CS /RGB ID EIE EI Q', 'image')],
  EI: [drawn('EI', 'q 9 0 0 9 4 4 cm BI /W 1 /H 1 /IM true /D [1 0] ID \xff EI Q 40 40 100 100 re f')],

  BMC: [drawn('BMC', `/Span BMC ${SQUARE} EMC`)],
  BDC: [
    drawn('BDC, off', `/OC /Off BDC 0 0 300 30 re f EMC ${SQUARE}`),
    drawn('BDC, on', `/OC /On BDC 0 0 300 30 re f EMC ${SQUARE}`),
    drawn(
      'BDC, text on a hidden layer moves on',
      'BT /F1 40 Tf 20 100 Td (a) Tj /OC /Off BDC (bc) Tj EMC (d) Tj ET',
    ),
  ],
  EMC: [drawn('EMC', `/OC /Off BDC /Span BMC EMC 0 0 300 30 re f EMC ${SQUARE} EMC 300 20 60 60 re f`)],
  MP: 'nothing to draw',
  DP: 'nothing to draw',
  BX: [drawn('BX', `BX 3 unheard EX ${SQUARE}`)],
  EX: 'nothing to draw',
};

/** All of a text's operators one behind the other. */
const TOGETHER: readonly Case[] = Object.entries(PLACES).map(([place, matrix]) =>
  drawn(
    `all text operators after one another, ${place}`,
    `BT /F1 22 Tf ${matrix} ${Object.keys(TEXT)
      .filter((operator) => !['Tm', 'Tf'].includes(operator))
      .map((operator) => `${TEXT[operator]} 0 Tc 0 Tw 100 Tz 0 Ts 0 Tr -8 -14 Td`)
      .join(' ')} ET`,
  ),
);

const ALL: readonly Case[] = [
  ...Object.values(OPERATORS).flatMap((cases) => (typeof cases === 'string' ? [] : cases)),
  ...TOGETHER,
];
/** Those that more is expected of than how they are drawn. */
const [MASKED, PIXELS] = ['gs, faded by a mask', 'd1, a letter of pixels'];
const own = ALL.filter(({ name }) => name === MASKED || name === PIXELS);
const CASES: readonly Case[] = [
  ...own,
  ...sample(
    ALL.filter((one) => !own.includes(one)),
    50,
  ),
];

const dir = mkdtempSync(join(tmpdir(), 'pdf-operators-'));
const pathOf = (i: number): string => join(dir, `${i}.pdf`);
let pages: readonly Artwork[];

beforeAll(async () => {
  for (const [i, { content }] of CASES.entries())
    writeFileSync(pathOf(i), await minimalPdf(`${CORNER} ${content}`));
  const out = execFileSync(process.execPath, ['server/files/pdfPages.testing.mjs'], {
    input: CASES.map((_, i) => `1 ${pathOf(i)}`).join('\n'),
    maxBuffer: 1e9,
  });
  pages = out
    .toString()
    .trim()
    .split('\n')
    .map((line) => readPdf(JSON.parse(line) as PdfPage, null));
});

/** Whether anything is painted there; the lower right corner is what lies behind. */
const isPainted = ({ data }: Pixels, at: number): boolean =>
  [0, 1, 2].some((k) => Math.abs(data[4 * at + k] - data[data.length - 4 + k]) > 12);
const isSame = (a: Pixels, b: Pixels, at: number, covers: boolean): boolean =>
  covers
    ? isPainted(a, at) === isPainted(b, at)
    : [0, 1, 2].every((k) => Math.abs(a.data[4 * at + k] - b.data[4 * at + k]) <= 10);

/** Places in which two drawings differ, both plain around them, as a share of what the first one paints. */
function differs(a: Pixels, b: Pixels, covers: boolean): number {
  const beside = [-a.width, a.width, -1, 1, -a.width - 1, 1 - a.width, a.width - 1, a.width + 1];
  const isPlain = (one: Pixels, at: number): boolean =>
    beside.every((by) =>
      covers
        ? isPainted(one, at + by) === isPainted(one, at)
        : [0, 1, 2].every((k) => Math.abs(one.data[4 * (at + by) + k] - one.data[4 * at + k]) <= 4),
    );
  let [painted, wrong] = [0, 0];
  for (let at = a.width + 1; at < a.width * (a.height - 1) - 1; at++) {
    if (isPainted(a, at)) painted++;
    if (!isSame(a, b, at, covers) && isPlain(a, at) && isPlain(b, at)) wrong++;
  }
  return wrong / painted;
}

test('the table has every operator there is', () => {
  expect(Object.keys(OPERATORS).sort()).toEqual(Object.values(PDFOperatorNames).sort());
});

async function expected(outcome: Outcome, i: number): Promise<Pixels> {
  if (outcome === 'letters') return drawnBySplash(pathOf(i), 1, 800);
  if (typeof outcome === 'string' || !('like' in outcome)) return drawnByPoppler(pathOf(i), 1, 800);
  const path = join(dir, `${i}-like.pdf`);
  writeFileSync(path, await minimalPdf(`${CORNER} ${outcome.like}`));
  return drawnByPoppler(path, 1, 800);
}

test('what a soft mask is drawn with is not painted itself', () => {
  const at = CASES.findIndex(({ name }) => name === MASKED);
  expect(pages[at].shapes).toHaveLength(2);
});

test('letters that are pictures of pixels are reported', () => {
  const at = CASES.findIndex(({ name }) => name === PIXELS);
  expect(pages[at].findings.map(({ code }) => code)).toEqual(['pixel-letters']);
});

test.each(CASES.map((one, i) => ({ ...one, i })))('$name', async ({ outcome, i }) => {
  const artwork = pages[i];
  const codes = artwork.findings.map(({ code }) => code);
  if (typeof outcome !== 'string' && 'reported' in outcome) return expect(codes).toContain(outcome.reported);
  expect(codes.filter((code) => !['hidden-layer', 'off-page', 'pixel-letters'].includes(code))).toEqual([]);
  const theirs = await expected(outcome, i);
  const ours = pixels(stackedSvg(artwork).svg, theirs.width, outcome === 'letters' ? '#ffffff' : GREY);
  expect(differs(theirs, ours, outcome === 'covered')).toBeLessThan(0.004);
});
