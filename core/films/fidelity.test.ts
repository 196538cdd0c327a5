/**
 * Stacked films against the artwork: what the knife will cut, laid over each other and rendered, is the picture
 * that an independent renderer (resvg) makes of the customer's file.
 */
import { describe, expect, test } from '@jest/globals';
import { readdirSync, readFileSync } from 'node:fs';
import { Resvg } from '@resvg/resvg-js';
import { readResolvedSvg } from '../artwork/readResolvedSvg';
import { prepare } from '../artwork/prepare';
import { seenColours } from './seen';
import { regionToPathData } from '../geometry/pathText';

const FONTS = { font: { loadSystemFonts: false } };
const EMOJI = 'node_modules/@twemoji/svg';
const FLAGS = 'node_modules/flag-icons/flags/4x3';
const PIXELS = 300;

const emoji = readdirSync(EMOJI)
  .filter((name) => name.endsWith('.svg'))
  .filter((_, i) => i % 20 === 0)
  .map((name) => `${EMOJI}/${name}`);
const flags = readdirSync(FLAGS)
  .filter((_, i) => i % 5 === 0)
  .map((name) => `${FLAGS}/${name}`);

function pixels(svg: string): { data: Buffer; width: number; height: number } {
  const image = new Resvg(svg, {
    ...FONTS,
    fitTo: { mode: 'width', value: PIXELS },
    background: '#8c8c8c',
  }).render();
  return { data: image.pixels, width: image.width, height: image.height };
}

/** Share of pixels that differ where neither picture has an edge within a pixel. */
function differingShare(a: ReturnType<typeof pixels>, b: ReturnType<typeof pixels>): number {
  const at = (p: Buffer, x: number, y: number, k: number): number => p[4 * (y * a.width + x) + k];
  const flat = (p: Buffer, x: number, y: number): boolean => {
    for (let k = 0; k < 3; k++) {
      const c = at(p, x, y, k);
      for (let dy = -1; dy <= 1; dy++) {
        for (let dx = -1; dx <= 1; dx++) if (Math.abs(at(p, x + dx, y + dy, k) - c) > 4) return false;
      }
    }
    return true;
  };
  let different = 0;
  for (let y = 1; y < a.height - 1; y++) {
    for (let x = 1; x < a.width - 1; x++) {
      const off = [0, 1, 2].some((k) => Math.abs(at(a.data, x, y, k) - at(b.data, x, y, k)) > 8);
      if (off && flat(a.data, x, y) && flat(b.data, x, y)) different++;
    }
  }
  return different / (a.width * a.height);
}

function compare(file: string): { colours: number; share: number } | undefined {
  const source = readFileSync(file, 'utf8');
  const resolved = new Resvg(source, FONTS);
  const artwork = readResolvedSvg(resolved.toString());
  if (artwork.findings.some((f) => f.code !== 'off-page')) return undefined;
  // a large sign, so that the renderer's pixels are what limits the comparison and not the flattening
  const prepared = prepare(artwork, { width: 1000, height: null, lockAspect: true });
  const seen = seenColours(prepared.shapes);
  const scale = prepared.natural.width / prepared.width;
  const stacked = `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${artwork.page.width} ${artwork.page.height}" width="${artwork.page.width}" height="${artwork.page.height}">
    <g transform="translate(${prepared.natural.x} ${prepared.natural.y}) scale(${scale})">${seen
      .map((s) => `<path fill="${s.colour}" d="${regionToPathData(s.region)}"/>`)
      .join('')}</g></svg>`;
  const a = pixels(source);
  const b = pixels(stacked);
  if (a.height !== b.height) return undefined;
  return { colours: seen.length, share: differingShare(a, b) };
}

describe('films laid over each other are the artwork (rendered by resvg)', () => {
  test('at least 100 many-coloured files differ in no more than 0.3 % of pixels off the edges', () => {
    const results = [...emoji, ...flags].map((file) => ({ file, result: compare(file) }));
    const many = results.flatMap(({ file, result }) =>
      result && result.colours >= 3 ? [{ file, ...result }] : [],
    );
    expect(many.length).toBeGreaterThanOrEqual(100);
    expect(many.filter(({ share }) => share > 0.003)).toEqual([]);
  }, 120_000);
});
