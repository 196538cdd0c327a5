import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { IDENTITY } from '../geometry/matrix';
import type { Bounds } from '../geometry/bounds';
import { heightOf, widthOf } from '../geometry/bounds';
import {
  alignPieces,
  changePiece,
  distributePieces,
  duplicatePieces,
  freshId,
  movePieces,
  removePieces,
  replaceSource,
  settle,
  snapBox,
  withGroups,
} from './arrange';
import type { Artwork } from '../readers/artwork';
import type { ArtworkChoices, Piece } from './choices';
import { NO_LINE_RULES, pieceOfFile, sourceKey } from './choices';
import { pickAt, snapAt } from './pick';
import { prepare } from './prepare';

const ART: Artwork = {
  page: { width: 40, height: 20 },
  shapes: [
    {
      path: { ops: 'MLLLZ', xy: [0, 0, 40, 0, 40, 20, 0, 20] },
      matrix: IDENTITY,
      colour: '#000000',
      fill: 'nonzero',
      clips: [],
    },
  ],
  clips: [],
  findings: [],
};
const piece = (id: string, x: number, y: number, more: Partial<Piece> = {}): Piece => ({
  ...pieceOfFile('', 'a.svg', {}, id),
  x,
  y,
  ...more,
});
const choicesOf = (...pieces: Piece[]): ArtworkChoices => ({
  width: null,
  height: null,
  lockAspect: true,
  pieces,
  lines: NO_LINE_RULES,
  fixes: [],
  ignored: [],
});
const artworks = new Map([[sourceKey(pieceOfFile('', 'a.svg').source), ART]]);
const placedOf = (choices: ArtworkChoices) => prepare(artworks, choices).pieces;
const boxes = (choices: ArtworkChoices): Bounds[] => placedOf(choices).map(({ box }) => box);
const round = (b: Bounds): number[] =>
  [b.minX, b.minY, b.maxX, b.maxY].map((v) => Math.round(v * 1000) / 1000);

const three = choicesOf(piece('p1', 0, 0), piece('p2', 100, 30), piece('p3', 70, 90));
const ALL = ['p1', 'p2', 'p3'];

