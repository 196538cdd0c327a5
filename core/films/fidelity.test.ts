/**
 * Stacked films against the artwork: what the knife will cut, laid over each other and rendered, is the picture
 * that an independent renderer (resvg) makes of the customer's file.
 */
import { describe, expect, test } from '@jest/globals';
import { readdirSync, readFileSync } from 'node:fs';
import { Resvg } from '@resvg/resvg-js';
import { differingShare, pixels, stackedSvg } from '../../server/files/pixels.testing';
import { readResolvedSvg } from '../readers/svg/readResolvedSvg';
import { sample } from '../sample.testing';

const EMOJI = 'node_modules/@twemoji/svg';
const FLAGS = 'node_modules/flag-icons/flags/4x3';

const emoji = readdirSync(EMOJI)
  .filter((name) => name.endsWith('.svg'))
  .filter((_, i) => i % 12 === 0)
  .map((name) => `${EMOJI}/${name}`);
const flags = readdirSync(FLAGS)
  .filter((_, i) => i % 5 === 0)
  .map((name) => `${FLAGS}/${name}`);

function compare(file: string): { colours: number; share: number } | undefined {
  const source = readFileSync(file, 'utf8');
  const artwork = readResolvedSvg(new Resvg(source, { font: { loadSystemFonts: false } }).toString());
  if (artwork.findings.some((f) => f.code !== 'off-page') || artwork.shapes.some((s) => s.look))
    return undefined;
  // a large sign, so that the renderer's pixels are what limits the comparison and not the flattening
  const { svg, colours } = stackedSvg(artwork);
  const a = pixels(source);
  const b = pixels(svg);
  return a.height === b.height ? { colours, share: differingShare(a, b) } : undefined;
}

describe('films laid over each other are the artwork (rendered by resvg)', () => {
  test('files differ in no more than 0.3 % of pixels off the edges', () => {
    const files = sample([...emoji, ...flags], 70);
    const results = files.flatMap((file) => {
      const result = compare(file);
      return result ? [{ file, ...result }] : [];
    });
    expect(results.length).toBeGreaterThanOrEqual(0.75 * files.length);
    expect(results.filter(({ colours }) => colours >= 3).length).toBeGreaterThanOrEqual(0.2 * files.length);
    expect(results.filter(({ share }) => share > 0.003)).toEqual([]);
  }, 180_000);

  const rect = (fill: string, more = ''): string => `<rect width="100" height="100" fill="${fill}" ${more}/>`;
  const masked = (mask: string, attributes = ''): string =>
    `<svg xmlns="http://www.w3.org/2000/svg" width="100mm" height="100mm" viewBox="0 0 100 100"><mask id="m" ${attributes}>${mask}</mask>
     <mask id="half"><rect width="50" height="100" fill="#fff"/></mask>${rect('#2e6f7e')}<g mask="url(#m)">${rect('#c00')}</g></svg>`;

  test.each([
    ['light with a dark hole', rect('#fff') + '<circle cx="50" cy="50" r="20"/>', ''],
    [
      'light, dark and light again',
      rect('#fff') + '<circle cx="50" cy="50" r="30"/><circle cx="50" cy="50" r="12" fill="#fff"/>',
      '',
    ],
    [
      'lines with width',
      '<path d="M10 20H90V80" fill="none" stroke="#fff" stroke-width="12" stroke-linejoin="round"/>',
      '',
    ],
    [
      'opacity, whatever the colour',
      '<circle cx="50" cy="50" r="30" stroke="#fff" stroke-width="8"/>',
      'mask-type="alpha"',
    ],
    ['a mask within a mask', rect('#fff') + '<circle cx="50" cy="50" r="20"/>', 'mask="url(#half)"'],
    [
      'fractions of what it masks',
      '<rect x=".2" y=".2" width=".5" height=".5" fill="#fff"/>',
      'maskContentUnits="objectBoundingBox"',
    ],
    ['a frame of its own', rect('#fff'), 'maskUnits="userSpaceOnUse" x="10" y="20" width="60" height="30"'],
    ['groups and turns', `<g transform="rotate(20 50 50)"><g>${rect('#fff', 'x="30"')}</g></g>`, ''],
  ])('masks: %s', (_, mask, attributes) => {
    const source = masked(mask, attributes);
    const artwork = readResolvedSvg(new Resvg(source).toString());
    expect(artwork.findings).toEqual([]);
    expect(differingShare(pixels(source), pixels(stackedSvg(artwork).svg))).toBeLessThanOrEqual(0.003);
  });
});
