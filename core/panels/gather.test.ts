import { describe, expect, test } from '@jest/globals';
import { DEMO_FILMS } from '../../demo/shop';
import { rectangle } from '../geometry/region';
import type { Region } from '../geometry/region';
import type { Gathering, Group, TypedLetter } from './gather';
import { gather, largestThatFit, lettersIn, lettersOf, shapesOf } from './gather';
import { plainLayer } from './plainLayer.testing';

const box = (x: number, y: number, w: number, h: number): Region =>
  rectangle({ minX: x, minY: y, maxX: x + w, maxY: y + h });
/** Letters 100 high and 60 wide, 8 apart; a blank is 40. */
function line(text: string, x: number, y: number): Region[] {
  let at = x;
  return [...text].flatMap((letter) => {
    const from = at;
    at += letter === ' ' ? 40 : 68;
    return letter === ' ' ? [] : [box(from, y, 60, 100)];
  });
}
const NOTHING: Gathering = { groups: [], alone: [] };
const gathered = (
  regions: readonly Region[],
  {
    more = [],
    by = NOTHING,
    typed = [],
    most = 1000,
  }: {
    more?: readonly Region[];
    by?: Gathering;
    typed?: readonly TypedLetter[];
    most?: number;
  } = {},
): Group[] =>
  gather(
    shapesOf([
      plainLayer(regions.flat(), DEMO_FILMS[0]),
      ...(more.length > 0 ? [plainLayer(more.flat(), DEMO_FILMS[1])] : []),
    ]),
    typed,
    by,
    ({ minX, maxX, minY, maxY }) => maxX - minX <= most && maxY - minY <= most,
  );
const shape = (group: Group): unknown =>
  group.parts.length === 0 ? group.shapes.length : group.parts.map(shape);
const of = (groups: readonly Group[]): unknown[] =>
  [...groups].sort((a, b) => a.bounds.minY - b.bounds.minY || a.bounds.minX - b.bounds.minX).map(shape);

describe('what belongs together', () => {
  test('letters make words, words a line; another line is another', () => {
    const groups = gathered([...line('ABC DE', 0, 0), ...line('FGH', 0, 160)]);
    expect(of(groups)).toEqual([
      [
        [1, 1, 1],
        [1, 1],
      ],
      [1, 1, 1],
    ]);
    expect(groups.map(({ level }) => level)).toEqual(['line', 'word']);
  });

  test('a dot, an accent and a full stop belong to their letters; a shadow in another film too', () => {
    const i = [box(0, 0, 20, 20), box(0, 30, 20, 100), box(28, 110, 20, 20)];
    expect(of(gathered(i))).toEqual([[1, 1, 1]]);
    const word = line('AB', 0, 0);
    const shadow = [box(4, 4, 60, 100), box(72, 4, 60, 100)];
    const [group] = gathered(word, { more: shadow });
    expect(shape(group)).toEqual([
      [1, 1],
      [1, 1],
    ]);
    expect(group.shapes).toHaveLength(4);
  });

  test('a ground that fits nowhere holds nothing together; what lies far off stands alone', () => {
    const ground = box(-500, -500, 3000, 1000);
    const groups = gathered([...line('AB', 0, 0), box(1200, 0, 60, 100)], { more: [ground] });
    expect(of(groups)).toEqual([1, [1, 1], 1]);
  });

  test('typed words end where they were typed to end, however wide they are set', () => {
    const spaced = [0, 300, 600, 900].map((x) => box(x, 0, 60, 100));
    const typed = [0, 300, 600, 900].map((x, i) => ({
      bounds: { minX: x, minY: 0, maxX: x + 60, maxY: 100 },
      word: `p1/0/${i < 2 ? 0 : 1}`,
    }));
    expect(of(gathered(spaced))).toEqual([1, 1, 1, 1]);
    expect(of(gathered(spaced, { typed }))).toEqual([
      [
        [1, 1],
        [1, 1],
      ],
    ]);
  });

  test('a person puts together and lets stand alone', () => {
    const far = [...line('AB', 0, 0), box(2000, 500, 60, 100)];
    const together = {
      groups: [
        [
          { x: 30, y: 50 },
          { x: 2030, y: 550 },
        ],
      ],
      alone: [],
    };
    expect(of(gathered(far, { by: together, most: 5000 }))).toEqual([[1, 1], 1]);
    const alone = { groups: [], alone: [{ x: 30, y: 50 }] };
    expect(of(gathered(line('ABC', 0, 0), { by: alone }))).toEqual([1, [1, 1]]);
  });
});

test('the largest that fit are taken, down to letters; what fits nowhere is left', () => {
  const groups = gathered([...line('ABC DE', 0, 0), box(0, 300, 4000, 100)], { most: 4000 });
  const fits = (most: number) => largestThatFit(groups, 'line', ({ minX, maxX }) => maxX - minX <= most);
  expect(fits(4000).whole).toHaveLength(2);
  expect(fits(400).whole.map(({ level }) => level)).toEqual(['line']);
  expect(fits(250).whole.map(({ level }) => level)).toEqual(['word', 'word']);
  expect(fits(150).whole.map(({ level }) => level)).toEqual(['shape', 'shape', 'shape', 'word']);
  expect(fits(150).rest).toHaveLength(1);
  const words = largestThatFit(groups, 'word', () => true);
  expect(words.whole.map(({ level }) => level)).toEqual(['word', 'word', 'shape']);
});

test('pieces are numbered row by row, from the left, ascenders or not', () => {
  const row = [box(0, 20, 60, 80), box(200, 0, 60, 100), box(400, 25, 60, 75), box(0, 300, 60, 100)];
  const { whole } = largestThatFit(gathered(row), 'letter', () => true);
  expect(whole.map(({ bounds }) => [bounds.minX, bounds.minY])).toEqual([
    [0, 20],
    [200, 0],
    [400, 25],
    [0, 300],
  ]);
});

test('letters are shapes of like height in words of three or more; rays around a sun are none', () => {
  expect(lettersIn(gathered(line('ABC DE', 0, 0)))).toHaveLength(3);
  const rays = Array.from({ length: 12 }, (_, i) => {
    const a = (i * Math.PI) / 6;
    return box(200 * Math.cos(a) - 10, 200 * Math.sin(a) - 10, 20, 20);
  });
  expect(lettersIn(gathered([box(-150, -150, 300, 300), ...rays]))).toHaveLength(0);
  expect(lettersOf(gathered(line('ABC DE', 0, 0)))).toHaveLength(5);
});
