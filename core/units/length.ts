/** Lengths as people type and read them. Everything inside core is millimetres; this is the edge. */

export type Unit = 'mm' | 'in';

export const MM_PER_INCH = 25.4;

/** Whatever a unit may be called, in small letters. */
const MM_PER_UNIT: Readonly<Record<string, number>> = Object.fromEntries(
  (
    [
      [1, ['mm', 'millimetre', 'millimetres', 'millimeter', 'millimeters']],
      [10, ['cm', 'centimetre', 'centimetres', 'centimeter', 'centimeters']],
      [1000, ['m', 'metre', 'metres', 'meter', 'meters']],
      [MM_PER_INCH, ['in', 'inch', 'inches', '"', '”', '″']],
      [12 * MM_PER_INCH, ['ft', 'foot', 'feet', "'", '’', '′']],
      [36 * MM_PER_INCH, ['yd', 'yds', 'yard', 'yards']],
    ] as const
  ).flatMap(([mm, names]) => names.map((name) => [name, mm])),
);
/** The longest first: `m` begins many. */
const UNITS = Object.keys(MM_PER_UNIT)
  .sort((a, b) => b.length - a.length)
  .join('|');

export type ParsedLength =
  { readonly ok: true; readonly mm: number } | { readonly ok: false; readonly message: string };

type Token = { readonly kind: 'number' | 'unit' | 'sign'; readonly text: string; readonly value: number };

/** A value still looking for its unit carries power 0; a length carries power 1. */
type Quantity = { readonly value: number; readonly power: number };

const TOKEN = new RegExp(
  [
    String.raw`\s*(?:(?:(\d+)[\s-]+)?(\d+)\s*\/\s*(\d+)(?=\s*(?:in|f(?:t|oot|eet)|y|["”″'’′]))`,
    String.raw`(\d+)[\s-]+(\d+)\s*\/\s*(\d+)`,
    String.raw`(\d+(?:[.,]\d+)?|[.,]\d+)`,
    `(${UNITS})`,
    String.raw`([-+*x×/()]))`,
  ].join('|'),
  'iy',
);

class LengthError extends Error {}

function tokenize(text: string): Token[] {
  const tokens: Token[] = [];
  TOKEN.lastIndex = 0;
  let end = 0;
  while (end < text.length) {
    if (/^\s*$/.test(text.slice(end))) break;
    TOKEN.lastIndex = end;
    const m = TOKEN.exec(text);
    if (!m) throw new LengthError(`“${text.slice(end).trim()}” is not part of a length`);
    end = TOKEN.lastIndex;
    tokens.push(tokenOf(m));
  }
  return tokens;
}

function tokenOf(m: RegExpExecArray): Token {
  const [text, whole = m[4], over = m[5], under = m[6], , , , number, unit, sign] = m;
  if (under !== undefined) {
    if (Number(under) === 0) throw new LengthError('a fraction cannot be divided by nought');
    return { kind: 'number', text, value: Number(whole ?? 0) + Number(over) / Number(under) };
  }
  if (number !== undefined) return { kind: 'number', text, value: Number(number.replace(',', '.')) };
  if (unit !== undefined)
    return { kind: 'unit', text: unit.toLowerCase(), value: MM_PER_UNIT[unit.toLowerCase()] };
  return { kind: 'sign', text: sign.toLowerCase() === 'x' || sign === '×' ? '*' : sign, value: 0 };
}

