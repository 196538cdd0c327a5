import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { deltaE, labOf } from '../colour/colour';
import { folded, nearEqual } from './fold';

describe('near-equal colours', () => {
  test('the largest takes the smaller ones within reach, each goes to the nearest', () => {
    const groups = nearEqual(
      [
        { colour: '#ff0000', area: 10 },
        { colour: '#fe0101', area: 500 },
        { colour: '#0000ff', area: 300 },
        { colour: '#0101fd', area: 5 },
        { colour: '#00ff00', area: 1 },
      ],
      3,
    );
    expect(groups).toEqual([
      { into: '#fe0101', from: ['#ff0000'] },
      { into: '#0000ff', from: ['#0101fd'] },
    ]);
  });

  test('whatever the colours: none is in two groups, all are within reach of their head, no two heads are', () => {
    const hex = fc.integer({ min: 0, max: 0xffffff }).map((n) => `#${n.toString(16).padStart(6, '0')}`);
    const painted = fc
      .uniqueArray(hex, { maxLength: 25 })
      .chain((colours) =>
        fc
          .array(fc.integer({ min: 1, max: 999 }), { minLength: colours.length, maxLength: colours.length })
          .map((areas) => colours.map((colour, i) => ({ colour, area: areas[i] }))),
      );
    fc.assert(
      fc.property(painted, fc.constantFrom(2, 8, 20), (colours, limit) => {
        const groups = nearEqual(colours, limit);
        const all = groups.flatMap(({ into, from }) => [into, ...from]);
        expect(new Set(all).size).toBe(all.length);
        const area = new Map(colours.map((one) => [one.colour, one.area]));
        for (const { into, from } of groups)
          for (const colour of from) {
            expect(deltaE(labOf(into), labOf(colour))).toBeLessThanOrEqual(limit);
            expect(area.get(into)!).toBeGreaterThanOrEqual(area.get(colour)!);
          }
        const heads = groups.map(({ into }) => into);
        heads.forEach((a, i) =>
          heads.slice(i + 1).forEach((b) => expect(deltaE(labOf(a), labOf(b))).toBeGreaterThan(limit)),
        );
      }),
      { numRuns: 100 },
    );
  });
});

test('folds lead on to one another, and a circle of them ends', () => {
  const folds = { '#a': '#b', '#b': '#c' };
  expect([folded('#a', folds), folded('#c', folds), folded('#d', folds)]).toEqual(['#c', '#c', '#d']);
  expect(['#a', '#b']).toContain(folded('#a', { '#a': '#b', '#b': '#a' }));
});
