import { expect, test } from '@jest/globals';
import type { PanelPart } from './panel';
import { applicationOrder, panelHints } from './applied';

const on = (film: string, ...numbers: number[]): PanelPart[] =>
  numbers.map((number) => ({ film: { id: film }, cell: { number } }) as unknown as PanelPart);

test('what lies under another goes on first', () => {
  expect(applicationOrder(on('damson', 3, 1, 2), 'next')).toEqual([1, 2, 3]);
  expect(applicationOrder(on('damson', 3, 1, 2), 'before')).toEqual([3, 2, 1]);
});

test('a film in panels says their order and how they lie; a whole one says nothing', () => {
  const panels = [...on('damson', 1, 2, 4), ...on('quince', 2)];
  const say = (film: string, overlap: number) => panelHints(panels, film, { onTop: 'next', overlap });
  expect(say('damson', 0)).toEqual(['in 3 panels, applied 1, 2, 4, edge to edge']);
  expect(say('damson', 20)).toEqual([
    'in 3 panels, applied 1, 2, 4, each 20.0 mm (0.79 in) beneath the next',
  ]);
  expect(say('quince', 20)).toEqual(['on panel 2 alone']);
  expect(say('tide-blue', 20)).toEqual([]);
});