/** Recursive descent: sum → product → measure → atom. A unit binds to the number or fraction before it. */
function evaluate(tokens: readonly Token[], unit: Unit): number {
  let at = 0;
  const peek = (text: string): boolean => tokens[at]?.kind === 'sign' && tokens[at].text === text;

  function sum(): Quantity {
    let left = product();
    while (peek('+') || peek('-')) {
      const sign = tokens[at++].text === '+' ? 1 : -1;
      const right = product();
      left = add(left, right, sign);
    }
    return left;
  }

  function product(): Quantity {
    let left = measures();
    while (peek('*') || peek('/')) {
      const times = tokens[at++].text === '*';
      const right = measures();
      if (!times && right.value === 0) throw new LengthError('a length cannot be divided by nought');
      const value = times ? left.value * right.value : left.value / right.value;
      left = { value, power: left.power + (times ? right.power : -right.power) };
    }
    return left;
  }

  /** `3' 6"` is one length: measures that follow one another add up. */
  function measures(): Quantity {
    let left = measure();
    while (left.power === 1 && tokens[at]?.kind === 'number') left = add(left, measure(), 1);
    return left;
  }

  function measure(): Quantity {
    const value = atom();
    return tokens[at]?.kind === 'unit' ? withUnit(value) : value;
  }

  function withUnit(quantity: Quantity): Quantity {
    const token = tokens[at++];
    if (quantity.power !== 0) throw new LengthError(`“${token.text}” stands where no unit can`);
    return { value: quantity.value * token.value, power: 1 };
  }

  function add(a: Quantity, b: Quantity, sign: number): Quantity {
    if (a.power === b.power) return { value: a.value + sign * b.value, power: a.power };
    return { value: inMm(a) + sign * inMm(b), power: 1 };
  }

  function inMm(q: Quantity): number {
    if (q.power === 1) return q.value;
    if (q.power !== 0) throw new LengthError('this comes out as an area, not a length');
    return q.value * (unit === 'in' ? MM_PER_INCH : 1);
  }

  function atom(): Quantity {
    if (peek('-')) {
      at++;
      const inner = atom();
      return { ...inner, value: -inner.value };
    }
    if (peek('(')) {
      at++;
      const inner = sum();
      if (!peek(')')) throw new LengthError('a bracket is not closed');
      at++;
      return inner;
    }
    const token = tokens[at++];
    if (token?.kind !== 'number') throw new LengthError('a number is missing');
    return { value: token.value, power: 0 };
  }

  const total = inMm(sum());
  if (at < tokens.length) throw new LengthError(`“${tokens[at].text.trim()}” is one too many`);
  return total;
}

/**
 * Reads a typed length: `3 in`, `3 1/2"`, `76.2`, `8ft`, `300mm`, `3' 6"`, `2*(40+5)`, decimal comma too.
 * @param text what was typed; numbers without a unit are in `unit`
 * @returns millimetres, or a sentence that says what cannot be read. Never throws.
 */
export function parseLength(text: string, unit: Unit): ParsedLength {
  try {
    if (text.length > 200) throw new LengthError('too long');
    const tokens = tokenize(text);
    if (tokens.length === 0) throw new LengthError('nothing was typed');
    const mm = evaluate(tokens, unit);
    if (!Number.isFinite(mm)) throw new LengthError('the number is too large');
    return { ok: true, mm };
  } catch (error) {
    if (!(error instanceof LengthError)) throw error;
    return { ok: false, message: `Not a length: ${error.message}. Type for instance 300, 3 1/2" or 8ft.` };
  }
}

/**
 * Writes a length for people, always with its unit: 0.1 mm or 0.001 in steps, as the shop reads them.
 * @param mm millimetres
 * @param fine one decimal more, for what is itself a fraction of a millimetre
 */
export function formatLength(mm: number, unit: Unit, fine = false): string {
  return `${formatNumber(mm, unit, fine)} ${unit}`;
}

/** The number of {@link formatLength} alone, for fields and tables that show the unit once. */
export function formatNumber(mm: number, unit: Unit, fine = false): string {
  const more = fine ? 1 : 0;
  return unit === 'mm' ? mm.toFixed(1 + more) : (mm / MM_PER_INCH).toFixed(3 + more);
}

/** Film from here on is told in yards, ft. */
const LONG_FEET = 30;

/** Film on a roll is bought by the metre, the foot or the yard: a longer unit for running length. */
export function formatRun(mm: number, unit: Unit): string {
  if (unit === 'mm') return `${(mm / 1000).toFixed(2)} m`;
  const feet = mm / MM_PER_INCH / 12;
  return feet < LONG_FEET ? `${feet.toFixed(2)} ft` : `${(feet / 3).toFixed(2)} yd`;
}

/** In both units, where a person must not have to reckon: 23.00 in is what a cutter's papers say. */
export const formatBoth = (mm: number): string =>
  `${formatLength(mm, 'mm')} (${(mm / MM_PER_INCH).toFixed(2)} in)`;

/** Areas of film: m² or ft², two decimals. @param mm2 square millimetres */
export function formatArea(mm2: number, unit: Unit): string {
  return unit === 'mm' ? `${(mm2 / 1e6).toFixed(2)} m²` : `${(mm2 / (12 * MM_PER_INCH) ** 2).toFixed(2)} ft²`;
}
