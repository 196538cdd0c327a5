import { describe, expect, test } from '@jest/globals';
import { CURLEW, DEMO_FILMS } from '../../demo/shop';
import type { Film } from '../films/film';
import { outset, boundsTouch } from '../geometry/bounds';
import { rectangle } from '../geometry/region';
import type { Part } from '../panels/part';
import { DEFAULT_CHOICES } from '../plan/choices';
import { random } from '../random';
import { holdLaid, packLaid } from './laidPieces.testing';
import { layOut } from './layOut';
import type { LyingChoices, PackedPiece, PackedStrip } from './strip';
import { times } from '../sample.testing';

const FILM: Film = { ...DEMO_FILMS[0], rolls: [{ width: 610, lengthLeft: 20_000 }] };
const SPACING = 4;
const parts: readonly Part[] = Array.from({ length: 9 }, (_, i) => {
  const bounds = { minX: 0, minY: 0, maxX: 120 + 9 * i, maxY: 150 + 11 * i };
  const common = { film: FILM, label: 'a piece', marks: [], lines: [], waste: [] };
  return { ...common, id: `f~${i + 1}`, region: rectangle(bounds), bounds, area: bounds.maxX * bounds.maxY };
});
const choices = (kept: readonly PackedStrip[] = [], more: Partial<LyingChoices> = {}): LyingChoices => ({
  ...DEFAULT_CHOICES.layout,
  pack: 'piece',
  border: 'none',
  between: SPACING,
  packed: kept.length === 0 ? {} : { [FILM.id]: kept },
  ...more,
});
const laid = (how: LyingChoices, all = parts) => layOut(FILM, all, how, CURLEW).strips;
const keptOn = (how: LyingChoices): PackedStrip[] =>
  laid(how).map(({ roll, placements }) => ({
    roll: roll.width,
    pieces: placements.map(({ kept }) => kept!),
  }));
/** One piece put somewhere else by hand. */
const moved = (kept: readonly PackedStrip[], id: string, by: Partial<PackedPiece>): PackedStrip[] =>
  kept.map((strip) => ({
    ...strip,
    pieces: strip.pieces.map((piece) => (piece.part === id ? { ...piece, pinned: true, ...by } : piece)),
  }));
const placeOf = (how: LyingChoices, all = parts) =>
  new Map(laid(how, all).flatMap(({ placements }) => placements.map(({ part, kept }) => [part.id, kept!])));
function expectApart(how: LyingChoices, all = parts): void {
  for (const { placements } of laid(how, all))
    placements.forEach(({ box }, i) => {
      for (const other of placements.slice(i + 1))
        expect(boundsTouch(outset(box, SPACING / 2 - 0.01), outset(other.box, SPACING / 2 - 0.01))).toBe(
          false,
        );
    });
}

describe('pieces put by hand', () => {
  const first = keptOn(choices());

  test('where there is room: that piece lies there, all others as they did', () => {
    const far = moved(first, 'f~3', { x: 2000, y: 200 });
    const before = placeOf(choices(first));
    for (const [id, piece] of placeOf(choices(far)))
      expect(piece).toEqual(
        id === 'f~3' ? { ...before.get(id), x: 2000, y: 200, pinned: true } : before.get(id),
      );
  });

  test('onto others: it lies there, they make way, and the rest stays', () => {
    const next = random(5);
    for (let k = 0; k < times(12, 4); k++) {
      const before = placeOf(choices(first));
      const [id, on] = [0, 0].map(() => `f~${1 + Math.floor(next() * parts.length)}`);
      if (id === on) continue;
      const { x, y } = before.get(on)!;
      const after = choices(moved(first, id, { x, y: Math.min(380, Math.max(200, y)) }));
      expect(placeOf(after).get(id)).toMatchObject({ x, pinned: true });
      expectApart(after);
      const held = holdLaid(FILM, parts, choices(first), CURLEW, { part: id, copy: 0 })!;
      const inTheWay = held(placeOf(after).get(id)!).touches.map(({ part }) => part);
      expect(inTheWay).toContain(on);
      for (const [other, piece] of before)
        if (other !== id && !inTheWay.includes(other)) expect(placeOf(after).get(other)).toEqual(piece);
    }
  });

  test('stay when more is laid, when something is left out, and when the rest is packed closer', () => {
    const pinned = moved(first, 'f~5', { x: 900, y: 290 });
    const two = choices(pinned, { copies: 2 });
    expect(laid(two).flatMap(({ placements }) => placements)).toHaveLength(18);
    const own = laid(two).flatMap(({ placements }) => placements.flatMap(({ kept }) => kept ?? []));
    expect(own.filter(({ pinned: isPinned }) => isPinned)).toMatchObject([
      { part: 'f~5', copy: 0, x: 900, y: 290 },
    ]);
    expectApart(two);
    const fewer = parts.filter(({ id }) => id !== 'f~1');
    expect(placeOf(choices(pinned), fewer).get('f~5')).toMatchObject({ x: 900, y: 290 });
    const steps = [...packLaid(FILM, parts, choices(pinned), CURLEW, { rounds: 20, seed: 3 })];
    const found = steps.at(-1)!.packed.flatMap(({ pieces }) => pieces);
    expect(found.find(({ part }) => part === 'f~5')).toMatchObject({ x: 900, y: 290, pinned: true });
    expect(placeOf(choices(steps.at(-1)!.packed)).get('f~5')).toMatchObject({ x: 900, y: 290 });
  });

  test('of two on one another, or off the film, only what can be stays', () => {
    const { x, y } = placeOf(choices(first)).get('f~2')!;
    const both = moved(moved(first, 'f~2', {}), 'f~7', { x, y });
    expectApart(choices(both));
    const off = choices(moved(first, 'f~4', { y: -40 }));
    expectApart(off);
    expect(placeOf(off).get('f~4')!.y).toBeGreaterThan(0);
  });
});

describe('a piece that is held', () => {
  const first = keptOn(choices());
  const hold = (part: string) => holdLaid(FILM, parts, choices(first), CURLEW, { part, copy: 0 });

  test('says what it would touch and whether the knife reaches it', () => {
    const places = placeOf(choices(first));
    const held = hold('f~1')!;
    const own = places.get('f~1')!;
    expect(held(own)).toEqual({ touches: [], isInside: true, inside: { ...own } });
    const { x, y } = places.get('f~6')!;
    expect(held({ ...own, x, y }).touches).toContainEqual({ part: 'f~6', copy: 0 });
    const off = held({ turn: own.turn, x: own.x, y: -10 });
    expect(off.isInside).toBe(false);
    // its upper edge lies where the knife's reach begins
    const half = (own.turn % 180 === 0 ? 150 : 120) / 2;
    expect(off.inside.y).toBeCloseTo(half, 1);
  });

  test('that is not there cannot be held', () => {
    expect(hold('f~99')).toBeUndefined();
    expect(
      holdLaid(FILM, parts, choices(first, { pack: 'one' }), CURLEW, { part: 'f~1', copy: 0 }),
    ).toBeUndefined();
  });
});
