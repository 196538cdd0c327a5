import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { PreparedShape } from '../artwork/preparePiece';
import type { Region } from '../geometry/region';
import { intersection, outlineLength, rectangle, regionArea, regionBounds, weld } from '../geometry/region';
import type { Film } from './film';
import { isCutLine } from './colourPlan';
import { seenColours } from './seen';
import type { FilmChoices } from './separate';
import { nearestFilm, NO_FILM_CHOICES, separate } from './separate';

const box = (colour: string, x: number, y: number, w: number, h: number): PreparedShape => {
  const region = rectangle({ minX: x, minY: y, maxX: x + w, maxY: y + h });
  return { colour, region, bounds: regionBounds(region), ref: 'p1/0' };
};
const film = (id: string, colour: string, more: Partial<Film> = {}): Film => ({
  id,
  name: id,
  code: id,
  colour,
  rolls: [{ width: 610, lengthLeft: 20_000 }],
  cutFromBack: false,
  kind: 'sign',
  ...more,
});
const RED = '#ff0000';
const BLUE = '#0000ff';
const GREEN = '#00aa00';
const NONE: FilmChoices = NO_FILM_CHOICES;
const areaOf = (region: Region): number => regionArea(region);

describe('a picture that is printed as it is', () => {
  const shown = { file: 'f', part: { page: null, box: null, font: null }, width: 9, height: 9 };
  const photo = { ...box(RED, 0, 0, 40, 30), picture: { ...shown, matrix: [1, 0, 0, 1, 0, 0] as const } };
  const goes = (choices: FilmChoices) =>
    separate(seenColours([photo]), choices, [film('red', '#ee1111')]).colours.map(
      ({ goesTo, film: onto }) => [goesTo, onto?.id],
    );

  test('goes to print by itself; a film that is picked for it is cut to its outline', () => {
    expect(goes(NONE)[0][0]).toBe('print');
    expect(goes({ ...NONE, film: { [RED]: 'red' } })).toEqual([['film', 'red']]);
  });
});

describe('what is seen', () => {
  test('the upper hides the lower; a hole stays a hole', () => {
    const [red, blue] = seenColours([box(RED, 0, 0, 100, 100), box(BLUE, 20, 20, 10, 10)]);
    expect(red.area).toBeCloseTo(9900, 6);
    expect(red.region).toHaveLength(2);
    expect(blue.area).toBeCloseTo(100, 6);
  });

  test('a colour that is wholly covered is not there', () => {
    expect(seenColours([box(RED, 10, 10, 10, 10), box(BLUE, 0, 0, 50, 50)]).map((s) => s.colour)).toEqual([
      BLUE,
    ]);
  });

  test('overlapping shapes of one colour are one outline, also with another colour in between', () => {
    const [red] = seenColours([box(RED, 0, 0, 60, 40), box(BLUE, 30, 10, 40, 20), box(RED, 50, 0, 60, 40)]);
    expect(red.region).toHaveLength(2);
    expect(red.area).toBeCloseTo(60 * 40 + 50 * 40 - 20 * 20, 0);
  });

  test('rounding leaves no slit where the same colour meets itself under an odd angle', () => {
    const slanted = (colour: string, k: number): PreparedShape => {
      const region = weld([Float64Array.of(0, k, 97.3, 31.7 + k, 61.1, 88.9 + k, 3.7, 71.3 + k)]);
      return { colour, region, bounds: regionBounds(region), ref: 'p1/0' };
    };
    const [red] = seenColours([slanted(RED, 0), slanted(BLUE, 13.37), slanted(RED, 13.371)]);
    expect(red.region).toHaveLength(1);
  });
});

const shapes = fc.array(
  fc
    .record({
      colour: fc.constantFrom(RED, BLUE, GREEN, '#ffcc00'),
      points: fc.array(fc.integer({ min: 0, max: 200_000 }), { minLength: 6, maxLength: 12 }),
    })
    .map(({ colour, points }) => {
      const even = points.slice(0, points.length - (points.length % 2));
      const region = weld([Float64Array.from(even, (v) => v / 1000)], 'evenodd');
      return { colour, region, bounds: regionBounds(region), ref: 'p1/0' };
    })
    .filter(({ region }) => region.length > 0),
  { minLength: 1, maxLength: 14 },
);

