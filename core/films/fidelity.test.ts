/**
 * Stacked films against the artwork: what the knife will cut, laid over each other and rendered, is the picture
 * that an independent renderer (resvg) makes of the customer's file.
 */
import { describe, expect, test } from '@jest/globals';
import { readdirSync, readFileSync } from 'node:fs';
import { Resvg } from '@resvg/resvg-js';
import { differingShare, pixels, stackedSvg } from '../../server/files/pixels.testing';
import { readResolvedSvg } from '../artwork/readResolvedSvg';

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
  test('several hundred files differ in no more than 0.3 % of pixels off the edges', () => {
    const results = [...emoji, ...flags].flatMap((file) => {
      const result = compare(file);
      return result ? [{ file, ...result }] : [];
    });
    expect(results.length).toBeGreaterThanOrEqual(300);
    expect(results.filter(({ colours }) => colours >= 3).length).toBeGreaterThanOrEqual(100);
    expect(results.filter(({ share }) => share > 0.003)).toEqual([]);
  }, 180_000);
});
