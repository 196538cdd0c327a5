/**
 * Pages of documents in Debian's packages, by thirty writers of PDF, and EPS that poppler and cairo make of them: read by us
 * and compared with poppler's and Ghostscript's drawing. A sample each time, all of them in the long run.
 */
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import sharp from 'sharp';
import type { Artwork } from '../../core/readers/artwork';
import { sample, SEED } from '../../core/sample.testing';
import { debianPackage } from './debianDocs.testing';
import PAGES from './pdfByOthers.testing.json';
import type { Pixels } from './pixels.testing';
import { artworkSvg, GREY, pixels, unmatchedShare } from './pixels.testing';
import { drawnByPoppler } from './poppler.testing';
import { AS_IT_COMES, readFile } from './readFile';

interface Page {
  readonly name: string;
  readonly number: number;
  readonly path: string;
}
const page = ([name, number, path]: readonly (string | number)[]): Page => ({
  name: String(name),
  number: Number(number),
  path: String(path),
});
const ALL = PAGES.map(page);
const picked = sample(ALL, 3);
/** Most of these have neither pictures nor typefaces that the file lacks, and are small. */
const forEps = sample(
  ALL.filter(({ name }) => /^(r-cran-|glpk|maq|gap-|firehol|sdop|libdbd|music|r-bioc)/.test(name)),
  1,
);

const WIDTH = 1600;
/** Share of the page that may be drawn otherwise without a word. */
const MOST = 0.005;

const dir = mkdtempSync(join(tmpdir(), 'pdf-by-others-'));
afterAll(() => rmSync(dir, { recursive: true, force: true }));

/** What is said of a page or of its paint: notes alone are no reason to draw it otherwise. */
const isReported = ({ findings, shapes }: Artwork): boolean =>
  findings.some(({ severity }) => severity !== 'note') || shapes.some(({ look }) => look !== undefined);
/** Inks are turned into colours of light by each reader in its own way. */
const hasInks = ({ shapes }: Artwork): boolean => shapes.some(({ ink }) => ink?.kind === 'cmyk');

function compare(artwork: Artwork, theirs: Pixels, background: string): void {
  const svg = artworkSvg(artwork, artwork.page.width / theirs.width);
  const share = unmatchedShare(theirs, pixels(svg, theirs.width, background));
  if (!isReported(artwork) && !hasInks(artwork)) expect(share).toBeLessThanOrEqual(MOST);
}

beforeAll(() => console.info(`seed ${SEED}`));

const pathOf = ({ name, path }: Page): string => join(debianPackage(name), path);

describe.each(picked)('$name, page $number of $path', (one) => {
  test('is as poppler draws it, or says why not', async () => {
    const artwork = await readFile(readFileSync(pathOf(one)), { ...AS_IT_COMES, page: one.number });
    compare(artwork, await drawnByPoppler(pathOf(one), one.number, WIDTH), GREY);
  });
});

/** EPS of one page. */
const WRITERS = {
  poppler: (from: string, to: string, page: string) =>
    execFileSync('pdftops', ['-eps', '-f', page, '-l', page, from, to]),
  cairo: (from: string, to: string, page: string) =>
    execFileSync('pdftocairo', ['-eps', '-f', page, '-l', page, from, to]),
};

/** As Ghostscript draws it, on white. */
async function drawnByGhostscript(eps: string): Promise<Pixels> {
  const png = `${eps}.png`;
  execFileSync('gs', [
    ...['-q', '-dSAFER', '-dBATCH', '-dNOPAUSE', '-dEPSCrop', '-sDEVICE=png16m', '-r150'],
    ...['-dTextAlphaBits=4', '-dGraphicsAlphaBits=4', `-sOutputFile=${png}`, eps],
  ]);
  const { data, info } = await sharp(png).ensureAlpha().raw().toBuffer({ resolveWithObject: true });
  return { data, width: info.width, height: info.height };
}

describe.each(forEps)('EPS of $name, page $number', (one) => {
  test.each(Object.keys(WRITERS) as (keyof typeof WRITERS)[])('by %s', async (writer) => {
    const eps = join(dir, `${writer}-${one.name}-${one.number}.eps`);
    WRITERS[writer](pathOf(one), eps, String(one.number));
    compare(await readFile(readFileSync(eps)), await drawnByGhostscript(eps), '#ffffff');
  });
});
