import { describe, expect, test } from '@jest/globals';
import type { Cut } from '../../../contracts/cuts';
import type { CutterState } from '../../../contracts/shop';
import { answersOf, asksOf } from './asks';

const cut = (state: Cut['state']): Cut =>
  ({ state, film: { name: 'Damson' }, seconds: 600, secondsDone: 300 }) as Cut;

describe('what a machine asks for', () => {
  test.each([
    [[], 'Nothing to do', false],
    [[cut('queued')], 'About to begin', false],
    [[cut('wants-film'), cut('queued')], 'Load Damson', true],
    [[cut('checking')], 'Looking at its film', false],
    [[cut('cutting')], 'Cutting Damson, 5 min left', false],
    [[cut('stopping')], 'Stopping', false],
    [[cut('queued'), cut('stopped')], 'Stopped in Damson: go on, or start again', true],
  ] as const)('%#', (cuts, says, isAsking) => expect(asksOf(cuts)).toEqual({ says, isAsking }));
});

test('what it answers, or why it does not', () => {
  const units = { length: (mm: number) => `${mm} mm`, number: String, run: (mm: number) => `${mm / 1000} m` };
  const state = (more: Partial<CutterState>): CutterState =>
    ({ state: 'answers', film: null, problem: null, ...more }) as CutterState;
  expect(answersOf(state({}), units)).toBe('Answers; no film is in it');
  expect(answersOf(state({ film: { width: 610, length: 2000 } }), units)).toBe(
    'Answers; film in it 610 mm × 2 m',
  );
  expect(answersOf(state({ state: 'away', problem: 'the port is closed' }), units)).toContain(
    'Does not answer: the port is closed.',
  );
  expect(answersOf(state({ state: 'at-work' }), units)).toBe('At work');
});
