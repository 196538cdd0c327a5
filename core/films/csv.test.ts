import { describe, expect, test } from '@jest/globals';
import { DEMO_FILMS } from '../../demo/shop';
import { filmsFromCsv, filmsToCsv } from './csv';
import type { Film } from './film';
import { buildOf, finishOf, limitsOf } from './film';

describe('films as a table', () => {
  test('what is written is read again, every film as it was', () => {
    const odd = {
      ...DEMO_FILMS[0],
      id: 'odd',
      name: 'Say "hi", twice\nover',
      price: 4.5,
      thickness: 0.35,
      rolls: [],
    };
    const back = filmsFromCsv(filmsToCsv([...DEMO_FILMS, odd]));
    expect(back.ok && back.films).toHaveLength(DEMO_FILMS.length + 1);
    if (!back.ok) return;
    [...DEMO_FILMS, odd].forEach((film, i) =>
      expect(back.films[i]).toEqual({
        ...film,
        build: buildOf(film),
        finish: finishOf(film),
        limits: limitsOf(film),
      }),
    );
  });

  test('a film is named in any script, and known by its name again', () => {
    const names = ['Красный', 'Синий', '海の青', 'Красный 3', 'Синий 3', 'Grün', 'לבן'];
    const table = (): readonly Film[] => {
      const read = filmsFromCsv(
        `name,colour,roll width mm\n${names.map((name) => `${name},#000000,610`).join('\n')}`,
      );
      if (!read.ok) throw new Error(read.message);
      return read.films;
    };
    expect(table().map(({ name }) => name)).toEqual(names);
    expect(new Set(table().map(({ id }) => id)).size).toBe(names.length);
    expect(table().map(({ id }) => id)).toEqual(table().map(({ id }) => id));
    for (const { id } of table()) expect(id).toMatch(/^[a-z0-9][a-z0-9-]*$/);
  });

  test('columns in another order, semicolons, commas in numbers, no id', () => {
    const table = '\uFEFFcolour;name;roll width mm;price per m\n#1D3F86;Deep Sea;610,5;3,20\n;;;\n';
    const read = filmsFromCsv(table);
    expect(read.ok && read.films).toMatchObject([
      {
        id: 'deep-sea',
        colour: '#1d3f86',
        rolls: [{ width: 610.5, lengthLeft: 0 }],
        price: 3.2,
        build: 'opaque',
      },
    ]);
  });

  test.each([
    ['', 'empty'],
    ['name,colour\nA,#000000', 'no column “roll width mm”'],
    ['name,colour,roll width mm\nA,red,610', 'Line 2: “red” is no colour'],
    ['name,colour,roll width mm\nA,#000000,wide', 'Line 2: the roll width'],
    ['name,colour,roll width mm\nA,#000000,610\nA,#000001,610', 'Line 3: “a” is there twice and not alike'],
    ['name,colour,roll width mm,stack\nA,#000000,610,0.5', 'whole number from 1 to 20'],
    ['name,colour,roll width mm,finish\nA,#000000,610,shiny', '“shiny” is none of'],
    ['name,colour,roll width mm,build\nA,#000000,610,wood', '“wood” is none of'],
    ['name,colour,roll width mm\n', 'no film'],
    ['name,colour,roll width mm\n"A,#000000,610\n', 'Line 2: a quotation mark is not closed'],
  ])('%j is told', (table, says) => {
    const read = filmsFromCsv(table);
    expect(read.ok).toBe(false);
    expect(!read.ok && read.message).toContain(says);
  });

  test('the demo shop has forty-one films, each with an id of its own', () => {
    expect(new Set(DEMO_FILMS.map(({ id }) => id)).size).toBe(44);
  });
});
