/** Drawings of many small parts, each made twice: what doubles the parts should hardly more than double the time. */
import type { Artwork, Shape } from '../core/readers/artwork';
import { IDENTITY } from '../core/geometry/matrix';
import { random } from '../core/random';

const page = { width: 2000, height: 1200 };
const art = (shapes: readonly Shape[]): Artwork => ({ page, shapes, clips: [], findings: [] });
const filled = (ops: string, xy: number[], colour = '#000000', fill: Shape['fill'] = 'nonzero'): Shape => ({
  path: { ops, xy },
  matrix: IDENTITY,
  colour,
  fill,
  clips: [],
});
const box = (x: number, y: number, s: number): number[] => [x, y, x + s, y, x + s, y + s, x, y + s];
const columns = 220;
const cell = (i: number, pitch: number): readonly [number, number] => [
  (i % columns) * pitch + 5,
  Math.floor(i / columns) * pitch + 5,
];

export const rectangles = (n: number): Artwork =>
  art(Array.from({ length: n }, (_, i) => filled('MLLLZ', box(...cell(i, 5), 4))));

export const colours = (n: number): Artwork =>
  art(
    Array.from({ length: n }, (_, i) =>
      filled('MLLLZ', box(...cell(i, 5), 4), `#${(i * 797 + 65536).toString(16).padStart(6, '0').slice(-6)}`),
    ),
  );

export function scribble(n: number): Artwork {
  const next = random(5);
  const xy = Array.from({ length: n }, () => [next() * 500, next() * 500]).flat();
  return art([filled(`M${'L'.repeat(n - 1)}Z`, xy, '#000000', 'evenodd')]);
}

export function holes(n: number): Artwork {
  const xy = [...box(0, 0, 1110)];
  for (let i = 0; i < n; i++) for (const v of box(...cell(i, 5), 3)) xy.push(v);
  return art([filled('MLLLZ'.repeat(n + 1), xy, '#000000', 'evenodd')]);
}

export const closedLines = (n: number): Artwork =>
  art(
    Array.from({ length: n }, (_, i) => ({
      ...filled('MLLLZ', box(...cell(i, 8), 6)),
      stroke: { width: 0.01, cap: 'butt', join: 'miter', miterLimit: 4, dashes: [], dashStart: 0 } as const,
    })),
  );

/** Wavy discs of 200 points, piled at random over two metres, in eight colours. */
export function discs(n: number): Artwork {
  const next = random(11);
  return art(
    Array.from({ length: n }, (_, i) => {
      const [x, y, r] = [100 + next() * 1800, 100 + next() * 1000, 20 + next() * 60];
      const xy = Array.from({ length: 200 }, (_, k) => {
        const t = (2 * Math.PI * k) / 200;
        const wavy = r * (1 + 0.1 * Math.sin(7 * t));
        return [x + wavy * Math.cos(t), y + wavy * Math.sin(t)];
      }).flat();
      return filled(
        `M${'L'.repeat(199)}Z`,
        xy,
        `#${['2e6f7e', 'e2a21b', 'b3263a', '5b7a28', '33568f', '5e2750', 'f6f5f1', '1c1c1c'][i % 8]}`,
      );
    }),
  );
}