describe('placing', () => {
  test('a piece lies where it is put, at its size, turned and mirrored', () => {
    const turned = choicesOf(piece('p1', 0, 0), piece('p2', 100, 10, { turn: 90, width: 80 }));
    const [, second] = placedOf(turned);
    expect(round(second.box)).toEqual([100, 10, 140, 90]);
    expect([second.width, second.height]).toEqual([80, 40]);
    const askew = placedOf(choicesOf(piece('p1', 0, 0), piece('p2', 100, 10, { turn: 30 })))[1];
    // the box of a 40 × 20 rectangle turned by 30°
    const [c, s] = [Math.cos(Math.PI / 6), 0.5];
    expect(widthOf(askew.box)).toBeCloseTo(40 * c + 20 * s, 2);
    expect(heightOf(askew.box)).toBeCloseTo(40 * s + 20 * c, 2);
  });

  test('a size for the whole scales all; settling keeps every place and size', () => {
    fc.assert(
      fc.property(fc.double({ min: 50, max: 2000, noNaN: true }), (width) => {
        const scaled = { ...three, width };
        const before = placedOf(scaled);
        const settled = settle(scaled, before);
        expect([settled.width, settled.height]).toEqual([null, null]);
        placedOf(settled).forEach(({ box }, i) => {
          const was = before[i].box;
          expect(Math.abs(box.minX - was.minX)).toBeLessThan(0.01);
          expect(Math.abs(box.maxY - was.maxY)).toBeLessThan(0.01);
        });
      }),
      { numRuns: 25 },
    );
  });

  test('one piece changed in mm of the finished sign leaves the others where they were', () => {
    const scaled = { ...three, width: 280 };
    const before = boxes(scaled);
    const after = boxes(changePiece(scaled, placedOf(scaled), 'p2', { x: 210 }));
    expect(after[1].minX).toBeCloseTo(210, 2);
    expect(round(after[0])).toEqual(round(before[0]));
    expect(round(boxes(movePieces(three, placedOf(three), ['p3'], 5, -10))[2])).toEqual([75, 80, 115, 100]);
  });

  test('align and distribute', () => {
    const right = boxes(alignPieces(three, placedOf(three), ALL, 'right'));
    expect(right.map((b) => b.maxX)).toEqual([right[0].maxX, right[0].maxX, right[0].maxX]);
    const middle = boxes(alignPieces(three, placedOf(three), ALL, 'middle'));
    expect(new Set(middle.map((b) => (b.minY + b.maxY) / 2)).size).toBe(1);
    const even = boxes(distributePieces(three, placedOf(three), ALL, 'down'));
    expect(even[1].minY - even[0].maxY).toBeCloseTo(even[2].minY - even[1].maxY, 3);
    const grouped = choicesOf(
      piece('p1', 0, 0, { group: 'g' }),
      piece('p2', 100, 30, { group: 'g' }),
      piece('p3', 70, 90),
    );
    const [a, b] = boxes(alignPieces(grouped, placedOf(grouped), ALL, 'bottom'));
    expect(b.minY - a.minY).toBeCloseTo(30, 3);
    expect(withGroups(grouped, ['p1'])).toEqual(['p1', 'p2']);
  });

  test('copies at a pitch, with their groups and what was decided about their shapes', () => {
    const ruled = { ...three, lines: { ...NO_LINE_RULES, shape: { 'p1/0': 'pen' as const } } };
    const { choices, made } = duplicatePieces(ruled, placedOf(ruled), ['p1'], 3, 0, 50);
    expect(made).toEqual(['p4', 'p5', 'p6']);
    expect(choices.pieces.slice(3).map(({ y }) => y)).toEqual([50, 100, 150]);
    expect(choices.lines.shape).toEqual({ 'p1/0': 'pen', 'p4/0': 'pen', 'p5/0': 'pen', 'p6/0': 'pen' });
    expect(freshId(choices)).toBe('p7');
    expect(removePieces(choices, ['p1', 'p4']).lines.shape).toEqual({ 'p5/0': 'pen', 'p6/0': 'pen' });
  });

  test('another file in its place keeps size, place and rules by colour, not those of single shapes', () => {
    const ruled: ArtworkChoices = {
      ...three,
      lines: { ...NO_LINE_RULES, colour: { '#000000': 'through' }, shape: { 'p1/0': 'pen' } },
      fixes: [
        { kind: 'close', at: 'p1/0' },
        { kind: 'thicken', at: '*' },
      ],
    };
    const { source } = pieceOfFile('ff', 'b.svg');
    const next = replaceSource(ruled, 'p1', source, 'b');
    expect(next.lines).toMatchObject({ colour: { '#000000': 'through' }, shape: {} });
    expect(next.fixes).toEqual([{ kind: 'thicken', at: '*' }]);
    expect(next.pieces[0]).toMatchObject({ source, name: 'b', x: 0 });
  });

  test('a moved box is drawn to edges and middles that are near, and to nothing else', () => {
    const at = (x: number, y: number): Bounds => ({ minX: x, minY: y, maxX: x + 10, maxY: y + 10 });
    expect(snapBox(at(101, 57), [at(100, 0)], 2)).toMatchObject({
      dx: -1,
      dy: 0,
      guides: [{ axis: 'across', at: 100 }],
    });
    expect(snapBox(at(50, 50), [at(100, 0)], 2)).toEqual({ dx: 0, dy: 0, guides: [] });
  });
});

describe('finding things by place', () => {
  const sign = prepare(artworks, choicesOf(piece('p1', 0, 0), piece('p2', 20, 10)));
  test('the frontmost shape is picked', () => {
    expect(pickAt(sign, [30, 15], 1)?.ref).toBe('p2/0');
    expect(pickAt(sign, [5, 5], 1)?.ref).toBe('p1/0');
    expect(pickAt(sign, [5, 28], 1)).toBeUndefined();
  });
  test('points are drawn to nodes, then middles, then edges', () => {
    expect(snapAt(sign, [0.4, 0.3], 1)).toEqual({ at: [0, 0], to: 'node' });
    expect(snapAt(sign, [10, 0.5], 1)).toEqual({ at: [10, 0], to: 'edge' });
    expect(snapAt(sign, [40.2, 20.3], 0.5)?.to).not.toBe('edge');
    expect(snapAt(sign, [100, 100], 1)).toBeUndefined();
  });
});
