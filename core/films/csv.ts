/** The shop's films as a table that any spreadsheet opens (RFC 4180): a line for each roll or pile of sheets. */
import Papa from 'papaparse';
import { csvText } from '../units/csvText';
import type { Build, Film, Finish, PrintGround, Roll } from './film';
import { BUILDS, buildOf, FINISHES, finishOf, limitsOf, PRINT_GROUNDS } from './film';

const COLUMNS = [
  'id',
  'name',
  'code',
  'colour',
  'build',
  'finish',
  'kind',
  'roll width mm',
  'length left mm',
  'sheets',
  'offcut',
  'cut from back',
  'narrowest mm',
  'island mm2',
  'gap mm',
  'stack',
  'track mm',
  'price per m',
  'printed on',
  'thickness mm',
  'order below mm',
] as const;

/** Colours are `#rrggbb`; a film without a roll has one line without a width. */
export function filmsToCsv(films: readonly Film[]): string {
  const data = films.flatMap((film) => {
    const rolls = film.rolls.length > 0 ? film.rolls : [undefined];
    return rolls.map((roll) => lineOf(film, roll));
  });
  return csvText(COLUMNS, data, true);
}

function lineOf(film: Film, roll: Roll | undefined): (string | number)[] {
  const { narrowest, island, gap, stack, track } = limitsOf(film);
  return [
    film.id,
    film.name,
    film.code,
    film.colour,
    buildOf(film),
    finishOf(film),
    film.kind,
    roll?.width ?? '',
    roll?.lengthLeft ?? '',
    roll?.sheets ?? '',
    roll?.offcut ?? '',
    film.cutFromBack ? 'yes' : 'no',
    narrowest,
    island,
    gap,
    stack,
    track,
    film.price ?? '',
    film.print ?? '',
    film.thickness ?? '',
    film.low ?? '',
  ];
}

export type FilmTable =
  { readonly ok: true; readonly films: readonly Film[] } | { readonly ok: false; readonly message: string };

/**
 * Reads such a table; columns may come in any order, a film without an id gets one from its name. Lines of one id are
 * rolls of one film, and may differ in nothing else.
 */
export function filmsFromCsv(text: string): FilmTable {
  if (text.trim() === '') return { ok: false, message: 'The table is empty.' };
  // semicolons and tabs, where a spreadsheet of another country wrote them
  const { data, errors } = Papa.parse<string[]>(text, { delimitersToGuess: [',', ';', '\t'] });
  const open = errors.find(({ type }) => type === 'Quotes');
  if (open) return { ok: false, message: `Line ${(open.row ?? 0) + 1}: a quotation mark is not closed.` };
  const [head, ...rows] = data;
  const at = new Map(head.map((name, i) => [name.trim().toLowerCase(), i]));
  const missing = ['name', 'colour', 'roll width mm'].filter((name) => !at.has(name));
  if (missing.length > 0) return { ok: false, message: `The table has no column “${missing.join('”, “')}”.` };
  const films = new Map<string, Film>();
  for (const [i, row] of rows.entries()) {
    if (row.every((cell) => cell.trim() === '')) continue;
    const film = filmOf((name) => row[at.get(name) ?? -1]?.trim() ?? '');
    if (typeof film === 'string') return { ok: false, message: `Line ${i + 2}: ${film}` };
    const before = films.get(film.id);
    const joined = before ? { ...before, rolls: [...before.rolls, ...film.rolls] } : film;
    if (before && !isSameFilm(before, film)) {
      const message = `Line ${i + 2}: “${film.id}” is there twice and not alike: two rolls of one film differ in width and length only.`;
      return { ok: false, message };
    }
    films.set(film.id, joined);
  }
  if (films.size === 0) return { ok: false, message: 'The table has no film.' };
  return { ok: true, films: [...films.values()] };
}

const isSameFilm = (a: Film, b: Film): boolean =>
  JSON.stringify({ ...a, rolls: [] }) === JSON.stringify({ ...b, rolls: [] });

/**
 * An id for a film that a table gives none, always the same one for a name. Of names in other scripts too little is left
 * in Latin letters to tell them apart: a number made of the whole name does (FNV-1a, RFC draft-eastlake-fnv).
 */
