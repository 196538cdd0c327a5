import { describe, expect, test } from '@jest/globals';
import { Resvg } from '@resvg/resvg-js';
import { regionArea } from '../../geometry/region';
import type { SizeChoices } from '../../artwork/preparePiece';
import { preparePiece } from '../../artwork/preparePiece';
import { readResolvedSvg } from './readResolvedSvg';

const OWN: SizeChoices = { width: null, height: null, lockAspect: true };
const read = (body: string, root = 'width="100mm" height="50mm" viewBox="0 0 200 100"') =>
  readResolvedSvg(
    new Resvg(`<svg xmlns="http://www.w3.org/2000/svg" ${root}>${body}</svg>`, {
      font: { loadSystemFonts: false },
    }).toString(),
  );
const areas = (body: string, root?: string): number[] =>
  preparePiece(read(body, root), OWN).shapes.map((s) => regionArea(s.region));

describe('reading', () => {
  test('physical size and viewBox give millimetres', () => {
    const artwork = read('<rect x="20" y="10" width="100" height="40" fill="#e2a11d"/>');
    expect(artwork.page.width).toBeCloseTo(100, 2);
    const prepared = preparePiece(artwork, OWN);
    expect(prepared.width).toBeCloseTo(50, 2);
    expect(prepared.height).toBeCloseTo(20, 2);
    expect(prepared.natural.x).toBeCloseTo(10, 2);
    expect(prepared.shapes[0].colour).toBe('#e2a11d');
  });

  test('a viewBox of another shape is centred in the page, as resvg draws it', () => {
    const { natural } = preparePiece(
      read('<rect width="10" height="10"/>', 'width="100mm" height="50mm" viewBox="0 0 10 10"'),
      OWN,
    );
    expect(natural.x).toBeCloseTo(25, 2);
    expect(natural.width).toBeCloseTo(50, 2);
  });

  test('groups, CSS, use and transforms', () => {
    const [a, b] = areas(`<style>.q{fill:#c00}</style><defs><rect id="r" width="10" height="10"/></defs>
      <g transform="rotate(30) scale(2)"><use href="#r" class="q" x="20"/></g><use href="#r" x="120" y="20" fill="#00f"/>`);
    expect(a).toBeCloseTo(400 / 4, 0);
    expect(b).toBeCloseTo(100 / 4, 1);
  });

  test('even-odd, clips (nested, with rules) and strokes become what they cover', () => {
    const evenOdd = areas('<path fill-rule="evenodd" d="M0 0H40V40H0ZM10 10H30V30H10Z"/>');
    expect(evenOdd[0]).toBeCloseTo((1600 - 400) / 4, 1);
    const clipped = areas(`<clipPath id="b"><rect width="30" height="100"/></clipPath>
      <clipPath id="a" clip-path="url(#b)"><circle cx="30" cy="50" r="20"/></clipPath>
      <rect width="100" height="100" fill="red" clip-path="url(#a)"/>`);
    expect(clipped[0]).toBeCloseTo((Math.PI * 400) / 2 / 4, 0);
    const stroke = areas('<line x1="10" y1="50" x2="110" y2="50" stroke="red" stroke-width="4"/>');
    expect(stroke[0]).toBeCloseTo(400 / 4, 1);
    const skewed = areas(
      '<line x1="10" y1="10" x2="10" y2="30" stroke="red" stroke-width="4" transform="scale(5 1)"/>',
    );
    expect(skewed[0]).toBeCloseTo((20 * 20) / 4, 1);
    const dashed = areas(
      '<line x1="0" y1="50" x2="100" y2="50" stroke="red" stroke-width="4" stroke-dasharray="10"/>',
    );
    expect(dashed[0]).toBeCloseTo(200 / 4, 1);
  });

  test('what cannot be cut as it is becomes a finding, never silence', () => {
    const artwork =
      read(`<linearGradient id="g"><stop offset="0" stop-color="#000"/><stop offset="1" stop-color="#fff"/></linearGradient>
      <rect width="10" height="10" fill="url(#g)"/><rect width="9" height="9" x="20" fill-opacity=".5"/>
      <image width="5" height="5" href="data:image/png;base64,iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg=="/>
      <rect x="190" width="30" height="10"/><rect y="40" width="9" height="9" fill="none"/>`);
    expect(artwork.findings.map((f) => f.code).sort()).toEqual(['image', 'off-page']);
    // these are told by the check-over, each at its place
    expect(artwork.shapes.map((shape) => shape.look)).toEqual(['gradient', 'translucent', undefined]);
    expect(artwork.shapes[0].colour).toBe('#808080');
    expect(artwork.shapes).toHaveLength(3);
  });

  test('a mask is a clip; a faded one is told and goes to the nearer side; one of pictures is told', () => {
    const circle =
      '<mask id="m"><circle cx="50" cy="50" r="20" fill="#fff"/></mask><rect mask="url(#m)" width="100" height="100" fill="red"/>';
    const codes = (body: string): string[] => read(body).findings.map((f) => f.code);
    expect(areas(circle)[0]).toBeCloseTo((Math.PI * 400) / 4, 0);
    expect(codes(circle)).toEqual([]);
    expect(codes(circle.replace('#fff', '#999'))).toEqual(['veil']);
    expect(areas(circle.replace('#fff', '#999'))[0]).toBeCloseTo((Math.PI * 400) / 4, 0);
    expect(areas(circle.replace('#fff', '#333'))).toEqual([]);
    const blurred = circle.replace(
      '<circle',
      '<filter id="f"><feGaussianBlur stdDeviation="4"/></filter><circle filter="url(#f)"',
    );
    expect(codes(blurred)).toEqual(['mask']);
    expect(areas(blurred)[0]).toBeCloseTo(10_000 / 4, 0);
  });
});

describe('size', () => {
  const art = read(
    '<circle cx="100" cy="50" r="20" fill="none" stroke="#123456" stroke-width="6"/><rect x="10" y="45" width="30" height="9"/>',
  );

  test.each([
    [{ width: 76.2, height: null, lockAspect: true }, 76.2, undefined],
    [{ width: null, height: 300, lockAspect: true }, undefined, 300],
    [{ width: 120, height: 80, lockAspect: false }, 120, 80],
    [{ width: 5000, height: null, lockAspect: true }, 5000, undefined],
  ])('%j is met exactly, strokes included', (choices, width, height) => {
    const prepared = preparePiece(art, choices);
    const far = {
      x: Math.max(...prepared.shapes.map((s) => s.bounds.maxX)),
      y: Math.max(...prepared.shapes.map((s) => s.bounds.maxY)),
    };
    if (width !== undefined) expect(far.x).toBeCloseTo(width, 6);
    if (height !== undefined) expect(far.y).toBeCloseTo(height, 6);
    if (choices.lockAspect)
      expect(prepared.width / prepared.height).toBeCloseTo(
        prepared.natural.width / prepared.natural.height,
        9,
      );
  });

  test('absurd sizes are told and planned no further', () => {
    for (const width of [60_000, 0.01]) {
      const prepared = preparePiece(art, { width, height: null, lockAspect: true });
      expect(prepared.shapes).toEqual([]);
      expect(prepared.findings.at(-1)).toMatchObject({ severity: 'stop', measured: expect.any(Number) });
    }
  });

  test('a clip that leaves nothing is nothing to cut', () => {
    const none = read(
      '<clipPath id="c"><rect width="1" height="1"/></clipPath><rect x="50" y="50" width="9" height="9" clip-path="url(#c)"/>',
    );
    expect(preparePiece(none, OWN).findings.at(-1)?.code).toBe('nothing-to-cut');
  });
});
