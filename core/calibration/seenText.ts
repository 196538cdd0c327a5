/** How a person says where a cut lies beside its print: “0.3 left, 0.2 front”. */
import type { Spot } from '../geometry/spot';
import type { Unit } from '../units/length';
import { formatNumber, parseLength } from '../units/length';

/** As the sheet lies in the cutter, seen from above: the film runs to the right, the front is where a person stands. */
const WAYS: Readonly<Record<string, Spot>> = {
  left: [-1, 0],
  right: [1, 0],
  back: [0, -1],
  up: [0, -1],
  front: [0, 1],
  down: [0, 1],
};
const SAID = /^(.*?)\s*(?:to(?:wards?)?\s+)?(?:the\s+)?(left|right|back|front|up|down)$/i;

/** Behind a word that says which way. */
const BETWEEN = /(?<=left|right|back|front|up|down)\s*(?:[,;·]|and\b)?\s*(?=\S)/i;

export type OffSaid =
  { readonly ok: true; readonly off: Spot } | { readonly ok: false; readonly message: string };

const HOW = 'Say it like “0.3 left, 0.2 front”, or 0 where it lies right.';

/** @param unit of numbers without one */
export function parseOff(text: string, unit: Unit): OffSaid {
  const said = text.trim();
  if (/^0(?:\.0*)?$/.test(said)) return { ok: true, off: [0, 0] };
  const off: [number, number] = [0, 0];
  const used = new Set<number>();
  for (const part of said.split(BETWEEN)) {
    const [, number, word] = SAID.exec(part.trim()) ?? [];
    const way = word && WAYS[word.toLowerCase()];
    if (!way) return { ok: false, message: HOW };
    const parsed = parseLength(number, unit);
    if (!parsed.ok) return parsed;
    const axis = way[0] === 0 ? 1 : 0;
    if (used.has(axis))
      return {
        ok: false,
        message: `${HOW} ${axis === 0 ? 'Left and right' : 'Front and back'} are said once.`,
      };
    used.add(axis);
    off[axis] = way[axis] * parsed.mm;
  }
  return { ok: true, off };
}

/** The same way round, in the shop's unit without saying it: nothing of what is nothing. */
export function formatOff([along, down]: Spot, unit: Unit): string {
  const say = (mm: number, less: string, more: string): string[] =>
    Math.abs(mm) < NOTHING ? [] : [`${formatNumber(Math.abs(mm), unit, true)} ${mm < 0 ? less : more}`];
  return [...say(along, 'left', 'right'), ...say(down, 'back', 'front')].join(', ') || '0';
}
/** mm */
const NOTHING = 0.0005;
