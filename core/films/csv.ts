/** The shop's films as a table that any spreadsheet opens (RFC 4180). */
import { labOf } from './colour';
import type { Film } from './film';
import { limitsOf } from './film';
import type { Build } from './overlap';
import { buildOf } from './overlap';

const COLUMNS = [
  'id',
  'name',
  'code',
  'colour',
  'build',
  'kind',
  'roll width mm',
  'length left mm',
  'cut from back',
  'narrowest mm',
  'island mm2',
  'gap mm',
  'price per m',
] as const;
const BUILDS: readonly Build[] = ['opaque', 'metallic', 'translucent', 'flock'];

/** A film a line, its colour as `#rrggbb`. */
export function filmsToCsv(films: readonly Film[]): string {
  const lines = films.map((film) => {
    const { narrowest, island, gap } = limitsOf(film);
    const values = [
      film.id,
      film.name,
      film.code,
      film.colour,
      buildOf(film),
      film.kind,
      film.rollWidth,
      film.lengthLeft,
      film.cutFromBack ? 'yes' : 'no',
      narrowest,
      island,
      gap,
      film.price ?? '',
    ];
    return values.map((value) => quoted(String(value))).join(',');
  });
  return [COLUMNS.join(','), ...lines, ''].join('\r\n');
}

const quoted = (text: string): string => (/[",\r\n]/.test(text) ? `"${text.replaceAll('"', '""')}"` : text);

export type FilmTable =
  { readonly ok: true; readonly films: readonly Film[] } | { readonly ok: false; readonly message: string };

/** Reads such a table; columns may come in any order, a film without an id gets one from its name. */
export function filmsFromCsv(text: string): FilmTable {
  const [head, ...rows] = parseCsv(text.replace(/^\uFEFF/, ''));
  if (!head) return { ok: false, message: 'The table is empty.' };
  const at = new Map(head.map((name, i) => [name.trim().toLowerCase(), i]));
  const missing = ['name', 'colour', 'roll width mm'].filter((name) => !at.has(name));
  if (missing.length > 0) return { ok: false, message: `The table has no column “${missing.join('”, “')}”.` };
  const films: Film[] = [];
  for (const [i, row] of rows.entries()) {
    if (row.every((cell) => cell.trim() === '')) continue;
    const film = filmOf((name) => row[at.get(name) ?? -1]?.trim() ?? '');
    if (typeof film === 'string') return { ok: false, message: `Line ${i + 2}: ${film}` };
    films.push(film);
  }
  const twice = films.find((film, i) => films.findIndex(({ id }) => id === film.id) !== i);
  if (twice)
    return { ok: false, message: `“${twice.id}” is there twice: every film needs an id of its own.` };
  return films.length === 0 ? { ok: false, message: 'The table has no film.' } : { ok: true, films };
}

function filmOf(cell: (name: string) => string): Film | string {
  const name = cell('name');
  if (name === '') return 'the film has no name.';
  const colour = cell('colour').toLowerCase();
  if (!/^#[0-9a-f]{6}$/.test(colour)) return `“${cell('colour')}” is no colour such as #1d3f86.`;
  const number = (column: string, otherwise: number): number => {
    const text = cell(column).replace(',', '.');
    return text === '' ? otherwise : Number(text);
  };
  const id =
    cell('id') ||
    name
      .toLowerCase()
      .replace(/[^a-z0-9]+/g, '-')
      .replace(/^-|-$/g, '');
  if (!/^[\w-]{1,60}$/.test(id)) return `“${id}” is no id: letters, digits and hyphens only.`;
  const kind = cell('kind') === 'garment' ? 'garment' : 'sign';
  const build = (cell('build') || (kind === 'garment' ? 'flock' : 'opaque')) as Build;
  if (!BUILDS.includes(build)) return `“${build}” is none of ${BUILDS.join(', ')}.`;
  const film: Film = {
    id,
    name,
    code: cell('code'),
    colour,
    kind,
    build,
    rollWidth: number('roll width mm', NaN),
    lengthLeft: number('length left mm', 0),
    cutFromBack: /^(yes|true|1)$/i.test(cell('cut from back')),
    limits: {
      narrowest: number('narrowest mm', 1.5),
      island: number('island mm2', 3),
      gap: number('gap mm', 0.3),
    },
    ...(cell('price per m') === '' ? {} : { price: number('price per m', NaN) }),
  };
  return numbersTrouble(film) ?? film;
}

function numbersTrouble({ rollWidth, lengthLeft, limits, price }: Film): string | undefined {
  if (!(rollWidth >= 20 && rollWidth <= 5000)) return 'the roll width has to lie between 20 and 5000 mm.';
  if (!(lengthLeft >= 0 && lengthLeft <= 1e7)) return 'the length left is no length.';
  if (![limits!.narrowest, limits!.island, limits!.gap].every((value) => value >= 0 && value <= 1000))
    return 'a limit is no number.';
  return price === undefined || (price >= 0 && price < 1e6) ? undefined : 'the price is no number.';
}

/** RFC 4180, with semicolons where a spreadsheet of another country wrote them. */
function parseCsv(text: string): string[][] {
  const separator = text.slice(0, text.search(/[\r\n]|$/)).includes(';') ? ';' : ',';
  const rows: string[][] = [];
  let row: string[] = [];
  let cell = '';
  let inside = false;
  for (let i = 0; i < text.length; i++) {
    const c = text[i];
    if (inside) {
      if (c === '"' && text[i + 1] === '"') cell += text[++i];
      else if (c === '"') inside = false;
      else cell += c;
    } else if (c === '"' && cell === '') inside = true;
    else if (c === separator) {
      row.push(cell);
      cell = '';
    } else if (c === '\n' || c === '\r') {
      if (c === '\r' && text[i + 1] === '\n') i++;
      rows.push([...row, cell]);
      row = [];
      cell = '';
    } else cell += c;
  }
  if (cell !== '' || row.length > 0) rows.push([...row, cell]);
  return rows;
}

/** L*, a*, b* of a film for a person, to one decimal. */
export function labText(colour: string): string {
  const { l, a, b } = labOf(colour);
  return [l, a, b].map((v) => v.toFixed(1)).join(' ');
}
