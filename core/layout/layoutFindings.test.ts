import { describe, expect, test } from '@jest/globals';
import { CURLEW, DEMO_FILMS, SALTPAN } from '../../demo/shop';
import type { Film, Roll } from '../films/film';
import { limitsOf } from '../films/film';
import { DEFAULT_CHOICES } from '../plan/choices';
import type { Strip } from './strip';
import { endOfStrip, filmFindings, mirrorFindings, noRoll, rollMisfit } from './layoutFindings';

const film = DEMO_FILMS[0];
const roll: Roll = { width: 610, lengthLeft: 10_000 };
const sheets: Roll = { width: 600, lengthLeft: 900, sheets: 3 };
const strip = (length: number, on: Roll = roll): Strip =>
  ({ film, roll: on, length, placements: [] }) as unknown as Strip;
const told = (strips: readonly Strip[], of: Film = film, cutter = CURLEW) =>
  filmFindings(of, strips, cutter).map(({ code, severity, message }) => [code, severity, message]);
const track = Math.min(CURLEW.trackLength, limitsOf(film).track);

describe('what ends a strip first', () => {
  test('the shorter of how long the film and the cutter run true', () => {
    expect(endOfStrip(film, roll, CURLEW)).toMatchObject({ limit: track, isHard: false });
    const slippery: Film = { ...film, limits: { track: 1200 } };
    expect(endOfStrip(slippery, roll, CURLEW)).toEqual({
      limit: 1200,
      why: 'it runs true for 1.20 m',
      isHard: false,
    });
    expect(endOfStrip(film, roll, { ...CURLEW, trackLength: 700 }).why).toBe(
      'Curlew keeps film true for 0.70 m',
    );
  });

  test('a sheet, and the bed of a flatbed, are no longer than they are', () => {
    expect(endOfStrip(film, sheets, CURLEW)).toMatchObject({ limit: 900, isHard: true });
    expect(endOfStrip(film, { ...sheets, lengthLeft: 5000 }, SALTPAN)).toMatchObject({
      limit: SALTPAN.trackLength,
      isHard: true,
    });
  });
});

describe('what a film’s strips want looked at', () => {
  test('nothing, while it is long enough and runs true', () => {
    expect(told([strip(track)])).toEqual([]);
  });

  test('film that is thicker than what goes under the knife stops; what is as thick, or a knife that takes anything, does not', () => {
    const card: Film = { ...film, thickness: 0.81 };
    expect(told([strip(100)], card)).toEqual([
      ['too-thick', 'stop', `${film.name} is 0.81 mm thick with its backing; Curlew takes 0.80 mm.`],
    ]);
    expect(told([strip(100)], { ...film, thickness: 0.8 })).toEqual([]);
    expect(told([strip(100)], card, { ...CURLEW, thickest: undefined })).toEqual([]);
  });

  test('a strip that runs longer than true is checked, one longer than its sheet stops', () => {
    expect(told([strip(track + 1)])[0].slice(0, 2)).toEqual(['long-track', 'check']);
    const [code, severity, message] = told([strip(950, sheets)])[0];
    expect([code, severity]).toEqual(['too-long', 'stop']);
    expect(message).toBe(`${film.name} runs 0.95 m in one go; its sheets are 0.90 m long.`);
  });

  test('a roll that ends too soon, by all that is cut from it; sheets are counted', () => {
    const short: Roll = { width: 610, lengthLeft: 3000 };
    expect(told([strip(2000, short), strip(1500, short)])[0]).toEqual([
      'film-short',
      'check',
      `${film.name} needs 3.50 m of film; 3.00 m is left on the roll.`,
    ]);
    const four = Array.from({ length: 4 }, () => strip(800, sheets));
    expect(told(four)[0][2]).toBe(`${film.name} needs 4 sheets; 3 lie on the shelf.`);
    expect(told([strip(800, { ...sheets, sheets: 1 }), strip(800, { ...sheets, sheets: 1 })]).length).toBe(1);
  });

  test('several strips say why, once', () => {
    const long = { ...roll, lengthLeft: 50_000 };
    expect(told([strip(track - 10, long), strip(track - 10, long)])).toEqual([
      [
        'several-strips',
        'note',
        expect.stringMatching(
          /goes over 2 strips, [\d.]+ m in all: (it runs true for|Curlew keeps film true)/,
        ),
      ],
    ]);
  });
});

test('no roll, and none that the cutter takes, each with a way out', () => {
  for (const finding of [
    noRoll(film),
    rollMisfit({ ...film, rolls: [{ width: 1600, lengthLeft: 1 }] }, CURLEW),
  ]) {
    expect(finding.severity).toBe('stop');
    expect(finding.waysOut).toHaveLength(2);
  }
  expect(rollMisfit({ ...film, rolls: [{ width: 1600, lengthLeft: 1 }] }, CURLEW).message).toContain(
    '1600.0 mm (62.99 in) wide; Curlew takes',
  );
});

test('mirrored as the film needs is a note, against it is checked', () => {
  const { layout } = DEFAULT_CHOICES;
  const garment: Film = { ...film, cutFromBack: true };
  const code = (of: Film, mirror: typeof layout.mirror) =>
    mirrorFindings(of, { ...layout, mirror }).map(({ code: one, severity }) => `${one} ${severity}`);
  expect(code(film, 'by-film')).toEqual([]);
  expect(code(garment, 'by-film')).toEqual(['mirrored-by-film note']);
  expect(code(film, 'mirrored')).toEqual(['mirror-unusual check']);
  expect(code(garment, 'not-mirrored')).toEqual(['mirror-unusual check']);
  expect(code(garment, 'mirrored')).toEqual([]);
  expect(code(film, 'not-mirrored')).toEqual([]);
});
