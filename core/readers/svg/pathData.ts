import type { Path } from '../../geometry/path';

const TAKES: Readonly<Record<number, number>> = { 77: 2, 76: 2, 67: 6, 81: 4 };

/**
 * Reads resolved path data: absolute M, L, C, Q and Z only. Quadratics are raised to cubics exactly.
 * Steps with coordinates that are not finite end the path there. One pass over the characters: path data is nearly
 * all of a large drawing.
 */
export function parsePathData(d: string): Path {
  const ops: string[] = [];
  const xy: number[] = [];
  const values = [0, 0, 0, 0, 0, 0];
  let command = 0;
  let takes = 0;
  let first = true;
  let i = 0;
  const n = d.length;
  for (;;) {
    i = toToken(d, i);
    if (i >= n) break;
    const code = d.charCodeAt(i);
    if (code === 90 /* Z */) {
      ops.push('Z');
      takes = 0;
      i++;
      continue;
    }
    if (TAKES[code] !== undefined) {
      command = code;
      takes = TAKES[code];
      first = true;
      i++;
      continue;
    }
    if (takes === 0 || !isNumberStart(code)) {
      i++;
      continue;
    }
    let k = 0;
    for (; k < takes; k++) {
      i = toToken(d, i);
      const end = numberEnd(d, i);
      if (end === i) break;
      values[k] = toNumber(d, i, end);
      i = end;
    }
    if (k < takes) continue;
    for (k = 0; k < takes; k++) if (!Number.isFinite(values[k])) return { ops: ops.join(''), xy };
    if (command === 81 /* Q */) raise(xy, values);
    else for (k = 0; k < takes; k++) xy.push(values[k]);
    ops.push(takes > 2 ? 'C' : command === 77 && first ? 'M' : 'L');
    first = false;
  }
  return { ops: ops.join(''), xy };
}

/** The next character that is neither blank nor comma. */
function toToken(d: string, from: number): number {
  let i = from;
  for (
    let code = d.charCodeAt(i);
    code === 32 || code === 44 || (code >= 9 && code <= 13);
    code = d.charCodeAt(++i)
  );
  return i;
}

const isDigit = (code: number): boolean => code >= 48 && code <= 57;
const isNumberStart = (code: number): boolean => isDigit(code) || code === 45 || code === 43 || code === 46;

/** Where a number that begins at `from` ends; `from` itself when none does. */
function numberEnd(d: string, from: number): number {
  let i = from;
  let code = d.charCodeAt(i);
  if (code === 45 || code === 43) code = d.charCodeAt(++i);
  let digits = 0;
  for (; isDigit(code); code = d.charCodeAt(++i)) digits++;
  if (code === 46) {
    code = d.charCodeAt(++i);
    for (; isDigit(code); code = d.charCodeAt(++i)) digits++;
  }
  if (digits === 0) return from;
  if (code !== 101 && code !== 69) return i;
  let end = i + 1;
  code = d.charCodeAt(end);
  if (code === 45 || code === 43) code = d.charCodeAt(++end);
  if (!isDigit(code)) return i;
  while (isDigit(d.charCodeAt(end))) end++;
  return end;
}

/** Plain decimals of few digits are put together here, exactly; all else is left to the engine. */
function toNumber(d: string, from: number, end: number): number {
  if (end - from > 15) return Number(d.slice(from, end));
  let value = 0;
  let scale = 0;
  let i = from;
  const first = d.charCodeAt(i);
  if (first === 45 || first === 43) i++;
  for (; i < end; i++) {
    const code = d.charCodeAt(i);
    if (isDigit(code)) {
      value = value * 10 + code - 48;
      if (scale > 0) scale *= 10;
    } else if (code === 46) scale = 1;
    else return Number(d.slice(from, end));
  }
  const size = scale > 1 ? value / scale : value;
  return first === 45 ? -size : size;
}

/** Degree elevation of a quadratic Bézier from the last point. */
function raise(xy: number[], [x1, y1, x2, y2]: readonly number[]): void {
  const x0 = xy[xy.length - 2];
  const y0 = xy[xy.length - 1];
  xy.push(x0 + (2 / 3) * (x1 - x0), y0 + (2 / 3) * (y1 - y0));
  xy.push(x2 + (2 / 3) * (x1 - x2), y2 + (2 / 3) * (y1 - y2), x2, y2);
}
