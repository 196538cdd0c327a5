import { describe, expect, test } from '@jest/globals';
import { lastStep, shareIn } from './steps';

const LINES = '{"share":0.2}\n{"share":0.75}\n';

describe('an answer in steps', () => {
  test.each([
    ['', undefined],
    ['{"sha', undefined],
    ['{"share":0.2}\n', 0.2],
    [LINES, 0.75],
    // the next line is still on its way
    [`${LINES}{"sha`, 0.75],
    [`${LINES}{"value":{"id":7}}`, 0.75],
    // an answer without steps, whole or not, has no share
    ['{"id":7,"name":"a"}', undefined],
    ['{"id":7,"na', undefined],
  ])('%j has come so far: %s', (text, share) => expect(shareIn(text)).toBe(share));

  test('its last line is the value, or what went wrong', () => {
    expect(lastStep(`${LINES}{"value":{"id":7}}`)).toEqual({ value: { id: 7 } });
    const problem = { code: 'cut-off', message: 'It stops in the middle.' };
    expect(lastStep(`${LINES}{"status":422,"problem":${JSON.stringify(problem)}}`)).toEqual({
      status: 422,
      problem,
    });
  });

  test('without steps the answer itself is the value; what broke off is nothing', () => {
    expect(lastStep('{"id":7}')).toEqual({ value: { id: 7 } });
    expect(lastStep(`${LINES}{"val`)).toBeUndefined();
    expect(lastStep('')).toBeUndefined();
  });
});