function idFrom(name: string): string {
  const latin = name
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-|-$/g, '')
    .slice(0, 50);
  if (latin !== '' && !/[^\P{L}\p{Script=Latin}]/u.test(name)) return latin;
  let hash = 0x811c9dc5;
  for (const char of name.normalize('NFC')) hash = Math.imul(hash ^ char.codePointAt(0)!, 0x01000193) >>> 0;
  return [latin || 'film', hash.toString(36)].join('-');
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
  const id = cell('id') || idFrom(name);
  if (!/^[A-Za-z0-9][\w-]{0,59}$/.test(id))
    return `“${id}” is no id: a letter or digit, then letters, digits and hyphens only.`;
  const kind = cell('kind') === 'garment' ? 'garment' : 'sign';
  const build = (cell('build') || (kind === 'garment' ? 'flock' : 'opaque')) as Build;
  if (!BUILDS.includes(build)) return `“${build}” is none of ${BUILDS.join(', ')}.`;
  const finish = (cell('finish') || (kind === 'garment' ? 'matt' : 'gloss')) as Finish;
  if (!FINISHES.includes(finish)) return `“${finish}” is none of ${FINISHES.join(', ')}.`;
  const print = cell('printed on') as PrintGround | '';
  if (print !== '' && !PRINT_GROUNDS.includes(print))
    return `“${print}” is none of ${PRINT_GROUNDS.join(', ')}.`;
  const ordinary = limitsOf({ id, name, code: '', colour, rolls: [], cutFromBack: false, kind, build });
  const isOnShelf = cell('roll width mm') !== '';
  const roll = { width: number('roll width mm', NaN), lengthLeft: number('length left mm', 0) };
  const isOffcut = cell('offcut') !== '';
  const sheets = cell('sheets') === '' && !isOffcut ? {} : { sheets: number('sheets', 1) };
  const offcut = isOffcut ? { offcut: cell('offcut') } : {};
  const film: Film = {
    id,
    name,
    code: cell('code'),
    colour,
    kind,
    build,
    finish,
    rolls: isOnShelf ? [{ ...roll, ...sheets, ...offcut }] : [],
    cutFromBack: /^(yes|true|1)$/i.test(cell('cut from back')),
    limits: {
      narrowest: number('narrowest mm', ordinary.narrowest),
      island: number('island mm2', ordinary.island),
      gap: number('gap mm', ordinary.gap),
      stack: number('stack', ordinary.stack),
      track: number('track mm', ordinary.track),
    },
    ...(cell('price per m') === '' ? {} : { price: number('price per m', NaN) }),
    ...(cell('thickness mm') === '' ? {} : { thickness: number('thickness mm', NaN) }),
    ...(cell('order below mm') === '' ? {} : { low: number('order below mm', NaN) }),
    ...(print === '' ? {} : { print }),
  };
  return numbersTrouble(film) ?? film;
}

function numbersTrouble(film: Film): string | undefined {
  const { rolls, price, thickness, low = 0 } = film;
  if (!rolls.every(({ width }) => width >= 20 && width <= 5000))
    return 'the roll width has to lie between 20 and 5000 mm.';
  if (!rolls.every(({ lengthLeft }) => lengthLeft >= 0 && lengthLeft <= 1e7))
    return 'the length left is no length.';
  if (!rolls.every(({ offcut = '' }) => offcut.length <= 12))
    return 'what is written on an offcut is longer than 12 letters.';
  if (!rolls.every(({ sheets = 0 }) => Number.isInteger(sheets) && sheets >= 0 && sheets <= 1e5))
    return 'how many sheets there are is no whole number.';
  const { narrowest, island, gap, stack, track } = limitsOf(film);
  if (![narrowest, island, gap].every((value) => value >= 0 && value <= 1000)) return 'a limit is no number.';
  if (!Number.isInteger(stack) || stack < 1 || stack > 20)
    return 'how many films may lie on it is a whole number from 1 to 20.';
  if (!(track >= 10 && track <= 1e6)) return 'how long it runs true is no length.';
  if (!(low >= 0 && low <= 1e6)) return 'below what it is ordered is no length.';
  if (thickness !== undefined && !(thickness >= 0.01 && thickness <= 20))
    return 'the thickness is no number of mm.';
  return price === undefined || (price >= 0 && price < 1e6) ? undefined : 'the price is no number.';
}
