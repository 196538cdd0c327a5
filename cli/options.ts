/** How the command line is read. */
import { parseArgs } from 'node:util';
import { parseLength } from '../core/units/length';

export class UsageProblem extends Error {}

export const USAGE =
  'Usage: npm run plan -- art.svg [more.svg …] [--width 600] [--height 300] [--roll 610] [--mirror] [--copies 2] [--out DIR]\n' +
  '       [--panels when-needed|straight|wandering|pieces|equal|media|3x2|never] [--overlap 12] [--reserve 12.7]\n' +
  '       [--keep-whole id,id] for what is larger than the cutter\n' +
  '       [--pack one|word|piece] [--spacing 3] [--turns none|quarter|free] [--rounds 300] [--seed 1] to take less film\n' +
  '       [--weed-lines 120] [--border box|copy|follow|none] to take the waste apart\n' +
  '       [--print --sheet A3|420x297 --contour 2 (--contour=-1 inside) --bleed 2 --marks in|out|dots --copies 12 --spacing 4] to print and cut around\n' +
  '       [--cut-lines] cut lines in the PDF too, as spot colours\n' +
  '       [--page 2] for PDF, [--units mm|cm|m|in|ft|pt] for DXF, [--trace brightness|alpha|print|0.4|5] for pictures\n' +
  '       [--choices order.json] an order’s stored choices: with the files of its pieces it is planned as the app plans it, packing included;\n' +
  '       [--order-number 2048] as it is written on panels, [--sharing sharing.json] what it is cut with (GET /api/orders/{id}/sharing)\n' +
  'Ends with 0 when there is something to cut, 1 when there is only what keeps it back, 2 when the file or the question cannot be read.';

const OPTIONS = {
  width: { type: 'string' },
  height: { type: 'string' },
  roll: { type: 'string' },
  mirror: { type: 'boolean' },
  copies: { type: 'string' },
  panels: { type: 'string' },
  overlap: { type: 'string' },
  reserve: { type: 'string' },
  'keep-whole': { type: 'string' },
  pack: { type: 'string' },
  spacing: { type: 'string' },
  turns: { type: 'string' },
  rounds: { type: 'string' },
  seed: { type: 'string' },
  'weed-lines': { type: 'string' },
  border: { type: 'string' },
  print: { type: 'boolean' },
  sheet: { type: 'string' },
  contour: { type: 'string' },
  bleed: { type: 'string' },
  marks: { type: 'string' },
  'cut-lines': { type: 'boolean' },
  choices: { type: 'string' },
  sharing: { type: 'string' },
  'order-number': { type: 'string' },
  trace: { type: 'string' },
  page: { type: 'string' },
  units: { type: 'string' },
  out: { type: 'string' },
} as const;

export function parse(args: string[]) {
  try {
    return parseArgs({ args, options: OPTIONS, allowPositionals: true });
  } catch (error) {
    throw new UsageProblem(`${(error as Error).message}\n${USAGE}`);
  }
}

export type Values = ReturnType<typeof parse>['values'];

export function oneOf<T extends string>(
  name: string,
  text: string | undefined,
  values: readonly T[],
): T | undefined {
  if (text === undefined) return undefined;
  const found = values.find((value) => value === text);
  if (found === undefined) throw new UsageProblem(`--${name} takes one of ${values.join(', ')}.`);
  return found;
}

export function count(name: string, text: string | undefined, usual: number): number {
  const value = text === undefined ? usual : Number(text);
  if (!Number.isInteger(value) || value < 0 || value > 1e6)
    throw new UsageProblem(`--${name} takes a whole number from 0 to 1000000.`);
  return value;
}

/** A length that may be nought. */
export function roomOption(name: string, text: string | undefined): number | undefined {
  if (text === undefined) return undefined;
  const parsed = parseLength(text, 'mm');
  if (!parsed.ok) throw new UsageProblem(`--${name}: ${parsed.message}`);
  if (parsed.mm < 0) throw new UsageProblem(`--${name} cannot be less than nought.`);
  return parsed.mm;
}

export function lengthOption(name: string, text: string | undefined): number | undefined {
  if (text === undefined) return undefined;
  const parsed = parseLength(text, 'mm');
  if (!parsed.ok) throw new UsageProblem(`--${name}: ${parsed.message}`);
  if (parsed.mm <= 0) throw new UsageProblem(`--${name} has to be more than nought.`);
  return parsed.mm;
}

/** A length that may lie inside too. */
export function signedOption(name: string, text: string | undefined): number | undefined {
  const inside = text?.trim().startsWith('-');
  const mm = roomOption(name, inside ? text!.trim().slice(1) : text);
  return mm === undefined || !inside ? mm : -mm;
}
