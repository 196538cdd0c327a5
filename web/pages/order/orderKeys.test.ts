import { beforeAll, describe, expect, test } from '@jest/globals';
import type { OrderActs } from './orderKeys';
import { actOf, SHORTCUTS } from './orderKeys';

/** What a page's elements are made of, as far as a key's target is asked. */
class FakeElement {
  constructor(readonly is: string) {}
  closest(fields: string): this | null {
    return fields.split(', ').includes(this.is) ? this : null;
  }
}
beforeAll(() => void Object.assign(globalThis, { HTMLElement: FakeElement }));

/** What one press does, by name; a field may have the focus, something may be under way on the stage. */
function pressed(press: Partial<KeyboardEvent>, at = 'body', isBusy = false): string | undefined {
  const done: string[] = [];
  const note = (what: string) => (by?: unknown) =>
    done.push(by === undefined ? what : `${what} ${String(by)}`);
  const acts: OrderActs = {
    undo: note('undo'),
    redo: note('redo'),
    queue: note('queue'),
    help: note('help'),
    nextFilm: note('film'),
    moveFilm: note('move'),
    nextFinding: note('finding'),
    measure: note('measure'),
    leave: () => {
      if (isBusy) done.push('leave');
      return isBusy;
    },
    show: note('show'),
  };
  const event = { key: '', code: '', target: new FakeElement(at), ...press } as unknown as KeyboardEvent;
  actOf(event, acts)?.();
  return done[0];
}

describe('keys of an order', () => {
  test.each<[string, Partial<KeyboardEvent>, string | undefined]>([
    ['Ctrl Z', { key: 'z', ctrlKey: true }, 'undo'],
    ['Cmd Z', { key: 'z', metaKey: true }, 'undo'],
    ['Ctrl Shift Z', { key: 'Z', ctrlKey: true, shiftKey: true }, 'redo'],
    ['Ctrl Y', { key: 'y', ctrlKey: true }, 'redo'],
    ['Ctrl Enter', { key: 'Enter', ctrlKey: true }, 'queue'],
    ['?', { key: '?', shiftKey: true }, 'help'],
    ['[', { key: '[', code: 'BracketLeft' }, 'film -1'],
    ['Shift ]', { key: '}', code: 'BracketRight', shiftKey: true }, 'move 1'],
    ['P', { key: 'p' }, 'finding 1'],
    ['Shift P', { key: 'P', shiftKey: true }, 'finding -1'],
    ['M', { key: 'm' }, 'measure'],
    ['3', { key: '3' }, 'show on-film'],
    ['5', { key: '5' }, 'show as-cut'],
    ['9, which is no view', { key: '9' }, undefined],
    ['Z alone', { key: 'z' }, undefined],
    ['Alt M', { key: 'm', altKey: true }, undefined],
    ['Ctrl P, which prints', { key: 'p', ctrlKey: true }, undefined],
  ])('%s', (_name, press, does) => expect(pressed(press)).toBe(does));

  test('a field keeps its own undo, its letters and its numbers; queueing goes through', () => {
    expect(pressed({ key: 'z', ctrlKey: true }, 'input')).toBeUndefined();
    expect(pressed({ key: 'p' }, 'textarea')).toBeUndefined();
    expect(pressed({ key: '2' }, 'input')).toBeUndefined();
    expect(pressed({ key: 'Enter', ctrlKey: true }, 'input')).toBe('queue');
  });

  test('a list finds its entries by letters and numbers; undo goes through', () => {
    for (const list of ['[role=combobox]', '[role=listbox]']) {
      for (const key of ['p', 'm', '2', '?']) expect(pressed({ key }, list)).toBeUndefined();
      expect(pressed({ key: 'z', ctrlKey: true }, list)).toBe('undo');
    }
  });

  test('Escape leaves what is under way, and is left alone otherwise', () => {
    expect(pressed({ key: 'Escape' }, 'body', true)).toBe('leave');
    expect(pressed({ key: 'Escape' })).toBeUndefined();
  });

  test('the sheet of keys names each once', () => {
    const keys = SHORTCUTS.map(([key]) => key);
    expect(new Set(keys).size).toBe(keys.length);
  });
});
