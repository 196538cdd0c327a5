import { expect, test } from '@jest/globals';
import { arrowStep } from './arrowStep';

test.each([
  ['ArrowLeft', false, [-1, 0]],
  ['ArrowRight', true, [10, 0]],
  ['ArrowUp', true, [0, -10]],
  ['ArrowDown', false, [0, 1]],
  ['Enter', false, undefined],
])('%s with Shift %s moves by %j mm', (key, shiftKey, by) =>
  expect(arrowStep({ key, shiftKey } as KeyboardEvent)).toEqual(by),
);
