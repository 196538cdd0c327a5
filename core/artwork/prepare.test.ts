import { describe, expect, test } from '@jest/globals';
import { heightOf, widthOf } from '../geometry/bounds';
import { IDENTITY } from '../geometry/matrix';
import { regionArea } from '../geometry/region';
import type { Artwork } from '../readers/artwork';
import { DEFAULT_CHOICES } from '../plan/choices';
import type { ArtworkChoices, Piece } from './choices';
import { isFixed, isSame, pieceOfFile, sourceKey } from './choices';
import { prepare } from './prepare';

/** A bar 100 wide and 20 high, its upper left corner at 10, 10 of its page. */
const bar: Artwork = {
  page: { width: 200, height: 100 },
  shapes: [
    {
      path: { ops: 'MLLLZ', xy: [10, 10, 110, 10, 110, 30, 10, 30] },
      matrix: IDENTITY,
      colour: '#112233',
      fill: 'nonzero',
      clips: [],
    },
  ],
  clips: [],
  findings: [],
};
const piece = (id: string, more: Partial<Piece> = {}): Piece => ({
  ...pieceOfFile('a'.repeat(64), 'bar.svg', {}, id),
  ...more,
});
const artworks = new Map([[sourceKey(piece('p1').source), bar]]);
const sign = (pieces: readonly Piece[], more: Partial<ArtworkChoices> = {}) =>
  prepare(artworks, { ...DEFAULT_CHOICES.artwork, pieces, ...more });
const sizes = (pieces: readonly Piece[], more: Partial<ArtworkChoices> = {}) => {
  const { width, height } = sign(pieces, more);
  return [width, height];
};

describe('the sign at its size', () => {
  test('is what is covered, and exactly as large as was typed', () => {
    expect(sizes([piece('p1')])).toEqual([100, 20]);
    expect(sizes([piece('p1')], { width: 76.2 })).toEqual([76.2, expect.closeTo(15.24, 9)]);
    expect(sizes([piece('p1')], { height: 50 })).toEqual([250, 50]);
    expect(sizes([piece('p1')], { width: 300, height: 90, lockAspect: false })).toEqual([300, 90]);
    const { shapes } = sign([piece('p1')], { width: 300, height: 90, lockAspect: false });
    expect(regionArea(shapes[0].region)).toBeCloseTo(300 * 90, 2);
    expect([shapes[0].bounds.minX, shapes[0].bounds.minY]).toEqual([0, 0]);
  });

  test('holds several pieces where they lie, turned and mirrored about their own boxes', () => {
    const beside = [piece('p1'), piece('p2', { x: 150 })];
    expect(sizes(beside)).toEqual([250, 20]);
    expect(sign(beside).pieces.map(({ id, box }) => [id, box.minX, box.maxX])).toEqual([
      ['p1', 0, 100],
      ['p2', 150, 250],
    ]);
    const upright = sign([piece('p1', { turn: 90 }), piece('p2', { x: 40, turn: -90, mirror: true })]);
    expect(upright.pieces.map(({ box }) => [widthOf(box), heightOf(box)])).toEqual([
      [20, 100],
      [20, 100],
    ]);
    const leaning = sign([piece('p1', { turn: 30 })]);
    const [c, s] = [Math.cos(Math.PI / 6), Math.sin(Math.PI / 6)];
    expect([leaning.width, leaning.height]).toEqual([
      expect.closeTo(100 * c + 20 * s, 3),
      expect.closeTo(100 * s + 20 * c, 3),
    ]);
    expect(regionArea(leaning.shapes[0].region)).toBeCloseTo(2000, 0);
  });

  test('grows as a whole: pieces keep their places and their turns', () => {
    const pieces = [piece('p1'), piece('p2', { x: 150, turn: 90 })];
    const [small, large] = [sign(pieces), sign(pieces, { width: 2 * 170 })];
    expect(small.width).toBeCloseTo(170, 6);
    large.pieces.forEach(({ box }, i) => {
      expect(box.minX).toBeCloseTo(2 * small.pieces[i].box.minX, 6);
      expect(heightOf(box)).toBeCloseTo(2 * heightOf(small.pieces[i].box), 6);
    });
  });

  test('says what is not there, what is still being read, and what is too large to be meant', () => {
    const codes = (pieces: readonly Piece[], more: Partial<ArtworkChoices> = {}) =>
      sign(pieces, more).findings.map(({ code }) => code);
    expect(codes([])).toEqual(['nothing-to-cut']);
    const unread = { ...pieceOfFile('b'.repeat(64), 'late.svg', {}, 'p9') };
    expect(codes([piece('p1'), unread])).toEqual(['piece-missing']);
    expect(codes([piece('p1')], { width: 99_999 }).length).toBe(1);
  });
});

test('places that lie close together are one, names and the rest letter by letter', () => {
  expect(isSame('stem@0.500,0.250', 'stem@0.505,0.245')).toBe(true);
  expect(isSame('stem@0.500,0.250', 'stem@0.600,0.250')).toBe(false);
  expect(isSame('stem@0.5,0.25', 'gap@0.5,0.25')).toBe(false);
  expect([isSame('p1/3', 'p1/3'), isSame('p1/3', 'p1/30')]).toEqual([true, false]);
  const fixes = [
    { kind: 'close' as const, at: 'p1/3' },
    { kind: 'weld' as const, at: '*' },
  ];
  expect([
    isFixed(fixes, 'close', 'p1/3'),
    isFixed(fixes, 'close', 'p1/4'),
    isFixed(fixes, 'weld', 'p1/9'),
  ]).toEqual([true, false, true]);
});

test('a source is known by what it reads as, not by what it is called or how its fields lie', () => {
  const one = piece('p1').source;
  expect(sourceKey({ ...one, name: 'other.svg' } as typeof one)).toBe(sourceKey(one));
  expect(sourceKey(Object.fromEntries(Object.entries(one).reverse()) as typeof one)).toBe(sourceKey(one));
  expect(sourceKey({ ...one, page: 2 } as typeof one)).not.toBe(sourceKey(one));
});
