import { describe, expect, test } from '@jest/globals';
import type { LaneCut } from './lane';
import { SWAP_SECONDS, swapsBefore, timeline } from './lane';

const cut = (id: number, film: string, more: Partial<LaneCut> = {}): LaneCut => ({
  id,
  film,
  width: 610,
  blade: '45°',
  isSheet: false,
  seconds: 100,
  ...more,
});
const LOADED = { film: 'damson', width: 610, blade: '45°' };

describe('what is changed before a cut', () => {
  test('nothing, film, another width of it, the knife, both', () => {
    expect(swapsBefore(LOADED, cut(1, 'damson'))).toEqual([]);
    expect(swapsBefore(LOADED, cut(1, 'tide'))).toEqual(['film']);
    expect(swapsBefore(LOADED, cut(1, 'damson', { width: 1220 }))).toEqual(['film']);
    expect(swapsBefore(LOADED, cut(1, 'damson', { blade: '60°' }))).toEqual(['knife']);
    expect(swapsBefore(LOADED, cut(1, 'tide', { blade: '60°' }))).toEqual(['film', 'knife']);
  });
  test('each sheet by itself, whatever lay there before; nothing for what the machine has in hand', () => {
    expect(swapsBefore(LOADED, cut(1, 'damson', { isSheet: true }))).toEqual(['sheet']);
    expect(swapsBefore(undefined, cut(1, 'tide', { isBegun: true }))).toEqual([]);
  });
  test('film when nobody knows what is in it', () => {
    expect(swapsBefore(undefined, cut(1, 'damson'))).toEqual(['film']);
  });
});

test('cuts follow one another, each behind its changes; what ends after it is due is late', () => {
  const blocks = timeline([cut(1, 'damson', { seconds: 50, isBegun: true }), cut(2, 'tide', { due: 269 }), cut(3, 'tide', { due: 371 })], LOADED); // prettier-ignore
  expect(blocks.map(({ from, start, end, isLate }) => [from, start, end, isLate])).toEqual([
    [0, 0, 50, false],
    [50, 50 + SWAP_SECONDS.film, 270, true],
    [270, 270, 370, false],
  ]);
  expect(timeline([])).toEqual([]);
});
