/** The order page by keyboard, and the sheet that says how. */
import { useEventListener } from '@vueuse/core';
import type { View } from './views';
import { KEYED } from './views';

export const SHORTCUTS: readonly (readonly [string, string])[] = [
  ['Ctrl Z', 'undo the last choice'],
  ['Ctrl Shift Z', 'redo it'],
  ['[  ]', 'film before, film after'],
  ['Shift [  Shift ]', 'cut this film earlier, later'],
  ['1 … 7', 'Face, Films apart, On the film, Cut lines, As cut, Sheet, Play it'],
  ['Space', 'Play it: play, and stop'],
  [',  .', 'Play it: to the line before, to the next'],
  ['P  Shift P', 'next finding, finding before'],
  ['M', 'measure between two points'],
  ['L', 'on the film: a weed line where the pointer is'],
  ['R', 'on the film: turn the piece that is held'],
  ['Arrows', 'move the stage that has the focus'],
  ['+  −', 'zoom in and out'],
  ['0', 'show everything'],
  ['Ctrl Enter', 'queue the cuts'],
  ['?', 'this sheet'],
];

/** What the keys do. */
export interface OrderActs {
  readonly undo: () => unknown;
  readonly redo: () => unknown;
  readonly queue: () => unknown;
  readonly help: () => unknown;
  readonly nextFilm: (by: 1 | -1) => unknown;
  readonly moveFilm: (by: 1 | -1) => unknown;
  readonly nextFinding: (by: 1 | -1) => unknown;
  readonly measure: () => unknown;
  /** Leaves what is being done on the stage. @returns whether anything was */
  readonly leave: () => boolean;
  readonly show: (view: View) => unknown;
}

const isIn = ({ target }: KeyboardEvent, fields: string): boolean =>
  target instanceof HTMLElement && target.closest(fields) !== null;

/** A list finds its entries by their letters. */
export const isForList = (event: KeyboardEvent): boolean =>
  event.key.length === 1 && isIn(event, '[role=combobox], [role=listbox]');

/** What a key means here; undefined where it is left to the page or to a field. */
export function actOf(event: KeyboardEvent, acts: OrderActs): (() => unknown) | undefined {
  const control = event.ctrlKey || event.metaKey;
  const key = event.key.toLowerCase();
  const back = event.shiftKey ? -1 : 1;
  if (control && key === 'enter') return acts.queue;
  if (isIn(event, 'input, textarea, select')) return undefined;
  if (control && key === 'z') return event.shiftKey ? acts.redo : acts.undo;
  if (control && key === 'y') return acts.redo;
  if (control || event.altKey || isForList(event)) return undefined;
  if (event.key === '?') return acts.help;
  if (event.code === 'BracketLeft') return () => (event.shiftKey ? acts.moveFilm(-1) : acts.nextFilm(-1));
  if (event.code === 'BracketRight') return () => (event.shiftKey ? acts.moveFilm(1) : acts.nextFilm(1));
  if (key === 'p') return () => acts.nextFinding(back);
  if (key === 'm') return acts.measure;
  if (event.key === 'Escape') return acts.leave() ? () => {} : undefined;
  const view = KEYED[Number(event.key) - 1];
  return view && (() => acts.show(view));
}

/** Listens as long as the component is there. */
export function useOrderKeys(acts: OrderActs): void {
  useEventListener('keydown', (event) => {
    const act = actOf(event, acts);
    if (!act) return;
    event.preventDefault();
    act();
  });
}
