import { describe, expect, test } from '@jest/globals';
import type { Cut, CutState } from '../../../contracts/cuts';
import { sentenceFor } from './sentence';

const units = { length: (mm: number) => `${mm} mm`, number: String, run: (mm: number) => `${mm / 1000} m` };
const FILM = {
  name: 'Damson',
  code: 'G-4107',
  rolls: [{ width: 610, lengthLeft: 9000 }],
} as unknown as Cut['film'];
const cut = (more: Partial<Cut>): Cut =>
  ({
    film: FILM,
    recipe: { force: 80 },
    rollWidth: 610,
    length: 2500,
    lines: 40,
    seconds: 90,
    ...more,
  }) as Cut;
const said = (more: Partial<Cut>, seconds = 0, lines = 0) => sentenceFor(cut(more), seconds, lines, units);

describe('what the tablet says', () => {
  test('which film to load, which way up and how much of it', () => {
    expect(said({ state: 'wants-film', mirrored: false })).toEqual({
      big: 'Load Damson',
      small: 'G-4107 on a 610 mm roll, face up. It takes 2.5 m.',
    });
    expect(said({ state: 'wants-film', mirrored: true }).small).toContain('backing up: it is cut mirrored');
  });

  test('a sheet by its size, and the force where it is a knob', () => {
    const film = { ...FILM, name: 'Card', code: 'K-1' };
    const roll = { width: 580, lengthLeft: 880, sheets: 3 };
    const sheet = cut({ state: 'wants-film', film, roll, rollWidth: 580 });
    expect(sentenceFor(sheet, 0, 0, units, true).small).toBe(
      'K-1 in a sheet of 580 × 880 mm, face up. It takes 2.5 m. Turn the force to 80 g.',
    );
    const offcut = { width: 580, lengthLeft: 880, sheets: 1, offcut: 'D-17' };
    expect(sentenceFor({ ...sheet, roll: offcut }, 0, 0, units).small).toContain(
      'in offcut D-17, 580 × 880 mm, face up',
    );
    // one that lies on the rack, as wide as the roll that it is cut from, is not asked for
    const rolls = [{ ...offcut, width: 610 }, ...FILM.rolls];
    expect(said({ state: 'wants-film', film: { ...FILM, rolls }, roll: FILM.rolls[0] }).small).toContain(
      'on a 610 mm roll',
    );
    const left = cut({ state: 'wants-film', recipe: { force: null } as Cut['recipe'] });
    expect(sentenceFor(left, 0, 0, units, true).small).not.toContain('force');
  });

  test('that a machine says nothing, and how far it is is reckoned', () => {
    const about = said({ state: 'cutting', isReckoned: true }, 30, 11);
    expect(about.big).toBe('Cutting about line 12 of 40');
    expect(about.small).toContain('reckoned: this machine says nothing');
    expect(said({ state: 'cutting' }, 30, 11).big).toBe('Cutting line 12 of 40');
  });

  test('which line is in doubt where the head came to a stand', () => {
    expect(said({ state: 'stopped', inDoubt: 5 }).big).toBe('Is line 5 cut?');
    expect(said({ state: 'stopped', inDoubt: null }).big).toBe('Stopped');
  });

  test('a printed sheet by its number and size, and that its marks are read', () => {
    const sheet = { number: 2, of: 3, width: 420, height: 297, line: 1, marks: [] };
    expect(said({ state: 'wants-film', sheet }).big).toBe('Load sheet 2 of 3');
    expect(said({ state: 'wants-film', sheet }).small).toContain('420 × 297 mm, this side up');
    expect(said({ state: 'wants-film', sheet: { ...sheet, number: 1, of: 1 } }).big).toBe(
      'Load the printed sheet',
    );
    expect(said({ state: 'checking', sheet }).big).toBe('Reading its marks');
  });

  test('which line is cut; the last one stays the last', () => {
    expect(said({ state: 'cutting' }, 30, 12).big).toBe('Cutting line 13 of 40');
    expect(said({ state: 'cutting' }, 90, 40).big).toBe('Cutting line 40 of 40');
  });

  test('every state has a sentence of its own, and so has none', () => {
    const states: CutState[] = ['wants-film', 'checking', 'cutting', 'stopping', 'stopped', 'queued'];
    const all = [sentenceFor(undefined, 0, 0, units), ...states.map((state) => said({ state }))];
    expect(new Set(all.map(({ big }) => big)).size).toBe(all.length);
    for (const { small } of all) expect(small).toMatch(/\.$/);
  });
});