test('butt films are disjoint and together they are the silhouette, to outline length × the grid', () => {
  fc.assert(
    fc.property(shapes, (pile) => {
      const seen = seenColours(pile);
      const silhouette = weld(pile.flatMap((shape) => shape.region));
      const outline = seen.reduce((sum, s) => sum + outlineLength(s.region), 0);
      // every boolean may round each edge by a grid step of 1 µm, and thinner slivers are dropped
      const slack = 0.003 * (outline + pile.reduce((sum, s) => sum + outlineLength(s.region), 0)) + 1e-6;
      const total = seen.reduce((sum, s) => sum + s.area, 0);
      expect(Math.abs(total - areaOf(silhouette))).toBeLessThan(slack);
      for (let i = 0; i < seen.length; i++) {
        for (let k = i + 1; k < seen.length; k++) {
          expect(areaOf(intersection(seen[i].region, seen[k].region))).toBeLessThan(slack);
        }
      }
    }),
    // a fixed seed: about one in two thousand of such piles upsets the polygon library itself
    { numRuns: 150, seed: 20261123 },
  );
});

describe('films', () => {
  const stock = [
    film('currant', '#b0202f'),
    film('harbour', '#1d3f86'),
    film('samphire', '#5b8a3a'),
    film('flock', RED, { kind: 'garment', cutFromBack: true }),
  ];
  const seen = seenColours([
    box(RED, 0, 0, 50, 50),
    box(BLUE, 60, 0, 50, 50),
    box('#0000f0', 105, 0, 30, 50),
  ]);

  test('each colour gets the nearest sign film; near colours land on one film and are welded', () => {
    const { colours, films } = separate(seen, NONE, stock);
    expect(colours.map((c) => c.film?.id)).toEqual(['currant', 'harbour', 'harbour']);
    expect(films.map((f) => f.film.id)).toEqual(['currant', 'harbour']);
    expect(films[1].region).toHaveLength(1);
    expect(colours.every((c) => c.proposed && c.deltaE > 0)).toBe(true);
  });

  test('a picked film, a colour switched off, an order', () => {
    const { colours, films } = separate(
      seen,
      { ...NONE, film: { [RED]: 'flock' }, off: ['#0000f0'], order: [BLUE, RED] },
      stock,
    );
    expect(colours.map((c) => c.colour)).toEqual([BLUE, RED, '#0000f0']);
    expect(films.map((f) => [f.film.id, Math.round(f.area)])).toEqual([
      ['harbour', 2250],
      ['flock', 2500],
    ]);
    expect(colours[1].deltaE).toBeCloseTo(0, 6);
  });

  test('everything off keeps the order from the cutter; a far film wants a look', () => {
    const off = separate(seen, { ...NONE, off: seen.map((s) => s.colour) }, stock);
    expect(off.findings.map((f) => [f.code, f.severity])).toEqual([['all-off', 'stop']]);
    const far = separate(seenColours([box('#ffffff', 0, 0, 9, 9)]), NONE, stock);
    expect(far.findings[0]).toMatchObject({ code: 'film-far-off', severity: 'check' });
  });

  test('an empty stock proposes nothing', () => {
    expect(nearestFilm(RED, [])).toBeUndefined();
    expect(separate(seen, NONE, []).films).toEqual([]);
  });
});

test('a colour that goes to print is cut from no film, nothing lies under it, and it is told', () => {
  const pile = [box(RED, 0, 0, 100, 100), box(BLUE, 20, 20, 10, 10)];
  const films = [film('r', RED), film('b', BLUE)];
  const { colours, films: cut, findings } = separate(seenColours(pile), { ...NONE, print: [BLUE] }, films);
  expect(colours.map(({ goesTo }) => goesTo)).toEqual(['film', 'print']);
  expect(cut.map(({ film: { id } }) => id)).toEqual(['r']);
  expect(areaOf(cut[0].region)).toBeCloseTo(9900, 6);
  expect(findings.map(({ code }) => code)).toEqual(['to-print']);
  const found = (choices: Partial<FilmChoices>) =>
    separate(seenColours(pile), { ...NONE, ...choices }, films).findings.map(({ code }) => code);
  expect(found({ print: [BLUE, RED] })).toEqual(['to-print']);
  expect(found({ off: [BLUE, RED] })).toEqual(['all-off']);
});

test('a colour of lines alone that goes to print is cut on the sheet, and not said to be printed', () => {
  const line = (kind: 'through' | 'print') => ({
    ref: 'p1/9',
    colour: GREEN,
    kind,
    closed: true,
    points: Float64Array.of(0, 0, 50, 0, 50, 50),
    bounds: { minX: 0, minY: 0, maxX: 50, maxY: 50 },
  });
  const said = (kind: 'through' | 'print') => {
    const seen = seenColours([box(RED, 0, 0, 40, 40)], [line(kind)]);
    const { colours, findings } = separate(seen, { ...NONE, print: [RED, GREEN] }, []);
    return { cut: colours.filter(isCutLine).map(({ colour }) => colour), says: findings[0].message };
  };
  expect(said('through')).toEqual({ cut: [GREEN], says: expect.stringMatching(/^#ff0000 goes to print/) });
  expect(said('print').cut).toEqual([]);
});
